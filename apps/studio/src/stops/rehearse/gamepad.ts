/** Reads a gamepad as keys: the stick and cross move, the buttons work the stage's inputs in order. */
import type { Going, Stage } from "@caravan/core/model";
import { type Control, control } from "./session";

/** So far a stick is out before it means a way to go. */
const OUT = 0.4;
/** The cross, by the standard layout's numbers of its buttons. */
const CROSS: readonly (readonly [button: number, go: Going])[] = [
  [12, "up"],
  [13, "down"],
  [14, "left"],
  [15, "right"],
];

/** Reports changes since the last call; returns what is held now, as text for comparison. */
export function pollGamepad(stage: Stage | null, before: ReadonlySet<string>): ReadonlySet<string> {
  const pad = stage && (navigator.getGamepads?.() ?? []).find((each) => each?.connected);
  if (!stage || !pad) return before;
  const now = new Set<string>();
  const [x = 0, y = 0] = pad.axes;
  if (x < -OUT) now.add("go left");
  if (x > OUT) now.add("go right");
  if (y < -OUT) now.add("go up");
  if (y > OUT) now.add("go down");
  for (const [button, go] of CROSS) if (pad.buttons[button]?.pressed) now.add(`go ${go}`);
  const inputs = stage.keys.flatMap((key) => ("input" in key ? [key.input] : []));
  for (const [k, input] of inputs.entries()) if (pad.buttons[k]?.pressed) now.add(`input ${input}`);
  for (const each of now) if (!before.has(each)) control(controlOf(each), true);
  for (const each of before) if (!now.has(each)) control(controlOf(each), false);
  return now;
}

function controlOf(text: string): Control {
  return text.startsWith("go ") ? { go: text.slice(3) as Going } : { input: text.slice(6) };
}
