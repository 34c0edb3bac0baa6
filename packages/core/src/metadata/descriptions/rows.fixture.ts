/** Writes records as rows: tables, sections, and lines that repeat a pattern. */
import type { Fields, Leaf, Plan, Records, Value } from "./fields.fixture";
import type { KnownAtlas, KnownFrame } from "./known-atlas.fixture";
import { clipNames } from "./trees.fixture";
import type { Words } from "./words.fixture";

export function rowsText(container: string, records: Records, words: Words, atlas: KnownAtlas, plan: Plan, naming: string): string {
  const leaves = (fields: Fields): Leaf[] => fields.flatMap(([, value]) => (Array.isArray(value) ? (value as Leaf[]) : [value as Leaf]));
  const heads = (fields: Fields): string[] =>
    fields.flatMap(([key, value]) => (Array.isArray(value) ? value.map((_, k) => `${key}${"xy"[k] ?? k}`) : [key]));
  const first = records[0]?.fields ?? [];
  const table = (separator: string) =>
    [[words.name, ...heads(first)], ...records.map(({ frame, fields }) => [frame.name, ...leaves(pad(fields, first))])]
      .map((row) => row.join(separator))
      .join("\n");
  const shown = (value: Value): string => (Array.isArray(value) ? value.join(", ") : String(value));
  const cell = plan.rectangle === "index" || plan.rectangle === "cell";
  const head = cell
    ? [`${words.cellW} = ${atlas.grid?.cell.w}`, `${words.cellH} = ${atlas.grid?.cell.h}`, `${words.columns} = ${atlas.grid?.columns}`]
    : [];
  switch (container) {
    case "csv":
      return table(",");
    case "semicolons":
      return table(";");
    case "tabs":
      return table("\t");
    case "blanks":
      return table("  ");
    case "bare csv":
      return records.map(({ frame, fields }) => [frame.name, ...leaves(fields)].join(",")).join("\n");
    case "sections":
      return [
        ...head,
        ...records.flatMap(({ frame, fields }) => [`[${frame.name}]`, ...fields.map(([key, value]) => `${key} = ${shown(value)}`), ""]),
      ].join("\n");
    case "repeated": {
      const clips = clipNames(atlas);
      return clips
        .flatMap((clip) => [
          `[${clip}]`,
          `image=hero.png`,
          ...records.filter(({ frame }) => frame.clip === clip).map(({ fields }) => `frame=${leaves(pad(fields, first)).join(",")}`),
          "",
        ])
        .join("\n");
    }
    case "calls":
      return records
        .map(
          ({ frame, fields }) =>
            `sheet.add("${frame.name}", ${leaves(fields)
              .map((each) => JSON.stringify(each))
              .join(", ")});`,
        )
        .join("\n");
    case "array":
      return `static const Piece pieces[] = {\n${records
        .map(
          ({ frame, fields }) =>
            `  { "${frame.name}", ${leaves(fields)
              .map((each) => JSON.stringify(each))
              .join(", ")} },`,
        )
        .join("\n")}\n};\n`;
    case "labels":
      return [
        ...head,
        ...records.map(
          ({ frame, fields }) =>
            `${naming === "nonsense" ? "vok" : "sprite"} ${frame.name} ${pad(fields, first)
              .map(([key, value]) => `${key} ${shown(value)}`)
              .join(" ")}`,
        ),
      ].join("\n");
    case "blocks":
      return [
        ...head,
        ...records.flatMap(({ frame, fields }) => [frame.name, ...pad(fields, first).map(([key, value]) => `  ${key} ${shown(value)}`)]),
      ].join("\n");
    case "parens":
      return `(${words.frames}\n${records.map(({ frame, fields }) => `  (${words.name === "n" ? "e" : "piece"} (${words.name} "${frame.name}") ${fields.map(([key, value]) => `(${key} ${Array.isArray(value) ? value.join(" ") : JSON.stringify(value)})`).join(" ")})`).join("\n")})`;
    default:
      return records.map(({ frame, fields }) => `[part id="${frame.name}"]\n${resourceFields(frame, fields, plan)}`).join("\n\n");
  }
}

function resourceFields(frame: KnownFrame, fields: Fields, { words, rectangle }: Plan): string {
  const { x, y, w, h } = frame.rect;
  const plain = ["sides", "size-first", "yx", "px"].includes(rectangle);
  const rest = plain ? fields.slice(4) : fields;
  return [
    ...(plain ? [`${words.rect} = Rect( ${x}, ${y}, ${w}, ${h} )`] : []),
    ...rest.map(([key, value]) => `${key} = ${Array.isArray(value) ? `Vector( ${value.join(", ")} )` : JSON.stringify(value)}`),
  ].join("\n");
}

/** All rows have the first one's fields: turning is given for each or for none. */
function pad(fields: Fields, first: Fields): Fields {
  return first.map(([key]) => fields.find(([own]) => own === key) ?? [key, false]);
}
