import { describe, expect, it } from "vitest";
import { artFrom } from "../art";
import { png } from "../codec/png.fixture";
import { addClip, type DeliveryChange, setClipRules, setDelivery, setStepDurations, setStepEvents } from "../edit";
import { porterProject, sheetOfCells } from "../edit/project.fixture";
import { letter } from "../lettering";
import type { ClipName, Delivery, FrameRef, Project } from "../model";
import { crop, type Pixels, rgbOf, scaled } from "../raster";
import { deliver } from "./project";

const sheet = sheetOfCells(4, 3);
const art = artFrom(new Map([["a".repeat(64), sheet]]), { sources: [] });
const ref = (column: number, row = 0) => `s1/c${column}r${row}` as FrameRef;
const walk = "walk" as ClipName;
const project: Project = [
  (each: Project) => addClip(each, [ref(0), ref(1), ref(0)], "walk"),
  (each: Project) => setStepDurations(each, walk, [1], 250_500),
  (each: Project) => setStepEvents(each, walk, [1], ["footfall"]),
  (each: Project) => setClipRules(each, walk, { playback: "pingpong", times: 3 }),
].reduce((each, change) => change(each), porterProject());

function sheets(change: DeliveryChange, from = project): { path: string; pixels: Pixels }[] {
  const asked = setDelivery(from, 0, { ...change, data: { contact: true } });
  const { files } = deliver(asked, asked.deliveries[0] as Delivery, art, png);
  return files.filter(({ path }) => path.includes(".contact")).map(({ path, bytes }) => ({ path, pixels: png.decode(bytes, path) }));
}

/** How often a picture's opaque pixels are found in another, each at its place. */
function countOf(part: Pixels, whole: Pixels): number {
  const opaque: number[] = [];
  for (let k = 0; k < part.bytes.length; k += 4) if (part.bytes[k + 3] === 255) opaque.push(k);
  let count = 0;
  for (let y = 0; y + part.height <= whole.height; y++)
    for (let x = 0; x + part.width <= whole.width; x++) {
      const isHere = opaque.every((k) => {
        const at = ((y + Math.floor(k / 4 / part.width)) * whole.width + x + ((k / 4) % part.width)) * 4;
        return [0, 1, 2].every((channel) => part.bytes[k + channel] === whole.bytes[at + channel]);
      });
      if (isHere) count++;
    }
  return count;
}

function words(text: string, scale: number, colour: string): Pixels {
  const page = { width: text.length * 6 * scale, height: 9 * scale, bytes: new Uint8Array(text.length * 6 * scale * 9 * scale * 4) };
  letter(page, text, 0, 0, rgbOf(colour as `#${string}`), scale);
  return page;
}

describe("a contact sheet", () => {
  const made = sheets({});
  const { pixels } = made[0] as (typeof made)[number];
  const cell = (column: number, row = 0) => scaled(crop(sheet, { x: column * 8, y: row * 10, w: 8, h: 10 }), 6);

  it("is one picture beside the others, for any contents", () => {
    expect(made.map(({ path }) => path)).toEqual(["atlas.contact.png"]);
    expect(sheets({ kind: "films" }).map(({ path }) => path)).toEqual(["atlas.contact.png"]);
    expect(sheets({ densities: [1, 2].map((scale) => ({ scale, suffix: `@${scale}x` })) })).toHaveLength(1);
  });

  it("shows every step once, and every frame that is in no clip", () => {
    expect([0, 1, 2].map((column) => countOf(cell(column), pixels))).toEqual([2, 1, 1]);
    expect(countOf(cell(3, 2), pixels)).toBe(1);
  });

  it("says names, paces and events", () => {
    expect(countOf(words("walk", 3, "#221f1a"), pixels)).toBe(1);
    expect(countOf(words("3 steps · 100 to 250.5 ms a step · 450.5 ms in all · ping-pong, 3 times", 2, "#6a6152"), pixels)).toBe(1);
    expect(countOf(words("1 · 250.5 ms", 2, "#221f1a"), pixels)).toBe(1);
    expect(countOf(words("footfall", 2, "#23557a"), pixels)).toBe(1);
    expect(countOf(words("in no clip", 3, "#221f1a"), pixels)).toBe(1);
  });

  it("is split if it would be too tall", () => {
    const many = Array.from({ length: 40 }, (_, k) => `clip${k}`).reduce((each, name) => addClip(each, [ref(0)], name), project);
    const parts = sheets({}, many);
    expect(parts.map(({ path }) => path)).toEqual(parts.map((_, k) => `atlas.contact-${k}.png`));
    expect(parts.length).toBeGreaterThan(1);
    for (const { pixels: each } of parts) expect(each.height).toBeLessThanOrEqual(4024);
    expect(parts.reduce((sum, { pixels: each }) => sum + countOf(cell(0), each), 0)).toBe(42);
  });
});
