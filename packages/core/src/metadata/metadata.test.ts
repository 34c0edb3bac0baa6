import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Rect } from "../model";
import { clearPixels, coverageOf } from "../raster";
import { readClips, readFrames, recognise } from ".";

/** Eight figures on a packed 128 × 96 px picture, unlike in size. */
const PLACES: readonly (readonly [name: string, rect: Rect])[] = [
  ["walk_0", { x: 2, y: 2, w: 20, h: 34 }],
  ["walk_1", { x: 24, y: 2, w: 22, h: 33 }],
  ["walk_2", { x: 48, y: 2, w: 19, h: 35 }],
  ["walk_3", { x: 70, y: 2, w: 21, h: 34 }],
  ["strike_0", { x: 2, y: 40, w: 30, h: 32 }],
  ["strike_1", { x: 34, y: 40, w: 36, h: 30 }],
  ["strike_2", { x: 72, y: 40, w: 40, h: 28 }],
  ["strike_3", { x: 94, y: 2, w: 24, h: 36 }],
];

function coverageFor(rects: readonly Rect[], width = 128, height = 96) {
  const pixels = clearPixels(width, height);
  for (const { x, y, w, h } of rects)
    for (let row = y; row < y + h; row++)
      for (let column = x; column < x + w; column++) {
        // A rounded body that reaches all four sides.
        const dx = (column - x + 0.5) / w - 0.5;
        const dy = (row - y + 0.5) / h - 0.5;
        if (dx * dx + dy * dy <= 0.3) pixels.bytes[(row * width + column) * 4 + 3] = 255;
      }
  return coverageOf(pixels);
}

const PACKED = { picture: "hero.png", coverage: coverageFor(PLACES.map(([, rect]) => rect)) };

function understood(text: string, described: { picture: string; coverage: ReturnType<typeof coverageOf> } = PACKED) {
  const { parsed, reading } = recognise(text, described, "hero.data");
  const { frames, unplaced } = readFrames(parsed, reading, described);
  return { reading, frames, unplaced, clips: readClips(parsed, reading, frames) };
}

const places = (frames: readonly { name: string; rect: Rect }[]) => frames.map(({ name, rect }) => [name, rect]);
const names = (wanted: (name: string) => string = (name) => name) => PLACES.map(([name, rect]) => [wanted(name), rect]);

/** Structures of our own, deliberately unlike each other. */
describe("a metadata file is understood by its structure", () => {
  it("keyed records with a nested rectangle, full size, inset and shares of an origin", () => {
    const frames = Object.fromEntries(
      PLACES.map(([name, { x, y, w, h }]) => [
        name,
        { bounds: { x, y, w, h }, whole: { w: 48, h: 48 }, trimOffset: { x: 4, y: 48 - h }, pivot: { x: 0.5, y: 1 } },
      ]),
    );
    const { frames: found, reading } = understood(JSON.stringify({ made: "by hand", frames }));
    expect(places(found)).toEqual(names());
    expect(found[0]).toMatchObject({ size: { w: 48, h: 48 }, inset: { x: 4, y: 14 }, origin: { x: 24, y: 48 }, turned: false });
    expect(reading.fields).toMatchObject({ name: "$key", x: "bounds.x", w: "bounds.w", fullW: "whole.w", insetX: "trimOffset.x" });
  });

  it("a list of records with flat names, times of their own, and animations as lists of names", () => {
    const sprites = PLACES.map(([name, { x, y, w, h }]) => ({
      spriteName: name,
      posX: x,
      posY: y,
      frameWidth: w,
      frameHeight: h,
      delay: 80,
    }));
    const animations = [
      { title: "walk", sequence: ["walk_0", "walk_1", "walk_2", "walk_3"], loop: true },
      { title: "strike", sequence: ["strike_0", "strike_1", "strike_2", "strike_3", "strike_1"], loop: false },
    ];
    const { frames, clips } = understood(JSON.stringify({ sprites, animations }));
    expect(places(frames)).toEqual(names());
    expect(clips.map(({ name, playback, steps }) => [name, playback, steps.map(({ frame }) => frame).join(" ")])).toEqual([
      ["walk", "loop", "walk_0 walk_1 walk_2 walk_3"],
      ["strike", "once", "strike_0 strike_1 strike_2 strike_3 strike_1"],
    ]);
    expect(clips[0]?.steps[0]?.ms).toBe(80);
  });

  it("lists of four numbers by name, with clips as runs of numbers in seconds a frame", () => {
    const text = JSON.stringify({
      rects: Object.fromEntries(PLACES.map(([name, { x, y, w, h }]) => [name, [x, y, w, h]])),
      clips: { walk: { from: 0, to: 3, secondsPerFrame: 0.125 }, strike: { from: 4, to: 7, secondsPerFrame: 0.05 } },
    });
    const { frames, clips } = understood(text);
    expect(places(frames)).toEqual(names());
    expect(clips.map(({ name, steps }) => [name, steps.length, steps[0]?.ms])).toEqual([
      ["walk", 4, 125],
      ["strike", 4, 50],
    ]);
  });

  it("lists of left, top, right, bottom without any names", () => {
    const text = JSON.stringify(PLACES.map(([, { x, y, w, h }]) => [x, y, x + w, y + h]));
    const { frames, reading } = understood(text);
    expect(frames.map(({ rect }) => rect)).toEqual(PLACES.map(([, rect]) => rect));
    expect(frames[3]?.name).toBe("hero_3");
    expect(reading.fields).toMatchObject({ x: "0", y: "1", right: "2", bottom: "3" });
  });

  it("XML with attributes, turned frames stored on their side, and full sizes", () => {
    const rows = PLACES.map(([name, { x, y, w, h }]) =>
      name === "strike_2"
        ? `<image id="${name}.png" x="${x}" y="${y}" w="${h}" h="${w}" rotated="true" sourceWidth="${h + 4}" sourceHeight="${w + 6}" offsetX="2" offsetY="3"/>`
        : `<image id="${name}.png" x="${x}" y="${y}" w="${w}" h="${h}" rotated="false" sourceWidth="${w}" sourceHeight="${h}" offsetX="0" offsetY="0"/>`,
    );
    const { frames } = understood(`<?xml version="1.0"?>\n<sheet file="hero.png">${rows.join("\n")}</sheet>`);
    expect(places(frames)).toEqual(names((name) => `${name}.png`));
    expect(frames[6]).toMatchObject({ turned: true, size: { w: 32, h: 46 }, inset: { x: 2, y: 3 } });
  });

  it("XML elements instead of attributes, with clips nested in it, steps with their own times", () => {
    const cells = PLACES.map(
      ([name, { x, y, w, h }]) =>
        `<part><label>${name}</label><left>${x}</left><top>${y}</top><width>${w}</width><height>${h}</height></part>`,
    );
    const text = `<doc><parts>${cells.join("")}</parts><movements><movement name="walk" repeat="true">
      <show frame="walk_0" duration="90"/><show frame="walk_2" duration="120"/></movement>
      <movement name="strike" repeat="false"><show frame="strike_1" duration="60"/><show frame="strike_2" duration="200"/></movement></movements></doc>`;
    const { frames, clips } = understood(text);
    expect(places(frames)).toEqual(names());
    expect(clips).toEqual([
      {
        name: "walk",
        facing: null,
        playback: "loop",
        times: 0,
        steps: [
          { frame: "walk_0", ms: 90, place: 0 },
          { frame: "walk_2", ms: 120, place: 1 },
        ],
      },
      {
        name: "strike",
        facing: null,
        playback: "once",
        times: 0,
        steps: [
          { frame: "strike_1", ms: 60, place: 0 },
          { frame: "strike_2", ms: 200, place: 1 },
        ],
      },
    ]);
  });

  it("XML of keys and values in turn, with rectangles written as text", () => {
    const entries = PLACES.map(
      ([name, { x, y, w, h }]) =>
        `<key>${name}</key><dict><key>place</key><string>{{${x},${y}},{${w},${h}}}</string><key>turned</key><false/></dict>`,
    );
    const { frames } = understood(`<plist><dict><key>pictures</key><dict>${entries.join("")}</dict></dict></plist>`);
    expect(places(frames)).toEqual(names());
  });

  it("a table with heads, origins in pixels from the bottom", () => {
    const rows = PLACES.map(([name, { x, y, w, h }]) => `${name};${x};${y};${w};${h};${w / 2};0`);
    const { frames, reading } = understood(["name;x;y;width;height;anchor x;anchor y", ...rows].join("\n"));
    expect(places(frames)).toEqual(names());
    expect(reading).toMatchObject({ container: "table", originAs: "pixels", originUp: true });
    expect(frames[0]?.origin).toEqual({ x: 10, y: 34 });
  });

  it("a table without a header, with unknown words", () => {
    const bare = understood(PLACES.map(([name, { x, y, w, h }]) => [name, x, y, w, h].join("\t")).join("\n"));
    expect(places(bare.frames)).toEqual(names());
    const text = JSON.stringify(PLACES.map(([name, { x, y, w, h }]) => ({ nom: name, gauche: x, haut: y, largeur: w, hauteur: h })));
    expect(places(understood(text).frames)).toEqual(names());
  });

  it("sections of key = value, frames per second for all, and clips by name prefixes", () => {
    const sections = PLACES.map(([name, { x, y, w, h }]) => `[${name}]\nx = ${x}\ny = ${y}\nw = ${w}\nh = ${h}\n`);
    const { frames, reading } = understood(sections.join("\n"));
    expect(places(frames)).toEqual(names());
    expect(reading.container).toBe("sections");
    const text = JSON.stringify({
      pieces: PLACES.map(([name, { x, y, w, h }]) => ({ id: name, rect: { left: x, top: y, right: x + w, bottom: y + h } })),
      clips: [
        { id: "go", prefix: "walk_", fps: 8, mode: "pingpong" },
        { id: "hit", prefix: "strike_", fps: 20, mode: "once" },
      ],
    });
    expect(understood(text).clips.map(({ name, playback, steps }) => [name, playback, steps.length, steps[0]?.ms])).toEqual([
      ["go", "pingpong", 4, 125],
      ["hit", "once", 4, 50],
    ]);
  });

  it("names on lines of their own with indented pairs below", () => {
    const text = PLACES.map(
      ([name, { x, y, w, h }]) =>
        `${name}\n  turned: no\n  at: ${x}, ${y}\n  extent: ${w}, ${h}\n  full: ${w + 6}, ${h + 2}\n  offset: 3, 2`,
    ).join("\n");
    const { frames } = understood(`hero.png\nscale: 1\nlook: crisp\n${text}`);
    expect(places(frames)).toEqual(names());
    expect(frames[0]).toMatchObject({ size: { w: 26, h: 36 }, inset: { x: 3, y: 2 } });
  });

  it("a rectangle under a key that every record has, which is a part of it and not its name", () => {
    const pieces = PLACES.map(([name, at]) => ({ label: name, place: at, ms: 80 }));
    const moves = [
      { name: "walk", from: 0, to: 3, way: "forward" },
      { name: "strike", from: 4, to: 7, way: "pingpong" },
    ];
    const { frames, clips } = understood(JSON.stringify({ pieces, moves }));
    expect(places(frames)).toEqual(names());
    expect(frames[0]?.ms).toBe(80);
    // How a clip plays is told by its words, whatever the field is called.
    expect(clips.map(({ name, playback }) => [name, playback])).toEqual([
      ["walk", "loop"],
      ["strike", "pingpong"],
    ]);
  });

  it("sides glued to words in small letters, and a picture around frames under any name", () => {
    const rows = PLACES.map(([name, { x, y, w, h }]) => `${name},${x},${y},${w},${h},${w / 2},${h}`);
    const { frames } = understood(["sprite,x,y,w,h,originx,originy", ...rows].join("\n"));
    expect(frames[0]?.origin).toEqual({ x: 10, y: 34 });
    const parts = PLACES.map(([name, { x, y, w, h }]) => `<s n="${name}" x="${x}" y="${y}" w="${w}" h="${h}"/>`);
    const half = (from: number) => parts.slice(from, from + 4).join("");
    const { reading } = understood(`<all><part img="hero.png">${half(0)}</part><part img="other.png">${half(4)}</part></all>`);
    expect(reading.fields).toMatchObject({ name: "n", picture: "../img" });
  });

  it("columns and rows, with the cell size given once, or found in the picture", () => {
    const rects = Array.from({ length: 12 }, (_, k) => ({ x: (k % 4) * 32 + 4, y: Math.floor(k / 4) * 32 + 3, w: 24, h: 29 }));
    const described = { picture: "crowd.png", coverage: coverageFor(rects, 128, 96) };
    const cells = Array.from({ length: 12 }, (_, k) => ({ pose: `pose ${k}`, col: k % 4, row: Math.floor(k / 4) }));
    const wanted = cells.map(({ pose, col, row }) => [pose, { x: col * 32, y: row * 32, w: 32, h: 32 }]);
    expect(places(understood(JSON.stringify({ cellWidth: 32, cellHeight: 32, poses: cells }), described).frames)).toEqual(wanted);
    expect(places(understood(JSON.stringify({ poses: cells }), described).frames)).toEqual(wanted);
  });

  it("frames that say which clip and direction they belong to", () => {
    const rows = PLACES.map(
      ([name, { x, y, w, h }], k) => `${name},${name.split("_")[0]},${k % 4 < 2 ? "left" : "right"},${x},${y},${w},${h},0.1`,
    );
    const { clips } = understood(["name,animation,direction,x,y,w,h,seconds", ...rows].join("\n"));
    expect(clips.map(({ name, facing, steps }) => [name, facing, steps.length, steps[0]?.ms])).toEqual([
      ["walk", "w", 2, 100],
      ["walk", "e", 2, 100],
      ["strike", "w", 2, 100],
      ["strike", "e", 2, 100],
    ]);
  });

  it("frames nested in their clips, which give the speed and the loop", () => {
    const list = (name: string) => PLACES.filter(([each]) => each.startsWith(name)).map(([, rect]) => rect);
    const moves = { walk: { fps: 8, loop: true, pictures: list("walk") }, strike: { fps: 20, loop: false, pictures: list("strike") } };
    const told = understood(JSON.stringify({ moves })).clips;
    expect(told.map(({ name, playback, steps }) => [name, playback, steps.length, steps[0]?.ms])).toEqual([
      ["walk", "loop", 4, 125],
      ["strike", "once", 4, 50],
    ]);
    const [four, more] = [list("walk"), list("strike")];
    const facings = { walk: { left: four.slice(0, 2), right: four.slice(2) }, strike: { left: more.slice(0, 2), right: more.slice(2) } };
    expect(understood(JSON.stringify(facings)).clips.map(({ name, facing, steps }) => [name, facing, steps.length])).toEqual([
      ["walk", "w", 2],
      ["walk", "e", 2],
      ["strike", "w", 2],
      ["strike", "e", 2],
    ]);
    const named = [
      { title: "walk", seconds: 0.1, frames: list("walk") },
      { title: "strike", seconds: 0.2, frames: list("strike") },
    ];
    expect(understood(JSON.stringify({ named })).clips.map(({ name, steps }) => [name, steps[3]?.ms])).toEqual([
      ["walk", 100],
      ["strike", 200],
    ]);
  });

  it("several pictures in one file: only this one's frames are placed, the others are listed", () => {
    const sheets = [
      { image: "hero.png", items: PLACES.map(([name, { x, y, w, h }]) => ({ name, x, y, w, h })) },
      { image: "other.png", items: [{ name: "rock_0", x: 0, y: 0, w: 8, h: 8 }] },
    ];
    const { frames, unplaced } = understood(JSON.stringify({ sheets }));
    expect(places(frames)).toEqual(names());
    expect(unplaced).toEqual([{ where: "sheets.1.items.0", why: "It belongs to the picture other.png.", on: "other.png" }]);
  });

  it("a clip that continues on another picture is given for both, its steps at their indexes", () => {
    const items = PLACES.map(([name, { x, y, w, h }], k) => ({ name, sheet: k < 4 ? "hero.png" : "other.png", x, y, w, h }));
    const shows = ["walk_0", "strike_1", "walk_1", "strike_0"];
    const { clips } = understood(JSON.stringify({ items, moves: [{ name: "dash", ms: 80, frames: shows }] }));
    expect(clips).toMatchObject([
      {
        name: "dash",
        steps: [
          { frame: "walk_0", ms: 80, place: 0 },
          { frame: "walk_1", ms: 80, place: 2 },
        ],
      },
    ]);
  });

  it("what does not fit is listed with its reason, the rest is placed", () => {
    const list = PLACES.map(([name, { x, y, w, h }]) => ({ name, x, y, w, h }));
    const { frames, unplaced } = understood(
      JSON.stringify([...list, { name: "far", x: 120, y: 2, w: 30, h: 10 }, { name: "flat", x: 2, y: 2, w: 0, h: 10 }]),
    );
    expect(places(frames)).toEqual(names());
    expect(unplaced.map(({ where }) => where)).toEqual(["8", "9"]);
    expect(unplaced[0]?.why).toMatch(/outside the 128 × 96 px picture/);
    expect(unplaced[1]?.why).toMatch(/0 × 10/);
  });

  it("several records of one rectangle stay separate frames", () => {
    const list = [...PLACES, ...PLACES.slice(0, 2)].map(([name, { x, y, w, h }], k) => ({ name: `${name}-${k}`, x, y, w, h }));
    expect(understood(JSON.stringify(list)).frames).toHaveLength(10);
  });
});

describe("a metadata file that cannot be read", () => {
  it("reports what was tried and what came closest", () =>
    expect(() =>
      understood(
        JSON.stringify({
          people: [
            { name: "a", age: 31 },
            { name: "b", age: 40 },
          ],
        }),
      ),
    ).toThrow(/looked for x, y, width and height.*people\.\*.*name, age.*128 × 96/s));
  it("refuses XML that defines entities", () =>
    expect(() => understood('<!DOCTYPE a [<!ENTITY x "yyyy">]><a><b x="1"/></a>')).toThrow(/defines entities/));
  it.each(["", "   ", "{", '{"frames": [', "<a><b></a>", "no structure at all", "1", "[]"])("refuses %j with a clear error", (text) =>
    expect(() => understood(text)).toThrow(/hero\.data: /),
  );
});

describe("a damaged metadata file, however damaged,", () => {
  const list = PLACES.map(([name, { x, y, w, h }]) => ({ name, x, y, w, h, pivot: { x: 0.5, y: 1 } }));
  const texts = [
    JSON.stringify({ frames: list, clips: { walk: { from: 0, to: 3, fps: 8 } } }),
    `<sheet>${list.map(({ name, x, y, w, h }) => `<f n="${name}" x="${x}" y="${y}" w="${w}" h="${h}"/>`).join("")}</sheet>`,
    ["name,x,y,w,h", ...list.map(({ name, x, y, w, h }) => [name, x, y, w, h].join(","))].join("\n"),
    list.map(({ name, x, y, w, h }) => `[${name}]\nx=${x}\ny=${y}\nw=${w}\nh=${h}`).join("\n"),
  ];
  const changes = fc.array(
    fc.record({
      at: fc.double({ min: 0, max: 1, noNaN: true }),
      cut: fc.nat(12),
      put: fc.stringMatching(/^[\][{}<>"=:,;0-9a-z&!/.\n-]{0,6}$/),
    }),
    { minLength: 1, maxLength: 5 },
  );
  it("gives frames inside the picture or an error that names it, and never hangs", () =>
    fc.assert(
      fc.property(fc.constantFrom(...texts), changes, (text, edits) => {
        let damaged = text;
        for (const { at, cut, put } of edits) {
          const place = Math.floor(at * damaged.length);
          damaged = damaged.slice(0, place) + put + damaged.slice(place + cut);
        }
        try {
          for (const { rect } of understood(damaged).frames) {
            expect(rect.x + rect.w).toBeLessThanOrEqual(128);
            expect(rect.y + rect.h).toBeLessThanOrEqual(96);
          }
        } catch (error) {
          expect(String(error)).toMatch(/hero\.data: /);
        }
      }),
      { numRuns: 250 },
    ));
});

describe("literal values of a file", () => {
  const rows = (change: (name: string, k: number) => object) =>
    JSON.stringify({ frames: PLACES.map(([name, { x, y, w, h }], k) => ({ name, x, y, w, h, ...change(name, k) })) });

  it("keeps quoted 0001, yes and no as names", () => {
    const { frames } = understood(rows((_, k) => ({ name: ["0001", "no", "yes", "0002", "on", "0x10", "007", "1e3"][k] })));
    expect(frames.map(({ name }) => name).slice(0, 4)).toEqual(["0001", "no", "yes", "0002"]);
    expect(frames[6]?.name).toBe("007");
  });

  it("keeps padded numbers of a table as names", () => {
    const table = ["name,x,y,w,h", ...PLACES.map(([, { x, y, w, h }], k) => `000${k},${x},${y},${w},${h}`)].join("\n");
    expect(understood(table).frames.map(({ name }) => name)).toEqual(PLACES.map((_, k) => `000${k}`));
  });

  it("knows quarter turns to either side, places no frame that is turned by 180°, and says so", () => {
    const degrees = [0, 90, 180, 270, -90].map((rotation) => ({ rotation }));
    const { frames, unplaced } = understood(rows((_, k) => degrees[k] ?? { rotation: 0 }));
    expect(frames.map(({ turned }) => turned)).toEqual([false, true, "counter", "counter", false, false, false]);
    expect(unplaced.map(({ why }) => why)).toEqual(["It is stored turned by 180°, but only quarter turns can be read."]);
  });

  it("decodes numeric entities of XML", () => {
    const xml = `<sheet>${PLACES.map(([, { x, y, w, h }], k) => `<cut name="r&#228;d&#x2d;${k}" x="${x}" y="${y}" w="${w}" h="${h}"/>`).join("")}</sheet>`;
    expect(understood(xml).frames.map(({ name }) => name)).toEqual(PLACES.map((_, k) => `räd-${k}`));
  });
});
