import { describe, expect, it } from "vitest";
import { inTurn } from "./in-turn";

describe("work in turn", () => {
  it("is done in the order asked for, however long each takes, and goes on after a failure", async () => {
    const done: string[] = [];
    const after = (ms: number, name: string) => async () => {
      await new Promise((end) => setTimeout(end, ms));
      done.push(name);
      return name;
    };
    const slow = inTurn(after(30, "slow"));
    const failed = inTurn(() => Promise.reject(new Error("It failed.")));
    const quick = inTurn(after(0, "quick"));
    await expect(failed).rejects.toThrow("It failed.");
    expect(done).toEqual(["slow"]);
    expect(await Promise.all([slow, quick])).toEqual(["slow", "quick"]);
    expect(done).toEqual(["slow", "quick"]);
  });
});
