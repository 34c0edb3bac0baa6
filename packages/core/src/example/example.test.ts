import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Atlas, AtlasClip, AtlasFrame } from "../atlas";
import { textFromUtf8 } from "../codec";
import { clearPixels, coverageOf } from "../raster";
import { filesInShape, learnExample, shapeOf } from ".";
import {
  atlasOfExample,
  BLOCKS,
  KEYED,
  LAST_INSIDE,
  LINED,
  LISTED,
  NESTED,
  NUMBERED,
  PAGED,
  PAIRED,
  PUSHED,
  TABLED,
  TAGGED,
} from "./examples.fixture";
import type { Traits } from "./shape";

/** As a spreadsheet writes it where decimals follow a comma. */
const WITH_COMMAS = TABLED.replaceAll(/(\d)\.(\d)/g, "$1,$2");
const EXAMPLES = { KEYED, TAGGED, TABLED, WITH_COMMAS, LINED, NESTED, PAIRED, PAGED, LISTED, BLOCKS };

function written(text: string, atlas = atlasOfExample(text)) {
  const { example, told } = learnExample(text, "in/hero.data", null);
  const { files, notes } = filesInShape(shapeOf(example), atlas, "out");
  return { text: textFromUtf8(files[0]?.bytes ?? new Uint8Array()), files, notes, told };
}

const plain = (text: string) => text.replace(/\s+/g, " ").trim();

describe("an example's own content, written in its shape,", () => {
  it.each(Object.entries(EXAMPLES))("gives back the example: %s", (_name, text) => {
    const { files } = written(text);
    expect(files.map(({ bytes }) => plain(textFromUtf8(bytes)))).toEqual([plain(text)]);
  });
});

describe("an example whose conventions its picture settles,", () => {
  const rects = [
    { x: 0, y: 0, w: 32, h: 32 },
    { x: 32, y: 0, w: 30, h: 32 },
    { x: 64, y: 40, w: 32, h: 33 },
  ];
  const picture = clearPixels(128, 96);
  for (const { x, y, w, h } of rects)
    for (let row = y; row < y + h; row++) picture.bytes.fill(255, (row * 128 + x) * 4, (row * 128 + x + w) * 4);
  const seen = { picture: "hero.png", coverage: coverageOf(picture) };
  const frame = (rect: AtlasFrame["rect"]): AtlasFrame => ({
    ...{ page: 0, rect, turned: false, inset: { x: 0, y: 0 }, size: { w: rect.w, h: rect.h }, origin: { x: 0, y: 0 } },
  });
  const atlas = (rects: Record<string, AtlasFrame["rect"]>): Atlas => ({
    ...{ format: "caravan-atlas", version: 1, clips: {}, actions: {} },
    pages: [{ image: "hero.png", width: 128, height: 96, scale: 1, filter: "nearest" }],
    frames: Object.fromEntries(Object.entries(rects).map(([name, rect]) => [name, frame(rect)])),
  });
  const inShape = (text: string, file: string, content: Atlas) => {
    const { example } = learnExample(text, file, seen);
    return textFromUtf8(filesInShape(shapeOf(example), content, "out").files[0]?.bytes ?? new Uint8Array());
  };

  it("is written with the signs that push a picture to the left and up", () => {
    const own = atlas({ "walk-0": rects[0] as never, "walk-1": rects[1] as never, rest: rects[2] as never });
    expect(plain(inShape(PUSHED, "in/hero.json", own))).toBe(plain(PUSHED));
    expect(inShape(PUSHED, "in/hero.json", atlas({ leap: { x: 40, y: 8, w: 20, h: 9 } }))).toContain('"x": -40, "y": -8, "w": 20, "h": 9');
  });

  it("is written with the last pixels inside; reading them as sizes fails the proof", () => {
    const own = atlas({ "walk 0": rects[0] as never, "walk 1": rects[1] as never, rest: rects[2] as never });
    expect(plain(inShape(LAST_INSIDE, "in/hero.json", own))).toBe(plain(LAST_INSIDE));
    const blind = shapeOf(learnExample(LAST_INSIDE, "in/hero.json", null).example);
    expect(() => filesInShape(blind, atlasOfExample(LAST_INSIDE), "out")).toThrow(/reaches to 159, 112, outside the 128 × 96 px picture/);
  });

  it("is written with cells counted from 1", () => {
    const cell = (k: number) => ({ x: (k % 4) * 32, y: Math.floor(k / 4) * 32, w: 32, h: 32 });
    const own = atlas({ "walk 0": cell(0), "walk 1": cell(1), rest: cell(6) });
    expect(plain(inShape(NUMBERED, "in/hero.json", own))).toBe(plain(NUMBERED));
  });
});

/** Another game's frames and clips, as far as a shape has room for them. */
function atlases({ trims, turns, pages: kind }: Traits, blanks: boolean): fc.Arbitrary<Atlas> {
  const name = fc.stringMatching(/^[a-zäö&<" ']{1,8}[0-9]{0,2}$/).filter((each) => each.trim() === each && (blanks || !each.includes(" ")));
  const frame = fc.record({
    page: fc.nat(kind === "one" ? 0 : 1),
    x: fc.nat(90),
    y: fc.nat(90),
    w: fc.integer({ min: 1, max: 30 }),
    h: fc.integer({ min: 1, max: 30 }),
    right: fc.nat(5),
    turned: fc.boolean(),
    ox: fc.nat(20),
    oy: fc.nat(60),
  });
  const made = ({
    page,
    x,
    y,
    w,
    h,
    right,
    turned,
    ox,
    oy,
  }: {
    page: number;
    x: number;
    y: number;
    w: number;
    h: number;
    right: number;
    turned: boolean;
    ox: number;
    oy: number;
  }): AtlasFrame => {
    const upright = turned && turns ? { w: h, h: w } : { w, h };
    const more = trims ? right : 0;
    return {
      page,
      rect: { x, y, w, h },
      turned: turned && turns,
      inset: { x: more, y: trims ? 2 : 0 },
      size: { w: upright.w + 2 * more, h: upright.h + (trims ? 3 : 0) },
      origin: { x: ox / 2, y: oy / 2 },
    };
  };
  return fc
    .record({
      frames: fc.uniqueArray(fc.tuple(name, frame), { minLength: 1, maxLength: 9, selector: ([each]) => each }),
      clips: fc.uniqueArray(
        fc.tuple(
          name,
          fc.array(fc.tuple(fc.nat(8), fc.integer({ min: 1, max: 900 })), { minLength: 1, maxLength: 6 }),
          fc.constantFrom("loop", "once", "pingpong"),
        ),
        { maxLength: 4, selector: ([each]) => each },
      ),
    })
    .map(({ frames, clips }): Atlas => {
      const names = frames.map(([each]) => each);
      return {
        format: "caravan-atlas",
        version: 1,
        pages: ["new-0.png", "new-1.png"]
          .slice(0, kind === "one" ? 1 : 2)
          .map((image) => ({ image, width: 128, height: 256, scale: 1, filter: "nearest" })),
        frames: Object.fromEntries(frames.map(([each, rest]) => [each, made(rest)])),
        clips: Object.fromEntries(
          clips.map(([each, steps, playback]): [string, AtlasClip] => [
            each,
            {
              steps: steps.map(([k, ms]) => ({ frame: names[k % names.length] as string, ms })),
              playback: playback as AtlasClip["playback"],
              times: 0,
              loopFrom: 0,
              after: "hold",
            },
          ]),
        ),
        actions: {},
      };
    });
}

describe("other content in the shape of an example", () => {
  // Each file is read back as the example was read, and compared, before it is given out.
  it.each(Object.entries(EXAMPLES))("reads back as the same frames and clips: %s", (_name, text) => {
    const { example } = learnExample(text, "hero.data", null);
    const shape = shapeOf(example);
    fc.assert(
      fc.property(atlases(shape.traits, example.reading.container !== "sections"), (atlas) => {
        const { files } = filesInShape(shape, atlas, "out");
        expect(files).toHaveLength(1);
      }),
      { numRuns: 120 },
    );
  });

  it("gives copies of a frame readable names, where a range of numbers needs a frame twice", () => {
    const shape = shapeOf(learnExample(EXAMPLES.LISTED, "hero.data", null).example);
    const frame = {
      page: 0,
      rect: { x: 0, y: 0, w: 4, h: 4 },
      turned: false,
      inset: { x: 0, y: 0 },
      size: { w: 4, h: 4 },
      origin: { x: 2, y: 4 },
    };
    const steps = ["12", "x0", "12"].map((name) => ({ frame: name, ms: 50 }));
    const { files } = filesInShape(
      shape,
      {
        format: "caravan-atlas",
        version: 1,
        pages: [{ image: "new.png", width: 64, height: 64, scale: 1, filter: "nearest" }],
        frames: { "12": frame, x0: { ...frame, rect: { ...frame.rect, x: 8 } } },
        clips: { sway: { steps, playback: "loop", times: 0, loopFrom: 0, after: "hold" } },
        actions: {},
      },
      "out",
    );
    const { pieces } = JSON.parse(textFromUtf8(files[0]?.bytes ?? new Uint8Array()));
    expect(pieces.map(({ label }: { label: string }) => label)).toEqual(["12", "x0", "12_2", "x0_2", "12_3"]);
  });

  const demo: Atlas = {
    format: "caravan-atlas",
    version: 1,
    pages: [{ image: "camp.png", width: 64, height: 32, scale: 1, filter: "nearest" }],
    frames: {
      "fire/0": {
        page: 0,
        rect: { x: 1, y: 2, w: 14, h: 19 },
        turned: false,
        inset: { x: 1, y: 5 },
        size: { w: 16, h: 24 },
        origin: { x: 8, y: 24 },
      },
      "fire/1": {
        page: 0,
        rect: { x: 20, y: 2, w: 18, h: 12 },
        turned: true,
        inset: { x: 2, y: 6 },
        size: { w: 16, h: 24 },
        origin: { x: 7.5, y: 24 },
      },
    },
    clips: {
      burn: {
        steps: [
          { frame: "fire/0", ms: 90 },
          { frame: "fire/1", ms: 110, events: ["crackle"] },
        ],
        playback: "loop",
        times: 0,
        loopFrom: 0,
        after: "hold",
      },
    },
    actions: {},
  };

  it("keeps constants, spells numbers like the example, and fills in derived values", () => {
    const { text, notes } = written(KEYED, demo);
    const file = JSON.parse(text);
    expect(file).toEqual({
      made: "by hand, in spring",
      picture: { file: "camp.png", size: { w: 64, h: 32 }, scale: 1 },
      total: 2,
      frames: {
        "fire/0.png": {
          bounds: { x: 1, y: 2, w: 14, h: 19 },
          turned: false,
          trimmed: true,
          whole: { w: 16, h: 24 },
          trimOffset: { x: 1, y: 5, w: 14, h: 19 },
          pivot: { x: 0.5, y: 1 },
          note: "a",
        },
        "fire/1.png": {
          bounds: { x: 20, y: 2, w: 12, h: 18 },
          turned: true,
          trimmed: true,
          whole: { w: 16, h: 24 },
          trimOffset: { x: 2, y: 6, w: 12, h: 18 },
          pivot: { x: 0.47, y: 1 },
          note: "b",
        },
      },
      moves: { burn: { frames: ["fire/0.png", "fire/1.png"], fps: 10, loop: true } },
    });
    expect(text).toContain('"y": 1.0}');
    expect(notes).toEqual([
      "out.data: its shape has one duration for all steps; the mean was written for burn.",
      "out.data: its shape cannot hold the events of burn.",
    ]);
  });

  it("writes rows of a table step by step, with facings in the example's words", () => {
    const clips = { "walk-w": demo.clips.burn, "walk-n": demo.clips.burn } as Atlas["clips"];
    const flat = Object.fromEntries(
      Object.entries(demo.frames).map(([name, frame]) => [
        name,
        { ...frame, turned: false, rect: { ...frame.rect, w: 16, h: 24 }, inset: { x: 0, y: 0 } },
      ]),
    );
    const atlas = { ...demo, frames: flat, clips, actions: { walk: { facings: { w: { clip: "walk-w" }, n: { clip: "walk-n" } } } } };
    const { text } = written(TABLED, atlas);
    expect(written(WITH_COMMAS, atlas).text).toBe(text.replaceAll(/(\d)\.(\d)/g, "$1,$2"));
    expect(text.split("\n")).toEqual([
      "# hero, by hand",
      "animation;direction;file;x;y;w;h;seconds",
      "walk;left;camp.png;1;2;16;24;0.09",
      "walk;left;camp.png;20;2;16;24;0.11",
      "walk;up;camp.png;1;2;16;24;0.09",
      "walk;up;camp.png;20;2;16;24;0.11",
      "",
    ]);
  });

  it("lists for every field its content, what stays, and what cannot be expressed", () => {
    const { told } = written(KEYED);
    const lines = new Map(told.lines.map(({ path, written: from }) => [path, from]));
    expect(lines.get("frames.*#")).toBe("name of the frame + .png");
    expect(lines.get("frames.*.trimOffset.w")).toBe("width");
    expect(lines.get("frames.*.trimmed")).toBe("whether it is trimmed");
    expect(lines.get("made")).toBeNull();
    expect(lines.get("total")).toBe("number of frames");
    expect(told.strange).toEqual(["frames.*.note"]);
    expect(told.noPlace).toContain("ping-pong playback");
  });

  it("refuses a name that the shape cannot spell, and says why", () => {
    const frames = { "fire 0": demo.frames["fire/0"] as AtlasFrame };
    expect(() => written(LINED, { ...demo, frames, clips: {} })).toThrow(/"fire 0": The example's shape cannot hold this name/);
  });

  it("makes one file per page if the example holds one", () => {
    const pages = [...demo.pages, { image: "camp-1.png", width: 16, height: 24, scale: 1, filter: "nearest" as const }];
    const moved = { ...demo.frames, "fire/1": { ...(demo.frames["fire/0"] as AtlasFrame), page: 1, rect: { x: 0, y: 0, w: 14, h: 19 } } };
    const { files, notes } = written(KEYED, { ...demo, pages, frames: moved });
    expect(files.map(({ path }) => path)).toEqual(["out-0.data", "out-1.data"]);
    expect(JSON.parse(textFromUtf8(files[1]?.bytes as Uint8Array))).toMatchObject({
      picture: { file: "camp-1.png", size: { w: 16, h: 24 } },
      total: 1,
    });
    expect(notes.join()).toMatch(/1 clips lie on several pages/);
  });
});

describe("an example that cannot be learned from", () => {
  it.each([
    ["of one frame", '{"frames": [{"name": "a", "x": 0, "y": 0, "w": 4, "h": 4}]}', /fewer than two frames/],
    ["of no frames", '{"people": [{"name": "a", "age": 3}]}', /looked for x, y, width and height/],
    ["longer than a million characters", `[${" ".repeat(1_000_001)}]`, /longer than a million/],
    [
      "with a single clip in XML",
      `<s><f n="a" x="0" y="0" w="4" h="4"/><f n="b" x="4" y="0" w="4" h="4"/><anims><anim name="go"><show f="a" ms="9"/><show f="b" ms="9"/></anim></anims></s>`,
      /only one record/,
    ],
  ])("%s", (_what, text, message) => expect(() => learnExample(text, "in/hero.data", null)).toThrow(message));
});
