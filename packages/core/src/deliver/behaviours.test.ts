import { describe, expect, it } from "vitest";
import { artFrom } from "../art";
import { readAtlas } from "../atlas";
import { textFromUtf8 } from "../codec";
import { png } from "../codec/png.fixture";
import { addClip } from "../edit";
import { porterProject, sheetOfCells } from "../edit/project.fixture";
import { type Behaviour, type Delivery, type FrameRef, type Project, projectFromFile, projectToFile } from "../model";
import { deliver } from "./project";

const ref = (column: number, row: number) => `s1/c${column}r${row}` as FrameRef;

function project(): Project {
  let made = addClip(porterProject(), [ref(0, 0), ref(1, 0)], "idle");
  made = addClip(made, [ref(0, 1), ref(1, 1)], "walk|run");
  const porter = {
    name: "porter",
    inputs: [
      { name: "speed", kind: "number" },
      { name: "act", kind: "button", bufferMs: 120 },
    ],
    rules: [
      { name: "spin", when: [], play: "idle", off: true },
      { name: "gone", when: [{ input: "act", is: "pressed" }], play: "no such clip", keep: 200 },
      { name: "walk", when: [{ input: "speed", above: 5 }], play: "walk|run", phase: "carry", cutBy: ["spin"] },
      { name: "rest", when: [{ showing: ["stand", "gone"], forMs: 4000 }], play: "idle", keep: 1500, then: "stand", turns: false },
      { name: "stand", when: [], play: "idle" },
    ],
  } as unknown as Behaviour;
  const other = { name: "other", inputs: [], rules: [{ name: "walk", when: [], play: "walk|run" }] } as unknown as Behaviour;
  return { ...made, behaviours: [porter, other] };
}

function delivered(change: Partial<Delivery>) {
  const made = project();
  const [usual] = made.deliveries as [Delivery];
  const delivery = { ...usual, name: "porter", ...change, data: { ...usual.data, rules: true, module: "plain" as const } };
  const { files } = deliver(
    { ...made, deliveries: [delivery] },
    delivery,
    artFrom(new Map([["a".repeat(64), sheetOfCells(4, 3)]]), made),
    png,
  );
  const bytes = (ending: string) => files.find(({ path }) => path.endsWith(ending))?.bytes ?? new Uint8Array();
  return { atlas: readAtlas(bytes(".atlas.json"), "atlas"), text: (ending: string) => textFromUtf8(bytes(ending)) };
}

describe("behaviours in a delivery", () => {
  it("are in the atlas, without rules that are off or can never start, and without their names", () => {
    const { behaviours } = delivered({}).atlas;
    expect(Object.keys(behaviours ?? {})).toEqual(["porter", "other"]);
    expect(behaviours?.porter).toEqual({
      inputs: { speed: { kind: "number" }, act: { kind: "button", bufferMs: 120 } },
      rules: [
        { name: "walk", when: [{ input: "speed", above: 5 }], play: "walk|run", phase: "carry" },
        { name: "rest", when: [{ showing: ["stand"], forMs: 4000 }], play: "idle", keep: 1500, then: "stand", turns: false },
        { name: "stand", when: [], play: "idle" },
      ],
    });
  });

  it("go out only with all of their clips", () => {
    const { atlas, text } = delivered({ choice: { of: "clips", names: ["walk|run"], pattern: "" } });
    expect(Object.keys(atlas.behaviours ?? {})).toEqual(["other"]);
    expect(text(".atlas.js")).toContain('export const behaviours = ["other"];');
    expect(delivered({ choice: { of: "clips", names: ["idle"], pattern: "" } }).atlas).not.toHaveProperty("behaviours");
  });

  it("are tables for people, in Markdown safe for any names, and in CSV", () => {
    const { text } = delivered({});
    expect(text(".rules.md")).toContain("| walk | speed is above 5 | walk\\|run | while it holds | continues in step |");
    expect(text(".rules.md")).toContain("| act | button, a press waits 120 ms |");
    expect(text(".rules.csv").split("\n").slice(0, 3)).toEqual([
      "behaviour,number,rule,when,plays,how_long,besides",
      "porter,1,walk,speed is above 5,walk|run,while it holds,continues in step",
      "porter,2,rest,stand shows and has shown for 4 s,idle,1.5 s,keeps its facing; then stand",
    ]);
  });

  it("are keyed by name in the project's file, and are read back unchanged", () => {
    const file = projectToFile(project());
    expect(Object.keys(file.behaviours ?? {})).toEqual(["porter", "other"]);
    expect(projectFromFile(JSON.parse(JSON.stringify(file)), "again")).toEqual(project());
    const twice = JSON.parse(JSON.stringify(file));
    twice.behaviours.porter.rules.push(twice.behaviours.porter.rules[0]);
    expect(() => projectFromFile(twice, "caravan.json")).toThrow(/two rules of "porter" named "spin"/);
    const odd = JSON.parse(JSON.stringify(file));
    odd.behaviours.porter.rules[2].when[0].above = "fast";
    expect(() => projectFromFile(odd, "caravan.json")).toThrow(/behaviours\.porter\.rules\.2\.when\.0/);
  });
});
