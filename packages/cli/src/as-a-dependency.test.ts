import { spawnSync } from "node:child_process";
import { cpSync, existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { addClip, addDelivery, addMarkKind, attachPart, putPoint, setClipRules, setDelivery } from "@caravan/core/edit";
import type { ClipName, FrameRef, MarkName, Project } from "@caravan/core/model";
import { projectFromFile, projectToFile } from "@caravan/core/model";
import { clearPixels, type Pixels } from "@caravan/core/raster";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { caravanIn } from "./caravan.fixture";
import { pngCodec } from "./png";

let folder: string;
let caravan: ReturnType<typeof caravanIn>;
const at = (...path: string[]) => join(folder, ...path);

/** Three figures of 8 × 8 px in a row. */
function sheet(): Pixels {
  const made = clearPixels(24, 8);
  for (let x = 0; x < 24; x++) for (let y = 1; y < 8; y++) if (x % 8 > 1) made.bytes.set([40 + x * 5, 90, 60, 255], (y * 24 + x) * 4);
  return made;
}

/** A project of two deliveries in a folder of its own. */
function projectWith(change: (project: Project) => Project = (project) => project): string {
  const name = mkdtempSync(at("project-"));
  writeFileSync(join(name, "hero.png"), pngCodec().encode(sheet()));
  expect(caravanIn(name)("new", "hero.png", "--out", "game", "--sheets", "rows").status).toBe(0);
  const file = join(name, "game", "caravan.json");
  const project = projectFromFile(JSON.parse(readFileSync(file, "utf8")), file);
  const two = setDelivery(addDelivery(project, "films", null), project.deliveries.length, { kind: "films" });
  writeFileSync(file, JSON.stringify(projectToFile(change(two))));
  return join(name, "game");
}

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "caravan-dependency-"));
  caravan = caravanIn(folder);
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe("the command in a game's repository", () => {
  it("prints its version, and with --quiet only errors", () => {
    expect(caravan("--version").stdout).toMatch(/^\d+\.\d+\.\d+\n$/);
    const project = projectWith();
    const { status, stdout, stderr } = caravan("build", project, "--out", "quiet", "--quiet");
    expect([status, stdout, stderr]).toEqual([0, "", ""]);
    expect(existsSync(at("quiet", "hero.png")) || readdirSync(at("quiet")).length > 0).toBe(true);
    expect(caravan("build", "gone", "--out", "quiet", "--quiet").stderr).toMatch(/^caravan: gone: .*\n$/);
  });

  it("answers --help from a text equal to the whole program's", () => {
    const whole = spawnSync(process.execPath, [join(import.meta.dirname, "../dist/caravan.mjs"), "--help"], { encoding: "utf8" });
    expect(caravan("--help")).toMatchObject({ status: 0, stdout: whole.stdout, stderr: "" });
    expect(whole.stdout).toMatch(/build .*build everything a project delivers/);
  });

  it("loads the code of the command that is called, and says which command a mistyped one was meant to be", () => {
    expect(caravan("biuld")).toMatchObject({
      status: 2,
      stderr: expect.stringMatching(/unknown command 'biuld'\n\(Did you mean build\?\)/),
    });
    expect(caravan("help", "tiles").stdout).toMatch(/^Usage: caravan tiles/);
    expect(caravan("--quiet", "cut", "gone.png", "--cell", "8x8")).toMatchObject({ status: 1, stdout: "" });
    const dist = join(import.meta.dirname, "../dist");
    const loaded = (name: string): number => {
      const text = readFileSync(join(dist, name), "utf8");
      return (
        text.length + [...text.matchAll(/(?:from|import)"\.\/(part-\w+\.mjs)"/g)].reduce((sum, [, part]) => sum + loaded(part as string), 0)
      );
    };
    const whole = readdirSync(dist).filter((name) => name.startsWith("part-"));
    expect(whole.length).toBeGreaterThan(10);
    expect(loaded("caravan.mjs")).toBeLessThan(whole.reduce((sum, name) => sum + readFileSync(join(dist, name)).length, 0) / 3);
  });

  it("reports failures as JSON if JSON was requested", () => {
    const failed = caravan("build", "gone", "--out", "never", "--json");
    expect(failed.status).toBe(1);
    expect(JSON.parse(failed.stdout)).toEqual({ error: { code: "not-found", where: "gone", message: expect.stringContaining("gone") } });
    const wrong = caravan("build", projectWith(), "--out", "never", "--only", "nope", "--json");
    expect(wrong.status).toBe(2);
    expect(JSON.parse(wrong.stdout).error).toMatchObject({ code: "bad-call", message: expect.stringMatching(/no delivery "nope".*films/) });
    expect(existsSync(at("never"))).toBe(false);
  });

  it("builds one delivery alone if asked, and keeps the files of the others", () => {
    const project = projectWith();
    expect(caravan("build", project, "--out", "whole").status).toBe(0);
    const before = readdirSync(at("whole")).sort();
    const { status, stderr } = caravan("build", project, "--out", "whole", "--only", "films");
    expect([status, stderr]).toEqual([0, ""]);
    expect(readdirSync(at("whole")).sort()).toEqual(before);
    caravan("build", project, "--out", "alone", "--only", "films");
    expect(readdirSync(at("alone")).filter((name) => !name.startsWith("."))).toEqual(["films"]);
    expect(caravan("build", project, "--out", "whole", "--only", "films", "--clean").status).toBe(2);
  });

  it("is strict on wish: a warning fails the check, and the build writes nothing", () => {
    const strict = projectWith((project) => {
      const [clip] = project.clips;
      const name = clip?.name as ClipName;
      const marked = addMarkKind(setClipRules(project, name, { playback: "loop" }), "point", "hand");
      const ref = clip?.steps[0]?.frame as FrameRef;
      const pointed = putPoint(marked, "it", [ref], "hand" as MarkName, ref, { x: 1, y: 1 });
      // Two of its three steps have no hand, so the part is not drawn there.
      return attachPart(addClip(pointed, [ref], "hat"), {
        name: "hat",
        host: name,
        guest: "hat",
        at: "hand" as MarkName,
        time: "own",
        front: true,
      });
    });
    expect(caravan("check", strict).stdout).toMatch(/hand/);
    expect(caravan("check", strict, "--strict").status).toBe(1);
    expect(caravan("check", projectWith(), "--strict").status).toBe(0);
    const { status, stderr } = caravan("build", strict, "--out", "strict", "--strict");
    expect(status).toBe(1);
    expect(stderr).toMatch(/worth a look.*Nothing was written/);
    expect(existsSync(at("strict"))).toBe(false);
  });

  it("starts in a repository: a project from the art, and scripts that keep existing ones", () => {
    mkdirSync(at("game", "art"), { recursive: true });
    cpSync(join(import.meta.dirname, "../../../examples/raw/porter-on-white.png"), at("game", "art", "porter.png"));
    writeFileSync(at("game", "package.json"), '{\n\t"name": "game",\n\t"scripts": { "sprites:check": "mine" }\n}\n');
    const inGame = caravanIn(at("game"));
    const begun = inGame("init", "art", "--out", "public/my assets");
    expect(begun.status).toBe(0);
    expect(begun.stdout).toMatch(/scripts in package\.json: sprites, sprites:watch; start with npm run sprites/);
    const manifest = readFileSync(at("game", "package.json"), "utf8");
    expect(manifest).toMatch(/^{\n\t"name": "game",\n\t"scripts": {\n\t\t"sprites:check": "mine",\n/);
    expect(begun.stderr).toMatch(/Cut by suggested grids: porter/);
    const { scripts } = JSON.parse(manifest);
    expect(scripts.sprites).toBe('caravan build sprites --out "public/my assets" --clean');
    expect(inGame("build", "sprites", "--out", "public/my assets", "--clean").status).toBe(0);
    expect(readdirSync(at("game", "public", "my assets"))).toContain("atlas.atlas.json");
    // Twice is refused, and nothing has changed.
    expect(inGame("init", "art").stderr).toMatch(/There is a project already/);
    writeFileSync(at("game", "package.json"), "{ broken");
    expect(inGame("init", "art", "--project", "other").stderr).toMatch(/package\.json: It is not JSON.*Nothing was written/);
    expect(existsSync(at("game", "other"))).toBe(false);
    expect(readFileSync(at("game", "package.json"), "utf8")).toBe("{ broken");
  });

  it("is packed small and without sources, and works from its tarball in an empty folder, offline", () => {
    const npm = (cwd: string, ...args: string[]) => spawnSync("npm", args, { cwd, encoding: "utf8", shell: process.platform === "win32" });
    const packed = npm(join(import.meta.dirname, ".."), "pack", "--json", "--ignore-scripts", "--pack-destination", folder);
    const [tarball] = JSON.parse(packed.stdout) as { filename: string; size: number; files: { path: string }[] }[];
    const paths = tarball?.files.map(({ path }) => path) ?? [];
    expect(paths.filter((path) => path.includes("src/"))).toEqual([]);
    expect(paths).toEqual(expect.arrayContaining(["LICENSE", "README.md", "bin/caravan.mjs", "dist/caravan.mjs", "package.json"]));
    expect(tarball?.size).toBeLessThan(1_500_000);
    mkdirSync(at("empty"));
    writeFileSync(at("empty", "package.json"), JSON.stringify({ name: "game", private: true }));
    const installed = npm(at("empty"), "install", "--offline", "--no-audit", "--no-fund", `../${tarball?.filename}`);
    expect([installed.status, installed.stderr.match(/npm error.*/)?.[0]]).toEqual([0, undefined]);
    writeFileSync(at("empty", "hero.png"), pngCodec().encode(sheet()));
    const cut = npm(at("empty"), "exec", "--offline", "--", "caravan", "cut", "hero.png", "--count", "3x1", "--out", "frames", "--json");
    expect(JSON.parse(cut.stdout).frames).toHaveLength(3);
    expect(readdirSync(at("empty", "frames")).filter((name) => name.endsWith(".png"))).toHaveLength(3);
  });
});
