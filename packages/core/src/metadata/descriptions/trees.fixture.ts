/** Arranges records as trees, with the clips that refer to them, and writes trees in notations that nest. */
import type { Fields, Leaf, Plan, Records, Value } from "./fields.fixture";
import type { KnownAtlas } from "./known-atlas.fixture";
import type { Words } from "./words.fixture";

export function clipNames(atlas: KnownAtlas): string[] {
  return [...new Set(atlas.frames.map(({ clip }) => clip))];
}

export function treeOf(records: Records, nesting: string, clipWay: string, words: Words, atlas: KnownAtlas, plan: Plan): Value {
  const object = (fields: Fields): Value => Object.fromEntries(fields);
  const named = ({ frame, fields }: Records[number]): Value => object([[words.name, frame.name], ...fields]);
  const cells =
    plan.rectangle === "index" || plan.rectangle === "cell"
      ? [
          [words.cellW, atlas.grid?.cell.w],
          [words.cellH, atlas.grid?.cell.h],
          ...(plan.rectangle === "index" ? [[words.columns, atlas.grid?.columns]] : []),
        ]
      : [];
  const head = Object.fromEntries(cells) as Record<string, Value>;
  const clips = clipWay === "none" || clipWay === "around" ? {} : { [words.clips]: clipsOf(clipWay, words, atlas) };
  switch (nesting) {
    case "keyed":
      return { ...head, [words.frames]: Object.fromEntries(records.map(({ frame, fields }) => [frame.name, object(fields)])), ...clips };
    case "wrapped":
      return { version: 3, atlas: { image: "hero.png", ...head, [words.frames]: records.map(named) }, ...clips };
    case "sections":
      return {
        ...head,
        [words.clips]: clipNames(atlas).map((clip) => ({
          [words.name]: clip,
          [words.list]: records.filter(({ frame }) => frame.clip === clip).map(named),
        })),
      };
    case "keyed sections":
      return {
        ...head,
        [words.clips]: Object.fromEntries(
          clipNames(atlas).map((clip) => [
            clip,
            Object.fromEntries(
              records.filter(({ frame }) => frame.clip === clip).map(({ frame, fields }) => [String(frame.number), object(fields)]),
            ),
          ]),
        ),
      };
    case "columns": {
      const keys = [words.name, ...(records[0]?.fields.map(([key]) => key) ?? [])];
      const rows = records.map((record) => new Map<string, Value>([[words.name, record.frame.name], ...record.fields]));
      return { ...head, [words.frames]: Object.fromEntries(keys.map((key) => [key, rows.map((row) => row.get(key) ?? 0)])), ...clips };
    }
    default:
      return { ...head, [words.frames]: records.map(named), ...clips };
  }
}

function clipsOf(way: string, words: Words, atlas: KnownAtlas): Value {
  return clipNames(atlas).map((clip, k): Value => {
    const own = atlas.frames.map((frame, index) => ({ frame, index })).filter(({ frame }) => frame.clip === clip);
    const ordered = own.toSorted((a, b) => a.frame.number - b.frame.number);
    const first = own[0]?.index ?? 0;
    const playing: Record<string, Value> = way === "pingpong" ? { mode: k === 0 ? "ping-pong" : "loop" } : { [words.loop]: k % 2 === 0 };
    switch (way) {
      case "ranges":
        return { [words.name]: clip, [words.first]: first, [words.last]: first + own.length - 1, [words.fps]: 10, ...playing };
      case "counts":
        return { [words.name]: clip, [words.first]: first, [words.count]: own.length, [words.fps]: 10, ...playing };
      case "numbers":
        return { [words.name]: clip, [words.list]: ordered.map(({ index }) => index), [words.fps]: 10, ...playing };
      default:
        return { [words.name]: clip, [words.list]: ordered.map(({ frame }) => frame.name), [words.fps]: 10, ...playing };
    }
  });
}

const isLeaf = (value: Value): value is Leaf => typeof value !== "object";
const entriesOf = (value: Value): [string, Value][] => Object.entries(value as { [key: string]: Value });

export function treeText(container: string, tree: Value, nesting: string): string {
  switch (container) {
    case "jsonc":
      return `// made by hand\n${JSON.stringify(tree, null, 2).replace(/(\n\s*)([}\]])/g, ",$1$2")}`;
    case "xml":
      return `<?xml version="1.0"?>\n${xmlOf("root", tree, true)}`;
    case "xml-elements":
      return xmlOf("root", tree, false);
    case "plist":
      return `<?xml version="1.0"?><plist version="1.0">${plistOf(tree)}</plist>`;
    case "yaml":
      return yamlOf(tree, 0);
    case "toml":
      return tomlOf(tree);
    case "lua":
      return `-- made by hand\nreturn ${luaOf(tree, 0)}\n`;
    case "module":
      return `export const ${nesting.replace(/\W/g, "")} = ${JSON.stringify(tree, null, 1)
        .replace(/"([a-z_]\w*)":/gi, "$1:")
        .replace(/"/g, "'")};\n`;
    default:
      return JSON.stringify(tree, null, nesting.length % 2 ? 2 : 0);
  }
}

function xmlOf(tag: string, value: Value, attributes: boolean): string {
  if (isLeaf(value)) return `<${tag}>${value}</${tag}>`;
  if (Array.isArray(value)) {
    if (value.every((each) => isLeaf(each)))
      return attributes ? `<${tag}>${value.join(" ")}</${tag}>` : value.map((each) => `<${tag}>${each}</${tag}>`).join("");
    return `<${tag}>${value.map((each) => xmlOf("item", each, attributes)).join("\n")}</${tag}>`;
  }
  const own = attributes ? entriesOf(value).filter(([, each]) => isLeaf(each)) : [];
  const rest = entriesOf(value).filter(([key]) => !own.some(([name]) => name === key));
  return `<${tag}${own.map(([key, each]) => ` ${key}="${each}"`).join("")}>${rest.map(([key, each]) => xmlOf(key, each, attributes)).join("")}</${tag}>`;
}

function plistOf(value: Value): string {
  if (typeof value === "boolean") return `<${value}/>`;
  if (typeof value === "number") return Number.isInteger(value) ? `<integer>${value}</integer>` : `<real>${value}</real>`;
  if (typeof value === "string") return `<string>${value}</string>`;
  if (Array.isArray(value)) return `<array>${value.map(plistOf).join("")}</array>`;
  return `<dict>${entriesOf(value)
    .map(([key, each]) => `<key>${key}</key>${plistOf(each)}`)
    .join("")}</dict>`;
}

function yamlOf(value: Value, depth: number): string {
  const indent = "  ".repeat(depth);
  if (isLeaf(value)) return typeof value === "string" && /[{}#[\],]/.test(value) ? JSON.stringify(value) : String(value);
  if (Array.isArray(value)) {
    if (value.every((each) => isLeaf(each))) return `[${value.map((each) => yamlOf(each, 0)).join(", ")}]`;
    return value.map((each) => `\n${indent}- ${yamlOf(each, depth + 1).trimStart()}`).join("");
  }
  return entriesOf(value)
    .map(
      ([key, each]) =>
        `\n${indent}${key}:${isLeaf(each) || (Array.isArray(each) && each.every((item) => isLeaf(item))) ? " " : ""}${yamlOf(each, depth + 1)}`,
    )
    .join("");
}

function tomlOf(tree: Value): string {
  const inline = (value: Value): string =>
    isLeaf(value)
      ? JSON.stringify(value)
      : Array.isArray(value)
        ? `[${value.map(inline).join(", ")}]`
        : `{ ${entriesOf(value)
            .map(([key, each]) => `${tomlKey(key)} = ${inline(each)}`)
            .join(", ")} }`;
  const lines: string[] = [];
  const visit = (value: Value, path: string) => {
    const simple = entriesOf(value).filter(
      ([, each]) => isLeaf(each) || (Array.isArray(each) && each.every((item) => isLeaf(item) || Array.isArray(item))),
    );
    for (const [key, each] of simple) lines.push(`${tomlKey(key)} = ${inline(each)}`);
    for (const [key, each] of entriesOf(value)) {
      if (simple.some(([name]) => name === key)) continue;
      const at = path === "" ? tomlKey(key) : `${path}.${tomlKey(key)}`;
      if (Array.isArray(each))
        for (const item of each) {
          lines.push("", `[[${at}]]`);
          visit(item, at);
        }
      else {
        lines.push("", `[${at}]`);
        visit(each, at);
      }
    }
  };
  visit(tree, "");
  return lines.join("\n");
}

const tomlKey = (key: string) => (/^[\w-]+$/.test(key) ? key : JSON.stringify(key));

function luaOf(value: Value, depth: number): string {
  const indent = "\t".repeat(depth + 1);
  if (isLeaf(value)) return JSON.stringify(value);
  if (Array.isArray(value))
    return value.every((each) => isLeaf(each))
      ? `{ ${value.map((each) => luaOf(each, 0)).join(", ")} }`
      : `{\n${value.map((each) => `${indent}${luaOf(each, depth + 1)},\n`).join("")}${indent.slice(1)}}`;
  return `{\n${entriesOf(value)
    .map(([key, each]) => `${indent}${/^[a-z_]\w*$/i.test(key) ? key : `["${key}"]`} = ${luaOf(each, depth + 1)},\n`)
    .join("")}${indent.slice(1)}}`;
}
