import { describe, expect, it } from "vitest";
import { addAction, addClip, mirrorInstead, setClipRules, setPetal, setStepDurations } from "../edit";
import { porterProject } from "../edit/project.fixture";
import { type ActionName, actionNamed, type ClipName, clipNamed, type Facing, type FrameRef, type Project, type Ways } from "../model";
import { mendsOf } from "./finding";
import { findingsOf } from "./findings";
import { mended as mendedBy } from "./mend";

const ref = (column: number, row = 0) => `s1/c${column}r${row}` as FrameRef;
const GO = "go" as ActionName;
const clip = (name: string) => name as ClipName;
const codes = (project: Project) => findingsOf(project).map(({ code }) => code);
const mended = (project: Project, code: string) => {
  const found = findingsOf(project).find((each) => each.code === code);
  return found ? mendedBy(project, found) : project;
};

/** Clips of the sheet's rows, and an action that shows them. */
function acting(ways: Ways, petals: Partial<Record<Facing, string>>): Project {
  const clips = ["go-e", "go-s", "go-n"].reduce(
    (next, name, row) =>
      addClip(
        next,
        [0, 1, 2].map((k) => ref(k, row)),
        name,
      ),
    porterProject(),
  );
  return Object.entries(petals).reduce(
    (next, [facing, name]) => setPetal(next, GO, facing as Facing, { clip: clip(name) }),
    addAction(clips, "go", ways),
  );
}

describe("findings of actions", () => {
  it("report an action that shows nothing, which stops delivery, and no complete one", () => {
    expect(findingsOf(acting(4, {}))).toContainEqual(expect.objectContaining({ code: "empty-action", severity: "error" }));
    expect(mended(acting(4, {}), "empty-action").actions).toEqual([]);
    const whole = setPetal(acting(4, { e: "go-e", s: "go-s", n: "go-n" }), GO, "w", { clip: clip("go-e"), mirror: true });
    expect(codes(whole)).toEqual(["unused-frames"]);
  });

  it("report missing facings with their fallbacks, and mirror them from the opposite side", () => {
    const project = acting(4, { e: "go-e", s: "go-s", n: "go-n" });
    const [finding] = findingsOf(project);
    expect(finding).toMatchObject({
      code: "facing-missing",
      message: "1 facing is missing; until then w looks s.",
      mend: { label: "Mirror w" },
    });
    expect(actionNamed(mended(project, "facing-missing"), GO).facings.w).toEqual({ clip: "go-e", mirror: true });
    const half = acting(8, { e: "go-e", s: "go-s", n: "go-n", w: "go-e" });
    expect(actionNamed(mended(half, "facing-missing"), GO).ways).toBe(4);
  });

  it("report a facing with a different rhythm, and use the times of the others", () => {
    const project = setStepDurations(acting(4, { e: "go-e", s: "go-s", n: "go-n", w: "go-e" }), clip("go-n"), [1], 250_000);
    expect(findingsOf(project)[0]).toMatchObject({
      code: "facings-differ",
      message: expect.stringContaining("go-n has a different length than go-e"),
    });
    expect(clipNamed(mended(project, "facings-differ"), "go-n").steps.map(({ duration }) => duration)).toEqual([100_000, 100_000, 100_000]);
  });

  it("use the times of the clip that was changed last, and offer those of the others", () => {
    const project = setStepDurations(acting(4, { e: "go-e", s: "go-s", n: "go-n", w: "go-e" }), clip("go-n"), [1], 250_000);
    const found = findingsOf(project, undefined, clip("go-n")).find(({ code }) => code === "facings-differ");
    expect(found && mendsOf(found).map(({ label }) => label)).toEqual(["Use the times of go-n", "Use the times of go-e"]);
    const given = found ? mendedBy(project, found) : project;
    for (const name of ["go-e", "go-s", "go-n"])
      expect(clipNamed(given, name).steps.map(({ duration }) => duration)).toEqual([100_000, 250_000, 100_000]);
  });

  it("report a clip that no game can request, because an action has its name", () => {
    const project = setPetal(addAction(addClip(porterProject(), [ref(0)], "go"), "go", 1), GO, "s", { clip: clip("go") });
    expect(codes(project)).toContain("action-named-as-clip");
    const renamed = mended(project, "action-named-as-clip");
    expect(renamed.clips.map(({ name }) => name)).toEqual(["go-s"]);
    expect(actionNamed(renamed, GO).facings.s).toEqual({ clip: "go-s" });
  });
});

describe("findings of names", () => {
  it("report a name that is the start of another, unless both are facings of one action", () => {
    const loose = addClip(addClip(porterProject(), [ref(0)], "walk_s"), [ref(1)], "walk_se");
    expect(findingsOf(loose)).toContainEqual(
      expect.objectContaining({
        code: "name-begins-another",
        where: 'clip "walk_s"',
        mend: expect.objectContaining({ label: "Call it walk_s0" }),
      }),
    );
    expect(codes(mended(loose, "name-begins-another"))).not.toContain("name-begins-another");
    const bound = ["s", "se"].reduce(
      (next, facing) => setPetal(next, GO, facing as Facing, { clip: clip(`walk_${facing}`) }),
      addAction(loose, "go", 8),
    );
    expect(codes(bound)).not.toContain("name-begins-another");
  });
});

describe("findings about a clip's ending", () => {
  const named = (name: string) => addClip(porterProject(), [ref(0), ref(1), ref(2)], name);

  it("report an effect that never ends, by its name or because it fades to nothing", () => {
    expect(codes(named("bigBurst"))).toContain("endless-effect");
    expect(codes(named("walk"))).not.toContain("endless-effect");
    const [sheet] = porterProject().sources;
    const fading = { ...sheet, frames: sheet?.frames.map((frame) => (frame.key === "c2r0" ? { ...frame, empty: true } : frame)) };
    expect(codes({ ...named("whiff"), sources: [fading as NonNullable<typeof sheet>] })).toContain("endless-effect");
    const once = mended(named("bigBurst"), "endless-effect");
    expect(clipNamed(once, "bigBurst")).toMatchObject({ playback: "once", after: "hide" });
    expect(codes(once)).not.toContain("endless-effect");
  });

  it("report a gait that stops after one loop", () => {
    const stopping = setClipRules(named("walk-e"), clip("walk-e"), { playback: "once" });
    expect(codes(stopping)).toContain("stops-short");
    expect(clipNamed(mended(stopping, "stops-short"), "walk-e").playback).toBe("loop");
  });
});

describe("mirroring instead of mirrored art", () => {
  it("let the mirror of a clip replace one that shows its mirror images, and drop what is then unused", () => {
    const project = acting(4, { e: "go-e", w: "go-s" });
    const pairs = [0, 1, 2].map((k) => [ref(k, 0), ref(k, 1)] as const);
    const next = mirrorInstead(project, pairs);
    expect(actionNamed(next, GO).facings).toEqual({ e: { clip: "go-e" }, w: { clip: "go-e", mirror: true } });
    expect(next.clips.map(({ name }) => name)).toEqual(["go-e", "go-n"]);
    expect(next.sources[0]?.frames.filter(({ dropped }) => dropped).map(({ key }) => key)).toEqual(["c0r1", "c1r1", "c2r1"]);
  });

  it("leaves clips alone that no action shows, and frames that they show", () => {
    const project = acting(4, { e: "go-e" });
    expect(mirrorInstead(project, [[ref(0, 0), ref(0, 1)]])).toBe(project);
  });
});
