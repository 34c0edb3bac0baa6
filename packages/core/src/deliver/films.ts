/** Writes clips as films: APNG, exact in colour and almost in time, and GIF, with notes on its losses. */
import { layered } from "../assemble";
import type { AtlasClip } from "../atlas";
import { type AnimationFrame, apngTime, gifTimes, type NamedFile, type PngCodec, readApng, readGif, writeApng, writeGif } from "../codec";
import { filmPath, mirroredFilms } from "../delivery-plan";
import { CaravanError, type Delivery } from "../model";
import { stepOrder } from "../playback";
import { clearPixels, looksSame, mirrored, type Pixels, rgbOf } from "../raster";
import { t } from "../words";
import { cellsFor, inCell } from "./cells";
import type { Contents, FrameToDeliver } from "./contents";
import { blendedFrame } from "./frame-layers";
import { type Proof, proofFailed } from "./proof";

export interface Film {
  readonly file: NamedFile;
  readonly clip: string;
  readonly size: { readonly w: number; readonly h: number };
  readonly pictures: number;
}

/** More pictures than this are not written into one film. */
const MOST_PICTURES = 5000;

/** A film of each clip in each of the formats, read back and compared. Throws `nothing-picked` without clips, `proof-failed`. */
export function films(
  { frames, clips, actions, layers }: Contents,
  { films: formats, gifBackground, mirroredFilms: withMirrors }: Pick<Delivery, "films" | "gifBackground" | "mirroredFilms">,
  stem: string,
  png: PngCodec,
  onProgress: (done: number) => void,
): { films: Film[]; proof: Proof; notes: string[] } {
  if (clips.length === 0)
    throw new CaravanError("nothing-picked", t("films"), t("There are no clips to film."), t("Make a clip at Clips first."));
  const byName = new Map(frames.map((frame) => [frame.name, blendedFrame(frame, layers)]));
  const made: Film[] = [];
  const notes: string[] = [];
  const mirrors = withMirrors
    ? mirroredFilms(
        actions.map(([name, { facings }]) => ({ name, facings })),
        clips.map(([name]) => name),
      )
    : [];
  const known = new Map(clips);
  const wanted = [
    ...clips.map(([name, clip]) => ({ name, clip, mirror: false })),
    ...mirrors.map(({ name, clip }) => ({ name, clip: known.get(clip) as AtlasClip, mirror: true })),
  ];
  const proof = { frames: 0, exact: 0, shared: 0, clips: wanted.length, marked: 0 };
  for (const [k, { name, clip, mirror }] of wanted.entries()) {
    const { pictures: drawn, plays, note } = filmOf(name, clip, byName);
    const pictures = mirror ? each(drawn, mirrored) : drawn;
    if (note) notes.push(note);
    const size = { w: pictures[0]?.pixels.width ?? 1, h: pictures[0]?.pixels.height ?? 1 };
    for (const format of formats) {
      const path = filmPath(stem, name, format);
      const written =
        format === "gif"
          ? asGif(path, gifBackground === undefined ? pictures : each(pictures, over(gifBackground)), plays)
          : asApng(path, pictures, plays, png);
      notes.push(...written.notes);
      proof.frames += pictures.length;
      proof.exact += written.exact ? pictures.length : 0;
      made.push({ file: { path, bytes: written.bytes }, clip: name, size, pictures: pictures.length });
    }
    onProgress((k + 1) / wanted.length);
  }
  return { films: made, proof, notes };
}

/** The pictures changed, each once however often it is shown. */
function each(pictures: readonly AnimationFrame[], change: (pixels: Pixels) => Pixels): AnimationFrame[] {
  const done = new Map<Pixels, Pixels>();
  return pictures.map(({ pixels, ms }) => {
    const changed = done.get(pixels) ?? change(pixels);
    done.set(pixels, changed);
    return { pixels: changed, ms };
  });
}

/** Drawn over a colour, `#rrggbb`. */
function over(colour: string): (pixels: Pixels) => Pixels {
  const [r, g, b] = rgbOf(colour);
  return (pixels) => {
    const ground = clearPixels(pixels.width, pixels.height);
    for (let k = 0; k < ground.bytes.length; k += 4) ground.bytes.set([r, g, b, 255], k);
    return layered([
      { pixels: ground, blend: "normal" },
      { pixels, blend: "normal" },
    ]);
  };
}

/** What a film shows: one round of an endless clip, or the whole of one that ends. */
function filmOf(
  name: string,
  clip: AtlasClip,
  byName: ReadonlyMap<string, FrameToDeliver>,
): { pictures: AnimationFrame[]; plays: number; note: string | null } {
  const rules = { playback: clip.playback, times: clip.times, loopFrom: clip.loopFrom, doubleEnds: clip.doubleEnds ?? false };
  const order = stepOrder(rules, clip.steps.length);
  const endless = order.passes === Number.POSITIVE_INFINITY;
  const steps = [...order.first];
  if (!endless) for (let pass = 1; pass < order.passes && steps.length <= MOST_PICTURES; pass++) steps.push(...order.later);
  if (order.home !== null) steps.push(order.home);
  if (steps.length > MOST_PICTURES)
    throw new CaravanError(
      "picture-too-large",
      t('clip "{name}"', { name }),
      t("Its film would have more than {mostPictures} pictures.", { mostPictures: MOST_PICTURES }),
      t("Let it loop forever, or fewer times."),
    );
  const cells = cellsFor(steps.map((step) => frameAt(clip, step, byName)));
  const drawn = new Map<string, Pixels>();
  const pictures = steps.map((step): AnimationFrame => {
    const frame = frameAt(clip, step, byName);
    const pixels = drawn.get(frame.name) ?? inCell(frame, cells);
    drawn.set(frame.name, pixels);
    return { pixels, ms: (clip.steps[step] as AtlasClip["steps"][number]).ms };
  });
  const note =
    endless && clip.loopFrom > 0 ? t("{name}: a film cannot skip its lead-in in later loops, so each loop shows it.", { name }) : null;
  return { pictures, plays: endless ? 0 : 1, note };
}

function frameAt(clip: AtlasClip, step: number, byName: ReadonlyMap<string, FrameToDeliver>): FrameToDeliver {
  return byName.get((clip.steps[step] as AtlasClip["steps"][number]).frame) as FrameToDeliver;
}

interface Written {
  readonly bytes: Uint8Array;
  /** Whether every pixel is read back unchanged. */
  readonly exact: boolean;
  readonly notes: readonly string[];
}

function asApng(path: string, pictures: readonly AnimationFrame[], plays: number, png: PngCodec): Written {
  const bytes = writeApng(pictures, plays, png);
  compare(path, [...(readApng(bytes, path, png)?.frames(damaged(path)) ?? [])], pictures, (ms) => apngTime(ms), true);
  const worst = Math.max(...pictures.map(({ ms }) => Math.abs(apngTime(ms) - ms)));
  return {
    bytes,
    exact: true,
    notes: worst > 0.0005 ? [t("{path}: times differ by up to {round} ms.", { path, round: round(worst) })] : [],
  };
}

function asGif(path: string, pictures: readonly AnimationFrame[], plays: number): Written {
  const times = gifTimes(pictures.map(({ ms }) => ms));
  const { bytes, exact } = writeGif(
    pictures.map(({ pixels }, k) => ({ pixels, ms: times[k] as number })),
    plays,
  );
  let k = 0;
  compare(path, [...readGif(bytes, path).frames(damaged(path))], pictures, () => times[k++] as number, exact);
  const notes: string[] = [];
  const off = pictures.flatMap(({ ms }, at) => (times[at] === ms ? [] : [at]));
  if (off.length > 0) {
    const [total, told] = [sum(pictures.map(({ ms }) => ms)), sum(times)];
    const first = off[0] as number;
    notes.push(
      t(
        "{path}: GIF counts hundredths of a second, so {off} of {pictures} times are rounded ({least} to {most} ms); {total} ms in all become {told} ms.",
        {
          path,
          off: off.length,
          pictures: pictures.length,
          least: round((pictures[first] as AnimationFrame).ms),
          most: times[first] ?? "",
          total: round(total),
          told,
        },
      ),
    );
  }
  if (!exact) notes.push(t("{path}: GIF has 255 colours and no half-transparency, so some colours are approximated.", { path }));
  return { bytes, exact, notes };
}

function compare(
  path: string,
  back: readonly AnimationFrame[],
  meant: readonly AnimationFrame[],
  timeOf: (ms: number) => number,
  exact: boolean,
): void {
  if (back.length !== meant.length) throw proofFailed(t("the number of pictures"), path);
  for (const [k, { pixels, ms }] of meant.entries()) {
    const read = back[k] as AnimationFrame;
    if (Math.abs(read.ms - timeOf(ms)) > 0.001) throw proofFailed(t("the time of picture {k}", { k }), path);
    if (exact ? !looksSame(read.pixels, pixels) : read.pixels.width !== pixels.width || read.pixels.height !== pixels.height)
      throw proofFailed(t("picture {k}", { k }), path);
  }
}

function damaged(path: string): (index: number, why: string) => void {
  return (index, why) => {
    throw proofFailed(t("picture {index} ({why})", { index, why }), path);
  };
}

function sum(values: readonly number[]): number {
  return values.reduce((total, value) => total + value, 0);
}

/** At most three decimals. */
function round(ms: number): number {
  return Math.round(ms * 1000) / 1000;
}
