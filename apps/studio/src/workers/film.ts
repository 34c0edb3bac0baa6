/**
 * Decodes films that the browser supports into exact, countable frames. Frames and their times come from the file's own packets; each is
 * decoded by the browser's decoder, so that seeking never skips or repeats one.
 */
import type { PngCodec } from "@caravan/core/codec";
import { CaravanError, whyOf } from "@caravan/core/model";
import { type Pixels, scaled } from "@caravan/core/raster";
import { t } from "@caravan/core/words";
import { BlobSource, EncodedPacketSink, Input, type InputVideoTrack, MATROSKA, MP4, QTFF, VideoSampleSink, WEBM } from "mediabunny";
import { encoded } from "./encoded";
import { eachInTime, inTime } from "./in-time";
import type { FilmFacts, OnProgress, StoredPicture } from "./jobs";
import { readBack, refuseChangedColours } from "./still";

/** How large a film is and when each of its frames shows, without decoding any. Throws `not-a-picture` or `damaged-picture`. */
export async function filmFacts(blob: Blob, where: string): Promise<FilmFacts> {
  return withTrack(blob, where, async (track) => {
    const shown: { at: number; lasts: number }[] = [];
    for await (const { timestamp, duration } of new EncodedPacketSink(track).packets(undefined, undefined, { metadataOnly: true }))
      shown.push({ at: timestamp, lasts: duration });
    // Packets come in decoding order; those before the film's start are not shown.
    const frames = shown.filter(({ at, lasts }) => at + lasts > 0 || at >= 0).sort((a, b) => a.at - b.at);
    const last = frames.at(-1);
    if (!last) throw new CaravanError("damaged-picture", where, t("There is no frame in this film."), t("Export it again."));
    const first = (frames[0] as { at: number }).at;
    // The last one lasts as long as it says, otherwise as long as the previous one.
    const before = frames.at(-2);
    const lasts = last.lasts > 0 ? last.lasts : before ? last.at - before.at : 0.1;
    return {
      width: await track.getDisplayWidth(),
      height: await track.getDisplayHeight(),
      starts: frames.map(({ at }) => at),
      times: [...frames.map(({ at }) => micros(at - first)), micros(last.at - first + lasts)],
    };
  });
}

/** The frames that begin at `starts` (seconds, ascending), each reduced by `reduction`. */
export async function filmFrames(
  blob: Blob,
  where: string,
  starts: readonly number[],
  reduction: number,
  png: PngCodec,
  onProgress: OnProgress,
): Promise<StoredPicture[]> {
  return withTrack(blob, where, async (track) => {
    await refuseChangedColours(where);
    const stored: StoredPicture[] = [];
    for await (const sample of eachInTime(new VideoSampleSink(track).samplesAtTimestamps(starts), () => noAnswer(where))) {
      if (!sample)
        throw new CaravanError(
          "damaged-picture",
          where,
          t("Frame {frame} of those chosen could not be decoded.", { frame: stored.length }),
          t("Choose others."),
        );
      const pixels = await pixelsOf(sample);
      sample.close();
      stored.push(await encoded(reduction === 1 ? pixels : scaled(pixels, 1 / reduction, false), png));
      onProgress(stored.length / starts.length);
    }
    return stored;
  });
}

type Sample = NonNullable<Awaited<ReturnType<VideoSampleSink["getSample"]>>>;

async function pixelsOf(sample: Sample): Promise<Pixels> {
  const { displayWidth: width, displayHeight: height } = sample;
  if (sample.rotation === 0 && sample.hasAlpha !== false) {
    const frame = sample.toVideoFrame();
    const bitmap = await createImageBitmap(frame, { premultiplyAlpha: "none", colorSpaceConversion: "none" });
    frame.close();
    if (bitmap.width === width && bitmap.height === height) return readBack(bitmap, width, height);
  }
  const context = new OffscreenCanvas(width, height).getContext("2d", { willReadFrequently: true });
  if (!context) throw new Error("This browser gives no canvas to draw on.");
  sample.draw(context, 0, 0, width, height);
  return { width, height, bytes: new Uint8Array(context.getImageData(0, 0, width, height).data.buffer) };
}

function noAnswer(where: string): CaravanError {
  const what = t("The browser's decoder does not answer any more.");
  return new CaravanError(
    "damaged-picture",
    where,
    what,
    t("Bring it in again; if that does not help, take a part of it or a smaller size."),
  );
}

async function withTrack<Answer>(blob: Blob, where: string, use: (track: InputVideoTrack) => Promise<Answer>): Promise<Answer> {
  if (typeof VideoDecoder === "undefined")
    throw new CaravanError(
      "not-a-picture",
      where,
      t("This browser decodes no films here: it does so only on this machine's own address or over https."),
      t("Open Caravan at localhost, or bring in stills."),
    );
  const input = new Input({ source: new BlobSource(blob), formats: [WEBM, MATROSKA, MP4, QTFF] });
  try {
    const track = await input.getPrimaryVideoTrack();
    if (!track) throw new CaravanError("not-a-picture", where, t("There are no pictures in this film."), t("Choose another file."));
    if (!(await inTime(track.canDecode(), () => noAnswer(where))))
      throw new CaravanError(
        "not-a-picture",
        where,
        t("This browser cannot decode its pictures ({codec}).", { codec: (await track.getCodec()) ?? t("unknown") }),
        t("Save it as WebM, or bring in stills."),
      );
    return await use(track);
  } catch (error) {
    if (error instanceof CaravanError) throw error;
    throw new CaravanError(
      "damaged-picture",
      where,
      t("It could not be read as a film: {why}.", { why: whyOf(error) }),
      t("Export it again."),
      {
        cause: error,
      },
    );
  }
}

function micros(seconds: number): number {
  return Math.round(seconds * 1_000_000);
}
