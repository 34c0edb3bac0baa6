/** The demo project, made the way a person would make it: pictures in, cut, clips, times, origins. */
import { drawnIn } from "@caravan/core/art";
import type { Bundle } from "@caravan/core/bundle";
import { sha256Hex } from "@caravan/core/codec";
import {
  addAction,
  addBox,
  addClip,
  addLayer,
  addMarkKind,
  addSources,
  cutSource,
  mirrorMissing,
  putPoint,
  renameProject,
  setClipRules,
  setClipTotal,
  setDelivery,
  setEventValue,
  setPetal,
  setSourceOrigin,
  setStepDurations,
  setStepEvents,
} from "@caravan/core/edit";
import { drawnBox } from "@caravan/core/marks";
import {
  type ActionName,
  type Box,
  type ClipName,
  type Cut,
  emptyProject,
  FACINGS_OF,
  type FrameRef,
  findFrame,
  keptRefs,
  type MarkName,
  originOf,
  type PlacedFrame,
  type Project,
  type Source,
  type SourceId,
  type Ways,
} from "@caravan/core/model";
import { coverageOf, joinedCoverage, type Pixels } from "@caravan/core/raster";
import { pngCodec } from "../../packages/cli/src/png";
import { withBearer } from "./bearer-project";
import { withCamp } from "./camp-project";
import { sheetOf } from "./canvas";
import { LAMP_SIZE, swingingLamp, withHandLamp } from "./hand-lamp";
import { lightOver } from "./light";
import { drawPorter, FACINGS, idling, PORTER_GROUND, PORTER_SIZE, walking } from "./porter";
import { campfire, DUST_GROUND, DUST_SIZE, dustWhirl, FIRE_GROUND, FIRE_SIZE, HOURGLASS_GROUND, HOURGLASS_SIZE, hourglass } from "./props";
import { rawFiles } from "./raw";
import { rehearsedSheets, withRehearsal } from "./rehearsal";

const WALK_FRAMES = 8;
const IDLE_FRAMES = 4;

interface DemoSheet {
  readonly name: string;
  readonly pixels: Pixels;
  readonly cell: { w: number; h: number };
  readonly ground: number;
  /** The reach of its flame's light, if it has one: a layer. */
  readonly light?: number;
}

/** The sheets as an artist would hand them in. */
export function demoSheets(): DemoSheet[] {
  const each = <Item>(count: number, draw: (k: number) => Item) => Array.from({ length: count }, (_, k) => draw(k));
  const walk = FACINGS.flatMap((facing) => each(WALK_FRAMES, (k) => drawPorter(facing, walking(k / WALK_FRAMES))));
  const idle = FACINGS.flatMap((facing) => each(IDLE_FRAMES, (k) => drawPorter(facing, idling(k / IDLE_FRAMES))));
  return [
    { name: "porter-walk", pixels: sheetOf(walk, WALK_FRAMES), cell: PORTER_SIZE, ground: PORTER_GROUND + 1 },
    { name: "porter-idle", pixels: sheetOf(idle, IDLE_FRAMES), cell: PORTER_SIZE, ground: PORTER_GROUND + 1 },
    {
      name: "campfire",
      pixels: sheetOf(
        each(8, (k) => campfire(k / 8)),
        8,
      ),
      cell: FIRE_SIZE,
      ground: FIRE_GROUND,
      light: 1.1,
    },
    {
      name: "dust-whirl",
      pixels: sheetOf(
        each(20, (k) => dustWhirl(k, 20)),
        5,
      ),
      cell: DUST_SIZE,
      ground: DUST_GROUND,
    },
    { name: "hourglass", pixels: sheetOf(each(12, hourglass), 6), cell: HOURGLASS_SIZE, ground: HOURGLASS_GROUND },
  ];
}

export function demoProject(): Bundle {
  const pictures = new Map<string, Uint8Array>();
  let project = renameProject(emptyProject("The Tamarisk Road"), "The Tamarisk Road");
  for (const sheet of demoSheets()) project = withSheet(project, sheet, pictures);
  project = withCamp(withClips(project), rawFiles(), (sha256, bytes) => pictures.set(sha256, bytes));
  for (const sheet of rehearsedSheets()) project = withSheet(project, sheet, pictures);
  project = withBearer(withRehearsal(project), (sha256, bytes) => pictures.set(sha256, bytes));
  project = withSheet(project, { name: "hand-lamp", pixels: swingingLamp(), cell: LAMP_SIZE, ground: 12, light: 0.8 }, pictures);
  project = withHandLamp(project, new Map(demoSheets().map(({ name, pixels }) => [name, pixels])));
  return { project, pictures };
}

/** A sheet cut into its cells, with the figure's feet at the origin. */
function withSheet(start: Project, { name, pixels, cell, ground, light }: DemoSheet, pictures: Map<string, Uint8Array>): Project {
  const bytes = pngCodec().encode(pixels);
  const sha256 = sha256Hex(bytes);
  pictures.set(sha256, bytes);
  const project = addSources(start, [{ fileName: `${name}.png`, sha256, width: pixels.width, height: pixels.height }]);
  const id = project.sources.at(-1)?.id as SourceId;
  const cut: Cut = { by: "cell", cell, margin: { x: 0, y: 0 }, gap: { x: 0, y: 0 }, keepEmpty: false };
  const standing = setSourceOrigin(cutSource(project, id, cut, coverageOf(pixels)), id, { x: cell.w / 2, y: ground });
  return light === undefined ? standing : withLight(standing, id, pixels, lightOver(pixels, cell, light), pictures);
}

/** Light as a layer over a sheet. */
function withLight(project: Project, id: SourceId, below: Pixels, light: Pixels, pictures: Map<string, Uint8Array>): Project {
  const bytes = pngCodec().encode(light);
  const sha256 = sha256Hex(bytes);
  pictures.set(sha256, bytes);
  const layer = { name: "light", blend: "add", pictures: [{ sha256, width: light.width, height: light.height }] } as const;
  return addLayer(project, id, layer, [joinedCoverage([below, light].map(coverageOf))]);
}

function withClips(start: Project): Project {
  let project = start;
  const clip = (name: string, source: string, row: number, columns: readonly number[], total: number) => {
    const { id } = project.sources.find((each) => each.name === source) as Source;
    const refs = columns.map((column) => `${id}/c${column}r${row}` as FrameRef);
    project = setClipTotal(addClip(project, refs, name), name as ClipName, total);
  };
  const upTo = (count: number) => Array.from({ length: count }, (_, k) => k);
  for (const [row, facing] of FACINGS.entries()) clip(`walk-${facing}`, "porter-walk", row, upTo(WALK_FRAMES), 800_000);
  // He stands in four facings: west mirrors east.
  for (const [row, facing] of FACINGS.entries())
    if (["s", "e", "n"].includes(facing)) clip(`idle-${facing}`, "porter-idle", row, upTo(IDLE_FRAMES), 1_200_000);
  clip("fire", "campfire", 0, upTo(8), 720_000);
  const dust = project.sources.find((each) => each.name === "dust-whirl") as Source;
  project = addClip(
    project,
    dust.frames.map((frame) => `${dust.id}/${frame.key}` as FrameRef),
    "dust-whirl",
  );
  project = setClipTotal(project, "dust-whirl" as ClipName, 1_000_000);
  project = setClipRules(project, "dust-whirl" as ClipName, { playback: "once", after: "hide" });
  const glass = project.sources.find((each) => each.name === "hourglass") as Source;
  project = addClip(
    project,
    glass.frames.map((frame) => `${glass.id}/${frame.key}` as FrameRef),
    "hourglass",
  );
  project = setStepDurations(project, "hourglass" as ClipName, [0, 1, 2, 3, 4, 5, 6, 7], 250_000);
  project = setStepDurations(project, "hourglass" as ClipName, [8, 9, 10, 11], 60_000);
  return withMarks(withPostures(setDelivery(project, 0, { name: "tamarisk" })));
}

/** The colliding box and the attachment points: the porter's box is constant, and one point nods with his head. */
function withMarks(start: Project): Project {
  const sheets = demoSheets();
  const refsOf = (name: string) => keptRefs(start.sources.find((each) => each.name === name) as Source);
  const named = (name: string) => name as MarkName;
  let project = addMarkKind(addMarkKind(addMarkKind(start, "box", "body"), "box", "heat"), "point", "brow");
  project = addMarkKind(project, "point", "smoke");
  const porter = [...refsOf("porter-walk"), ...refsOf("porter-idle")];
  project = addBox(project, "the porter", porter, named("body"), porter[0] as FrameRef, { x: 13, y: 13, w: 14, h: PORTER_GROUND - 12 });
  for (const name of ["porter-walk", "porter-idle"]) {
    const coverage = coverageOf((sheets.find((each) => each.name === name) as DemoSheet).pixels);
    for (const ref of refsOf(name)) {
      const { frame, source } = findFrame(project, ref) as PlacedFrame;
      const { y } = drawnBox(drawnIn(coverage, source, frame)) as Box;
      project = putPoint(project, name, [ref], named("brow"), ref, { x: originOf(source, frame).x, y: y + 4 });
    }
  }
  const smoke = { x: FIRE_SIZE.w / 2, y: FIRE_GROUND - 24 };
  project = putPoint(project, "campfire", refsOf("campfire"), named("smoke"), refsOf("campfire")[0] as FrameRef, smoke);
  const fire = refsOf("campfire");
  return addBox(project, "campfire", fire, named("heat"), fire[0] as FrameRef, { x: 1, y: FIRE_GROUND - 9, w: FIRE_SIZE.w - 2, h: 10 });
}

/** Every way of going on that there is, actions in eight and in four facings, and moments that a game can hear. */
function withPostures(start: Project): Project {
  let project = start;
  const refOf = (source: string, column: number, row: number) =>
    `${(project.sources.find(({ name }) => name === source) as Source).id}/c${column}r${row}` as FrameRef;
  const named = (name: string) => name as ClipName;
  // He halts once, then stands breathing.
  const halt = [6, 7]
    .map((column) => refOf("porter-walk", column, 0))
    .concat([0, 1, 2, 3].map((column) => refOf("porter-idle", column, 0)));
  project = addClip(project, halt, "halt");
  project = setStepDurations(project, named("halt"), [0, 1], 120_000);
  project = setStepDurations(project, named("halt"), [2, 3, 4, 5], 300_000);
  project = setClipRules(project, named("halt"), { loopFrom: 2 });
  // He looks about twice, and is home again.
  project = addClip(
    project,
    [0, 1, 2, 3].map((row) => refOf("porter-idle", 0, row)),
    "glance",
  );
  project = setStepDurations(project, named("glance"), [0, 3], 420_000);
  project = setStepDurations(project, named("glance"), [1, 2], 140_000);
  project = setClipRules(project, named("glance"), { playback: "pingpong", times: 2 });
  for (const facing of FACINGS) project = setStepEvents(project, named(`walk-${facing}`), [2, 6], ["footfall"]);
  for (const facing of FACINGS) project = setEventValue(project, named(`walk-${facing}`), [2, 6], "footfall", "sand");
  project = setStepEvents(project, named("fire"), [2, 5], ["crackle"]);
  project = setStepEvents(project, named("hourglass"), [8], ["turn"]);
  const rose = (name: string, ways: Ways, prefix: string) =>
    FACINGS_OF[ways].reduce(
      (next, facing) => {
        const clip = named(`${prefix}-${facing}`);
        return next.clips.some((each) => each.name === clip) ? setPetal(next, name as ActionName, facing, { clip }) : next;
      },
      addAction(project, name, ways),
    );
  project = rose("walk", 8, "walk");
  project = mirrorMissing(rose("idle", 4, "idle"), "idle" as ActionName);
  return project;
}
