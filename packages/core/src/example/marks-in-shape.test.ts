import { describe, expect, it } from "vitest";
import type { Atlas } from "../atlas";
import { textFromUtf8 } from "../codec";
import { filesInShape, learnExample, shapeOf } from ".";

/** Frames with a box and a point under names of their own. */
const BALES = JSON.stringify({
  bales: [0, 1, 2].map((k) => ({
    ...{ label: `bale_${k}`, left: 2 + k * 24, top: 2, width: 20 + k, height: 34 },
    bumper: { left: 1 + k, top: 2, width: 15, height: 26 + k },
    grip: { x: 14 + k, y: 7 },
  })),
});

const atlas = (marks: readonly object[]): Atlas =>
  ({
    ...{ format: "caravan-atlas", version: 1, clips: {}, actions: {} },
    pages: [{ image: "out.png", width: 64, height: 64, scale: 1, filter: "nearest" }],
    frames: Object.fromEntries(
      marks.map((each, k) => [
        `f${k}`,
        {
          ...{ page: 0, rect: { x: k * 12, y: 0, w: 10, h: 12 }, turned: false },
          ...{ inset: { x: 0, y: 0 }, size: { w: 10, h: 12 }, origin: { x: 5, y: 12 } },
          ...each,
        },
      ]),
    ),
  }) as Atlas;

interface Written {
  readonly bumper: { left: number; top: number; width: number; height: number };
  readonly grip: { x: number; y: number };
}

function written(marks: readonly object[]) {
  const { example, told } = learnExample(BALES, "bales.json", null);
  const { files, notes } = filesInShape(shapeOf(example), atlas(marks), "out");
  const { bales }: { bales: Written[] } = JSON.parse(textFromUtf8(files[0]?.bytes ?? new Uint8Array()));
  return { told, notes, bales };
}

const box = { x: 2, y: 3, w: 6, h: 8 };

describe("boxes and points in the shape of an example", () => {
  it("are written if the example has them, and read back", () => {
    const { told, bales, notes } = written([
      { boxes: { bumper: [box] }, points: { grip: { x: 4.5, y: 6 } } },
      { boxes: { bumper: [{ x: -1, y: 0, w: 9, h: 12 }] }, points: { grip: { x: 1, y: 2 } } },
    ]);
    expect(told.unassigned).toEqual([]);
    expect(bales.map(({ bumper, grip }) => [bumper.left, bumper.top, bumper.width, bumper.height, grip.x, grip.y])).toEqual([
      [2, 3, 6, 8, 4.5, 6],
      [-1, 0, 9, 12, 1, 2],
    ]);
    expect(notes.filter((note) => /bumper|grip/.test(note))).toEqual([]);
  });

  it("are nothing for frames that have none, with a word, and so are kinds that it has no place for", () => {
    const { bales, notes } = written([{ boxes: { bumper: [box, box], blade: [box] } }, {}]);
    expect(bales[1]?.bumper).toEqual({ left: 0, top: 0, width: 0, height: 0 });
    expect(bales[1]?.grip).toEqual({ x: 0, y: 0 });
    expect(notes).toEqual(
      expect.arrayContaining([
        "out.json: its shape cannot hold blade.",
        "out.json: 1 of 2 frames have no bumper; they get 0.",
        "out.json: 2 of 2 frames have no grip; they get 0.",
        "out.json: its shape holds one box of a kind; others are left out.",
      ]),
    );
  });
});
