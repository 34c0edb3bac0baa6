import { textFromUtf8, utf8 } from "../codec";
import {
  type Action,
  CaravanError,
  type Clip,
  type DataEntry,
  type DataValue,
  jsonSchemaOf,
  msFromMicros,
  orderedCompactJson,
  orderedJson,
  orderedRecord,
} from "../model";
import { t } from "../words";
import { Atlas, type AtlasAction, type AtlasClip } from "./schema";

/**
 * Writes the atlas file: readable JSON, or compact JSON without spaces and line breaks in a third of the size. Fields follow the order of
 * the format's description, names that of the project.
 */
export function writeAtlas(atlas: Atlas, compact = false): Uint8Array {
  return utf8(compact ? orderedCompactJson(atlas) : `${orderedJson(atlas)}\n`);
}

/** Newest version that is read here. */
const VERSION = 1;

/** Reads an atlas file. Throws `newer-version`, or `damaged-project` with the first field that does not fit. */
export function readAtlas(bytes: Uint8Array, where: string): Atlas {
  let content: unknown;
  try {
    content = JSON.parse(textFromUtf8(bytes));
  } catch (cause) {
    throw new CaravanError("damaged-project", where, t("The atlas file is not JSON."), t("Deliver it again."), { cause });
  }
  const { version } = (content ?? {}) as { version?: unknown };
  if (typeof version === "number" && version > VERSION)
    throw new CaravanError(
      "newer-version",
      where,
      t("It was made by a newer Caravan (version {version}; this one reads up to {newest}).", { version, newest: VERSION }),
      t("Update Caravan, or deliver it with this one."),
    );
  const parsed = Atlas.safeParse(content);
  if (parsed.success) return parsed.data;
  const first = parsed.error.issues[0];
  throw new CaravanError(
    "damaged-project",
    where,
    t("The field {path} does not fit: {message}.", { path: first?.path.join(".") ?? "", message: first?.message ?? "" }),
    t("Deliver it again."),
  );
}

/** A clip as the atlas holds it; `nameOf` gives a step's frame by the name that the game knows. */
export function atlasClip(clip: Clip, nameOf: (step: Clip["steps"][number]) => string): AtlasClip {
  return {
    steps: clip.steps.map((step) => ({
      frame: nameOf(step),
      ms: msFromMicros(step.duration),
      ...(step.events?.length ? { events: step.events } : {}),
      ...(step.eventValues ? { eventValues: atlasData(step.eventValues) } : {}),
      ...(step.parts ? { parts: step.parts } : {}),
    })),
    playback: clip.playback,
    times: clip.times,
    loopFrom: clip.loopFrom,
    after: clip.after,
    ...(clip.doubleEnds ? { doubleEnds: true } : {}),
    ...(clip.data ? { data: atlasData(clip.data) } : {}),
  };
}

/** What a person wrote on something, as the atlas holds it: by name, in the order in which it was given. */
export function atlasData(data: readonly DataEntry[]): Record<string, DataValue> {
  return orderedRecord(data.map(({ name, value }) => [name, value]));
}

/** An action in the atlas: what it has for each facing; for missing ones the game's player uses the nearest. */
export function atlasAction({ facings }: Pick<Action, "facings">): AtlasAction {
  return {
    facings: Object.fromEntries(
      Object.entries(facings).map(([facing, { clip, mirror }]) => [facing, mirror ? { clip, mirror: true } : { clip }]),
    ),
  };
}

/** The JSON Schema of the atlas file. */
export function atlasJsonSchema(): object {
  return jsonSchemaOf(Atlas, t("What a game loads: caravan-atlas, version 1"));
}
