import { describe, expect, it } from "vitest";
import { takeIn } from "../edit";
import { framesAndClips } from "../intake";
import { emptyProject } from "../model";
import { clearPixels, coverageOf } from "../raster";
import { understand } from ".";

const picture = clearPixels(96, 20);
for (let k = 0; k < 4; k++)
  for (let y = 2; y < 18; y++) for (let x = 2; x < 18 + k; x++) picture.bytes.set([k, 90, 20, 255], (y * 96 + k * 24 + x) * 4);
const coverage = coverageOf(picture);
const bales = (more: (k: number) => object = () => ({})) =>
  [0, 1, 2, 3].map((k) => ({ label: `haul_${k}`, left: k * 24 + 2, top: 2, width: 16 + k, height: 16, ...more(k) }));
const read = (content: object) => understand(JSON.stringify(content), { picture: "bales.png", coverage }, "bales.json", []);
const eventsOf = ({ clips }: ReturnType<typeof read>) => clips.map(({ name, steps }) => [name, steps.map(({ events = [] }) => events)]);

describe("events of metadata", () => {
  it("are on frames, as a word or several, and apply to every step that shows them", () => {
    const clips = [{ name: "haul", order: ["haul_0", "haul_1", "haul_2", "haul_1"] }];
    const at = (k: number) => (k === 1 ? { event: "footfall" } : k === 2 ? { event: "creak; dust" } : {});
    expect(eventsOf(read({ bales: bales(at), clips }))).toEqual([["haul", [[], ["footfall"], ["creak", "dust"], ["footfall"]]]]);
  });

  it("are on steps, as lists, and override those of frames", () => {
    const steps = [0, 1, 2, 3].map((k) => ({ bale: `haul_${k}`, ms: 90 + k, ...(k === 3 ? { events: ["drop", "dust"] } : {}) }));
    expect(eventsOf(read({ bales: bales(), clips: [{ name: "haul", steps }] }))).toEqual([["haul", [[], [], [], ["drop", "dust"]]]]);
  });

  it("are none without such a name: names of frames, pictures and directions are not events", () => {
    const clips = [{ name: "haul", order: ["haul_0", "haul_1"] }];
    for (const more of [{ kind: "sack" }, { file: "bales.png" }, { facing: "left" }])
      expect(
        eventsOf(read({ bales: bales(() => more), clips }))
          .flatMap(([, steps]) => steps as string[][])
          .flat(),
      ).toEqual([]);
  });

  it("become events of the project's steps", () => {
    const understood = read({
      bales: bales((k) => (k === 2 ? { event: "creak" } : {})),
      clips: [{ name: "haul", order: ["haul_1", "haul_2"] }],
    });
    const { told, clips } = framesAndClips(understood, "bales.json");
    const cut = { by: "metadata", file: "bales.json", reading: understood.reading } as const;
    const pictures = [{ sha256: "a".repeat(64), width: 96, height: 20 }];
    const project = takeIn(emptyProject("p"), [{ name: "bales", pictures, cut, told, clips }]);
    expect(project.clips[0]?.steps.map(({ events }) => events)).toEqual([undefined, ["creak"]]);
  });
});
