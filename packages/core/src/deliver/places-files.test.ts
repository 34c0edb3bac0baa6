import { describe, expect, it } from "vitest";
import { artFrom } from "../art";
import { textFromUtf8 } from "../codec";
import { png } from "../codec/png.fixture";
import { foreseenFiles } from "../delivery-plan";
import { addPalette } from "../edit";
import { porterProject, sheetOfCells } from "../edit/project.fixture";
import type { Delivery, Palette } from "../model";
import { hexOf, type Rgb } from "../raster";
import { placesFiles } from "./places-files";
import { deliver } from "./project";

const ROBE: Palette = { name: "robe", colours: ["#00ff2a", "#123456", "#00ff38"] };
const DUSK: Palette = { name: "dusk", of: "robe", colours: ["#112233", "#223344", "#334455"] };

function delivered(palettes: readonly Palette[], scale = 1) {
  const project = palettes.reduce((made, each) => addPalette(made, each), porterProject());
  const [usual] = project.deliveries as [Delivery];
  const delivery: Delivery = {
    ...usual,
    densities: [{ scale, suffix: "" }],
    data: { ...usual.data, places: true },
  };
  const made = { ...project, deliveries: [delivery] };
  const { files } = deliver(made, delivery, artFrom(new Map([["a".repeat(64), sheetOfCells(4, 3)]]), made), png);
  const of = (ending: string) => files.find(({ path }) => path.endsWith(ending))?.bytes;
  return { made, delivery, files, of };
}

describe("pictures of places", () => {
  it("looked up in the palettes' picture give the page again, and in another row the other robe", () => {
    const { files, of } = delivered([ROBE, DUSK]);
    const page = png.decode(files.find(({ path }) => /^[^.]+\.png$/.test(path))?.bytes as Uint8Array, "page");
    const places = png.decode(of(".places.png") as Uint8Array, "places");
    const swatches = png.decode(of(".palettes.png") as Uint8Array, "palettes");
    const lookedUp = (place: number, row: number) => {
      const at = ((row * 8 + 4) * swatches.width + place * 8 + 4) * 4;
      return hexOf([...swatches.bytes.subarray(at, at + 3)] as unknown as Rgb);
    };
    const seen = new Set<string>();
    for (let k = 0; k < page.bytes.length; k += 4) {
      const [place, row, blue, alpha] = places.bytes.subarray(k, k + 4) as unknown as [number, number, number, number];
      const colour = hexOf([...page.bytes.subarray(k, k + 3)] as unknown as Rgb);
      expect(alpha).toBe(page.bytes[k + 3]);
      if (alpha === 0) continue;
      seen.add(`${row}`);
      if (row === 255) {
        expect([place, blue]).toEqual([255, 255]);
        expect(ROBE.colours).not.toContain(colour);
      } else {
        expect([lookedUp(place, row), blue]).toEqual([colour, 0]);
        expect(lookedUp(place, row + 1)).toBe(DUSK.colours[ROBE.colours.indexOf(colour)]);
      }
    }
    expect(seen).toEqual(new Set(["0", "255"]));
    expect(textFromUtf8(of(".palettes.txt") as Uint8Array)).toContain("dusk: #112233");
  });

  it("are among the files that are foreseen, and none without palettes", () => {
    const { files, made, delivery } = delivered([ROBE, DUSK]);
    const paths = (all: readonly { readonly path: string }[]) => all.map(({ path }) => path).filter((path) => /places|palettes/.test(path));
    expect(paths(files).sort()).toEqual(paths(foreseenFiles(made, delivery, [])).sort());
    const bare = delivered([]);
    expect(paths(bare.files)).toEqual([]);
    expect(paths(foreseenFiles(bare.made, bare.delivery, []))).toEqual([]);
  });

  it("refuse more palettes than they can index", () =>
    expect(() =>
      placesFiles(
        [],
        Array.from({ length: 256 }, (_, k) => ({ name: `${k}`, colours: ["#000000"] })),
        png,
      ),
    ).toThrow(/255 palettes/));
});
