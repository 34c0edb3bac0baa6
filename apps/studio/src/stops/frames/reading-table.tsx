"use client";

import type { FrameField, Reading, Source } from "@caravan/core/model";
import { useState } from "react";
import { type MetadataText, readAgain, useMetadataText } from "../../project/metadata-texts";
import { Detail } from "../../ui/detail";
import { inBackground } from "../../ui/in-background";
import { Select } from "../../ui/select";
import { UnplacedRecords } from "../../ui/unplaced-records";
import { ReadingCommand } from "./reading-command";
import { ReadingConventions } from "./reading-conventions";
import { ReadingDoubts } from "./reading-doubts";

const FIELDS: readonly (readonly [FrameField, string])[] = [
  ["name", "name"],
  ["x", "x"],
  ["y", "y"],
  ["w", "width"],
  ["h", "height"],
  ["right", "right edge"],
  ["bottom", "bottom edge"],
  ["column", "column"],
  ["row", "row"],
  ["index", "cell number"],
  ["cellW", "cell width"],
  ["cellH", "cell height"],
  ["turned", "turned"],
  ["fullW", "untrimmed width"],
  ["fullH", "untrimmed height"],
  ["insetX", "inset x"],
  ["insetY", "inset y"],
  ["originX", "origin x"],
  ["originY", "origin y"],
  ["time", "duration"],
  ["clip", "clip"],
  ["facing", "facing"],
];
/** Shown where they are set: few files have them. */
const RARE: readonly (readonly [FrameField, string])[] = [
  ["columns", "columns"],
  ["marginX", "margin x"],
  ["marginY", "margin y"],
  ["gapX", "spacing x"],
  ["gapY", "spacing y"],
  ["total", "duration of the clip"],
  ["loop", "loop"],
  ["picture", "picture"],
  ["event", "events"],
];

/** What was understood of a metadata file: our fields and where they stand in it; each can be corrected. */
export function ReadingTable({ source }: { source: Source }) {
  const text = useMetadataText(source);
  const [problem, setProblem] = useState<string | null>(null);
  if (source.cut?.by !== "metadata") return null;
  const { reading, file } = source.cut;
  const change = async (part: Partial<Reading>) => text && setProblem(await readAgain(source, text, { ...reading, ...part }));
  const shown = [
    ...FIELDS.filter(([field]) => text || reading.fields[field] !== undefined),
    ...RARE.filter(([field]) => reading.fields[field] !== undefined),
  ];
  return (
    <Detail part="metadata" title={`Read from ${file}`} aside={`records at ${reading.frames}`}>
      {problem && (
        <p role="alert" className="mb-2 font-semibold text-brick">
          {problem}
        </p>
      )}
      {text && <ReadingDoubts grade={text.grade} />}
      <table className="w-full">
        <thead className="sr-only">
          <tr>
            <th>Our field</th>
            <th>Their path</th>
          </tr>
        </thead>
        <tbody>
          {shown.map(([field, word]) => (
            <tr key={field} className="border-b border-line">
              <th scope="row" className="py-0.5 text-left font-normal text-muted">
                {word}
              </th>
              <td className="text-right">
                <FieldPath text={text} reading={reading} field={field} word={word} onChange={change} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {text && text.unplaced.length > 0 && (
        <div className="mt-2">
          <p className="font-semibold text-brick">{text.unplaced.length} of its records do not fit and are left out.</p>
          <UnplacedRecords unplaced={text.unplaced} />
        </div>
      )}
      {text ? (
        <>
          <ReadingConventions reading={reading} onChange={(part) => inBackground(change(part))} />
          <ReadingCommand picture={`${source.name}.png`} file={file} reading={reading} />
        </>
      ) : (
        <p className="mt-2 text-small text-muted">To correct how it is read, drop {file} again.</p>
      )}
    </Detail>
  );
}

function FieldPath({
  text,
  reading,
  field,
  word,
  onChange,
}: {
  text: MetadataText | undefined;
  reading: Reading;
  field: FrameField;
  word: string;
  onChange: (part: Partial<Reading>) => Promise<unknown>;
}) {
  const path = reading.fields[field] ?? "";
  if (!text) return <span className="number">{pathInWords(path)}</span>;
  const set = (next: string) => {
    const { [field]: _before, ...rest } = reading.fields;
    inBackground(onChange({ fields: next === "" ? rest : { ...rest, [field]: next } }));
  };
  return (
    <Select
      label={`Path of ${word}`}
      value={path}
      options={[["", "not told"], ...text.paths.map((each) => [each, pathInWords(each)] as const)]}
      onChange={set}
      className="number max-w-40"
    />
  );
}

function pathInWords(path: string): string {
  return path === "$key" ? "its key" : path.startsWith("../") ? `around: ${path.slice(3)}` : path;
}
