/**
 * Migrates documents of earlier versions, one version at a time.
 *
 * Each step is frozen: it produces the next version as it was then, with its own defaults. It must not use today's defaults, or changing
 * them would change what old documents become.
 */

type Content = Record<string, unknown>;

/** The content of a file of `version` in the next version's form; unchanged if there is no migration. */
export function migrated(content: Content, version: number): Content {
  return MIGRATIONS[version]?.(content) ?? content;
}

/** `MIGRATIONS[n]` migrates version n to n + 1. */
const MIGRATIONS: Record<number, (file: Content) => Content> = {
  // A source had one picture; now it has a list of them. Readings of metadata files are new.
  1: (file) => ({
    ...file,
    version: 2,
    readings: [],
    sources: Array.isArray(file.sources) ? file.sources.map(withPictures) : file.sources,
  }),
  // Actions are new.
  2: (file) => ({ ...file, version: 3, actions: [] }),
  // Deliveries were packed atlases only, with fewer settings.
  3: (file) => ({
    ...file,
    version: 4,
    deliveries: Array.isArray(file.deliveries) ? file.deliveries.map(withAllSettings) : file.deliveries,
  }),
  // Examples of metadata with deliveries in their shape, and contact sheets, are new.
  4: (file) => ({
    ...file,
    version: 5,
    examples: [],
    deliveries: Array.isArray(file.deliveries) ? file.deliveries.map(withoutExampleOrContact) : file.deliveries,
  }),
  // Boxes and points are new.
  5: (file) => ({ ...file, version: 6, marks: [] }),
  // Behaviours came with version 6 and may be absent, as palettes and sources of pieces may now.
  6: (file) => ({ ...file, version: 7 }),
  // Sources may wear a palette.
  7: (file) => ({ ...file, version: 8 }),
  // Outlines are a third shape of marks.
  8: (file) => ({ ...file, version: 9 }),
  // Sources may have layers, and figures parts.
  9: (file) => ({ ...file, version: 10 }),
  // Points may have an angle.
  10: (file) => ({ ...file, version: 11 }),
  // Deliveries may have a page to hand round.
  11: (file) => ({ ...file, version: 12 }),
  // Frames, clips and events may carry data of the user's own.
  12: (file) => ({ ...file, version: 13 }),
  // Examples may keep the size of their picture.
  13: (file) => ({ ...file, version: 14 }),
  // Grids by counts may spread what is left over.
  14: (file) => ({ ...file, version: 15 }),
};

function withoutExampleOrContact(delivery: unknown): unknown {
  return isRecord(delivery) && isRecord(delivery.data)
    ? { ...delivery, data: { ...delivery.data, example: null, contact: false } }
    : delivery;
}

function withPictures(source: unknown): unknown {
  if (typeof source !== "object" || source === null || !("file" in source)) return source;
  const { file, sha256, width, height, ...rest } = source as Record<string, unknown>;
  return { ...rest, pictures: [{ file, sha256, width, height }] };
}

function withAllSettings(delivery: unknown): unknown {
  if (!isRecord(delivery)) return delivery;
  const { powerOfTwo, ...packing } = isRecord(delivery.packing) ? delivery.packing : {};
  return {
    ...DELIVERY_OF_4,
    ...delivery,
    packing: { ...PACKING_OF_4, ...packing, sides: powerOfTwo === true ? "powerOfTwo" : "free" },
  };
}

function isRecord(value: unknown): value is Record<string, unknown> {
  return typeof value === "object" && value !== null;
}

// Equal to today's `USUAL_PACKING` only by coincidence: see above why it is not used here.
const PACKING_OF_4 = {
  paddingPx: 2,
  extrudePx: 1,
  borderPx: 0,
  maxPx: 4096,
  fixed: { w: 1024, h: 1024 },
  square: false,
  maxPages: 16,
  together: "nothing",
  turn: false,
  trim: true,
  trimMarginPx: 0,
  share: true,
  shareMirrored: false,
  effort: "normal",
};

const DELIVERY_OF_4 = {
  name: "atlas",
  kind: "atlas",
  filter: "nearest",
  choice: { of: "all", names: [], pattern: "" },
  frameNames: "{name}",
  densities: [{ scale: 1, suffix: "" }],
  sheet: { columns: null, marginPx: 0, gapPx: 0, run: "along" },
  films: ["apng", "gif"],
  data: { atlas: true, times: false, ticksPerSecond: 60, frames: false, module: "none" },
  counting: { origin: "pixels", y: "down", from: 0 },
};
