import { addClip, addRehearsal, keepDrive, removeDrive, setDrive, setStage } from "@caravan/core/edit";
import type { Drive, FrameRef, Project, Stage } from "@caravan/core/model";
import { guessedRoles, proposed } from "@caravan/core/stage";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { porterProject } from "../../../../../packages/core/src/edit/project.fixture";
import { control, driven, endTime, pass, playDrive, record, runDrive, setScene, stayAt, togglePause, useSession } from "./session";

const ref = (column: number, row: number) => `s1/c${column}r${row}` as FrameRef;

function hero(): Project {
  const made = addClip(addClip(porterProject(), [ref(0, 0), ref(1, 0)], "idle"), [ref(0, 1), ref(1, 1)], "walk");
  const { behaviour, stage } = proposed(made, guessedRoles(made), "hero");
  return addRehearsal(made, behaviour, stage);
}

const scene = (project: Project, id = "one") => setScene(id, project, project.stages?.[0] as Stage);
/** So many tenths of a second at a display of ten pictures a second. */
const wait = (tenths: number) => {
  for (let k = 0; k < tenths; k++) pass(100_000);
};
const now = () => useSession.getState();
const x = () => now().end?.moving.x ?? 0;
const RIGHT = { go: "right" } as const;

beforeEach(() => {
  vi.stubGlobal("matchMedia", () => ({ matches: true }));
  setScene(null, hero(), null);
});

/** A drive that goes right for half of its second. */
function recorded(project: Project): Drive {
  scene(project);
  record();
  control(RIGHT, true);
  wait(5);
  control(RIGHT, false);
  wait(5);
  return driven("half") as Drive;
}

describe("a running rehearsal", () => {
  it("releases held keys when it goes back to an earlier moment", () => {
    recorded(hero());
    stayAt(200_000);
    togglePause();
    wait(3);
    const there = x();
    wait(5);
    expect(x()).toBe(there);
  });

  it("releases a drive's held keys when a person takes over, and keeps what the drive had done", () => {
    const drive = recorded(hero());
    const project = keepDrive(hero(), drive);
    scene(project);
    playDrive(project.drives?.[0] as Drive);
    wait(2);
    control({ go: "left" }, true);
    wait(3);
    expect(now().drive).toBeNull();
    expect(now().end?.moving.vx).toBeLessThan(0);
    control({ go: "left" }, false);
    wait(3);
    expect(now().end?.moving.vx).toBe(0);
    expect(now().keys.some((key) => "go" in key && key.go === "right")).toBe(true);
  });

  it("is replayed in the changed project, and restarts in another project with a stage of the same name", () => {
    const project = hero();
    recorded(project);
    const [before, until] = [x(), endTime(now())];
    const stage = project.stages?.[0] as Stage;
    const movement = { ...stage.movement, speed: stage.movement.speed * 2 };
    scene(setStage(project, stage.name, { movement }));
    expect(endTime(now())).toBe(until);
    expect(x()).toBeGreaterThan(before + 1);
    scene(hero(), "two");
    expect(now()).toMatchObject({ project: "two", keys: [], drive: null });
    expect(endTime(now())).toBe(0);
  });

  it("follows the project's drive: if cut, it ends there; after undo, it is whole again; if removed, it is as driven", () => {
    const drive = recorded(hero());
    const whole = keepDrive(hero(), drive);
    scene(whole);
    runDrive(whole.drives?.[0] as Drive);
    const end = endTime(now());
    scene(setDrive(whole, "half", { length: 400, keys: drive.keys.filter(({ at }) => at <= 400) }));
    expect(endTime(now())).toBeLessThanOrEqual(400_000);
    scene(whole);
    expect(now().drive).toBe(whole.drives?.[0]);
    runDrive(whole.drives?.[0] as Drive);
    scene(removeDrive(whole, "half"));
    expect(now()).toMatchObject({ drive: null, keys: drive.keys });
    expect(endTime(now())).toBe(end);
  });
});
