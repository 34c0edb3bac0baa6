import { describe, expect, it } from "vitest";
import { progressOn } from "./progress";

function run(isTTY: boolean, times: readonly number[]): string[] {
  const said: string[] = [];
  let time = 0;
  const progress = progressOn("Packing", { isTTY, write: (text) => said.push(text.replace("\r\u001b[K", "<")) }, () => time);
  for (const [k, each] of times.entries()) {
    time = each;
    progress.at(k / times.length);
  }
  progress.end();
  return said;
}

describe("progress on a terminal", () => {
  it("says nothing of short work", () => expect(run(true, [0, 200, 399])).toEqual([]));

  it("says how far long work is, now and then, and takes the line away at the end", () =>
    expect(run(true, [0, 500, 550, 650])).toEqual(["<Packing 25 %, Ctrl+C stops it", "<Packing 75 %, Ctrl+C stops it", "<"]));

  it("says nothing where nobody watches", () => expect(run(false, [0, 500, 900])).toEqual([]));
});
