import { readFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import { checkDocument } from "./document-check";
import { PROJECT_VERSION, projectFromFile, projectToFile } from "./project-file";

/** Documents as each version really wrote them: parts of the demo from then. They are never edited. */
const versions = Array.from({ length: PROJECT_VERSION }, (_, k) => k + 1);
const opened = (version: number) => {
  const text = readFileSync(join(import.meta.dirname, "versions", `version-${version}.json`), "utf8");
  const content = JSON.parse(text);
  return { content, project: projectFromFile(content, `version ${version}`) };
};

describe("documents of every version", () => {
  it.each(versions)("of version %i open, with all their contents", (version) => {
    const { content, project } = opened(version);
    expect(content.version).toBe(version);
    expect(project.sources.map(({ name }) => name)).toEqual(content.sources.map(({ name }: { name: string }) => name));
    expect(project.clips.map(({ name, steps }) => [name, steps.map(({ duration }) => duration / 1000)])).toEqual(
      content.clips.map(({ name, steps }: { name: string; steps: { ms: number }[] }) => [name, steps.map(({ ms }) => ms)]),
    );
    expect(project.deliveries.map(({ name }) => name)).toEqual(content.deliveries.map(({ name }: { name: string }) => name));
    checkDocument(project, "opened");
    expect(projectFromFile(JSON.parse(JSON.stringify(projectToFile(project))), "again")).toEqual(project);
  });

  it("before version 4 deliver with the defaults of then, whatever today's are", () => {
    const { packing, kind, densities, data, counting, films } = opened(1).project.deliveries[0] ?? {};
    expect({ kind, densities, data, counting, films }).toEqual({
      kind: "atlas",
      densities: [{ scale: 1, suffix: "" }],
      data: { atlas: true, times: false, ticksPerSecond: 60, frames: false, module: "none", example: null, contact: false },
      counting: { origin: "pixels", y: "down", from: 0 },
      films: ["apng", "gif"],
    });
    expect(packing).toMatchObject({ borderPx: 0, maxPages: 16, trimMarginPx: 0, together: "nothing", effort: "normal" });
  });
});
