/** Arranges an atlas as the records that a shape has room for: one list of frames for each file, with the clips that use them. */
import type { Atlas } from "../atlas";
import { entriesOf, FACINGS, type Facing, freeName } from "../model";
import { type ClipFacts, type FrameFacts, firstOfEach, type PageFacts, type Sheet, type StepFacts } from "./facts";
import { type PlayedAs, playedAs } from "./played-as";
import type { Traits } from "./shape";

type Loose = Omit<FrameFacts, "index" | "clip"> & { readonly clip: number | null };

/** As many as the number of files. Frames are in the order of the atlas, or of their clips if records of frames are steps. */
export function sheetsOf(atlas: Atlas, traits: Traits): Sheet[] {
  const pages = atlas.pages.map(({ image, width: w, height: h, scale }, index): PageFacts => ({ image, size: { w, h }, index, scale }));
  if (traits.pages !== "one") return [sheetOf(atlas, traits, pages)];
  return pages.map((page) => sheetOf(atlas, traits, [page]));
}

function sheetOf(atlas: Atlas, traits: Traits, pages: readonly PageFacts[]): Sheet {
  const onPage = new Map(pages.map((page) => [page.index, page]));
  const loose = new Map<string, Loose>();
  for (const [name, { page, rect, turned, inset, size, origin, boxes, points = {}, outlines = {} }] of entriesOf(atlas.frames)) {
    const at = onPage.get(page);
    if (at)
      loose.set(name, {
        name,
        rect,
        turned,
        inset,
        size,
        origin,
        boxes: firstOfEach(boxes),
        points,
        outlines,
        ms: null,
        page: at,
        clip: null,
      });
  }
  const all = entriesOf(atlas.clips)
    .filter(([, { steps }]) => steps.every(({ frame }) => loose.has(frame)))
    .map(([name, clip]): Told => ({ ...calledIn(atlas, name, traits), ...playedAs(clip, traits) }));
  // Records of one page are adjacent if the file has a part per page; clips of one action, if it has one per action.
  const byPage = (list: readonly Loose[]) =>
    traits.pages === "around" ? pages.flatMap((page) => list.filter((each) => each.page === page)) : list;
  const clips = traits.facings
    ? [...new Set(all.map(({ name }) => name))].flatMap((name) => all.filter((each) => each.name === name))
    : all;
  const records = recordsFor(byPage([...loose.values()]), clips, traits);
  const order = byPage(records.list);
  const places = new Map(order.map((each, index) => [each, index]));
  const inRow = (steps: readonly Loose[]) => steps.every((each, k) => places.get(each) === (places.get(steps[0] as Loose) as number) + k);
  const stepsOf = clips.map((): StepFacts[] => []);
  const made = clips.map(
    ({ name, facing, playback, times }, k): ClipFacts => ({ name, facing, playback, times, steps: stepsOf[k] as StepFacts[] }),
  );
  const frames = order.map(
    (each, index): FrameFacts => ({ ...each, index, clip: each.clip === null ? null : (made[each.clip] as ClipFacts) }),
  );
  for (const [k, { steps }] of clips.entries())
    for (const [step, { ms }] of steps.entries())
      stepsOf[k]?.push({ frame: frames[places.get(records.steps[k]?.[step] as Loose) as number] as FrameFacts, ms });
  return { pages, frames, clips: made.filter((_, k) => traits.clips !== "runs" || inRow(records.steps[k] ?? [])) };
}

/** A clip as the file will write it, with its name there. */
type Told = PlayedAs & { readonly name: string; readonly facing: Facing | null };

/** The file's name and facing for a clip: from the first action that shows it unmirrored, if the file gives facings. */
function calledIn({ actions }: Atlas, clip: string, { facings: tells }: Traits): { name: string; facing: Facing | null } {
  if (tells)
    for (const [action, { facings }] of entriesOf(actions))
      for (const facing of FACINGS) if (facings[facing]?.clip === clip && !facings[facing]?.mirror) return { name: action, facing };
  return { name: clip, facing: null };
}

interface Records {
  readonly list: readonly Loose[];
  /** For each clip the record of each step. */
  readonly steps: readonly (readonly Loose[])[];
}

function recordsFor(frames: readonly Loose[], clips: readonly Told[], { clips: told, times, pages }: Traits): Records {
  const timed = new Map((times === "by-frame" ? withTimes(frames, clips) : frames).map((each) => [each.name, each]));
  const shownBy = ({ steps }: Told) => steps.map(({ frame }) => timed.get(frame) as Loose);
  if (told === "none" || told === "frames") return { list: [...timed.values()], steps: clips.map(shownBy) };
  // Ranges of numbers need the order of the atlas, where a clip's frames may already be adjacent.
  const list = told === "runs" ? [...timed.values()] : [];
  const names = new Set(list.map(({ name }) => name));
  const steps = clips.map((clip, k) => {
    const wanted = shownBy(clip);
    const run = told === "runs" ? runIn(list, wanted) : null;
    if (run) return run;
    // A range cannot span separate pages.
    if (told === "runs" && pages === "around" && wanted.some(({ page }) => page !== wanted[0]?.page)) return wanted;
    const own = wanted.map((each, step): Loose => {
      const called = told === "names" ? `${clip.name}_${step}` : freeName(each.name, names, "_");
      names.add(called);
      return { ...each, name: called, ms: clip.steps[step]?.ms ?? null, clip: k };
    });
    list.push(...own);
    return own;
  });
  const shown = new Set(clips.flatMap((clip) => clip.steps.map(({ frame }) => frame)));
  // If every record names its clip, a frame without a clip cannot be written.
  if (told === "names") for (const [name, each] of timed) if (!shown.has(name)) list.push({ ...each, name: freeName(name, names, "_") });
  return { list, steps };
}

/** Frames with the time that the first step showing them has. */
function withTimes(frames: readonly Loose[], clips: readonly Told[]): Loose[] {
  const times = new Map<string, number>();
  for (const { steps } of clips) for (const { frame, ms } of steps) if (!times.has(frame)) times.set(frame, ms);
  return frames.map((each) => ({ ...each, ms: times.get(each.name) ?? null }));
}

/** Records in a row that already show what a clip wants. */
function runIn(list: readonly Loose[], wanted: readonly Loose[]): readonly Loose[] | null {
  for (let from = 0; from + wanted.length <= list.length; from++)
    if (wanted.every((each, k) => isSame(list[from + k] as Loose, each))) return list.slice(from, from + wanted.length);
  return null;
}

function isSame(a: Loose, b: Loose): boolean {
  return (
    a.page === b.page &&
    a.rect.x === b.rect.x &&
    a.rect.y === b.rect.y &&
    a.inset.x === b.inset.x &&
    a.inset.y === b.inset.y &&
    a.origin?.x === b.origin?.x &&
    a.origin?.y === b.origin?.y
  );
}
