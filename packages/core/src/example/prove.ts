import { groupAt, type ReadFrame, readClips, readFrames, unseen } from "../metadata";
import { CaravanError, ownOf, type Reading } from "../model";
import { parseAs } from "../notation";
import { t } from "../words";
import type { FrameFacts, Sheet } from "./facts";
import { locate } from "./locate";
import { kindFor, saysOutlines } from "./outline-lists";
import { placeAt } from "./place";
import type { Shape } from "./shape";

/**
 * Reads a written file like the example, and compares every frame and every step of every clip with what was meant, as far as the shape can
 * express it. Throws `proof-failed` with the first difference. `where` names the file.
 */
export function proveShape(text: string, { reading, traits, frameName, outlines }: Shape, sheet: Sheet, where: string): void {
  const parsed = parseAs(reading.container, text, where);
  const { frames, unplaced } = readFrames(parsed, reading, unseen("", sheet.pages[0]?.size ?? undefined));
  const refuse = (what: string, why: string) =>
    new CaravanError(
      "proof-failed",
      where,
      t("Read back, {what} is not what was meant: {why}.", { what, why }),
      t("The example's structure is not understood well enough: give one with more frames and clips, or deliver without it."),
    );
  if (frames.length !== sheet.frames.length)
    throw refuse(
      t("the number of frames"),
      unplaced[0]
        ? t("{frames}, not {wanted}. {where}: {why}", {
            frames: frames.length,
            wanted: sheet.frames.length,
            where: unplaced[0].where,
            why: unplaced[0].why,
          })
        : t("{frames}, not {wanted}", { frames: frames.length, wanted: sheet.frames.length }),
    );
  for (const [k, wanted] of sheet.frames.entries()) {
    const name = frameName?.quantity.of({ sheet, page: wanted.page, frame: wanted });
    const read = frames[k] as ReadFrame;
    const why = differenceOf(read, wanted, traits, typeof name === "string" ? name : null) ?? markDifference(read, wanted, reading);
    if (why) throw refuse(t('frame "{name}"', { name: wanted.name }), why);
  }
  const records = outlines.size > 0 ? groupAt(parsed, reading.frames, Object.values(reading.fields)).records : [];
  const root = records.length > 0 ? locate(text, where, reading.container).root : null;
  for (const [k, wanted] of root ? sheet.frames.entries() : []) {
    const record = root && placeAt(root, records[frames[k]?.index ?? -1]?.path ?? "");
    for (const list of outlines.values())
      if (!record || !saysOutlines(list, record, wanted, kindFor(list, sheet.frames)))
        throw refuse(t('frame "{name}"', { name: wanted.name }), t("its {name} differs", { name: list.name }));
  }
  if (traits.clips === "none") return;
  const clips = readClips(parsed, reading, frames);
  for (const [k, { name, steps }] of sheet.clips.entries()) {
    const read = clips[k];
    const shown = read?.steps.map(({ frame }) => frames.findIndex((each) => each.name === frame)) ?? [];
    if (shown.join() !== steps.map(({ frame }) => frame.index).join())
      throw refuse(
        t('clip "{name}"', { name }),
        read
          ? t("it shows {shown} steps, {steps} were meant, or others", { shown: shown.length, steps: steps.length })
          : t("it is missing"),
      );
    if (traits.times !== "by-step") continue;
    const step = steps.findIndex(({ ms }, at) => Math.abs((read?.steps[at]?.ms ?? 0) - ms) > 0.0015);
    if (step >= 0)
      throw refuse(t('clip "{name}"', { name }), t("step {step} shows for {ms} ms", { step, ms: read?.steps[step]?.ms ?? "" }));
  }
}

/** Boxes and points that the shape can hold. Fractions of pixels, as after scaling, cannot be exact in a file of boxes. */
function markDifference(read: ReadFrame, wanted: FrameFacts, { marks = [] }: Reading): string | null {
  for (const { name, w } of marks) {
    const [box, point] = [ownOf(wanted.boxes, name), ownOf(wanted.points, name)];
    if (w !== undefined && box) {
      const [own] = ownOf(read.boxes, name) ?? [];
      if (![box.x, box.y, box.w, box.h].every(Number.isInteger)) continue;
      if (own?.x !== box.x || own.y !== box.y || own.w !== box.w || own.h !== box.h) return t("its box {name} differs", { name });
    } else if (w === undefined && point) {
      const own = ownOf(read.points, name);
      if (!own || Math.abs(own.x - point.x) > 0.5 || Math.abs(own.y - point.y) > 0.5) return t("its point {name} differs", { name });
    }
  }
  return null;
}

function differenceOf(read: ReadFrame, wanted: FrameFacts, { trims, turns, origins }: Shape["traits"], name: string | null): string | null {
  if (name !== null && read.name !== name) return t("it is called {name}", { name: read.name });
  const { x, y, w, h } = wanted.rect;
  const { rect } = read;
  if (rect.x !== x || rect.y !== y || rect.w !== w || rect.h !== h)
    return t("it lies at {x}, {y}, {w} × {h} px", { x: rect.x, y: rect.y, w: rect.w, h: rect.h });
  if (turns && read.turned !== wanted.turned) return t("it is turned another way");
  if (
    trims &&
    (read.size.w !== wanted.size.w || read.size.h !== wanted.size.h || read.inset.x !== wanted.inset.x || read.inset.y !== wanted.inset.y)
  )
    return t("it is {w} × {h} px with an inset of {x}, {y}", { w: read.size.w, h: read.size.h, x: read.inset.x, y: read.inset.y });
  const { origin } = wanted;
  if (origins && origin && (Math.abs((read.origin?.x ?? -1e9) - origin.x) > 0.5 || Math.abs((read.origin?.y ?? -1e9) - origin.y) > 0.5))
    return t("its origin is at {x}, {y}", { x: read.origin?.x ?? "", y: read.origin?.y ?? "" });
  return null;
}
