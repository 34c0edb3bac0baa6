/** Shows the progress of long work to a person at a terminal. Prints nothing to pipes or logs. */

import { isQuiet } from "./output";

/** The output stream. */
export interface Terminal {
  readonly isTTY?: boolean;
  write(text: string): unknown;
}

export interface ProgressOnTerminal {
  /** Runs the work, showing its progress from 0 to 1; the line disappears afterwards, also on failure. */
  during<Answer>(work: (at: (done: number) => void) => Answer): Answer;
}

/** Work that is shorter is not talked about. */
const PATIENCE = 400; // ms
/** The line is written no oftener. */
const PAUSE = 100; // ms

/** One line on the terminal, such as `Packing 42 %, Ctrl+C stops it`; `now` returns milliseconds. */
export function progressOn(
  label: string,
  terminal: Terminal = process.stderr,
  now: () => number = () => performance.now(),
): ProgressOnTerminal {
  const begun = now();
  let written = Number.NEGATIVE_INFINITY;
  const at = (done: number) => {
    const time = now();
    if (!terminal.isTTY || isQuiet() || time - begun < PATIENCE || time - written < PAUSE) return;
    written = time;
    terminal.write(`\r\u001b[K${label} ${Math.floor(done * 100)} %, Ctrl+C stops it`);
  };
  return {
    during(work) {
      try {
        return work(at);
      } finally {
        if (written > Number.NEGATIVE_INFINITY) terminal.write("\r\u001b[K");
      }
    },
  };
}
