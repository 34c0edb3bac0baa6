/**
 * Learns the shape of an example: which values hold which facts of a delivery, which records repeat per frame, clip and step, and which
 * values stay as they are.
 *
 * Paths are the example's, with `*` for members of repeated lists or records; a trailing `#` means the key. What a reading knows comes
 * first; an unknown value is identified from the example itself: it means whatever it equals in every record. Cost: O(values × further
 * meanings).
 */
import { groupAt, isPicture, lastPart, numberAt, type ReadFrame, readFrames, says, sideOf, unseen } from "../metadata";
import { CaravanError, type Example, type Reading, type Size } from "../model";
import type { Leaf } from "../notation";
import { t } from "../words";
import { type FrameFacts, firstOfEach, type PageFacts } from "./facts";
import { addFurther, KEEP } from "./further";
import type { Located } from "./locate";
import { loopsOf, type Repeats } from "./loops";
import { outlineListsIn } from "./outline-lists";
import { canRepeat, keyed, placesOf, resolved } from "./pattern-paths";
import { type Place, placeAt } from "./place";
import {
  ASSIGNABLE,
  CLIP_NAME,
  clipQuantity,
  FACING,
  FRAME_COUNT,
  frameCalling,
  frameQuantity,
  IMAGE,
  markQuantity,
  named,
  PAGE_HEIGHT,
  PAGE_WIDTH,
  type Quantity,
  SCALE,
} from "./quantities";
import { holdsFrame, withoutLists } from "./reading-without-lists";
import { type Add, needsPage, type Shape, type Slot, traitsOf } from "./shape";

/**
 * Throws `bad-metadata` if the example has too few frames or a list with only one member, or if it needs the size of its picture and `page`
 * is unknown. `where` names the file.
 */
export function learnShape(
  located: Located,
  reading: Reading,
  where: string,
  { assigned = [], page }: { readonly assigned?: Example["assigned"]; readonly page?: Size | undefined } = {},
): Shape {
  const { root, parsed, text } = located;
  const refuse = (what: string, remedy: string) => new CaravanError("bad-metadata", where, what, remedy);
  const unlike = [
    reading.frames === "$cells" && t("has no records of frames"),
    reading.frames.includes("^") && t("lists each field separately for all frames"),
  ].find((each) => typeof each === "string");
  if (unlike)
    throw refuse(
      t("It {unlike}, which can be read but not written.", { unlike }),
      t("Give an example with x, y, width and height in pixels."),
    );
  if (needsPage(reading) && !page)
    throw refuse(
      t("It counts from the picture's bottom or in fractions of the picture, whose size is unknown."),
      t("Give it together with its picture."),
    );
  const group = groupAt(parsed, reading.frames, Object.values(reading.fields));
  const { frames: read } = readFrames(parsed, reading, unseen("", page));
  if (read.length < 2)
    throw refuse(t("It describes fewer than two frames."), t("Give one with several, to show what changes between frames."));
  if (read.some(({ turned }) => turned === "counter"))
    throw refuse(t("It turns frames counter-clockwise, but delivered frames are turned clockwise."), t("Give one without turned frames."));
  if (reading.clips && !/[*^]/.test(reading.clips.records))
    throw refuse(t("It has only one clip, in a separate record."), t("Give one with two or more, to show how they follow each other."));
  const repeats = loopsOf(reading, located, group);
  for (const [pattern, what] of repeats)
    if (what !== "once" && !canRepeat(root, pattern))
      throw refuse(
        t("It has only one record at {pattern}.", { pattern }),
        t("Give one with two or more, to show how they follow each other."),
      );
  const slots = new Map<string, Slot>();
  const valuesAt = (path: string) => valuesOf(root, path, text, repeats);
  const add: Add = (path, quantity, by = "reading") => {
    if (quantity && !slots.has(path)) slots.set(path, { quantity, seen: valuesAt(path), by });
  };
  // What a person says takes precedence over what seems likely.
  for (const { path, means } of assigned) add(path, Object.hasOwn(ASSIGNABLE, means) ? (ASSIGNABLE[means] as Quantity) : null, "person");

  const first = group.records[0] as (typeof group.records)[number];
  const crossed = (numberAt(first, reading.fields.bottom) ?? 1 / 0) < (numberAt(first, reading.fields.y) ?? 0);
  for (const [field, path] of Object.entries(reading.fields) as [keyof Reading["fields"] & string, string][]) {
    const at = resolved(path, reading.frames, first.path, root);
    if (at === null) continue;
    const quantity = frameQuantity(field as never, reading, crossed);
    add(at, field === "name" && quantity ? named(quantity, commonEnding(valuesAt(at))) : quantity);
  }
  for (const mark of reading.marks ?? [])
    for (const side of ["x", "y", "w", "h"] as const) {
      const path = mark[side];
      const at = path === undefined ? null : resolved(path, reading.frames, first.path, root);
      if (at !== null) add(at, markQuantity(mark.name, side, mark.w !== undefined));
    }
  // Single values: the page's picture and size.
  const told = addStatic(located, repeats, read, add);
  const facts = exampleFacts(read, { ...told, size: page ?? told.size });
  const places = new Map<Place, FrameFacts>();
  for (const frame of facts) {
    const place = placeAt(root, (group.records[frame.index] as { path: string }).path);
    if (place) places.set(place, frame);
  }
  if (reading.clips) addClips(reading.clips, located, add, valuesAt);
  for (const [pattern, what] of repeats) {
    if (what === "actions") add(`${pattern}#`, CLIP_NAME);
    if (what === "facings") add(`${pattern}#`, FACING);
    if (what === "clips" && keyed(root, pattern) && reading.clips?.fields.name === undefined) add(`${pattern}#`, CLIP_NAME);
  }
  const lists = outlineListsIn(places, text).filter(({ path }) => !holdsFrame(reading, path));
  // The contents of a list of corners are not values of their own, whatever they look like.
  const apart = withoutLists(reading, lists);
  if (apart !== reading) return learnShape(located, apart, where, { assigned, page });
  const outlines = new Map(lists.map((list) => [`${reading.frames}.${list.path}`, list]));
  const kept = new Set(assigned.flatMap(({ path, means }) => (means === KEEP ? [path] : [])));
  const strange = addFurther(reading.frames, places, repeats, slots, add, kept, outlines);
  const nameAt = reading.fields.name === undefined ? null : resolved(reading.fields.name, reading.frames, first.path, root);
  const frameName = (nameAt !== null && slots.get(nameAt)) || null;
  return {
    ...{ file: where, located, reading, slots, repeats, frames: places, outlines, frameName },
    traits: traitsOf(reading, repeats, slots),
    strange: strange.map(({ path }) => path),
    unassigned: strange.flatMap(({ path, geometry }) => (geometry ? [path] : [])),
  };
}

/** The example's values at a path, or its keys if that ends in `#`. */
function valuesOf(root: Place, path: string, text: string, repeats: ReadonlyMap<string, Repeats>): Slot["seen"] {
  const isKey = path.endsWith("#");
  const plain = isKey ? path.slice(0, -1) : path;
  // A path without repeated members may contain a star of its own.
  const places = repeats.size > 0 ? placesOf(root, plain) : [];
  return places.flatMap((place) => {
    const spelled = isKey ? place.key : place.value;
    return spelled ? [{ value: spelled.means, raw: text.slice(spelled.from, spelled.to) }] : [];
  });
}

function commonEnding(values: Slot["seen"]): string {
  const ending = /\.[A-Za-z]{3,4}$/.exec(String(values[0]?.value ?? ""))?.[0] ?? "";
  return ending !== "" && values.every(({ value }) => String(value).endsWith(ending)) ? ending : "";
}

function exampleFacts(read: readonly ReadFrame[], page: PageFacts): FrameFacts[] {
  return read.map(({ name, rect, turned, inset, size, origin, boxes, points, ms, index }) => ({
    ...{ name, rect, turned: turned === true, inset, size, origin, points, ms, index },
    boxes: firstOfEach(boxes),
    outlines: {},
    page,
    clip: null,
  }));
}

function addClips(
  clips: NonNullable<Reading["clips"]>,
  { root, parsed }: Located,
  add: Add,
  valuesAt: (path: string) => Slot["seen"],
): void {
  const first = groupAt(parsed, clips.records, Object.values(clips.fields)).records[0];
  if (!first) return;
  const { frame, frames, ...rest } = clips.fields;
  const steps = frames !== undefined ? [clips.records, frames, "*"].filter((part) => part !== "").join(".") : null;
  const called = steps ?? (frame === undefined ? null : resolved(frame, clips.records, first.path, root));
  if (called !== null) {
    const seen = valuesAt(called);
    const byNumber = seen.every(({ value }) => typeof value === "number");
    const calling = frameCalling(byNumber, clips.from);
    add(called, byNumber ? calling : named(calling, commonEnding(seen)));
  }
  for (const [field, path] of Object.entries(rest)) {
    const at = resolved(path, clips.records, first.path, root);
    if (at !== null) add(at, clipQuantity(field as never, clips));
  }
}

/** Values outside all repetition, and those of pages. Reports the example's own page. */
function addStatic({ root }: Located, repeats: ReadonlyMap<string, Repeats>, read: readonly ReadFrame[], add: Add): PageFacts {
  const found: { path: string; value: Leaf }[] = [];
  const visit = (place: Place, path: string) => {
    if (place.value) found.push({ path, value: place.value.means });
    for (const [key, child] of place.children) {
      const inside = path === "" ? key : `${path}.${key}`;
      const what = repeats.get(path === "" ? "*" : `${path}.*`);
      if (what === undefined || !hasSlots(what)) visit(child, inside);
      else if (what === "pages") {
        if (key === place.children.keys().next().value) visit(child, `${path === "" ? "" : `${path}.`}*`);
      } else if (what === "frames" && isPicture(key) && !read.some(({ name }) => name === key)) {
        // A record beside the frames that names their picture.
        add(`${inside}#`, IMAGE);
        visit(child, inside);
      }
    }
  };
  visit(root, "");
  const right = Math.max(...read.map(({ rect }) => rect.x + rect.w));
  const bottom = Math.max(...read.map(({ rect }) => rect.y + rect.h));
  let image = "";
  let size: { w: number; h: number } | null = null;
  for (const { path, value } of found) {
    if (typeof value === "string" && isPicture(value)) {
      add(path, IMAGE);
      image = value;
    } else if (typeof value === "number") {
      const partner = partnerOf(path, found);
      const named = partner && (sideOf(path) !== null || says(path, SIZE_WORDS));
      // Two unnamed numbers in a list are a page's size if all frames lie within it and it is hardly larger than necessary.
      if (partner && value >= right && partner.value >= bottom && (named || (value <= 2 * right && partner.value <= 2 * bottom))) {
        add(path, PAGE_WIDTH);
        add(partner.path, PAGE_HEIGHT);
        size = { w: value, h: partner.value };
      } else if (value === read.length && says(path, ["count", "frames", "total", "number", "length", "sprites", "n"]))
        add(path, FRAME_COUNT);
      else if (says(lastPart(path), ["scale"])) add(path, SCALE);
    }
  }
  return { image, size, index: 0, scale: 1 };
}

const hasSlots = (what: Repeats) => what !== "once";

const SIZE_WORDS = ["size", "dimensions", "extent"];

/** For the width of something its height: the same words, or the second of a list of two. */
function partnerOf(path: string, all: readonly { path: string; value: Leaf }[]): { path: string; value: number } | null {
  const side = sideOf(path);
  const wanted =
    side?.side === "w"
      ? all.find((each) => sideOf(each.path)?.side === "h" && sideOf(each.path)?.stem === side.stem)
      : /(^|\.)0$/.test(path) && !all.some((each) => each.path === path.replace(/0$/, "2"))
        ? all.find((each) => each.path === path.replace(/0$/, "1"))
        : undefined;
  return wanted && typeof wanted.value === "number" ? { path: wanted.path, value: wanted.value } : null;
}
