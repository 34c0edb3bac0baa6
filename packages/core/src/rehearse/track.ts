/** Checks tracks from files against the behaviour that they are for. */
import type { Rules } from "../behave";
import { CaravanError, Track, type TrackEntry } from "../model";
import { t } from "../words";

/**
 * The entries of a track. Throws `bad-track` with the place of the first entry that does not fit: one of another form, out of order, for an input
 * that the behaviour does not have, or with a value that is not of its kind.
 */
export function checkedTrack(content: unknown, { inputs }: Pick<Rules, "inputs">, where: string): Track {
  const parsed = Track.safeParse(content);
  if (!parsed.success) {
    if (!Array.isArray(content)) throw badTrack(where, t("A track is a JSON list of entries."));
    const place = content.findIndex((each) => !Track.element.safeParse(each).success);
    throw badTrack(
      t("{where}, entry {place}", { where, place }),
      `${JSON.stringify(content[place])?.slice(0, 80) ?? "It"} is none of {"at", "press"}, {"at", "release"}, {"at", "set"} and {"at", "face"}, with "at" in ms from 0.`,
    );
  }
  let before = 0;
  for (const [k, entry] of parsed.data.entries()) {
    const place = t("{where}, entry {k}", { where, k });
    if (entry.at < before)
      throw badTrack(place, t("It is at {at} ms, but the entry before it is at {before} ms.", { at: entry.at, before }));
    before = entry.at;
    for (const [name, kinds] of askedOf(entry)) {
      const input = inputs.find((each) => each.name === name);
      if (!input)
        throw badTrack(
          place,
          t('The behaviour has no input "{name}". {inputs}', { name, inputs: listed(inputs.map((each) => each.name)) }),
        );
      if (!kinds.includes(input.kind))
        throw badTrack(place, t('"{name}" is a {kind}, so it cannot take this.', { name, kind: input.kind }));
    }
  }
  return parsed.data;
}

/** The inputs that an entry works, with the kinds that they may have. */
function askedOf(entry: TrackEntry): [name: string, kinds: readonly string[]][] {
  if ("press" in entry) return [[entry.press, ["button"]]];
  if ("release" in entry) return [[entry.release, ["button"]]];
  if ("face" in entry) return [];
  return Object.entries(entry.set).map(([name, value]) => [name, [typeof value === "boolean" ? "switch" : "number"]]);
}

function listed(names: readonly string[]): string {
  return names.length > 0 ? t("It has: {names}.", { names: names.join(", ") }) : t("It has none at all.");
}

function badTrack(where: string, what: string): CaravanError {
  return new CaravanError("bad-track", where, what, t("Correct the track, or record it again at Rehearse."));
}
