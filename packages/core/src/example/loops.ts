import { facingOfWord } from "../facing";
import type { RecordGroup } from "../metadata";
import type { Reading } from "../model";
import type { Located } from "./locate";
import { placeAt } from "./place";

/** Names what each member of a repeated list or record stands for. */
export type Repeats = "pages" | "frames" | "clips" | "steps" | "actions" | "facings" | "once";

/** What is repeated at each `*` of a reading's paths. */
export function loopsOf(reading: Reading, { root }: Located, group: RecordGroup): Map<string, Repeats> {
  const repeats = new Map<string, Repeats>();
  const { fields, clips } = reading;
  const levels = starsOf(reading.frames);
  const inClips = fields.clip?.startsWith("../");
  const inPages = fields.picture?.startsWith("../") && insideOfMembers(fields.picture, reading.frames, group, root);
  for (const [k, pattern] of levels.entries()) {
    const outward = levels.length - 1 - k;
    const what: Repeats =
      outward === 0
        ? "frames"
        : inClips && fields.clip === "../../$key"
          ? ((["frames", "facings", "actions"] as const)[outward] ?? "once")
          : inClips && outward === 1
            ? "clips"
            : inPages && outward === 1
              ? "pages"
              : "once";
    repeats.set(pattern, what);
  }
  if (!clips) return repeats;
  const told = starsOf(clips.records);
  const stepsApart = clips.fields.frame !== undefined;
  const ofClips = stepsApart ? told.slice(0, -1) : told;
  const names = ofClips.length > 1 ? keysAt(ofClips.at(-1) as string, root) : [];
  const byFacing = clips.fields.facing === undefined && names.length > 0 && names.every((key) => facingOfWord(key) !== null);
  for (const [k, pattern] of ofClips.entries()) {
    const outward = ofClips.length - 1 - k;
    const what: Repeats = byFacing ? ((["facings", "actions"] as const)[outward] ?? "once") : outward === 0 ? "clips" : "once";
    if (!repeats.has(pattern)) repeats.set(pattern, what);
  }
  if (stepsApart) repeats.set(told.at(-1) as string, "steps");
  if (clips.fields.frames !== undefined)
    repeats.set([clips.records, clips.fields.frames, "*"].filter((part) => part !== "").join("."), "steps");
  return repeats;
}

/** `a.*.b.*` -> `a.*`, `a.*.b.*`. */
function starsOf(pattern: string): string[] {
  const parts = pattern.split(".");
  return parts.flatMap((part, k) => (part === "*" ? [parts.slice(0, k + 1).join(".")] : []));
}

function keysAt(pattern: string, root: Located["root"]): string[] {
  const [first = "", second = ""] = pattern.split("*");
  const outer = first === "" ? root : placeAt(root, first.slice(0, -1));
  const inner = [...(outer?.children.values() ?? [])].map((each) => placeAt(each, second.replace(/^\.|\.$/g, "")));
  return inner.flatMap((each) => [...(each?.children.keys() ?? [])]);
}

/** Whether the picture is named by each of several records around the frames rather than once for all. */
function insideOfMembers(path: string, pattern: string, { records }: RecordGroup, root: Located["root"]): boolean {
  const parts = pattern.split(".");
  const outer = parts.slice(0, -1).lastIndexOf("*");
  if (outer < 0) return false;
  const record = records[0]?.path.split(".") ?? [];
  const place = placeAt(root, record.slice(0, outer + 1).join("."));
  return place !== null && placeAt(place, path.replace("../", "")) !== null;
}
