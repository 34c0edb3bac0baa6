import { describe, expect, it } from "vitest";
import { progressOn } from "./progress";

function run(isTTY: boolean, times: readonly number[], fails = false): string[] {
  const said: string[] = [];
  let time = 0;
  const progress = progressOn("Packing", { isTTY, write: (text) => said.push(text.replace("\r\u001b[K", "<")) }, () => time);
  try {
    progress.during((at) => {
      for (const [k, each] of times.entries()) {
        time = each;
        at(k / times.length);
      }
      if (fails) throw new Error("It failed.");
    });
  } catch {
    // Told by the command; here only the line counts.
  }
  return said;
}

describe("progress on a terminal", () => {
  it("says nothing of short work", () => expect(run(true, [0, 200, 399])).toEqual([]));

  it("shows the progress of long work occasionally, and removes the line at the end", () =>
    expect(run(true, [0, 500, 550, 650])).toEqual(["<Packing 25 %, Ctrl+C stops it", "<Packing 75 %, Ctrl+C stops it", "<"]));

  it("removes the line on failure, so that the error stands alone", () =>
    expect(run(true, [0, 500], true)).toEqual(["<Packing 50 %, Ctrl+C stops it", "<"]));

  it("says nothing without a terminal", () => expect(run(false, [0, 500, 900])).toEqual([]));
});
