import { Buffer } from "node:buffer";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { artFrom } from "../art";
import { type Atlas, readAtlas } from "../atlas";
import { textFromUtf8, utf8 } from "../codec";
import { png } from "../codec/png.fixture";
import { addClip, setDelivery } from "../edit";
import { porterProject, sheetOfCells } from "../edit/project.fixture";
import type { Delivery, FrameRef } from "../model";
import { handout } from "./handout";
import { deliver } from "./project";

/** What a browser would make of the page: the text between the tags, and what it parses to. */
function read(bytes: Uint8Array) {
  const html = textFromUtf8(bytes);
  const [, text = ""] = /<script type="application\/json" id="delivery">([^<]*)<\/script>/.exec(html) ?? [];
  return { html, carried: JSON.parse(text) as { title: string; atlas: Atlas; pictures: Record<string, string> } };
}

const atlas = (image: string, clip: string): Atlas => ({
  format: "caravan-atlas",
  version: 1,
  pages: [{ image, width: 1, height: 1, scale: 1, filter: "nearest" }],
  frames: {},
  clips: { [clip]: { steps: [] } } as unknown as Atlas["clips"],
  actions: {},
});

describe("a page to hand round", () => {
  it("carries the atlas and its pictures, byte by byte, and asks for nothing", () => {
    const project = addClip(porterProject(), ["s1/c0r0", "s1/c1r0"] as FrameRef[], "walk");
    const chosen = setDelivery(project, 0, { data: { page: true } });
    const { files } = deliver(
      chosen,
      chosen.deliveries[0] as Delivery,
      artFrom(new Map([["a".repeat(64), sheetOfCells(4, 3)]]), { sources: [] }),
      png,
    );
    const page = files.find(({ path }) => path.endsWith(".html"));
    const { html, carried } = read(page?.bytes as Uint8Array);
    const named = (ending: string) => files.find(({ path }) => path.endsWith(ending))?.bytes as Uint8Array;
    expect(carried.atlas).toEqual(readAtlas(named(".atlas.json"), "atlas"));
    const [image] = carried.atlas.pages.map((each) => each.image);
    expect(carried.pictures[image as string]).toBe(`data:image/png;base64,${Buffer.from(named(".png")).toString("base64")}`);
    expect(html).toContain("default-src 'none'");
    expect(html.match(/<\/script>/g)).toHaveLength(2);
  });

  it("is made even without the atlas file, once for all sizes, and not for films", () => {
    const project = addClip(porterProject(), ["s1/c0r0"] as FrameRef[], "walk");
    const paths = (change: Parameters<typeof setDelivery>[2]) => {
      const chosen = setDelivery(project, 0, change);
      const art = artFrom(new Map([["a".repeat(64), sheetOfCells(4, 3)]]), { sources: [] });
      return deliver(chosen, chosen.deliveries[0] as Delivery, art, png)
        .files.map(({ path }) => path)
        .filter((path) => path.endsWith(".html"));
    };
    const densities = [
      { scale: 1, suffix: "" },
      { scale: 2, suffix: "@2x" },
    ];
    expect(paths({ data: { page: true, atlas: false }, densities })).toEqual(["atlas.html"]);
    expect(paths({ data: { page: true }, kind: "films" })).toEqual([]);
    expect(paths({})).toEqual([]);
  });

  it("is safe for any names", () => {
    const odd = "</script><!--<script>&\u2028\"'`";
    const { html, carried } = read(handout(odd, atlas(`${odd}.png`, odd), [{ path: `${odd}.png`, bytes: utf8("x") }]).bytes);
    expect(carried.title).toBe(odd);
    expect(Object.keys(carried.atlas.clips)).toEqual([odd]);
    expect(html).toContain("<title>&#60;/script&#62;&#60;!--");
  });

  it("carries pictures of any length", () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 200 }), (bytes) => {
        const { carried } = read(handout("t", atlas("t.png", "c"), [{ path: "t.png", bytes }]).bytes);
        expect(carried.pictures["t.png"]).toBe(`data:image/png;base64,${Buffer.from(bytes).toString("base64")}`);
      }),
    );
  });
});
