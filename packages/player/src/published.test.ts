import { execFileSync, spawnSync } from "node:child_process";
import { mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { gzipSync } from "node:zlib";
import { build } from "esbuild";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { artFrom } from "../../core/src/art";
import { png } from "../../core/src/codec/png.fixture";
import { deliver } from "../../core/src/deliver";
import { addClip } from "../../core/src/edit";
import { porterProject, sheetOfCells } from "../../core/src/edit/project.fixture";
import type { Behaviour, BehaviourName, Delivery, FrameRef } from "../../core/src/model";

const root = join(import.meta.dirname, "../../..");
let game: string;
let published: string;

/** A game outside of this workspace that has the package and nothing else. */
beforeAll(() => {
  game = mkdtempSync(join(tmpdir(), "caravan-player-"));
  published = join(game, "node_modules/@caravan/player");
  execFileSync(process.execPath, [join(root, "scripts/build-player.mjs"), published]);
  writeFileSync(join(game, "package.json"), '{ "type": "module" }');
});
afterAll(() => rmSync(game, { recursive: true, force: true }));

/** A small project delivered with its typed module and its atlas file, as a game gets them. */
function delivered() {
  const [usual] = porterProject().deliveries;
  const walk = addClip(porterProject(), ["s1/c0r0", "s1/c1r0"] as FrameRef[], "walk");
  const delivery = { ...(usual as Delivery), name: "porter", data: { ...(usual as Delivery).data, module: "typed" as const } };
  const art = artFrom(new Map([["a".repeat(64), sheetOfCells(4, 3)]]), { sources: [] });
  const behaviour: Behaviour = {
    name: "porter" as BehaviourName,
    inputs: [
      { name: "act", kind: "button", bufferMs: 120 },
      { name: "speed", kind: "number" },
    ],
    rules: [
      { name: "go", when: [{ input: "speed", above: 3 }], play: "walk", phase: "carry" },
      { name: "strike", when: [{ input: "act", is: "pressed" }], play: "walk", keep: 300, cutBy: ["go"], set: {} },
      { name: "stand", when: [{ showing: ["strike"], forMs: 20, ended: true }], play: "walk", then: "go" },
      { name: "rest", when: [], play: "walk" },
    ],
  };
  return deliver({ ...walk, behaviours: [behaviour], deliveries: [delivery] }, delivery, art, png).files.filter(
    ({ path }) => !path.endsWith(".png"),
  );
}

const ATLAS = `{ format: "caravan-atlas", version: 1, pages: [], frames: {}, clips: { go: { steps: [{ frame: "a", ms: 90 }, { frame: "b", ms: 90 }] } } }`;

describe("the published player", () => {
  it("is three modules with what they share, their types, a README and a licence", () =>
    expect([...new Set(readdirSync(published).map((file) => file.replace(/^shared-.*\.js$/, "shared.js")))].sort()).toEqual([
      "LICENSE",
      "README.md",
      "atlas.d.ts",
      "behaviour.d.ts",
      "behaviour.js",
      "index.d.ts",
      "index.js",
      "now.d.ts",
      "package.json",
      "parts.d.ts",
      "parts.js",
      "shared.js",
    ]));

  it("plays in Node as it is", () => {
    writeFileSync(
      join(game, "play.js"),
      `import { createPlayer } from "@caravan/player";
       const player = createPlayer(${ATLAS});
       player.play("go");
       console.log([0, 90, 89.9, 0.1].map((ms) => player.advance(ms).frame).join(" "));`,
    );
    expect(execFileSync(process.execPath, [join(game, "play.js")], { encoding: "utf8" }).trim()).toBe("a b b a");
  });

  it.each(["bundler", "nodenext"])("has types that a strict game without a DOM compiles with, read the way of %s", (way) => {
    mkdirSync(join(game, "src"), { recursive: true });
    for (const { path, bytes } of delivered()) writeFileSync(join(game, "src", path), bytes);
    writeFileSync(
      join(game, "src/delivered.ts"),
      `import { type Atlas, createPlayer } from "@caravan/player";
       import { createBehaviour } from "@caravan/player/behaviour";
       import { atlas, type ClipName, type RuleName } from "./porter.atlas${way === "bundler" ? "" : ".js"}";
       import json from "./porter.atlas.json" with { type: "json" };
       const player = createPlayer(atlas);
       player.play("walk");
       // @ts-expect-error a misspelt name
       player.play("wlak");
       const now = player.advance(16);
       export const width: number = now.frame ? atlas.frames[now.frame].rect.w : 0;
       export const clip: ClipName | null = now.clip;
       const behaviour = createBehaviour(atlas, "porter");
       behaviour.press("act");
       // @ts-expect-error no input of that name
       behaviour.press("akt");
       export const rule: RuleName["porter"] | null = behaviour.advance(16).rule;
       // @ts-expect-error no behaviour of that name
       createBehaviour(json, "prter");
       createBehaviour(json, "porter").set("speed", 4);
       const other = createPlayer(json);
       other.play("walk");
       // @ts-expect-error the file says which names there are
       other.play("wlak");
       const untyped: Atlas = json;
       createPlayer(untyped).play("anything");`,
    );
    writeFileSync(
      join(game, "src/game.ts"),
      `import { type Atlas, createPlayer, type Now } from "@caravan/player";
       const atlas: Atlas = ${ATLAS};
       const now: Now = createPlayer(atlas).advance(16);
       export const shown: string | null = now.frame;
       // @ts-expect-error there is no such facing
       createPlayer(atlas).play("go", { facing: "up" });`,
    );
    const module = way === "bundler" ? "esnext" : "nodenext";
    const compilerOptions = {
      strict: true,
      noEmit: true,
      noUncheckedIndexedAccess: true,
      exactOptionalPropertyTypes: true,
      resolveJsonModule: true,
      lib: ["es2022"],
      types: [],
      module,
      moduleResolution: way,
    };
    writeFileSync(join(game, "tsconfig.json"), JSON.stringify({ compilerOptions, include: ["src"] }));
    const { status, stdout } = spawnSync(process.execPath, [join(root, "node_modules/typescript/bin/tsc"), "-p", game], {
      encoding: "utf8",
    });
    expect([stdout, status]).toEqual(["", 0]);
  });

  it("is under 3 KB minified and compressed, and adds nothing where it is not used", async () => {
    const bundled = async (contents: string) => {
      const { outputFiles } = await build({
        stdin: { contents, resolveDir: game },
        bundle: true,
        minify: true,
        format: "esm",
        write: false,
      });
      return outputFiles[0]?.contents ?? new Uint8Array();
    };
    const player = gzipSync(await bundled('export * from "@caravan/player"')).length;
    const both = gzipSync(await bundled('export * from "@caravan/player"; export * from "@caravan/player/behaviour"')).length;
    const withParts = gzipSync(await bundled('export * from "@caravan/player/parts"')).length;
    expect(withParts - player).toBeLessThan(1024);
    expect(player).toBeLessThan(3 * 1024);
    expect(both - player).toBeLessThan(2.5 * 1024);
    expect((await bundled('import { createPlayer } from "@caravan/player";')).length).toBeLessThan(10);
  });
});
