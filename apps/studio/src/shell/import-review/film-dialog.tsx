"use client";

import { counted, MOST_PICTURES } from "@caravan/core/model";
import { useEffect, useState } from "react";
import { type AskedFilm, bytesOfFrames, type FilmChoice, framesChosen, useFilm } from "../../project/importing/film";
import { Button } from "../../ui/button";
import { useCountFrom } from "../../ui/counting";
import { sizeInWords } from "../../ui/files";
import { FieldBox, NumberField } from "../../ui/number-field";
import { Select } from "../../ui/select";
import { SheetDialog } from "../../ui/sheet-dialog";
import { t } from "../../ui/words";
import { run } from "../../workers/client";

/** Beyond this size the user is warned: a browser tab may not hold it. */
const MUCH = 512 * 1024 * 1024; // bytes
const PREVIEW = 200; // px

/** Asks what to take from a film: which frames, how many, how large. Shows the cost beforehand. */
export function FilmDialog() {
  const film = useFilm((state) => state.film);
  return film && <Choosing key={`${film.file.name} ${film.file.size}`} film={film} />;
}

function Choosing({ film }: { film: AskedFilm }) {
  const { file, facts, decide } = film;
  const countFrom = useCountFrom();
  const total = facts.starts.length;
  const [choice, setChoice] = useState<FilmChoice>({ first: 0, last: total - 1, every: 1, reduction: 1 });
  const places = framesChosen(choice);
  const bytes = bytesOfFrames(facts, choice);
  const seconds = ((facts.times[choice.last + 1] as number) - (facts.times[choice.first] as number)) / 1_000_000;
  const length = (facts.times[total] as number) / 1_000_000;
  const size = (reduction: number) =>
    `${Math.max(1, Math.round(facts.width / reduction))} × ${Math.max(1, Math.round(facts.height / reduction))}`;
  const number = (label: string, value: number, least: number, most: number, take: (value: number) => Partial<FilmChoice>) => (
    <FieldBox label={label}>
      <NumberField
        label={label}
        value={value}
        least={least}
        most={most}
        onChange={(next) => {
          setChoice({ ...choice, ...take(next) });
          return undefined;
        }}
      />
    </FieldBox>
  );
  return (
    <SheetDialog
      title={t("Frames of {name}", { name: file.name })}
      description={t("{frames} of {width} × {height} px in {seconds} s, {fps} fps. Choose the frames to import.", {
        frames: counted(total, "frame"),
        width: facts.width,
        height: facts.height,
        seconds: seconds3(length),
        fps: fps(total, length),
      })}
      open
      arrives
      onClose={() => decide(null)}
    >
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          decide(choice);
        }}
      >
        <div className="flex flex-wrap items-start gap-4">
          <Preview film={film} place={choice.first} title={t("first: frame {first}", { first: choice.first + countFrom })} />
          <Preview
            film={film}
            place={places.at(-1) ?? choice.last}
            title={t("last: frame {at}", { at: (places.at(-1) ?? choice.last) + countFrom })}
          />
        </div>
        <div className="flex flex-wrap gap-3">
          {number(t("from frame"), choice.first + countFrom, countFrom, choice.last + countFrom, (value) => ({ first: value - countFrom }))}
          {number(t("to frame"), choice.last + countFrom, choice.first + countFrom, total - 1 + countFrom, (value) => ({
            last: value - countFrom,
          }))}
          {number(t("keep one in"), choice.every, 1, Math.max(1, total), (every) => ({ every }))}
          <span className="flex items-center gap-1.5 text-muted">
            {t("size")}
            <Select
              label={t("Size of the frames")}
              value={choice.reduction}
              options={[1, 2, 3, 4, 6, 8].map(
                (reduction) => [reduction, `${size(reduction)}${reduction === 1 ? "" : ` (1/${reduction})`}`] as const,
              )}
              onChange={(reduction) => setChoice({ ...choice, reduction })}
            />
          </span>
        </div>
        <p aria-live="polite" className="number rounded-box bg-surface p-2" data-testid="film-outcome">
          {t("{frames} of {size} px, {seconds} s, {fps} fps; {megabytes} in memory", {
            frames: counted(places.length, "frame"),
            size: size(choice.reduction),
            seconds: seconds3(seconds),
            fps: fps(places.length, seconds),
            megabytes: sizeInWords(bytes),
          })}
        </p>
        {bytes > MUCH && (
          <p className="font-semibold text-brick">{t("That is a lot for a browser: take fewer or smaller frames if it becomes slow.")}</p>
        )}
        {places.length > MOST_PICTURES && (
          <p role="alert" className="font-semibold text-brick">
            {t("A project holds {most} pictures at most: take fewer frames.", { most: MOST_PICTURES })}
          </p>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={() => decide(null)}>{t("Cancel")}</Button>
          <Button look="now" type="submit" autoFocus disabled={places.length === 0 || places.length > MOST_PICTURES} hint="Enter">
            {t("Take {frames}", { frames: counted(places.length, "frame") })}
          </Button>
        </div>
      </form>
    </SheetDialog>
  );
}

/** One frame of the film, decoded for looking at it. */
function Preview({ film, place, title }: { film: AskedFilm; place: number; title: string }) {
  const { file, facts } = film;
  const [bitmap, setBitmap] = useState<ImageBitmap | null>(null);
  useEffect(() => {
    const leaving = new AbortController();
    const start = facts.starts[place];
    if (start === undefined) return;
    const reduction = Math.max(1, Math.ceil(Math.max(facts.width, facts.height) / PREVIEW));
    run("filmFrames", { name: file.name, blob: file, starts: [start], reduction }, { signal: leaving.signal })
      .then(([shown]) => shown && setBitmap(shown.picture.bitmap))
      // Undecodable frames are reported when they are taken.
      .catch(() => {});
    return () => leaving.abort();
  }, [file, facts, place]);
  const paint = (canvas: HTMLCanvasElement | null) => {
    const context = canvas?.getContext("2d");
    if (!context || !bitmap) return;
    context.canvas.width = bitmap.width;
    context.canvas.height = bitmap.height;
    context.drawImage(bitmap, 0, 0);
  };
  return (
    <figure className="m-0">
      <span className="check flex items-center justify-center overflow-hidden rounded-box" style={{ width: PREVIEW, minHeight: 60 }}>
        <canvas ref={paint} role="img" aria-label={title} className="max-w-full" />
      </span>
      <figcaption className="mt-1 text-small text-muted">{title}</figcaption>
    </figure>
  );
}

function seconds3(seconds: number): string {
  return String(Math.round(seconds * 1000) / 1000);
}

function fps(frames: number, seconds: number): string {
  return seconds > 0 ? String(Math.round((frames / seconds) * 100) / 100) : "?";
}
