import { basename } from "node:path";
import type { NamedFile } from "@caravan/core/codec";
import { cutByFile, framesAndClips } from "@caravan/core/intake";
import { layersIn, readClips, readFrames, recogniseAs } from "@caravan/core/metadata";
import { CaravanError, counted, fitFileName, type Reading } from "@caravan/core/model";
import { readFile } from "../files";
import { note } from "../output";
import { writeSheetProject } from "../sheet-project";
import { textIn } from "../text-file";
import { type CutOptions, makesProject } from "./call";
import { type Sheet, type Told, writeFramesOf } from "./sheet";

/** Cuts as a metadata file says. Throws what recognising it throws, and `bad-metadata` if no frame of it lies on the picture. */
export async function byMetadata(sheet: Sheet, file: string, options: CutOptions, into: NamedFile[] | null): Promise<Told> {
  const { image, pixels, coverage } = sheet;
  const described = { picture: basename(image), coverage };
  const text = textIn(readFile(file), file);
  const { parsed, reading, grade } = recogniseAs(text, described, file, options.read);
  const { frames, unplaced } = readFrames(parsed, reading, described);
  const layers = layersIn(parsed.tree, basename(image)).layers.map(({ blendSaid, ...layer }) => ({
    ...layer,
    blendSaid: blendSaid ?? undefined,
  }));
  const clips = readClips(parsed, reading, frames).map((clip) => ({
    ...clip,
    steps: clip.steps.map(({ frame, ms, events }) => ({ frame, ms, ...(events ? { events } : {}) })),
  }));
  if (frames.length === 0)
    throw new CaravanError("bad-metadata", file, "No frame of it lies on this picture.", `First: ${unplaced[0]?.why ?? ""}`);
  if (grade.grade === "doubtful")
    note(`${file}: The reading is doubtful: ${grade.reasons.join("; ")}. Say what fields mean with --read FIELD=MEANING.`);
  if (makesProject(options)) {
    const told = framesAndClips({ frames, clips: readClips(parsed, reading, frames) }, basename(file));
    const cutBy = { cut: cutByFile(basename(file), text, reading), told: told.told };
    writeSheetProject(sheet, { ...cutBy, clips: told.clips }, options, [text]);
  } else
    await writeFramesOf(
      options,
      image,
      pixels,
      frames.map((frame) => ({ ...frame, turned: frame.turned || undefined, name: fileStemOf(frame.name) })),
      into,
    );
  const told = {
    image,
    width: pixels.width,
    height: pixels.height,
    frames: frames.map(({ name, rect, turned, inset, size, origin, boxes, points, ms }, k) => ({
      name,
      ...rect,
      column: k,
      row: 0,
      empty: false,
      turned,
      inset,
      size,
      ...(origin ? { origin } : {}),
      ...(Object.keys(boxes).length > 0 ? { boxes } : {}),
      ...(Object.keys(points).length > 0 ? { points } : {}),
      ...(ms === null ? {} : { ms }),
    })),
    skippedEmpty: 0,
    clips,
    ...(layers.length > 0 ? { layers } : {}),
    reading: { container: reading.container, fields: fieldsOf(reading) },
    unplaced: unplaced.map(({ where, why }) => ({ where, why })),
    ...grade,
  };
  const left = unplaced.length > 0 ? `, ${unplaced.length} that do not fit left out` : "";
  const written = options.out === undefined ? "" : `; written to ${options.out}`;
  return {
    told,
    words: `${image}: ${counted(frames.length, "frame")} and ${counted(clips.length, "clip")} as ${file} says${left}${written}`,
  };
}

/** Our fields and where they were found, as whole paths of the file. */
function fieldsOf({ frames, fields }: Reading): Record<string, string> {
  const whole = (path: string) => (path.startsWith("../") ? path.slice(3) : path === "" ? frames : `${frames}.${path}`);
  return Object.fromEntries(Object.entries(fields).map(([field, path]) => [field, path === "$key" ? `${frames} (its key)` : whole(path)]));
}

/** A frame's name as a file name: flat, without an extension. */
function fileStemOf(name: string): string {
  return fitFileName(name.replace(/\.(png|gif|webp|jpe?g|bmp)$/i, ""));
}
