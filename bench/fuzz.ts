/**
 * Checks that no damaged file makes a reader crash, hang, or fail without naming the file.
 *
 * `npm run fuzz -- --count 20000 --seed 1` (the defaults; the test command runs 2,000) feeds random and mutated PNG, APNG, GIF, WebP,
 * ZIP, OpenRaster, project, JSON, XML, CSV and text files to the readers of studio and command line, and prints the results per kind. Anything
 * worse than a clear error ends it with exit code 1 and saves the bytes to a file. The unit tests do the same with a few hundred runs each.
 */
import { readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { parseArgs } from "node:util";
import { crc32 } from "node:zlib";
import { readBundle, readProjectFile, salvagedBundle, writeProjectFile } from "@caravan/core/bundle";
import {
  joined,
  looksLikeGif,
  looksLikePng,
  type NamedFile,
  readAnimatedWebp,
  readApng,
  readGif,
  readOpenRaster,
  readZip,
  textFromUtf8,
  utf8,
  writeZip,
} from "@caravan/core/codec";
import { readClips, readFrames, recognise } from "@caravan/core/metadata";
import { CaravanError } from "@caravan/core/model";
import { coverageOf } from "@caravan/core/raster";
import { seeded } from "../examples/draw/canvas";
import { pngCodec } from "../packages/cli/src/png";
import { apngOf } from "../packages/core/src/codec/apng.fixture";
import { decodePlain, webpOf } from "../packages/core/src/codec/webp.fixture";
import { sheet } from "./subjects";

const { values: options } = parseArgs({ options: { count: { type: "string", default: "20000" }, seed: { type: "string", default: "1" } } });
const [RUNS, SEED] = [Number(options.count), Number(options.seed)];
if (!Number.isInteger(RUNS) || RUNS < 1 || !Number.isInteger(SEED)) throw new Error("Write --count N and --seed N with whole numbers.");
/** More of the processor's time than this is a hang, on any machine; the clock would also count what others do. */
const HANG = 5000; // ms

const random = seeded(SEED);
const below = (limit: number) => Math.floor(random() * limit);
const png = pngCodec();
const examples = join(import.meta.dirname, "../examples");
const file = (path: string) => new Uint8Array(readFileSync(join(examples, path)));

const small = sheet(96, 6);
const coverage = coverageOf(small);
const JSON_TEXT = JSON.stringify({
  meta: { image: "art.png" },
  parts: [0, 1, 2, 3].map((k) => ({ id: `walk_${k}`, box: { x: k * 16, y: 0, w: 16, h: 16 }, ms: 80 })),
  moves: { walk: { list: ["walk_0", "walk_1", "walk_2"], fps: 12 } },
});
const XML_TEXT = `<book sheet="art.png">${[0, 1, 2, 3].map((k) => `<cut name="walk ${k}" left="${k * 16}" top="16" width="16" height="16"/>`).join("\n")}</book>`;
const CSV_TEXT = `name,x,y,width,height,time\n${[0, 1, 2, 3].map((k) => `walk${k},${k * 16},32,16,16,0.1`).join("\n")}\n`;
const SECTIONS_TEXT = [0, 1, 2, 3].map((k) => `[walk ${k}]\nrect = ${k * 16} 48 16 16\nturn = no\n`).join("\n");

interface Kind {
  readonly name: string;
  readonly seeds: readonly Uint8Array[];
  /** Damage that keeps the file's structure, so that readers get past their first checks. */
  readonly within?: (bytes: Uint8Array) => Uint8Array;
  /** Reads it wholly; throws what the reader throws. */
  read(bytes: Uint8Array): void | Promise<void>;
}

const pixelsOf = ({ width, height, bytes }: { width: number; height: number; bytes: Uint8Array }) => {
  if (bytes.length !== width * height * 4) throw new Error("A picture of the wrong length.");
};
const readMetadata = (bytes: Uint8Array) => {
  const described = { picture: "art.png", coverage };
  const { parsed, reading } = recognise(textFromUtf8(bytes), described, "fuzz.data");
  const { frames } = readFrames(parsed, reading, described);
  for (const { rect } of frames)
    if (rect.x < 0 || rect.y < 0 || rect.x + rect.w > coverage.width || rect.y + rect.h > coverage.height)
      throw new Error("A frame outside the picture.");
  readClips(parsed, reading, frames);
};

const bundle = new Uint8Array(readFileSync(join(import.meta.dirname, "../apps/studio/public/demo.caravan")));
const kinds: readonly Kind[] = [
  {
    name: "PNG",
    seeds: [png.encode(small), file("raw/banner1.png"), file("raw/camel.png")],
    within: withRightSums,
    read: (bytes) => pixelsOf(png.decode(bytes, "fuzz.png")),
  },
  {
    name: "APNG",
    seeds: [
      apngOf(
        [0, 1].map((k) => ({ pixels: sheet(40 + k, 2), x: 0, y: 0, num: 1, den: 10, dispose: k, blend: k })),
        { w: 41, h: 41 },
        png,
      ),
    ],
    within: withRightSums,
    read: (bytes) => {
      if (!looksLikePng(bytes)) return;
      for (const { pixels } of readApng(bytes, "fuzz.png", png)?.frames(() => {}) ?? []) pixelsOf(pixels);
    },
  },
  {
    name: "GIF",
    seeds: [file("raw/well.gif")],
    within: otherBlocks,
    read: (bytes) => {
      if (!looksLikeGif(bytes)) return;
      for (const { pixels } of readGif(bytes, "fuzz.gif").frames(() => {})) pixelsOf(pixels);
    },
  },
  {
    name: "animated WebP",
    seeds: [
      webpOf(
        [0, 1].map((k) => ({ pixels: sheet(40, 2), x: 2 * k, y: 0, ms: 80, clears: k === 0, over: k === 1 })),
        { w: 42, h: 40 },
        0,
      ),
    ],
    read: async (bytes) => {
      const frames = readAnimatedWebp(bytes, "fuzz.webp", decodePlain)?.frames(() => {}) ?? [];
      for await (const { pixels } of frames) pixelsOf(pixels);
    },
  },
  {
    name: "ZIP",
    seeds: [writeZip([{ path: "a/b.txt", bytes: utf8("salt ".repeat(99)) }])],
    within: (bytes) => otherEntries(bytes, (entry) => entry),
    read: (bytes) => void readZip(bytes, "fuzz.zip"),
  },
  {
    name: "OpenRaster",
    seeds: [file("raw/lamp-bearer.ora")],
    within: (bytes) => otherEntries(bytes, otherValues),
    read: (bytes) => {
      for (const { pixels } of readOpenRaster(bytes, "fuzz.ora", png, "flatten").layers) pixelsOf(pixels);
    },
  },
  {
    name: "project",
    seeds: [bundle],
    within: (bytes) => otherEntries(bytes, otherJson),
    read: (bytes) => void readBundle(bytes, "fuzz.caravan"),
  },
  {
    name: "rest of a project",
    seeds: [bundle],
    within: (bytes) => otherEntries(bytes, otherJson),
    read: (bytes) => {
      const left = salvagedBundle(bytes, "fuzz.caravan");
      // What is opened can be saved.
      if (left) readProjectFile(writeProjectFile(left.project), "the rest");
    },
  },
  { name: "JSON", seeds: [utf8(JSON_TEXT), file("raw/bazaar.json")], within: otherValues, read: readMetadata },
  { name: "XML", seeds: [utf8(XML_TEXT)], within: otherValues, read: readMetadata },
  { name: "CSV", seeds: [utf8(CSV_TEXT), utf8(CSV_TEXT.replaceAll(",", "\t"))], within: otherValues, read: readMetadata },
  { name: "sections", seeds: [utf8(SECTIONS_TEXT)], within: otherValues, read: readMetadata },
];

/** A PNG whose chunks have the check sums of what they hold now. */
function withRightSums(bytes: Uint8Array): Uint8Array {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  for (let at = 8; at + 12 <= bytes.length; ) {
    const length = view.getUint32(at);
    if (at + 12 + length > bytes.length) break;
    view.setUint32(at + 8 + length, crc32(bytes.subarray(at + 4, at + 8 + length)));
    at += 12 + length;
  }
  return bytes;
}

/** A ZIP that is whole, with one of its text files changed, and now and then an entry doubled, renamed or left out. */
function otherEntries(bytes: Uint8Array, change: (bytes: Uint8Array) => Uint8Array): Uint8Array {
  const known = unzipped.get(bytes) ?? readZip(bytes, "the seed");
  unzipped.set(bytes, known);
  const entries = known.map((entry) => (/\.(json|xml|txt)$/.test(entry.path) ? { ...entry, bytes: change(entry.bytes) } : entry));
  const at = below(entries.length);
  const entry = entries[at] as (typeof entries)[number];
  switch (below(8)) {
    case 0:
      entries.splice(at, 1);
      break;
    case 1:
      entries.push(entry);
      break;
    case 2:
      entries[at] = { ...entry, path: ["../up.json", "/root.txt", "a\\b", "con", "", "caravan.json", "__proto__"][below(7)] as string };
      break;
    case 3:
      entries[at] = { ...entry, bytes: entry.bytes.subarray(0, below(entry.bytes.length + 1)) };
  }
  return writeZip(entries);
}

/** Seeds that were unzipped before. */
const unzipped = new WeakMap<Uint8Array, readonly NamedFile[]>();

/** A valid JSON file with a value changed, moved, removed or given a troublesome name. */
function otherJson(bytes: Uint8Array): Uint8Array {
  const content: unknown = JSON.parse(new TextDecoder().decode(bytes));
  for (let change = below(3); change >= 0; change--) {
    let place = content as Record<string, unknown>;
    for (;;) {
      const names = Object.keys(place);
      const name = names[below(names.length)];
      if (name === undefined) break;
      const inner = place[name];
      if (typeof inner === "object" && inner !== null && random() < 0.85) {
        place = inner as Record<string, unknown>;
        continue;
      }
      const odd: unknown[] = [null, -1, 0.5, 1e9, "", "__proto__", "x".repeat(300), [], {}, true, [inner], place];
      if (random() < 0.15) delete place[name];
      else if (random() < 0.1) place[["__proto__", "constructor", "0001", "\u0000"][below(4)] as string] = inner;
      else place[name] = odd[below(odd.length - (random() < 0.05 ? 0 : 1))];
      break;
    }
  }
  try {
    return utf8(JSON.stringify(content));
  } catch {
    // A value that was put into itself has no text.
    return bytes;
  }
}

/** A GIF whose blocks are whole, with one of them doubled, moved, left out or given other bytes. */
function otherBlocks(bytes: Uint8Array): Uint8Array {
  const starts = [...bytes.keys()].filter((k) => k > 13 && (bytes[k] === 0x21 || bytes[k] === 0x2c) && bytes[k - 1] === 0);
  const at = starts[below(starts.length)] ?? bytes.length;
  const end = starts.find((start) => start > at) ?? bytes.length;
  const block = bytes.slice(at, end);
  if (random() < 0.3) return joined([bytes.subarray(0, at), bytes.subarray(end)]);
  if (random() < 0.3) return joined([bytes.subarray(0, end), block, bytes.subarray(end)]);
  for (let k = below(6); k >= 0 && block.length > 2; k--) block[1 + below(Math.min(10, block.length - 1))] = below(256);
  return joined([bytes.subarray(0, at), block, bytes.subarray(end)]);
}

const ODD = ["0", "-1", "1e9", "0.5", "99999999999", "null", "true", '""', '"walk_0"', "[]", "{}", "[0,0,16,16]", "NaN"];

/** A text file with some of its numbers and words replaced by odd ones or by others of its own. */
function otherValues(bytes: Uint8Array): Uint8Array {
  const text = new TextDecoder("utf-8", { fatal: false }).decode(bytes);
  const words = text.match(/[A-Za-z_]+|-?\d+(\.\d+)?/g) ?? ["x"];
  return utf8(
    text.replace(/[A-Za-z_]+|-?\d+(\.\d+)?/g, (token) => {
      if (random() > 0.06) return token;
      return /\d/.test(token) && random() < 0.6 ? (ODD[below(ODD.length)] as string) : (words[below(words.length)] as string);
    }),
  );
}

/** Random bytes, or a file of the kind with bytes changed, cut off, duplicated, removed or copied from elsewhere in it. */
function damaged({ seeds, within }: Kind): Uint8Array {
  if (random() < 0.04) return Uint8Array.from({ length: below(600) }, () => below(256));
  const seed = seeds[below(seeds.length)] as Uint8Array;
  // Of a form that holds, most of the damage is within it.
  if (within && within !== withRightSums && random() < 0.6) return within(seed);
  let bytes: Uint8Array = seed.slice();
  for (let change = below(6); change >= 0; change--) {
    const at = below(bytes.length + 1);
    const length = below(random() < 0.8 ? 8 : 400);
    const part = bytes.slice(at, at + length);
    switch (below(6)) {
      case 0:
        bytes = bytes.slice(0, at);
        break;
      case 1:
        bytes = joined([bytes.subarray(0, at), part, bytes.subarray(at)]);
        break;
      case 2:
        bytes = joined([bytes.subarray(0, at), bytes.subarray(at + length)]);
        break;
      case 3:
        bytes = joined([bytes.subarray(0, at), bytes.slice(below(bytes.length + 1)).subarray(0, length), bytes.subarray(at)]);
        break;
      default:
        for (let k = 0; k <= below(4) && bytes.length > 0; k++) bytes[below(bytes.length)] = random() < 0.3 ? 255 : below(256);
    }
  }
  return within === withRightSums && random() < 0.7 ? withRightSums(bytes) : bytes;
}

let bad = 0;
for (const kind of kinds) {
  const { name, read } = kind;
  const runs = Math.ceil(RUNS / kinds.length);
  const counts = { read: 0, refused: 0 };
  let slowest = 0;
  for (let run = 0; run < runs; run++) {
    const bytes = damaged(kind);
    const start = process.cpuUsage();
    let wrong: string | null = null;
    try {
      await read(bytes);
      counts.read++;
    } catch (error) {
      counts.refused++;
      if (!(error instanceof CaravanError)) wrong = `unclear: ${error instanceof Error ? error.stack : String(error)}`;
      else if (!error.where.includes("fuzz") || error.what === "" || error.remedy === "") wrong = `says too little: ${error.message}`;
    }
    const { user, system } = process.cpuUsage(start);
    const ms = (user + system) / 1000;
    slowest = Math.max(slowest, ms);
    if (ms > HANG) wrong = `took ${ms.toFixed(0)} ms`;
    if (!wrong) continue;
    bad++;
    const kept = join(tmpdir(), `caravan-fuzz-${name}-${bad}.bin`);
    writeFileSync(kept, bytes);
    console.log(`${name}: ${wrong}\n  bytes in ${kept}`);
    if (bad > 20) process.exit(1);
  }
  console.log(
    `${name.padEnd(10)} ${runs} runs: ${counts.read} read, ${counts.refused} refused with a reason, slowest ${slowest.toFixed(0)} ms`,
  );
}
console.log(bad === 0 ? `No crash, no hang, no unclear error in ${RUNS} runs (seed ${SEED}).` : `${bad} bad runs.`);
process.exit(bad === 0 ? 0 : 1);
