import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { eachInTime, inTime } from "./in-time";

const late = () => new Error("It does not answer.");

async function* counting(stuckAt: number, ended: () => void): AsyncGenerator<number, void> {
  try {
    for (let k = 0; k < 4; k++) {
      if (k === stuckAt) await new Promise(() => {});
      yield k;
    }
  } finally {
    ended();
  }
}

describe("waiting", () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());

  it("gives the answer, or its error", async () => {
    await expect(inTime(Promise.resolve(7), late)).resolves.toBe(7);
    await expect(inTime(Promise.reject(new Error("no")), late)).rejects.toThrow("no");
    expect(vi.getTimerCount()).toBe(0);
  });

  it("ends after two minutes without an answer", async () => {
    const waiting = expect(inTime(new Promise(() => {}), late)).rejects.toThrow("It does not answer.");
    await vi.advanceTimersByTimeAsync(120_000);
    await waiting;
  });

  it("passes on all values, and ends their source when it is left", async () => {
    const ended = vi.fn();
    const all: number[] = [];
    for await (const each of eachInTime(counting(-1, ended), late)) all.push(each);
    expect([all, ended.mock.calls.length]).toEqual([[0, 1, 2, 3], 1]);
    for await (const each of eachInTime(counting(-1, ended), late)) if (each === 1) break;
    await vi.advanceTimersByTimeAsync(0);
    expect(ended).toHaveBeenCalledTimes(2);
  });

  it("throws where the values stop coming", async () => {
    const all: number[] = [];
    const reading = (async () => {
      for await (const each of eachInTime(
        counting(2, () => {}),
        late,
      ))
        all.push(each);
    })();
    const refused = expect(reading).rejects.toThrow("It does not answer.");
    await vi.advanceTimersByTimeAsync(120_000);
    await refused;
    expect(all).toEqual([0, 1]);
  });
});
