import { describe, expect, it } from "vitest";
import { utf8 } from "../codec";
import { readReceipt, receiptAfter, writeReceipt } from "./receipt";

const sha = (letter: string) => letter.repeat(64);
const first = receiptAfter(new Map(), [{ path: "a.png", sha256: sha("a") }], "build one").receipt;

describe("the list of delivered files", () => {
  it("is read back as written, in the order of paths", () => {
    const { receipt } = receiptAfter(first, [{ path: "A.json", sha256: sha("b") }], "build two");
    expect(readReceipt(writeReceipt(receipt))).toEqual(receipt);
    expect([...readReceipt(writeReceipt(receipt)).keys()]).toEqual(["A.json", "a.png"]);
  });

  it("names what the same delivery no longer makes, and nothing of others", () => {
    expect(receiptAfter(first, [{ path: "b.png", sha256: sha("c") }], "build one").left).toEqual(["a.png"]);
    expect(receiptAfter(first, [{ path: "b.png", sha256: sha("c") }], "build two").left).toEqual([]);
  });

  it("counts nothing as ours if it cannot be read", () => {
    for (const text of ["", "{", "[]", '{"format":"caravan-delivered","version":1,"files":[{"path":"a"}]}'])
      expect(readReceipt(utf8(text)).size).toBe(0);
    expect(readReceipt(null).size).toBe(0);
  });
});
