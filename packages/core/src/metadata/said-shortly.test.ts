/** Tests short and unlike ways to say things: speeds that are times, middles by two letters, clips of which each says something else. */
import { describe, expect, it } from "vitest";
import { clearPixels, coverageOf } from "../raster";
import { understand } from "./understand";

const RECTS: readonly (readonly [string, number, number, number, number])[] = [
  ["bale_0", 2, 2, 20, 34],
  ["bale_1", 24, 2, 23, 33],
  ["bale_2", 50, 2, 19, 35],
  ["jar_0", 2, 40, 30, 31],
  ["jar_1", 34, 40, 37, 30],
];
const picture = clearPixels(96, 80);
for (const [, x, y, w, h] of RECTS)
  for (let row = 0; row < h; row++)
    for (let column = 0; column < w; column++)
      if (((column + 0.5) / w - 0.5) ** 2 + ((row + 0.5) / h - 0.5) ** 2 <= 0.3) picture.bytes[((y + row) * 96 + x + column) * 4 + 3] = 255;
const described = { picture: "goods.png", coverage: coverageOf(picture) };
const read = (text: string) => understand(text, described, "goods.data", []);
const frames = RECTS.map(([name, ...rect]) => ({ name, rect }));
const clipsOf = (more: object) =>
  read(JSON.stringify({ frames, ...more })).clips.map(({ name, playback, steps, by }) => [
    `${name}${by ? " by names" : ""} ${playback}`,
    steps.map(({ frame, ms }) => `${frame} ${ms}`),
  ]);

describe("clips", () => {
  it("of which one gives durations and another a speed", () =>
    expect(
      clipsOf({ clips: { roll: { frames: [0, 1, 2], durations: [100, 120, 90] }, tilt: { frames: [3, 4, 3], fps: 10, loop: false } } }),
    ).toEqual([
      ["roll loop", ["bale_0 100", "bale_1 120", "bale_2 90"]],
      ["tilt once", ["jar_0 100", "jar_1 100", "jar_0 100"]],
    ]));

  it("whose speed is a share of a second, or hundreds: a time", () => {
    const moves = (speed: number) => ({
      moves: [
        { name: "roll", speed, frames: ["bale_0", "bale_1"] },
        { name: "tilt", speed, frames: ["jar_0"] },
      ],
    });
    const first = (speed: number) => clipsOf(moves(speed))[0];
    expect(first(0.08)).toEqual(["roll loop", ["bale_0 80", "bale_1 80"]]);
    expect(first(250)).toEqual(["roll loop", ["bale_0 250", "bale_1 250"]]);
    expect(first(8)).toEqual(["roll loop", ["bale_0 125", "bale_1 125"]]);
  });

  it("whose steps name their frame by one letter", () =>
    expect(
      clipsOf({
        moves: [
          {
            title: "roll",
            steps: [
              { f: 0, ms: 100 },
              { f: 2, ms: 80 },
            ],
          },
          {
            title: "tilt",
            steps: [
              { f: 3, ms: 300 },
              { f: 4, ms: 50 },
            ],
          },
        ],
      }),
    ).toEqual([
      ["roll loop", ["bale_0 100", "bale_2 80"]],
      ["tilt loop", ["jar_0 300", "jar_1 50"]],
    ]));

  it("that are alone, in a record by themselves", () => {
    const alone = [["tilt once", ["jar_0 125", "jar_1 125"]]];
    expect(clipsOf({ animation: { name: "tilt", frames: ["jar_0", "jar_1"], fps: 8, loop: false } })).toEqual(alone);
    expect(clipsOf({ animation: { name: "tilt", first: 3, last: 4, fps: 8, loop: false } })).toEqual(alone);
    const text = `<goods><set>${RECTS.map(([n, x, y, w, h]) => `<f nom="${n}" x="${x}" y="${y}" w="${w}" h="${h}"/>`).join("")}</set><anim nom="roll" ms="90"><ref>bale_0</ref><ref>bale_1</ref></anim></goods>`;
    expect(read(text).clips.map(({ name, steps, by }) => [name, steps.map(({ ms }) => ms), by])).toEqual([["roll", [90, 90], undefined]]);
  });

  it("are never named after a clip's word for frames", () => {
    const text = `<goods><set>${RECTS.map(([n, x, y, w, h]) => `<f nom="${n}" x="${x}" y="${y}" w="${w}" h="${h}"/>`).join("")}</set><move nom="roll"><ref>bale_0</ref><ref>bale_1</ref></move></goods>`;
    expect(read(text).clips.map(({ name, by }) => [name, by])).toEqual([
      ["bale", "names"],
      ["jar", "names"],
    ]);
  });
});

describe("rectangles", () => {
  it("by centres called cx and cy, with names beside identifiers", () => {
    const list = RECTS.map(([title, x, y, w, h], k) => ({
      id: `0x${(k * 7919 + 13).toString(16)}`,
      title,
      cx: x + w / 2,
      cy: y + h / 2,
      w,
      h,
    }));
    const { frames: found, grade } = read(JSON.stringify({ list }));
    expect(found.map(({ name, rect }) => [name, rect.x, rect.y, rect.w, rect.h])).toEqual(RECTS);
    expect(grade.grade).toBe("sure");
  });
});
