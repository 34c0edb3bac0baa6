import { EventEmitter } from "node:events";
import * as fs from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { type Changes, changesOf } from "./changes";

vi.mock("node:fs", async (original) => ({ ...(await original<typeof fs>()), watch: vi.fn() }));

/** A watcher as in a shared folder: it never reports anything. */
const silent = () => Object.assign(new EventEmitter(), { close: () => {} }) as unknown as fs.FSWatcher;

let folder: string;
let changes: Changes | null = null;
const onChange = vi.fn();

beforeEach(() => {
  vi.useFakeTimers();
  folder = fs.mkdtempSync(join(tmpdir(), "caravan-changes-"));
  fs.mkdirSync(join(folder, "art"));
  fs.writeFileSync(join(folder, "caravan.json"), "{}");
  fs.writeFileSync(join(folder, "art/hero.png"), "hero");
  vi.mocked(fs.watch).mockReset().mockImplementation(silent);
  onChange.mockReset();
});
afterEach(() => {
  changes?.close();
  vi.useRealTimers();
  fs.rmSync(folder, { recursive: true, force: true });
});

function listen(path = folder): void {
  changes = changesOf(path, join(folder, "out"), onChange);
  changes.renew();
}

/** The number of calls since it was last asked. */
function newCalls(): number {
  vi.advanceTimersByTime(2_000);
  const { length } = onChange.mock.calls;
  onChange.mockClear();
  return length;
}

describe("changes of a project's files", () => {
  it("are noticed once each where the system reports none: written, replaced, added, removed, the folder gone and back", () => {
    listen();
    expect(newCalls()).toBe(0);
    fs.writeFileSync(join(folder, "art/hero.png"), "heroine");
    expect(newCalls()).toBe(1);
    fs.writeFileSync(join(folder, "art/other.png"), "other");
    expect(newCalls()).toBe(1);
    fs.renameSync(join(folder, "art/other.png"), join(folder, "art/hero.png"));
    expect(newCalls()).toBe(1);
    fs.rmSync(join(folder, "art/hero.png"));
    expect(newCalls()).toBe(1);
    fs.renameSync(folder, `${folder}-away`);
    expect(newCalls()).toBe(1);
    fs.renameSync(`${folder}-away`, folder);
    expect(newCalls()).toBe(1);
    expect(newCalls()).toBe(0);
  });

  it("are noticed when only the target of a link changes, and a link to a folder around it is no endless way", () => {
    const elsewhere = fs.mkdtempSync(join(tmpdir(), "caravan-drawn-"));
    fs.writeFileSync(join(elsewhere, "camel.png"), "camel");
    fs.symlinkSync(elsewhere, join(folder, "art/drawn"));
    fs.symlinkSync(folder, join(folder, "art/around"));
    listen();
    fs.writeFileSync(join(elsewhere, "camel.png"), "two camels");
    expect(newCalls()).toBe(1);
    fs.rmSync(elsewhere, { recursive: true });
  });

  it("are not what is delivered, being written, or of other programs", () => {
    fs.mkdirSync(join(folder, ".git"));
    listen();
    fs.mkdirSync(join(folder, "out"));
    fs.writeFileSync(join(folder, "out/hero.atlas.json"), "{}");
    fs.writeFileSync(join(folder, "art/.caravan-12-hero.png.part"), "half");
    fs.writeFileSync(join(folder, ".git/HEAD"), "ref");
    expect(newCalls()).toBe(0);
  });

  it("are noticed of a project in a single file, and nothing else beside it", () => {
    const bundle = join(folder, "road.caravan");
    fs.writeFileSync(bundle, "one");
    listen(bundle);
    fs.writeFileSync(join(folder, "art/hero.png"), "heroine");
    expect(newCalls()).toBe(0);
    fs.writeFileSync(bundle, "another");
    expect(newCalls()).toBe(1);
  });

  it("are noticed while the system refuses to report them, and it is asked again only after ten seconds", () => {
    vi.mocked(fs.watch).mockImplementation(() => {
      throw Object.assign(new Error("System limit for number of file watchers reached"), { code: "ENOSPC" });
    });
    listen();
    expect(newCalls()).toBe(0);
    fs.writeFileSync(join(folder, "art/hero.png"), "heroine");
    expect(newCalls()).toBe(1);
    expect(fs.watch).toHaveBeenCalledTimes(1);
    vi.mocked(fs.watch).mockImplementation(silent);
    vi.advanceTimersByTime(10_000);
    expect(fs.watch).toHaveBeenCalledTimes(2);
  });
});
