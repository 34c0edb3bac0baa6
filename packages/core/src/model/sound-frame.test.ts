import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { porterProject } from "../edit/project.fixture";
import { isSoundFrame } from "./sound-frame";
import { Frame } from "./source";

const plain = porterProject().sources[0]?.frames[0] as Frame;
const full = {
  ...plain,
  picture: 2,
  turned: "counter",
  size: { w: 20, h: 20 },
  inset: { x: 1, y: 2 },
  name: "walk/0",
  origin: { x: 3.5, y: 4 },
  marks: {
    boxes: { body: [{ x: -1, y: 0, w: 4, h: 4 }] },
    points: { hand: { x: 1, y: 2.5, angle: 90 } },
    outlines: {
      solid: [],
      hurt: [
        [
          { x: 0, y: 0 },
          { x: 4, y: 0 },
          { x: 4, y: 4 },
        ],
      ],
    },
  },
  data: [{ name: "weight", value: 3 }],
  dropped: true,
} as unknown as Frame;

const odd = fc.constantFrom<unknown>(
  undefined,
  null,
  -1,
  0.5,
  2 ** 60,
  Number.NaN,
  "",
  "x",
  true,
  false,
  [],
  {},
  [{}],
  { x: 1, y: 1 },
  { w: 1, h: 1 },
  [[]],
);
const names = fc.constantFrom(
  "x",
  "w",
  "__proto__",
  "constructor",
  "body",
  "marks",
  "\ud83d",
  "a".repeat(201),
  "turned",
  "key",
  "boxes",
  "more",
);

/** A copy of a value with one thing in it, at any depth, replaced, removed or added. */
function spoiled(value: unknown, path: readonly number[], name: string, by: unknown, remove: boolean): unknown {
  if (typeof value !== "object" || value === null || path.length === 0) return by;
  const entries = Object.entries(value);
  const [first = 0, ...rest] = path;
  const place = first % (entries.length + 1);
  if (place === entries.length) return Array.isArray(value) ? [...value, by] : { ...value, [name]: by };
  const changed = entries.flatMap(([key, each], k): [string, unknown][] =>
    k !== place ? [[key, each]] : remove && rest.length === 0 ? [] : [[key, spoiled(each, rest, name, by, remove)]],
  );
  return Array.isArray(value) ? changed.map(([, each]) => each) : Object.fromEntries(changed);
}

describe("isSoundFrame", () => {
  it("accepts frames with and without all that a frame may have", () => {
    for (const frame of [plain, full, { ...full, name: "other" }]) {
      expect(Frame.safeParse(frame).success).toBe(true);
      expect(isSoundFrame(frame as Frame)).toBe(true);
    }
  });

  it("never accepts what the schema refuses, however a frame is spoiled, also when its parts passed before", () => {
    isSoundFrame(full);
    fc.assert(
      fc.property(fc.array(fc.nat(20), { minLength: 1, maxLength: 5 }), names, odd, fc.boolean(), (path, name, by, remove) => {
        const frame = spoiled(full, path, name, by, remove) as Frame;
        if (typeof frame === "object" && frame !== null && isSoundFrame(frame)) expect(Frame.safeParse(frame).success).toBe(true);
      }),
      { numRuns: 3000 },
    );
  });

  it("leaves to the schema what it does not know", () => {
    for (const frame of [{ ...plain, more: 1 }, { ...plain, key: undefined }, Object.create(plain), { ...plain, marks: { lines: {} } }])
      expect(isSoundFrame(frame as Frame)).toBe(false);
  });
});
