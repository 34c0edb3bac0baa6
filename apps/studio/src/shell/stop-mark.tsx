import type { ReactNode } from "react";

/** A stop on the road: its number in an arch, its name, and a word on its state below; on narrow screens the arch alone. */
export function StopMark({ number, title, here, children }: { number: number; title: string; here: boolean; children: ReactNode }) {
  return (
    <>
      <span
        aria-hidden
        className={`number flex h-7.5 w-6.5 items-center justify-center rounded-t-full rounded-b-sm border-[1.5px] text-strong font-semibold ${here ? "border-now bg-now text-on-now" : "border-lapis bg-raised text-lapis"}`}
      >
        {number}
      </span>
      <span className="max-[56.1875em]:sr-only pointer-coarse:max-[68.6875em]:sr-only">
        <span className={`block text-strong font-semibold ${here ? "text-now-text" : ""}`}>{title}</span>
        {children}
      </span>
    </>
  );
}

/** Space and padding of a stop, whether or not it can be pressed yet. */
export const STOP_MARK =
  "flex min-h-11 items-center gap-2 rounded-box px-1.5 text-left max-[56.1875em]:px-1 pointer-coarse:max-[68.6875em]:px-1";

/** The piece of road that leads to a stop. */
export const ROAD_PIECE = "road mx-1 h-2 min-w-0 grow max-[68.6875em]:mx-0";
