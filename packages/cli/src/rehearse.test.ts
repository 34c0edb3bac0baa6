import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { projectFromFile } from "@caravan/core/model";
import { emptyLog, rehearsalAtStart, rehearsedUntil, type Setting, settingOf } from "@caravan/core/stage";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { caravanIn } from "./caravan.fixture";

const demo = join(import.meta.dirname, "../../../examples/tamarisk-road");
const content = JSON.parse(readFileSync(join(demo, "caravan.json"), "utf8"));
const [drive] = content.drives;
let folder: string;
let caravan: ReturnType<typeof caravanIn>;

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "caravan-rehearse-"));
  caravan = caravanIn(folder);
  writeFileSync(join(folder, "track.json"), JSON.stringify(drive.track));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const rehearse = (track: string, ...rest: string[]) => caravan("rehearse", demo, "--behaviour", "porter", "--track", track, ...rest);
const withTrack = (track: unknown, ...rest: string[]) => {
  writeFileSync(join(folder, "given.json"), typeof track === "string" ? track : JSON.stringify(track));
  return rehearse("given.json", ...rest);
};

describe("caravan rehearse", () => {
  it("gives the account that the studio kept for the demo's drive, and the state at any time", () => {
    const { account, shown } = rehearse("track.json", "--at", "0,1000,5300,15000,20000", "--json").json();
    expect(account).toEqual(drive.account);
    expect(shown.map(({ at, rule, clip }: { at: number; rule: string; clip: string }) => [at, rule, clip])).toEqual([
      [0, "stand", "idle-e"],
      [1000, "walk", "walk-e"],
      [5300, "walk with the lamp", "lamp-walk-e"],
      [15000, "stand", "idle-e"],
      [20000, "stand", "idle-e"],
    ]);
    expect(shown[1]).toMatchObject({ mirror: false, frame: "porter-walk/18", step: 2, ended: false, visible: true });
  });

  it("gets the same from the keys, replayed on the stage", () => {
    const project = projectFromFile(content, "demo");
    const setting = settingOf(project, (project.stages ?? [])[0] as never) as Setting;
    const log = emptyLog();
    rehearsedUntil(setting, rehearsalAtStart(setting), drive.keys, 20_000_000, log);
    expect(log.track).toEqual(drive.track);
  });

  it("is not changed by asking", () => {
    const often = Array.from({ length: 400 }, (_, k) => k * 50).join(",");
    expect(rehearse("track.json", "--at", often, "--json").json().account).toEqual(drive.account);
  });

  it("refuses invalid tracks, with the place of the error", () => {
    const refused = (track: unknown) => {
      const { status, stderr } = withTrack(track);
      expect(status).toBe(1);
      return stderr;
    };
    expect(refused("[")).toMatch(/given\.json: The track is not JSON/);
    expect(refused([{ at: 0, press: "fly" }])).toMatch(/given\.json, entry 0: The behaviour has no input "fly"/);
    expect(rehearse("none.json").stderr).toMatch(/none\.json: The track cannot be read/);
    expect(caravan("rehearse", demo, "--behaviour", "camel", "--track", "track.json").stderr).toMatch(
      /no such behaviour .* There are: porter/,
    );
  });

  it("lists rules with missing names, and continues with the rest", () => {
    const behaviours = structuredClone(content.behaviours);
    behaviours.porter.rules[2].play = "gone";
    behaviours.porter.rules[1].when = [{ input: "nothing", is: "down" }];
    writeFileSync(join(folder, "caravan.json"), JSON.stringify({ ...content, behaviours }));
    const { status, stderr, json } = caravan("rehearse", folder, "--behaviour", "porter", "--track", "track.json", "--json");
    expect(status).toBe(0);
    expect(stderr).toMatch(/rule "walk" of "porter" never shows/);
    expect(stderr).toMatch(/rule "walk with the lamp" of "porter" never shows/);
    expect(new Set(json().account.map(({ rule }: { rule: string }) => rule))).toEqual(
      new Set(["stand", "stand with the lamp", "set down", "glance"]),
    );
    const { stdout } = caravan("check", folder);
    expect(stdout).toMatch(/There is no action or clip "gone"/);
    expect(stdout).toMatch(/It asks for nothing, which the behaviour does not have/);
  });
});
