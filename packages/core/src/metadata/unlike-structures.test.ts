/** Structures of our own making, in notations and conventions as unlike each other as can be. */
import { describe, expect, it } from "vitest";
import type { Rect } from "../model";
import { type Coverage, clearPixels, coverageOf } from "../raster";
import { readClips, readFrames, recognise, understand } from ".";

const W = 128;
const H = 96;
const P: [string, number, number, number, number][] = [
  ["walk_0", 2, 2, 20, 34],
  ["walk_1", 24, 2, 22, 33],
  ["walk_2", 48, 2, 19, 35],
  ["walk_3", 70, 2, 21, 34],
  ["strike_0", 2, 40, 30, 32],
  ["strike_1", 34, 40, 36, 30],
  ["strike_2", 72, 40, 40, 28],
  ["strike_3", 94, 2, 24, 36],
];
function cov(rects: readonly (readonly [number, number, number, number])[]): Coverage {
  const pixels = clearPixels(W, H);
  for (const [x, y, w, h] of rects)
    for (let row = 0; row < h; row++)
      for (let column = 0; column < w; column++) {
        const dx = (column + 0.5) / w - 0.5;
        const dy = (row + 0.5) / h - 0.5;
        if (dx * dx + dy * dy <= 0.3) pixels.bytes[((y + row) * W + x + column) * 4 + 3] = 255;
      }
  return coverageOf(pixels);
}
const packed = cov(P.map(([, x, y, w, h]) => [x, y, w, h]));
const grid = cov(Array.from({ length: 12 }, (_, k) => [(k % 4) * 32 + 4, Math.floor(k / 4) * 32 + 3, 24, 29]));
const TEXTS: Record<string, readonly [text: string, coverage: Coverage]> = {
  css: [
    P.map(
      ([n, x, y, w, h]) => `.${n} {\n  background: url("hero.png") no-repeat -${x}px -${y}px;\n  width: ${w}px;\n  height: ${h}px;\n}`,
    ).join("\n"),
    packed,
  ],
  css2: [
    `.icon{display:inline-block}\n${P.map(([n, x, y, w, h]) => `.icon-${n}{background-position:-${x}px -${y}px;width:${w}px;height:${h}px}`).join("\n")}`,
    packed,
  ],
  lua: [
    `local t = {}\nt.frames = {\n${P.map(([n, x, y, w, h]) => `  { -- ${n}\n   x=${x},\n   y=${y},\n   width=${w},\n   height=${h},\n  },`).join("\n")}\n}\nreturn t`,
    packed,
  ],
  python: [`SPRITES = {\n${P.map(([n, x, y, w, h]) => `    '${n}': (${x}, ${y}, ${w}, ${h}),`).join("\n")}\n}\n`, packed],
  carray: [
    `typedef struct { int x, y, w, h; } rect_t;\nstatic const rect_t frames[8] = {\n${P.map(([n, x, y, w, h]) => `    {${x}, ${y}, ${w}, ${h}}, // ${n}`).join("\n")}\n};`,
    packed,
  ],
  javaConst: [
    P.map(([n, x, y, w, h]) => `public static final Rect ${n.toUpperCase()} = new Rect(${x}, ${y}, ${w}, ${h});`).join("\n"),
    packed,
  ],
  rust: [
    `pub const FRAMES: &[Frame] = &[\n${P.map(([n, x, y, w, h]) => `    Frame { name: "${n}", rect: Rect { x: ${x}, y: ${y}, w: ${w}, h: ${h} } },`).join("\n")}\n];`,
    packed,
  ],
  resourceText: [
    `${P.map(([_n, x, y, w, h], k) => `[cloth kind="patch" id="CL_${k}"]\nof = Picture("1")\ncut = Patch(${x}, ${y}, ${w}, ${h})\n`).join("\n")}\n[journey]\nmoves = [{\n"shows": [{\n"duration": 1.0,\n"patch": Cloth("CL_0")\n}, {\n"duration": 2.0,\n"patch": Cloth("CL_1")\n}],\n"loop": true,\n"name": "walk",\n"speed": 5.0\n}, {\n"shows": [{\n"duration": 1.0,\n"patch": Cloth("CL_4")\n}, {\n"duration": 1.0,\n"patch": Cloth("CL_5")\n}],\n"loop": false,\n"name": "strike",\n"speed": 10.0\n}]\n`,
    packed,
  ],
  yamlUp: [
    `made: 2\ncaravan:\n  packs:\n    bales:\n${P.map(([n, x, y, w, h], k) => `    - made: 2\n      name: ${n}\n      rect:\n        x: ${x}\n        y: ${H - y - h}\n        width: ${w}\n        height: ${h}\n      stands: 9\n      pivot: {x: 0.5, y: 0}\n      hem: {x: 0, y: 0, z: 0, w: 0}\n      knots: []\n      mark: ${k * 4321}ab`).join("\n")}\n    rest: []\n`,
    packed,
  ],
  indented: [
    `hero.png\nextent: 128,96\nlook: crisp\n${P.map(([n, x, y, w, h]) => `${n.replace(/_\d$/, "")}\n  turned: false\n  at: ${x}, ${y}\n  size: ${w}, ${h}\n  whole: 48, 48\n  offset: ${Math.floor((48 - w) / 2)}, 0\n  step: ${n.slice(-1)}`).join("\n")}`,
    packed,
  ],
  repeatedKeys: [
    `image=hero.png\ntent=48,48\nstands=24,40\n\n[walk]\nframes=4\ntime=800ms\nloop=looped\n${P.slice(0, 4)
      .map(([, x, y, w, h], k) => `frame=${k},0,${x},${y},${w},${h},${Math.floor(w / 2)},${h}`)
      .join("\n")}\n\n[strike]\nframes=4\ntime=400ms\nloop=play once\n${P.slice(4)
      .map(([, x, y, w, h], k) => `frame=${k},0,${x},${y},${w},${h},${Math.floor(w / 2)},${h}`)
      .join("\n")}\n`,
    packed,
  ],
  taggedRuns: [
    JSON.stringify({
      bales: Object.fromEntries(
        P.map(([n, x, y, w, h]) => [
          `${n}.png`,
          {
            cut: { x, y, w, h },
            turned: false,
            trimmed: true,
            inWhole: { x: Math.floor((48 - w) / 2), y: 48 - h, w, h },
            whole: { w: 48, h: 48 },
            duration: 100,
          },
        ]),
      ),
      about: {
        picture: "hero.png",
        extent: { w: 128, h: 96 },
        runs: [
          { name: "walk", from: 0, to: 3, way: "forward" },
          { name: "strike", from: 4, to: 7, way: "pingpong" },
        ],
      },
    }),
    packed,
  ],
  negativeInsets: [
    `<load picture="hero.png">${P.map(([n, x, y, w, h]) => `<bale name="${n}" x="${x}" y="${y}" width="${w}" height="${h}" insetX="-${Math.floor((48 - w) / 2)}" insetY="-${48 - h}" wholeWidth="48" wholeHeight="48"/>`).join("\n")}</load>`,
    packed,
  ],
  keysAndValues: [
    `<?xml version="1.0"?><load><dict><key>bales</key><dict>${P.map(([n, x, y, w, h]) => `<key>${n}.png</key><dict><key>cut</key><string>{{${x},${y}},{${w},${h}}}</string><key>turned</key><false/><key>inWhole</key><string>{{${((48 - w) / 2) | 0},${48 - h}},{${w},${h}}}</string><key>whole</key><string>{48,48}</string></dict>`).join("")}</dict><key>about</key><dict><key>extent</key><string>{128,96}</string><key>picture</key><string>hero.png</string></dict></dict></load>`,
    packed,
  ],
  offsetsCentre: [
    JSON.stringify(
      P.map(([n, x, y, w, h]) => ({
        name: n,
        x,
        y,
        width: w,
        height: h,
        offsetX: 0,
        offsetY: -(48 - h) / 2,
        originalWidth: 48,
        originalHeight: 48,
      })),
    ),
    packed,
  ],
  uv: [JSON.stringify(P.map(([n, x, y, w, h]) => ({ n, u: x / W, v: y / H, u2: (x + w) / W, v2: (y + h) / H }))), packed],
  uvUp: [
    [
      "name,s0,t0,s1,t1",
      ...P.map(([n, x, y, w, h]) =>
        [n, (x / W).toFixed(4), (1 - (y + h) / H).toFixed(4), ((x + w) / W).toFixed(4), (1 - y / H).toFixed(4)].join(),
      ),
    ].join("\n"),
    packed,
  ],
  gridOnly: [
    JSON.stringify({
      image: "hero.png",
      frameWidth: 32,
      frameHeight: 32,
      animations: { walk: { frames: [0, 1, 2, 3], frameRate: 8, repeat: -1 }, strike: { frames: [4, 5, 6], frameRate: 12, repeat: 0 } },
    }),
    grid,
  ],
  gridRange: [
    JSON.stringify({
      images: ["hero.png"],
      frames: { width: 32, height: 32, standX: 16, standY: 32 },
      animations: { walk: [0, 3, "idle", 0.5], strike: [4, 6, "walk"], idle: 7 },
    }),
    grid,
  ],
  gridRows: [
    JSON.stringify({
      tileSize: 32,
      clips: [
        { name: "walk", row: 0, frames: 4, fps: 8 },
        { name: "strike", row: 1, frames: 3, fps: 12, loop: false },
      ],
    }),
    grid,
  ],
  cellsInSteps: [
    `<rug name="hero" cellWidth="32" cellHeight="32" cells="12" columns="4"><picture source="hero.png" width="128" height="96"/><cell id="0"><moves><show cell="0" duration="100"/><show cell="1" duration="120"/></moves></cell><cell id="4"><moves><show cell="4" duration="100"/><show cell="5" duration="100"/><show cell="6" duration="100"/></moves></cell></rug>`,
    grid,
  ],
  sexpr: [
    `(atlas "hero.png"\n (size 128 96)\n${P.map(([n, x, y, w, h]) => ` (sprite "${n}" (pos ${x} ${y}) (size ${w} ${h}))`).join("\n")})`,
    packed,
  ],
  labelled: [P.map(([n, x, y, w, h]) => `${n}: x=${x} y=${y} w=${w} h=${h}`).join("\n"), packed],
  geometry: [P.map(([n, x, y, w, h]) => `${n} ${w}x${h}+${x}+${y}`).join("\n"), packed],
  arrows: [P.map(([n, x, y, w, h]) => `${n} -> (${x}, ${y}) - (${x + w}, ${y + h})`).join("\n"), packed],
  oneLineCalls: [`addFrames(${P.map(([n, x, y, w, h]) => `frame("${n}",${x},${y},${w},${h})`).join(",")});`, packed],
  parallel: [JSON.stringify({ names: P.map(([n]) => n), rects: P.map(([, x, y, w, h]) => [x, y, w, h]) }), packed],
  header: [JSON.stringify({ fields: ["name", "x", "y", "w", "h"], rows: P }), packed],
  iniRects: [
    `[sheet]\nfile=hero.png\n[rects]\n${P.map(([n, x, y, w, h]) => `${n}=${x},${y},${w},${h}`).join("\n")}\n[clips]\nwalk=walk_0,walk_1,walk_2,walk_3\nstrike=strike_0,strike_1`,
    packed,
  ],
  yamlList: [
    `image: hero.png\nframes:\n${P.map(([n, x, y, w, h]) => `  - {name: ${n}, rect: [${x}, ${y}, ${w}, ${h}]}`).join("\n")}\nanimations:\n  walk: {frames: [walk_0, walk_1], fps: 10, loop: true}\n  strike: {frames: [strike_0, strike_1, strike_2], fps: 12, loop: false}\n`,
    packed,
  ],
  midpoints: [
    JSON.stringify(P.map(([n, x, y, w, h]) => ({ name: n, centerX: x + w / 2, centerY: y + h / 2, width: w, height: h }))),
    packed,
  ],
  inclusive: [JSON.stringify(P.map(([n, x, y, w, h]) => ({ name: n, x1: x, y1: y, x2: x + w - 1, y2: y + h - 1 }))), packed],
  nestedDirs: [
    JSON.stringify({
      hero: {
        walk: {
          left: P.slice(0, 2).map(([, x, y, w, h]) => ({ x, y, w, h })),
          right: P.slice(2, 4).map(([, x, y, w, h]) => ({ x, y, w, h })),
        },
        strike: {
          left: P.slice(4, 6).map(([, x, y, w, h]) => ({ x, y, w, h })),
          right: P.slice(6).map(([, x, y, w, h]) => ({ x, y, w, h })),
        },
      },
    }),
    packed,
  ],
  boxes: [
    JSON.stringify({
      frames: P.map(([n, x, y, w, h]) => ({ name: n, x, y, w, h, hitbox: { x: 2, y: 3, w: w - 4, h: h - 5 }, hand: { x: w - 2, y: 10 } })),
    }),
    packed,
  ],
  xmlNested: [
    `<camp><sheet name="hero.png" w="128" h="96"><tents><tent name="walk">${P.slice(0, 4)
      .map(([n, x, y, w, h]) => `<bale name="${n.slice(-1)}" x="${x}" y="${y}" w="${w}" h="${h}"/>`)
      .join("")}</tent><tent name="strike">${P.slice(4)
      .map(([n, x, y, w, h]) => `<bale name="${n.slice(-1)}" x="${x}" y="${y}" w="${w}" h="${h}"/>`)
      .join("")}</tent></tents></sheet></camp>`,
    packed,
  ],
  ticks: [JSON.stringify({ frames: P.map(([n, x, y, w, h]) => ({ name: n, x, y, w, h, ticks: 6 })) }), packed],
  tomlish: [
    `image = "hero.png"\n\n[frames.walk_0]\nrect = [2, 2, 20, 34]\n${P.slice(1)
      .map(([n, x, y, w, h]) => `[frames.${n}]\nrect = [${x}, ${y}, ${w}, ${h}]`)
      .join("\n")}\n[clips.walk]\nframes = ["walk_0", "walk_1"]\nms = 90\n`,
    packed,
  ],
};

/** Structures whose names are other than the frames' own, or whose numbers alone leave a doubt. */
const NAMED: Record<string, (name: string, k: number) => string> = {
  css2: (name) => `icon-${name}`,
  javaConst: (name) => name.toUpperCase(),
  resourceText: (_name, k) => `CL_${k}`,
  taggedRuns: (name) => `${name}.png`,
  keysAndValues: (name) => `${name}.png`,
  uvUp: (name) => name,
  nestedDirs: (name, k) => `${name.split("_")[0]}/${k % 4 < 2 ? "left" : "right"}_${k % 2}`,
  xmlNested: (name) => name.replace("_", "/"),
};

function read(key: string) {
  const [text, coverage] = TEXTS[key] as (typeof TEXTS)[string];
  const described = { picture: "hero.png", coverage };
  const { parsed, reading, grade } = recognise(text, described, `${key}.txt`);
  const { frames } = readFrames(parsed, reading, described);
  return { reading, grade, frames, clips: readClips(parsed, reading, frames) };
}

describe("rectangles and names are read from", () => {
  const packedOnes = Object.entries(TEXTS).filter(([, [, coverage]]) => coverage === packed);
  it.each(packedOnes.map(([key]) => key))("%s", (key) => {
    const name = NAMED[key] ?? ((each: string) => each);
    const wanted = P.map(([each, x, y, w, h], k): [string, Rect] => [name(each, k), { x, y, w, h }]);
    expect(read(key).frames.map((frame) => [frame.name, frame.rect])).toEqual(wanted);
  });
});

describe("other contents of a file are read:", () => {
  const told = (key: string) =>
    read(key).clips.map(({ name, facing, playback, steps, by }) => [name, facing, playback, steps.length, steps[0]?.ms, by ?? "file"]);
  it("clips of resource text, whose steps are given in frames at a rate", () =>
    expect(told("resourceText")).toEqual([
      ["walk", null, "loop", 2, 200, "file"],
      ["strike", null, "once", 2, 100, "file"],
    ]));
  it("clips of sections with a repeated key, whose time is that of all frames together", () =>
    expect(told("repeatedKeys")).toEqual([
      ["walk", null, "loop", 4, 200, "file"],
      ["strike", null, "once", 4, 100, "file"],
    ]));
  it("cells that are spoken of by number, in lists, runs and rows", () => {
    for (const key of ["gridOnly", "gridRange", "gridRows"]) {
      expect(read(key).frames).toHaveLength(12);
      expect(
        told(key)
          .map(([name, , , count]) => [name, count])
          .slice(0, 2),
        key,
      ).toEqual([
        ["walk", 4],
        ["strike", 3],
      ]);
    }
    expect(told("cellsInSteps")).toEqual([
      ["0", null, "loop", 2, 100, "file"],
      ["4", null, "loop", 3, 100, "file"],
    ]);
  });
  it("clips under names, as texts that list frames", () =>
    expect(told("iniRects").map(([name, , , count]) => [name, count])).toEqual([
      ["walk", 4],
      ["strike", 2],
    ]));
  it("clips by numbered names if the file gives none", () =>
    expect(told("css")).toEqual([
      ["walk", null, "loop", 4, 100, "names"],
      ["strike", null, "loop", 4, 100, "names"],
    ]));
  it("directions nested in clips", () =>
    expect(told("nestedDirs").map(([name, facing]) => [name, facing])).toEqual([
      ["walk", "w"],
      ["walk", "e"],
      ["strike", "w"],
      ["strike", "e"],
    ]));
  it("numbered directions, in sections with a repeated key", () => {
    const cells = Array.from({ length: 12 }, (_, k) => `${(k % 4) * 32 + 4},${Math.floor(k / 4) * 32 + 3},24,29,12,28`);
    const section = (name: string, frames: number, from: number) =>
      `[${name}]\nframes=${frames}\nduration=${frames * 100}ms\n${cells
        .slice(from, from + frames * 2)
        .map((cell, k) => `frame=${k >> 1},${k % 2},${cell}`)
        .join("\n")}`;
    const described = { picture: "hero.png", coverage: grid };
    const { parsed, reading } = recognise(`image=hero.png\n${section("walk", 4, 0)}\n${section("rest", 2, 8)}\n`, described, "hero.txt");
    const { frames } = readFrames(parsed, reading, described);
    expect(frames[1]).toMatchObject({ name: "walk_1", rect: { x: 36, y: 3, w: 24, h: 29 }, origin: { x: 12, y: 28 } });
    expect(
      readClips(parsed, reading, frames).map(({ name, facing, steps }) => [name, facing, steps.map(({ frame }) => frame).join(" ")]),
    ).toEqual([
      ["walk", "0", "walk_0 walk_2 walk_4 walk_6"],
      ["walk", "1", "walk_1 walk_3 walk_5 walk_7"],
      ["rest", "0", "rest_0 rest_2"],
      ["rest", "1", "rest_1 rest_3"],
    ]);
  });
  it("insets that are negative, from the centre upward, or up from the bottom", () => {
    for (const key of ["negativeInsets", "offsetsCentre", "indented", "keysAndValues"])
      expect(read(key).frames[0], key).toMatchObject({ size: { w: 48, h: 48 }, inset: { x: 14, y: 14 } });
  });
  it("origins from the bottom, if y is", () => expect(read("yamlUp").frames[0]?.origin).toEqual({ x: 10, y: 34 }));
  it("times in ticks of a sixtieth of a second", () => expect(read("ticks").frames[0]?.ms).toBe(100));
  it("boxes and points under their own names", () =>
    expect(read("boxes").frames[1]).toMatchObject({
      boxes: { hitbox: [{ x: 2, y: 3, w: 18, h: 28 }] },
      points: { hand: { x: 20, y: 10 } },
      origin: null,
    }));
});

describe("lists of corners in the records of frames", () => {
  it.each([
    ["numbers in a row", (corners: number[][]) => corners.flat()],
    ["pairs", (corners: number[][]) => corners],
    ["lists of polygons", (corners: number[][]) => [corners.flat(), corners.flat()]],
  ])("as %s are no clips", (_what, spelled) => {
    const frames = P.map(([name, x, y, w, h], k) => {
      const corners = [[0, 1], [w, 1], [w, h], ...(k % 2 ? [[2, h]] : []), [1, h - 1]]; // biome-ignore format: corners
      return { name, x, y, w, h, hull: spelled(corners) };
    });
    const { reading } = recognise(JSON.stringify({ frames }), { picture: "hero.png", coverage: packed }, "hero.json");
    expect(reading.clips).toBeNull();
    expect(reading.fields).toMatchObject({ x: "x", y: "y", w: "w", h: "h" });
  });
});

describe("a file of another kind", () => {
  it.each([
    [
      "people",
      JSON.stringify(Array.from({ length: 20 }, (_, k) => ({ id: k, age: 20 + k, height: 150 + k, weight: 50 + k, score: k * 3 }))),
    ],
    ["places", JSON.stringify({ towns: [{ at: [12.5, 41.9] }, { at: [2.3, 48.8] }] })],
  ])("of %s is refused", (_what, text) =>
    expect(() => recognise(text, { picture: "hero.png", coverage: packed }, "other.txt")).toThrow(/other\.txt: /),
  );
});

describe("a reading is not sure", () => {
  const graded = (text: string, coverage = packed) => recognise(text, { picture: "hero.png", coverage }, "hero.data").grade;
  it("if its rectangles are empty, miss most of the drawing, or cut through it", () => {
    const moved = JSON.stringify(P.map(([name, x, y, w, h]) => ({ name, x: Math.min(W - w, x + 9), y: Math.min(H - h, y + 11), w, h })));
    expect(graded(moved)).toMatchObject({ grade: "doubtful" });
    expect(graded(JSON.stringify(P.slice(0, 2).map(([name, x, y, w, h]) => ({ name, x, y, w, h })))).reasons.join()).toMatch(
      /of what is drawn/,
    );
  });
  it("if y could count either way and records are unordered", () => {
    const cells = [5, 2, 9, 0, 7, 4, 11, 1, 10, 3, 8, 6].map((k) => ({
      name: `cell ${k}`,
      x: (k % 4) * 32,
      y: Math.floor(k / 4) * 32,
      w: 32,
      h: 32,
    }));
    const full = cov(cells.map(({ x, y }) => [x + 2, y + 2, 28, 28]));
    const text = JSON.stringify(cells);
    expect(graded(text, full).reasons.join()).toMatch(/y may be counted up/);
    // Keeping a reading makes it no surer; a person's word does.
    const described = { picture: "hero.png", coverage: full };
    const { reading } = recognise(text, described, "hero.data");
    expect(understand(text, described, "hero.data", [{ ...reading, name: "kept" }]).grade.grade).toBe("doubtful");
    expect(understand(text, described, "hero.data", [{ ...reading, yAs: "up" }]).grade.grade).toBe("sure");
  });
  it("and lists what it does not use", () => {
    const odd = P.map(([name, x, y, w, h], k) => ({ name, x, y, w, h, quux: k * 7 }));
    expect(graded(JSON.stringify({ frames: odd, people: [{ age: 3 }, { age: 4 }] })).unused).toEqual(
      expect.arrayContaining([
        { where: "frames.*.quux", why: "Its meaning is unknown.", count: 8 },
        { where: "people.*", why: "They are not read.", count: 2 },
      ]),
    );
  });
});
