import { describe, expect, it } from "vitest";
import { Turns } from "./turns";

const gate = () => {
  let open = () => {};
  const done = new Promise<void>((resolve) => {
    open = resolve;
  });
  return { done, open };
};
const settle = () => new Promise((resolve) => setTimeout(resolve, 5));

describe("turns", () => {
  it("runs a limited number, queues a limited number, and refuses the rest at once", async () => {
    const turns = new Turns(2, 3);
    const gates = Array.from({ length: 6 }, gate);
    const begun: number[] = [];
    const all = gates.map(({ done }, k) =>
      turns.take(async () => {
        begun.push(k);
        await done;
        return k;
      }),
    );
    expect(await all[5]).toBe(null);
    expect(begun).toEqual([0, 1]);
    gates[1]?.open();
    expect(await all[1]).toBe(1);
    await settle();
    expect(begun).toEqual([0, 1, 2]);
    for (const { open } of gates) open();
    expect(await Promise.all(all.slice(0, 5))).toEqual([0, 1, 2, 3, 4]);
    expect(begun).toEqual([0, 1, 2, 3, 4]);
    expect(await turns.take(async () => "again")).toBe("again");
  });

  it("gives the turn on when work fails", async () => {
    const turns = new Turns(1, 1);
    const failing = turns.take(async () => {
      await settle();
      throw new Error("no");
    });
    const next = turns.take(async () => "yes");
    await expect(failing).rejects.toThrow("no");
    expect(await next).toBe("yes");
  });
});
