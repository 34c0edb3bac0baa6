import { type ReadFrame, readClips, readFrames, unseen } from "../metadata";
import { CaravanError } from "../model";
import { parseAs } from "../notation";
import type { FrameFacts, Sheet } from "./facts";
import type { Shape } from "./learn";

/**
 * Reads what was written in a shape as the example was read, and compares every frame, and every step of every clip, with what was
 * meant, as far as the shape can say it. Throws `proof-failed` naming the first that differs. `where` names the file.
 */
export function proveShape(text: string, { reading, traits, frameName }: Shape, sheet: Sheet, where: string): void {
  const parsed = parseAs(reading.container, text, where);
  const { frames, unplaced } = readFrames(parsed, reading, unseen(""));
  const refuse = (what: string, why: string) =>
    new CaravanError(
      "proof-failed",
      where,
      `Read back, ${what} is not what was meant: ${why}.`,
      "The example's structure is not understood well enough: give one with more frames and clips, or deliver without it.",
    );
  if (frames.length !== sheet.frames.length)
    throw refuse(
      "the number of frames",
      `${frames.length}, not ${sheet.frames.length}${unplaced[0] ? `. ${unplaced[0].where}: ${unplaced[0].why}` : ""}`,
    );
  for (const [k, wanted] of sheet.frames.entries()) {
    const name = frameName?.quantity.of({ sheet, page: wanted.page, frame: wanted });
    const why = differenceOf(frames[k] as ReadFrame, wanted, traits, typeof name === "string" ? name : null);
    if (why) throw refuse(`frame "${wanted.name}"`, why);
  }
  if (traits.clips === "none") return;
  const clips = readClips(parsed, reading, frames);
  for (const [k, { name, steps }] of sheet.clips.entries()) {
    const read = clips[k];
    const shown = read?.steps.map(({ frame }) => frames.findIndex((each) => each.name === frame)) ?? [];
    if (shown.join() !== steps.map(({ frame }) => frame.index).join())
      throw refuse(`clip "${name}"`, read ? `it shows ${shown.length} steps, ${steps.length} were meant, or others` : "it is missing");
    if (traits.times !== "by-step") continue;
    const step = steps.findIndex(({ ms }, at) => Math.abs((read?.steps[at]?.ms ?? 0) - ms) > 0.0015);
    if (step >= 0) throw refuse(`clip "${name}"`, `step ${step} shows for ${read?.steps[step]?.ms} ms`);
  }
}

function differenceOf(read: ReadFrame, wanted: FrameFacts, { trims, turns, origins }: Shape["traits"], name: string | null): string | null {
  if (name !== null && read.name !== name) return `it is called ${read.name}`;
  const { x, y, w, h } = wanted.rect;
  const { rect } = read;
  if (rect.x !== x || rect.y !== y || rect.w !== w || rect.h !== h) return `it lies at ${rect.x}, ${rect.y}, ${rect.w} × ${rect.h} px`;
  if (turns && read.turned !== wanted.turned) return "it is turned another way";
  if (
    trims &&
    (read.size.w !== wanted.size.w || read.size.h !== wanted.size.h || read.inset.x !== wanted.inset.x || read.inset.y !== wanted.inset.y)
  )
    return `it is ${read.size.w} × ${read.size.h} px with an inset of ${read.inset.x}, ${read.inset.y}`;
  const { origin } = wanted;
  if (origins && origin && (Math.abs((read.origin?.x ?? -1e9) - origin.x) > 0.5 || Math.abs((read.origin?.y ?? -1e9) - origin.y) > 0.5))
    return `its origin is at ${read.origin?.x}, ${read.origin?.y}`;
  return null;
}
