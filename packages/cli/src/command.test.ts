import { cpSync, existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { readBundle, writeBundle } from "@caravan/core/bundle";
import { sha256Hex, utf8, writeZip } from "@caravan/core/codec";
import { allPictures, type Picture, type Source } from "@caravan/core/model";
import { clearPixels, crop, type Pixels, paste, samePixels } from "@caravan/core/raster";
import { afterAll, describe, expect, it } from "vitest";
import { sheetOfCells } from "../../core/src/edit/project.fixture";
import { caravanIn } from "./caravan.fixture";
import { pngCodec } from "./png";

const root = join(import.meta.dirname, "../../..");
const demo = join(root, "examples/tamarisk-road");
const folder = mkdtempSync(join(tmpdir(), "caravan-test-"));
const png = pngCodec();
const at = (...parts: string[]) => join(folder, ...parts);

afterAll(() => rmSync(folder, { recursive: true }));

const caravan = caravanIn(folder);
function write(name: string, pixels: Pixels): string {
  mkdirSync(join(at(name), ".."), { recursive: true });
  writeFileSync(at(name), png.encode(pixels));
  return at(name);
}
/** Every file below a folder with its hash. */
function contents(path: string): Record<string, string> {
  const files = readdirSync(path, { recursive: true, withFileTypes: true }).filter((entry) => entry.isFile());
  return Object.fromEntries(
    files.map((entry) => [
      join(entry.parentPath, entry.name).slice(path.length),
      sha256Hex(readFileSync(join(entry.parentPath, entry.name))),
    ]),
  );
}

describe("caravan cut", () => {
  const sheet = sheetOfCells(4, 3, [2, 11]);

  it("prints each frame, and counts the empty ones left out", () => {
    const path = write("porter.png", sheet);
    const told = caravan("cut", path, "--cell", "8x10", "--json").json();
    expect(told).toMatchObject({ image: path, width: 32, height: 30, skippedEmpty: 2, leftOver: { right: 0, bottom: 0 } });
    expect(told.frames).toHaveLength(10);
    expect(told.frames[2]).toEqual({ name: "porter_3", x: 24, y: 0, w: 8, h: 10, column: 3, row: 0, empty: false });
    expect(caravan("cut", path, "--count", "4x3", "--json", "--keep-empty").json().frames[2]).toMatchObject({
      name: "porter_2",
      empty: true,
    });
  });

  it("writes frames that pasted together give the sheet again, colours under alpha 0 included", () => {
    const spaced = clearPixels(1 + 4 * 8 + 3 * 3 + 2, 2 + 3 * 10 + 2);
    spaced.bytes.fill(77);
    for (let k = 3; k < spaced.bytes.length; k += 4) spaced.bytes[k] = 0;
    for (let row = 0; row < 3; row++)
      for (let column = 0; column < 4; column++)
        paste(spaced, sheet, { x: column * 8, y: row * 10, w: 8, h: 10 }, 1 + column * 11, 2 + row * 11);
    const path = write("spaced.png", spaced);
    const told = caravan(
      "cut",
      path,
      "--cell",
      "8x10",
      "--margin",
      "1,2",
      "--gap",
      "3,1",
      "--keep-empty",
      "--out",
      at("cells"),
      "--json",
    ).json();
    expect(told.leftOver).toEqual({ right: 2, bottom: 0 });
    expect(readdirSync(at("cells")).filter((name) => name.endsWith(".png"))).toHaveLength(12);
    for (const { name, x, y, w, h } of told.frames)
      expect(samePixels(png.decode(readFileSync(at("cells", `${name}.png`)), name), crop(spaced, { x, y, w, h }))).toBe(true);
  });

  it("spreads what counts leave over if asked", () => {
    const path = write("uneven.png", sheetOfCells(4, 3));
    const call = ["cut", path, "--count", "5x3", "--keep-empty"];
    const told = caravan(...call, "--spread", "--json").json();
    expect(told).toMatchObject({ cell: { w: 6, h: 10 }, spread: { x: 2, y: 0 }, leftOver: { right: 0, bottom: 0 } });
    expect(told.frames.slice(0, 5).map(({ x }: { x: number }) => x)).toEqual([0, 6, 13, 19, 26]);
    expect(caravan(...call, "--spread").stdout).toMatch(/2 px spread between columns and 0 px between rows, nothing left over$/m);
    expect(caravan(...call).stdout).toContain("2 px left over at right and 0 px at bottom (--spread puts them between the cells)");
    expect(caravan(...call, "--json").json().leftOver).toEqual({ right: 2, bottom: 0 });
    expect(caravan("cut", path, "--cell", "6x10", "--spread")).toMatchObject({ status: 2, stderr: expect.stringContaining("--count") });
  });

  it("exits with 1 and one line with the file and the remedy, and leaves nothing behind", () => {
    writeFileSync(at("broken.png"), readFileSync(write("good.png", sheet)).subarray(0, 60));
    for (const args of [
      ["broken.png", "--count", "2x2"],
      ["none.png", "--count", "2x2"],
      ["good.png", "--cell", "99x9"],
      ["good.png", "--count", "99x1"],
      ["good.png", "--cell", "8x8", "--margin", "40"],
    ]) {
      const { status, stdout, stderr } = caravan("cut", ...args, "--out", at("never"));
      expect([status, stdout]).toEqual([1, ""]);
      expect(stderr.trim().split("\n")).toHaveLength(1);
      expect(stderr).toContain(args[0]);
      expect(existsSync(at("never"))).toBe(false);
    }
  });

  it("exits with 2 when the call itself is wrong", () => {
    for (const args of [
      ["good.png"],
      ["good.png", "--cell", "8"],
      ["good.png", "--cell", "0x8"],
      ["good.png", "--cell", "8x8", "--count", "1x1"],
      [],
      ["good.png", "--cell", "8x8", "--gap", "a"],
      ["good.png", "--colour", "red"],
    ])
      expect(caravan("cut", ...args).status, args.join(" ")).toBe(2);
    expect(caravan("dance").status).toBe(2);
    expect(caravan("--help").status).toBe(0);
  });

  it("mentions defaults in its help only where they say something", () => {
    const help = ["cut", "pack"].map((name) => caravan(name, "--help").stdout);
    for (const each of help) expect(each).not.toMatch(/default:\s+(false|\[|\{)/);
    expect(help[0]).toContain("space between cells (default: 0)");
    expect(help[1]).toContain('(default: "normal")');
  });
});

describe("caravan pack", () => {
  it("packs folders in natural order, names by path, and shares equal pictures", () => {
    const sheet = sheetOfCells(12, 1);
    for (let k = 0; k < 12; k++) write(`stills/walk/${k + 1}.png`, crop(sheet, { x: (k % 11) * 8, y: 0, w: 8, h: 10 }));
    const first = caravan("pack", at("stills"), "--out", at("packed"), "--name", "walk", "--json");
    expect(first.json()).toMatchObject({ frames: 12, placed: 12, aliases: 1, pages: [{ image: "walk.png" }] });
    const atlas = JSON.parse(readFileSync(at("packed/walk.atlas.json"), "utf8"));
    expect(Object.keys(atlas.frames)).toEqual(Array.from({ length: 12 }, (_, k) => `walk/${k + 1}`));
    expect(atlas.frames["walk/12"].rect).toEqual(atlas.frames["walk/1"].rect);
    const before = contents(at("packed"));
    caravan("pack", at("stills"), "--out", at("packed"), "--name", "walk");
    expect(contents(at("packed"))).toEqual(before);
  });

  it("refuses two pictures with the same name, a folder without pictures, and a picture that fits no page", () => {
    write("a/x.png", sheetOfCells(1, 1));
    write("b/x.png", sheetOfCells(1, 1));
    mkdirSync(at("bare"), { recursive: true });
    expect(caravan("pack", at("a/x.png"), at("b/x.png"), "--out", at("no")).stderr).toMatch(/b\/x\.png: It would have the name "x"/);
    expect(caravan("pack", at("bare"), "--out", at("no")).stderr).toMatch(/no pictures/);
    write("wide.png", { width: 40, height: 2, bytes: new Uint8Array(320).fill(255) });
    expect(caravan("pack", at("wide.png"), "--out", at("no"), "--max", "32").stderr).toMatch(/frame "wide".*at most 32 px/);
    expect(existsSync(at("no"))).toBe(false);
  });

  it("makes several pages if one is not enough", () => {
    write("many.png", sheetOfCells(8, 8));
    caravan("cut", at("many.png"), "--count", "8x8", "--out", at("many"));
    const told = caravan("pack", at("many"), "--out", at("pages"), "--max", "32", "--json").json();
    expect(told.pages.length).toBeGreaterThan(1);
    expect(readdirSync(at("pages")).filter((name) => name.endsWith(".png"))).toHaveLength(told.pages.length);
  });
});

describe("caravan cut, the other ways", () => {
  const raw = join(demo, "../raw");

  it("suggests grids, best first", () => {
    const told = caravan("cut", join(demo, "art/porter-walk.png"), "--suggest", "--json").json();
    expect(told.suggestions[0]).toMatchObject({ cell: { w: 40, h: 48 }, margin: { x: 0, y: 0 }, gap: { x: 0, y: 0 }, columns: 8, rows: 8 });
    expect(told.suggestions.map(({ score }: { score: number }) => score)).toEqual(
      told.suggestions.map(({ score }: { score: number }) => score).toSorted((a: number, b: number) => b - a),
    );
  });

  it("cuts along outlines, in reading order, loose bits joined, rows level", () => {
    const told = caravan("cut", join(raw, "camel.png"), "--islands", "--join", "4", "--level", "--json", "--out", at("camel")).json();
    expect(told.frames.map(({ name, row, column }: { name: string; row: number; column: number }) => [name, row, column])).toEqual(
      Array.from({ length: 8 }, (_, k) => [`camel_${k}`, Math.floor(k / 4), k % 4]),
    );
    const first = png.decode(readFileSync(at("camel", "camel_0.png")), "camel");
    expect([first.width, first.height]).toEqual([told.frames[0].size?.w ?? told.frames[0].w, told.frames[0].size?.h ?? told.frames[0].h]);
    const sparks = caravan("cut", join(demo, "art/campfire.png"), "--islands", "--join", "12", "--json").json();
    expect(sparks.frames).toHaveLength(8);
  });

  it("cuts by a metadata file, and reports its reading", () => {
    const told = caravan("cut", join(raw, "bazaar.png"), "--meta", join(raw, "bazaar.json"), "--json", "--out", at("wares")).json();
    expect(told.frames).toHaveLength(11);
    expect(told.frames[0]).toMatchObject({ name: "jar/1", size: { w: 32, h: 32 }, turned: false, origin: { x: 16, y: 28 } });
    expect(told.clips).toEqual([expect.objectContaining({ name: "lantern", playback: "loop", times: 0 })]);
    expect(told.reading).toMatchObject({ container: "json", fields: { x: "wares.*.at.0", w: "wares.*.size.0" } });
    expect(told.unplaced).toEqual([]);
    const jar = png.decode(readFileSync(at("wares", "jar-1.png")), "jar");
    expect([jar.width, jar.height]).toEqual([32, 32]);
  });

  it("reports the confidence of a reading, and accepts a person's meaning for a field", () => {
    // Eight cells of 40 × 48 px, in no order; which number is which, no word tells.
    const cells = [5, 2, 7, 0, 3, 6, 1, 4].map((k) => ({
      qua: `pose ${k}`,
      blip: (k % 4) * 40,
      dorn: Math.floor(k / 4) * 48,
      fesk: 40,
      grum: 48,
      hulp: k * 3,
    }));
    writeFileSync(at("poses.json"), JSON.stringify({ yolp: cells, people: [{ age: 3 }, { age: 4 }] }));
    const sheet = join(demo, "art/porter-walk.png");
    const { status, stdout, stderr } = caravan("cut", sheet, "--meta", at("poses.json"), "--json");
    expect(status).toBe(0);
    const told = JSON.parse(stdout);
    expect(told.grade).toBe("doubtful");
    expect(told.reasons.length).toBeGreaterThan(0);
    expect(stderr.trim().split("\n")).toHaveLength(1);
    expect(stderr).toMatch(/poses\.json: The reading is doubtful: /);
    expect(told.unused).toEqual(expect.arrayContaining([{ where: "people.*", why: "They are not read.", count: 2 }]));
    const read = ["x=blip", "y=dorn", "w=fesk", "h=grum"].flatMap((each) => ["--read", each.split("=").reverse().join("=")]);
    const sure = caravan("cut", sheet, "--meta", at("poses.json"), "--json", ...read).json();
    expect(sure.frames.slice(0, 2)).toMatchObject([
      { name: "pose 5", x: 40, y: 48, w: 40, h: 48 },
      { name: "pose 2", x: 80, y: 0, w: 40, h: 48 },
    ]);
    const swapped = caravan(
      "cut",
      sheet,
      "--meta",
      at("poses.json"),
      "--json",
      "--read",
      "yolp.*.dorn=x",
      "--read",
      "blip=y",
      "--read",
      "fesk=w",
      "--read",
      "grum=h",
    );
    expect(swapped.json().frames[0]).toMatchObject({ name: "pose 5", x: 48, y: 40 });
    const missing = caravan("cut", sheet, "--meta", at("poses.json"), "--read", "nothing=x");
    expect([missing.status, missing.stderr]).toEqual([
      1,
      expect.stringMatching(/poses\.json: None of its records has the fields nothing\. Its fields are: .*blip/),
    ]);
    expect(caravan("cut", sheet, "--meta", at("poses.json"), "--read", "blip=across").status).toBe(2);
    expect(caravan("cut", sheet, "--cell", "40x48", "--read", "blip=x").status).toBe(2);
  });

  it("clears an opaque ground first, found by itself or named", () => {
    const sheet = join(raw, "porter-on-white.png");
    for (const clear of [
      ["--clear", "auto"],
      ["--clear", "white", "--tolerance", "6"],
    ]) {
      const told = caravan("cut", sheet, "--cell", "40x48", ...clear, "--json", "--out", at("white")).json();
      expect(told.frames).toHaveLength(16);
      expect(png.decode(readFileSync(at("white", "porter-on-white_0.png")), "x").bytes[3]).toBe(0);
    }
  });

  it("reports a colour behind each cell that is left, and clears several", () => {
    const pixels = clearPixels(100, 30);
    const paint = (x: number, y: number, w: number, h: number, colour: number[]) => {
      for (let row = y; row < y + h; row++)
        for (let column = x; column < x + w; column++) pixels.bytes.set(colour, (row * 100 + column) * 4);
    };
    paint(0, 0, 100, 30, [255, 0, 255, 255]);
    for (let k = 0; k < 4; k++) {
      paint(k * 25 + 2, 3, 20, 24, [0, 255, 0, 255]);
      paint(k * 25 + 8, 10, 8, 17, [90, 60, 30, 255]);
    }
    writeFileSync(at("cells.png"), png.encode(pixels));
    const one = caravan("cut", at("cells.png"), "--islands", "--clear", "auto");
    expect(one.stderr).toContain(
      "Its figures stand in front of blocks of #00ff00, which are left. --clear ff00ff,00ff00 clears these too.",
    );
    const both = caravan("cut", at("cells.png"), "--islands", "--clear", "ff00ff,green", "--json");
    expect(both.stderr).toBe("");
    expect(both.json().frames.map(({ w, h }: { w: number; h: number }) => [w, h])).toEqual(Array(4).fill([8, 17]));
    expect(caravan("cut", at("cells.png"), "--islands", "--clear", "magenta,greenish").status).toBe(2);
    expect(caravan("cut", at("cells.png"), "--islands", "--clear", "#111,#222,#333,#444,#555").status).toBe(2);
  });

  it("moves the grid and uses only some columns and rows", () => {
    const told = caravan(
      "cut",
      join(demo, "art/porter-walk.png"),
      "--cell",
      "40x48",
      "--offset",
      "-40,48",
      "--columns",
      "0-1",
      "--rows",
      "1",
      "--json",
    ).json();
    expect(told.frames.map(({ x, y }: { x: number; y: number }) => [x, y])).toEqual([
      [0, 96],
      [40, 96],
    ]);
  });

  it("refuses invalid calls with 2, and files of unknown structure with 1, each in one line", () => {
    expect(caravan("cut", join(raw, "camel.png"), "--cell", "9x9", "--islands").status).toBe(2);
    expect(caravan("cut", join(raw, "camel.png"), "--cell", "9x9", "--join", "3").status).toBe(2);
    expect(caravan("cut", join(raw, "camel.png"), "--clear", "whitish", "--suggest").status).toBe(2);
    writeFileSync(at("other.json"), JSON.stringify({ people: [{ name: "a", age: 3 }] }));
    const { status, stderr } = caravan("cut", join(raw, "camel.png"), "--meta", at("other.json"));
    expect([status, stderr.trim().split("\n").length]).toEqual([1, 1]);
    expect(stderr).toMatch(/other\.json: Read as json, looked for x, y, width and height/);
  });
});

describe("caravan build", () => {
  it("gives identical bytes twice, and of the single file the same as of the folder", () => {
    expect(caravan("build", demo, "--out", at("one")).status).toBe(0);
    caravan("build", join(demo, "caravan.json"), "--out", at("two"));
    const project = JSON.parse(readFileSync(join(demo, "caravan.json"), "utf8"));
    const pictures = new Map(
      project.sources
        .flatMap((source: Source) => allPictures(source))
        .map(({ file, sha256 }: Picture) => [sha256, new Uint8Array(readFileSync(join(demo, file)))]),
    );
    const document = readBundle(writeBundleOf(project, pictures as Map<string, Uint8Array>), "x").project;
    writeFileSync(at("demo.caravan"), writeBundle({ project: document, pictures: pictures as Map<string, Uint8Array> }));
    caravan("build", at("demo.caravan"), "--out", at("three"));
    const one = contents(at("one"));
    expect(Object.keys(one).sort()).toEqual(["/.caravan-delivered.json", "/tamarisk.atlas.json", "/tamarisk.light.png", "/tamarisk.png"]);
    expect(contents(at("two"))).toEqual(one);
    expect(contents(at("three"))).toEqual(one);
  });

  it("lists each file's size and hash, and the findings", () => {
    const told = caravan("build", demo, "--out", at("one"), "--json").json();
    for (const { path, bytes, sha256 } of told.files) {
      const written = readFileSync(at("one", path));
      expect([written.length, sha256Hex(written)]).toEqual([bytes, sha256]);
    }
    expect(told.findings).toEqual([expect.objectContaining({ code: "unused-frames", severity: "note" })]);
  });

  it("cuts art that was overwritten again by its recipe, and says so", () => {
    const copy = at("road");
    cpSync(demo, copy, { recursive: true });
    const fire = png.decode(readFileSync(join(copy, "art/campfire.png")), "fire");
    fire.bytes.set([1, 2, 3, 255], 0);
    writeFileSync(join(copy, "art/campfire.png"), png.encode(fire));
    const { status, stderr } = caravan("build", copy, "--out", at("changed"));
    expect([status, stderr.trim()]).toEqual([0, "Changed art, cut again by its recipe: campfire (8 on changed pictures)"]);
    expect(contents(at("changed"))["/tamarisk.png"]).not.toBe(contents(at("one"))["/tamarisk.png"]);
    writeFileSync(join(copy, "art/campfire.png"), "no picture any more");
    expect(caravan("build", copy, "--out", at("nothing"))).toMatchObject({
      status: 1,
      stderr: expect.stringMatching(/art\/campfire\.png: This is not a PNG/),
    });
    expect(existsSync(at("nothing"))).toBe(false);
  });

  it("of art that was renamed says where it is", () => {
    const copy = at("renamed");
    cpSync(demo, copy, { recursive: true });
    mkdirSync(join(copy, "people"));
    renameSync(join(copy, "art/campfire.png"), join(copy, "people/fire.png"));
    const build = () => caravan("build", copy, "--out", at("nothing"));
    expect(build()).toMatchObject({
      status: 1,
      stderr: expect.stringMatching(/art\/campfire\.png: There is no such file, but people\/fire\.png is this picture\. Correct the path/),
    });
    expect(caravan("check", copy).stdout).toMatch(
      /art\/campfire\.png is missing\..* art\/campfire\.png is now people\/fire\.png: correct the path/,
    );
    writeFileSync(join(copy, "people/fire.png"), "another");
    expect(caravan("check", copy).stdout).toMatch(/art\/campfire\.png is missing\./);
    expect(caravan("check", copy).stdout).not.toContain("is now");
    expect(build().stderr).toMatch(/art\/campfire\.png: There is no such file or folder\./);
    expect(existsSync(at("nothing"))).toBe(false);
  });

  it("finds art whose name has letters and accents apart on disk and joined in the document, and notices its change", () => {
    const copy = at("accents");
    const [joined, apart] = ["p\u00e9age.png", "pe\u0301age.png"];
    cpSync(demo, copy, { recursive: true });
    const document = readFileSync(join(copy, "caravan.json"), "utf8");
    writeFileSync(join(copy, "caravan.json"), document.replaceAll("art/dust-whirl.png", `art/${joined}`));
    renameSync(join(copy, "art/dust-whirl.png"), join(copy, "art", apart));
    const build = () => caravan("build", copy, "--out", at("accents-out"), "--json");
    expect(build()).toMatchObject({ status: 0 });
    const before = readFileSync(at("accents-out/tamarisk.png"));
    const art = pngCodec().decode(readFileSync(join(copy, "art", apart)), apart);
    const drawn = art.bytes.findIndex((value, k) => k % 4 === 3 && value === 255);
    art.bytes.set([1, 2, 3, 255], drawn - 3);
    writeFileSync(join(copy, "art", apart), pngCodec().encode(art));
    expect(build()).toMatchObject({ status: 0 });
    expect(readFileSync(at("accents-out/tamarisk.png")).equals(before)).toBe(false);
    rmSync(join(copy, "art", apart));
    expect(build()).toMatchObject({ status: 1, stderr: expect.stringContaining(joined) });
  });

  it("refuses a damaged project with the reason", () => {
    writeFileSync(at("bad.caravan"), "PKnothing");
    expect(caravan("build", at("bad.caravan"), "--out", at("nothing")).stderr).toMatch(/bad\.caravan: The archive is damaged/);
    expect(caravan("build", at("stills"), "--out", at("nothing")).stderr).toMatch(/caravan\.json: There is no such file/);
  });
});

describe("caravan play and check", () => {
  it("report which frame shows when", () => {
    expect(caravan("play", demo, "--clip", "dust-whirl", "--at", "0,50,999.999,1000", "--json").json()).toEqual([
      { at: 0, frame: "dust-whirl/0", step: 0, pass: 0, ended: false },
      { at: 50, frame: "dust-whirl/1", step: 1, pass: 0, ended: false },
      { at: 999.999, frame: "dust-whirl/19", step: 19, pass: 0, ended: false },
      { at: 1000, frame: null, step: 19, pass: 0, ended: true },
    ]);
    expect(caravan("play", demo, "--action", "idle", "--facing", "w", "--at", "0,300", "--json").json()).toEqual([
      { at: 0, frame: "porter-idle/8", step: 0, pass: 0, ended: false, clip: "idle-e", facing: "w", mirror: true },
      { at: 300, frame: "porter-idle/9", step: 1, pass: 0, ended: false, clip: "idle-e", facing: "w", mirror: true },
    ]);
    expect(caravan("play", demo, "--action", "idle", "--facing", "sw", "--at", "0").stdout).toMatch(/as idle-s, looking s/);
    expect(caravan("play", demo, "--clip", "halt", "--at", "200", "--json").json()).toMatchObject([
      { frame: "porter-walk/7", parts: [{ name: "lamp", frame: "hand-lamp/1", mirror: false, x: 6.5, y: -6, front: true }] },
    ]);
    expect(caravan("play", demo, "--clip", "halt", "--at", "0").stdout).toMatch(/ {2}over it lamp: hand-lamp\/0 at 6\.5, -5/);
    expect(caravan("play", demo, "--at", "0")).toMatchObject({ status: 2 });
    expect(caravan("play", demo, "--clip", "wolk", "--at", "0").stderr).toMatch(/no such clip.*walk-s/);
    expect(caravan("play", demo, "--clip", "fire", "--at", "soon").status).toBe(2);
  });

  it("list the findings, and exit with 1 only for errors", () => {
    expect(caravan("check", demo, "--json")).toMatchObject({ status: 0 });
    const project = JSON.parse(readFileSync(join(demo, "caravan.json"), "utf8"));
    project.clips[0].steps = [];
    mkdirSync(at("holey"), { recursive: true });
    writeFileSync(at("holey/caravan.json"), JSON.stringify({ ...project, sources: [] }));
    const { status, json } = caravan("check", at("holey"), "--json");
    expect(status).toBe(1);
    expect(json().findings.map((finding: { code: string }) => finding.code)).toContain("empty-clip");
  });
});

/** The same document and pictures, packed by hand. */
function writeBundleOf(project: unknown, pictures: ReadonlyMap<string, Uint8Array>): Uint8Array {
  const { sources } = project as { sources: Source[] };
  return writeZip([
    { path: "caravan.json", bytes: utf8(JSON.stringify(project)) },
    ...sources.flatMap(allPictures).map(({ file, sha256 }) => ({ path: file, bytes: pictures.get(sha256) as Uint8Array })),
  ]);
}
