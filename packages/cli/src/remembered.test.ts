import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { bundleFiles } from "@caravan/core/bundle";
import { readZip, sha256Hex } from "@caravan/core/codec";
import { addClip, addSources, cutSource } from "@caravan/core/edit";
import { emptyProject, keptRefs, type Source, type SourceId } from "@caravan/core/model";
import { coverageOf } from "@caravan/core/raster";
import { afterAll, describe, expect, it } from "vitest";
import { caravanIn } from "./caravan.fixture";
import { pngCodec } from "./png";
import { PRINTED } from "./printed";

const root = join(import.meta.dirname, "../../..");
const folder = mkdtempSync(join(tmpdir(), "caravan-remembered-"));
const cache = join(folder, "cache");
const caravan = caravanIn(folder, cache);

/** A fire of four cells, as a project in a folder. */
function writeRoad(): void {
  const bytes = readFileSync(join(root, "examples/tamarisk-road/art/campfire.png"));
  const { width, height } = pngCodec().decode(bytes, "campfire");
  const sha256 = sha256Hex(bytes);
  const none = { x: 0, y: 0 };
  let project = addSources(emptyProject("The Tamarisk Road"), [{ fileName: "campfire.png", sha256, width, height }]);
  const cell = { by: "count", columns: 8, rows: 1, margin: none, gap: none, keepEmpty: false } as const;
  project = cutSource(project, "s1" as SourceId, cell, coverageOf(pngCodec().decode(bytes, "campfire")));
  project = addClip(project, keptRefs(project.sources[0] as Source), "fire");
  for (const { path, bytes: content } of bundleFiles({ project, pictures: new Map([[sha256, bytes]]) })) {
    mkdirSync(dirname(join(folder, "road", path)), { recursive: true });
    writeFileSync(join(folder, "road", path), content);
  }
}
writeRoad();
afterAll(() => rmSync(folder, { recursive: true }));

const built = (...more: string[]) => {
  const run = caravan("build", "road", "--out", "out", "--json", ...more);
  expect(run.stderr + run.status).toMatch(/0$/);
  return PRINTED.build.parse(run.json());
};
const document = join(folder, "road/caravan.json");

describe("a build of an unchanged project", () => {
  it("is reported as such and touches nothing; its output equals the first one's", () => {
    const { asBefore, ...first } = built();
    expect(asBefore).toBe(false);
    const stamps = () => readdirSync(join(folder, "out")).map((name) => statSync(join(folder, "out", name)).mtimeMs);
    const before = stamps();
    expect(built()).toEqual({ ...first, asBefore: true });
    expect(stamps()).toEqual(before);
    expect(caravan("build", "road", "--out", "out").stdout).toMatch(/^Nothing changed since an earlier build/);
  });

  it("runs if anything differs: a missing or changed file, the document, the art, the options", () => {
    const [file] = built().files;
    rmSync(join(folder, "out", file?.path as string));
    expect(built().asBefore).toBe(false);
    const clean = readFileSync(document);
    writeFileSync(document, clean.toString().replace('"name": "The Tamarisk Road"', '"name": "The Salt Road"'));
    expect(built().asBefore).toBe(false);
    writeFileSync(document, clean);
    expect(built().asBefore).toBe(true);
    const art = join(folder, "road/art/campfire.png");
    const drawn = readFileSync(art);
    const fire = pngCodec().decode(drawn, "campfire");
    fire.bytes.set([1, 2, 3, 255], 0);
    writeFileSync(art, pngCodec().encode(fire));
    const changed = caravan("build", "road", "--out", "out", "--json");
    expect(changed.json().asBefore).toBe(false);
    expect(changed.stderr).toContain("Changed art");
    // It is told each time, though it is not made again.
    const again = caravan("build", "road", "--out", "out", "--json");
    expect(again.json().asBefore).toBe(true);
    expect(again.stderr).toContain("Changed art");
    writeFileSync(art, drawn);
    expect(built().asBefore).toBe(false);
    const [delivery] = JSON.parse(readFileSync(document, "utf8")).deliveries;
    expect(built("--only", delivery.name).asBefore).toBe(false);
    expect(built("--fresh").asBefore).toBe(false);
  });

  it("runs if the cache is damaged, and writes a complete ZIP", () => {
    built("--zip", "first.zip");
    expect(built("--zip", "second.zip").asBefore).toBe(true);
    const files = (name: string) => readZip(readFileSync(join(folder, name)), name);
    expect(files("second.zip")).toEqual(files("first.zip"));
    for (const name of readdirSync(cache)) writeFileSync(join(cache, name), '{"files": [');
    expect(built().asBefore).toBe(false);
    expect(built().asBefore).toBe(true);
  });

  it("still fails with --strict if there are warnings", () => {
    const project = JSON.parse(readFileSync(document, "utf8"));
    const [delivery] = project.deliveries;
    Object.assign(delivery, { filter: "linear", packing: { ...delivery.packing, extrudePx: 0 } });
    writeFileSync(document, JSON.stringify(project));
    expect(built().findings.some(({ severity }) => severity === "warning")).toBe(true);
    expect(built().asBefore).toBe(true);
    expect(caravan("build", "road", "--out", "out", "--strict").status).toBe(1);
  });
});
