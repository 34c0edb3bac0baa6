/** Describes a shape for people, before anything is written in it. */
import type { Atlas } from "../atlas";
import { t } from "../words";
import { isTrimmed } from "./facts";
import { kindFor, outlinesOfKind } from "./outline-lists";
import type { Place } from "./place";
import { type PlayedAs, playedAs } from "./played-as";
import type { Shape } from "./shape";

export interface ToldLine {
  /** Where in the example, `*` for any member. */
  readonly path: string;
  /** The first example of its value. */
  readonly example: string;
  /** What will be written; null for what stays. */
  readonly written: string | null;
  /** Whether it was found by comparing and not by a name, or a person said so. */
  readonly by: "reading" | "values" | "person";
}

export interface Told {
  readonly lines: readonly ToldLine[];
  /** Fields that differ from record to record and mean nothing known: they keep what the example says. */
  readonly strange: readonly string[];
  /** Those of them that stop a delivery until somebody says what they mean. */
  readonly unassigned: readonly string[];
  /** What of a delivery has no place in it, in words. */
  readonly noPlace: readonly string[];
}

/** Fields in the order of the example, each once; at most 200. */
export function toldOf(shape: Shape): Told {
  const { located, slots, repeats, traits, strange, unassigned } = shape;
  const lines = new Map<string, ToldLine>();
  const say = (path: string, spelled: Place["value"]) => {
    if (!spelled || lines.has(path) || lines.size >= 200) return;
    const slot = slots.get(path);
    if (!slot && path.endsWith("#")) return;
    const example = located.text.slice(spelled.from, spelled.to);
    lines.set(path, { path, example, written: slot?.quantity.label ?? null, by: slot?.by ?? "reading" });
  };
  const visit = (place: Place, path: string) => {
    const list = shape.outlines.get(path);
    if (list) {
      const example = located.text.slice(place.from, place.to).slice(0, 80);
      if (!lines.has(path)) lines.set(path, { path, example, written: t("the corners of {name}", { name: list.name }), by: "values" });
      return;
    }
    say(`${path}#`, place.key);
    say(path, place.value);
    const members = path === "" ? "*" : `${path}.*`;
    const repeated = repeats.has(members);
    for (const [key, child] of place.children) {
      const own = repeated && (repeats.get(members) !== "frames" || shape.frames.has(child));
      visit(child, own ? members : path === "" ? key : `${path}.${key}`);
    }
  };
  visit(located.root, "");
  const noPlace = [
    ...(traits.clips === "none" ? ["clips"] : []),
    ...(traits.times === "none" && traits.clips !== "none" ? ["times"] : []),
    ...(traits.times === "by-clip" ? [t("a duration per step")] : []),
    ...(traits.origins ? [] : ["origins"]),
    ...(traits.trims ? [] : ["trimming"]),
    ...(traits.turns ? [] : [t("turned frames")]),
    ...(traits.pages === "one" ? [t("several pages in one file")] : []),
    ...(traits.playbacks.includes("pingpong") || traits.clips === "none" ? [] : [t("ping-pong playback")]),
    "events",
    shape.reading.marks
      ? t("boxes and points other than {marks}", { marks: shape.reading.marks.map(({ name }) => name).join(", ") })
      : t("boxes and points"),
    ...(shape.outlines.size > 0 ? [] : ["outlines"]),
  ];
  return { lines: [...lines.values()], strange, unassigned, noPlace };
}

/** What of this atlas a shape could not say, in whole sentences; nothing if all of it is there. */
export function notesOf(
  { traits, reading, outlines }: Shape,
  atlas: Atlas,
  sheets: readonly { readonly clips: readonly unknown[] }[],
  file: string,
): string[] {
  const clips = Object.entries(atlas.clips);
  const list = (names: readonly string[]) =>
    names.length > 4 ? t("{listed} and {more} more", { listed: names.slice(0, 4).join(", "), more: names.length - 4 }) : names.join(", ");
  const notes: string[] = [];
  const note = (names: readonly string[], what: string) => {
    if (names.length > 0) notes.push(`${file}: ${what} ${list(names)}.`);
  };
  const of = (test: (clip: (typeof clips)[number][1]) => boolean) => clips.filter(([, clip]) => test(clip)).map(([name]) => name);
  const lists = [...outlines.values()];
  const placed = new Set(reading.marks?.map(({ name }) => name));
  const marked = Object.values(atlas.frames).map(
    ({ boxes = {}, points = {}, outlines = {} }) => new Set([boxes, points, outlines].flatMap(Object.keys)),
  );
  const framed = Object.values(atlas.frames).map(({ outlines: own = {} }) => ({ outlines: own }));
  const listed = new Set(lists.flatMap((list) => kindFor(list, framed) ?? []));
  for (const list of lists) {
    const kind = kindFor(list, framed);
    const all = framed.map((frame) => outlinesOfKind(frame, kind));
    const without = all.filter((each) => each.length === 0).length;
    if (without > 0)
      notes.push(
        t("{file}: {without} of {all} frames have no {name}; they get an empty list.", { file, without, all: all.length, name: list.name }),
      );
    if (!list.several && all.some((each) => each.length > 1))
      notes.push(t("{file}: its shape holds one polygon of {name}; if there are several, it has the largest.", { file, name: list.name }));
  }
  const unplaced = new Set(marked.flatMap((names) => [...names].filter((name) => !placed.has(name) && !listed.has(name))));
  if (unplaced.size > 0) notes.push(t("{file}: its shape cannot hold {list}.", { file, list: list([...unplaced]) }));
  for (const name of placed) {
    const without = marked.filter((names) => !names.has(name)).length;
    if (without > 0)
      notes.push(t("{file}: {without} of {marked} frames have no {name}; they get 0.", { file, without, marked: marked.length, name }));
  }
  if (Object.values(atlas.frames).some(({ boxes = {} }) => Object.entries(boxes).some(([name, all]) => placed.has(name) && all.length > 1)))
    notes.push(t("{file}: its shape holds one box of a kind; others are left out.", { file }));
  if (traits.clips === "none") {
    if (clips.length > 0) notes.push(t("{file}: its shape cannot hold clips; {clips} are left out.", { file, clips: clips.length }));
    return notes;
  }
  if (traits.times === "none")
    note(
      of(() => true),
      t("its shape cannot hold the times of"),
    );
  else if (traits.times === "by-clip")
    note(
      of(({ steps }) => steps.some(({ ms }) => ms !== steps[0]?.ms)),
      t("its shape has one duration for all steps; the mean was written for"),
    );
  else if (traits.times === "by-frame" && traits.clips === "frames")
    note(unevenFrames(atlas), t("its shape has one duration per frame; clips need several for"));
  note(
    of(({ steps }) => steps.some(({ events }) => events?.length)),
    t("its shape cannot hold the events of"),
  );
  for (const [instead, what] of INSTEAD)
    note(
      of((clip) => playedAs(clip, traits).instead === instead),
      what,
    );
  if (traits.playbacks.length === 0)
    note(
      of(({ playback }) => playback === "once"),
      t("its shape cannot hold how a clip plays; this plays once:"),
    );
  const written = sheets.reduce((count, sheet) => count + sheet.clips.length, 0);
  if (written < clips.length)
    notes.push(
      t("{file}: {clips} clips lie on several pages, of which its shape has one a file; they are left out.", {
        file,
        clips: clips.length - written,
      }),
    );
  if (traits.clips === "each-frame") {
    const shown = new Set(clips.flatMap(([, { steps }]) => steps.map(({ frame }) => frame)));
    note(
      Object.keys(atlas.frames).filter((name) => !shown.has(name)),
      t("its records are steps of clips; these frames are in no clip:"),
    );
  }
  if (!traits.trims && Object.values(atlas.frames).some(isTrimmed)) notes.push(t("{file}: its shape cannot hold trimming.", { file }));
  return notes;
}

const INSTEAD: readonly (readonly [PlayedAs["instead"], string])[] = [
  ["the way back is written out", "its shape cannot hold a ping-pong; the way back was written out for"],
  ["all rounds are written out", "its shape has no number of loops; all loops were written out for"],
  ["it goes on forever", "its shape has no number of loops; these play forever:"],
  ["its lead-in comes again", "its shape cannot hold a lead-in, which repeats in every loop of"],
];

function unevenFrames({ clips }: Atlas): string[] {
  const times = new Map<string, number>();
  const uneven = new Set<string>();
  for (const { steps } of Object.values(clips))
    for (const { frame, ms } of steps) {
      if ((times.get(frame) ?? ms) !== ms) uneven.add(frame);
      times.set(frame, ms);
    }
  return [...uneven];
}
