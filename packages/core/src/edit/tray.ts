/** Edits the order and names of a source's frames. */
import {
  CaravanError,
  checkedName,
  type Frame,
  frameName,
  naturalOrder,
  type Project,
  type Source,
  type SourceId,
  sourceById,
} from "../model";
import { t } from "../words";
import { edit } from "./edit";
import { withSource } from "./with-source";

/** What frames can be put in order by. */
export type TrayOrder = "position" | "name" | "reverse";

export const orderFrames = edit(
  (project, id: SourceId, order: TrayOrder) =>
    order === "reverse"
      ? t("reverse the frames of {name}", { name: sourceById(project, id).name })
      : t("sort the frames of {name} by {order}", { name: sourceById(project, id).name, order }),
  (project, id, order) => {
    const source = sourceById(project, id);
    const frames = ordered(source, order);
    return frames.every((frame, k) => frame === source.frames[k]) ? project : withSource(project, { ...source, frames });
  },
);

function ordered(source: Source, order: TrayOrder): Frame[] {
  switch (order) {
    case "reverse":
      return source.frames.toReversed();
    case "name":
      return source.frames.toSorted((a, b) => naturalOrder(frameName(source, a), frameName(source, b)));
    case "position":
      return source.frames.toSorted(
        (a, b) => (a.picture ?? 0) - (b.picture ?? 0) || a.row - b.row || a.column - b.column || a.number - b.number,
      );
  }
}

/** Moves the frames with these keys, in the order they have, before the one that is then at `to` among the others. */
export const moveFrames = edit(
  (project, id: SourceId, keys: readonly string[], _to: number) =>
    keys.length === 1
      ? t("move a frame of {name}", { name: sourceById(project, id).name })
      : t("move {count} frames of {name}", { count: keys.length, name: sourceById(project, id).name }),
  (project, id, keys, to) => {
    const source = sourceById(project, id);
    const moving = new Set(keys);
    const stay = source.frames.filter((frame) => !moving.has(frame.key));
    const gone = source.frames.filter((frame) => moving.has(frame.key));
    const at = Math.max(0, Math.min(stay.length, to));
    const frames = [...stay.slice(0, at), ...gone, ...stay.slice(at)];
    return frames.every((frame, k) => frame === source.frames[k]) ? project : withSource(project, { ...source, frames });
  },
);

/** How names are made: text with `{source}`, `{row}`, `{column}` and `{n}`, the running number. */
export interface NamePattern {
  readonly text: string;
  readonly start: number;
  readonly step: number;
  /** Digits that numbers have at least. */
  readonly padding: number;
}

/** The names that a pattern gives these frames, in their order. */
export function namesByPattern(source: Source, frames: readonly Frame[], { text, start, step, padding }: NamePattern): string[] {
  const digits = (value: number) => `${value < 0 ? "-" : ""}${String(Math.abs(value)).padStart(padding, "0")}`;
  // In one pass and by a function, so that neither $ nor {…} in a source's own name has a meaning.
  return frames.map((frame, k) =>
    text.replace(/\{(source|row|column|n)\}/g, (_, part: string) => {
      if (part === "source") return source.name;
      return digits(part === "row" ? frame.row : part === "column" ? frame.column : start + k * step);
    }),
  );
}

/** Names the frames with these keys by a pattern. Throws `bad-name` or `name-taken`; then no name has changed. */
export const nameFrames = edit(
  (project, id: SourceId, keys: readonly string[], _pattern: NamePattern) =>
    t("name {count} frames of {name}", { count: keys.length, name: sourceById(project, id).name }),
  (project, id, keys, pattern): Project => {
    const source = sourceById(project, id);
    const wanted = new Set(keys);
    const chosen = source.frames.filter((frame) => wanted.has(frame.key));
    const names = namesByPattern(source, chosen, pattern).map((name) => checkedName(name, t("frame name")));
    const taken = new Set(
      project.sources.flatMap((each) =>
        each.frames.filter((frame) => each.id !== id || !wanted.has(frame.key)).map((frame) => frameName(each, frame)),
      ),
    );
    for (const name of names) {
      if (taken.has(name))
        throw new CaravanError(
          "name-taken",
          t('frame "{name}"', { name }),
          t("Two frames would have this name."),
          t("Let the pattern hold {n}, or change it.", { n: "{n}" }),
        );
      taken.add(name);
    }
    const byKey = new Map(chosen.map((frame, k) => [frame.key, names[k] as string]));
    const frames = source.frames.map((frame) => {
      const name = byKey.get(frame.key);
      return name === undefined || name === frame.name ? frame : { ...frame, name };
    });
    return frames.every((frame, k) => frame === source.frames[k]) ? project : withSource(project, { ...source, frames });
  },
);
