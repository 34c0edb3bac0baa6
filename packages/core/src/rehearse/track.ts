/** Checks tracks from files against the behaviour that they are for. */
import type { Rules } from "../behave";
import { CaravanError, Track, type TrackEntry } from "../model";

/**
 * The entries of a track. Throws `bad-track` with the place of the first entry that does not fit: one of another form, out of order, for an input
 * that the behaviour does not have, or with a value that is not of its kind.
 */
export function checkedTrack(content: unknown, { inputs }: Pick<Rules, "inputs">, where: string): Track {
  const parsed = Track.safeParse(content);
  if (!parsed.success) {
    if (!Array.isArray(content)) throw badTrack(where, "A track is a JSON list of entries.");
    const place = content.findIndex((each) => !Track.element.safeParse(each).success);
    throw badTrack(
      `${where}, entry ${place}`,
      `${JSON.stringify(content[place])?.slice(0, 80) ?? "It"} is none of {"at", "press"}, {"at", "release"}, {"at", "set"} and {"at", "face"}, with "at" in ms from 0.`,
    );
  }
  let before = 0;
  for (const [k, entry] of parsed.data.entries()) {
    const place = `${where}, entry ${k}`;
    if (entry.at < before) throw badTrack(place, `It is at ${entry.at} ms, but the entry before it is at ${before} ms.`);
    before = entry.at;
    for (const [name, kinds] of askedOf(entry)) {
      const input = inputs.find((each) => each.name === name);
      if (!input) throw badTrack(place, `The behaviour has no input "${name}". ${listed(inputs.map((each) => each.name))}`);
      if (!kinds.includes(input.kind)) throw badTrack(place, `"${name}" is a ${input.kind}, so it cannot take this.`);
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
  return names.length > 0 ? `It has: ${names.join(", ")}.` : "It has none at all.";
}

function badTrack(where: string, what: string): CaravanError {
  return new CaravanError("bad-track", where, what, "Correct the track, or record it again at Rehearse.");
}
