/** Edits user data on frames, clips and events. Each edit sets one name on any number of things and leaves other names alone. */
import {
  CaravanError,
  type ClipName,
  checkedName,
  counted,
  type DataEntry,
  type DataValue,
  type FrameRef,
  isDataValue,
  MOST_DATA,
  type Project,
  sameValue,
} from "../model";
import { t } from "../words";
import { clipsInWords } from "./clips-in-words";
import { edit } from "./edit";
import { withFrames } from "./with-frames";

/** Where data is stored: on frames or on clips. */
export type DataPlaces = { readonly frames: readonly FrameRef[] } | { readonly clips: readonly ClipName[] };

/** Writes a value under a name, in the place of what was there. Throws `bad-name`, and `bad-number` for what JSON cannot say. */
export const setData = edit(
  (_project, on: DataPlaces, name: string, _value: DataValue) => t("write {name} on {places}", { name, places: placesInWords(on) }),
  (project, on, name, value) => {
    const entry = checkedEntry(name, value);
    return withData(project, on, (data) => withEntry(data, entry));
  },
);

/** Removes the data with a name. */
export const removeData = edit(
  (_project, on: DataPlaces, name: string) => t("remove {name} from {places}", { name, places: placesInWords(on) }),
  (project, on, name) => withData(project, on, (data) => data.filter((each) => each.name !== name)),
);

/** Renames data. Throws `bad-name`; `name-taken` if the new name exists. */
export const renameData = edit(
  (_project, on: DataPlaces, from: string, to: string) => t("rename {from} to {to} on {places}", { from, to, places: placesInWords(on) }),
  (project, on, from, to) => {
    const name = checkedName(to, t("name of data"));
    if (name === from) return project;
    return withData(project, on, (data) => {
      if (!data.some((each) => each.name === from)) return data;
      if (data.some((each) => each.name === name))
        throw new CaravanError("name-taken", t("data"), t('There is "{name}" already.', { name }), t("Choose another name."));
      return data.map((each) => (each.name === from ? { ...each, name } : each));
    });
  },
);

function withData(project: Project, on: DataPlaces, change: (data: readonly DataEntry[]) => readonly DataEntry[]): Project {
  const changed = <Thing extends { data?: DataEntry[] | undefined }>(thing: Thing): Thing => {
    const before = thing.data ?? [];
    const next = change(before);
    if (sameData(before, next)) return thing;
    const { data: _before, ...plain } = thing;
    return (next.length > 0 ? { ...plain, data: [...next] } : plain) as Thing;
  };
  if ("frames" in on) return withFrames(project, new Set(on.frames), ({ frame }) => changed(frame));
  const names = new Set(on.clips);
  const clips = project.clips.map((clip) => (names.has(clip.name) ? changed(clip) : clip));
  return clips.every((clip, k) => clip === project.clips[k]) ? project : { ...project, clips };
}

/** `data` with an entry, in the place of one of its name. */
export function withEntry(data: readonly DataEntry[], entry: DataEntry): readonly DataEntry[] {
  if (data.some(({ name }) => name === entry.name)) return data.map((each) => (each.name === entry.name ? entry : each));
  if (data.length >= MOST_DATA)
    throw new CaravanError(
      "bad-call",
      t("data"),
      t("There are {mostData} values already.", { mostData: MOST_DATA }),
      t("Remove some, or use a list or an object."),
    );
  return [...data, entry];
}

/** Throws `bad-name`, and `bad-number` for what JSON cannot say. */
export function checkedEntry(name: string, value: DataValue): DataEntry {
  if (!isDataValue(value))
    throw new CaravanError(
      "bad-number",
      t('data "{name}"', { name }),
      t("JSON cannot express this value."),
      t("Write text, a number, a list or an object."),
    );
  return { name: checkedName(name, t("name of data")), value };
}

function sameData(a: readonly DataEntry[], b: readonly DataEntry[]): boolean {
  return a === b || (a.length === b.length && a.every(({ name, value }, k) => name === b[k]?.name && sameValue(value, b[k]?.value)));
}

function placesInWords(on: DataPlaces): string {
  return "frames" in on ? counted(on.frames.length, "frame") : clipsInWords(on.clips);
}
