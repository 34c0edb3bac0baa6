"use client";

import type { FrameField, Reading, Source } from "@caravan/core/model";
import { useState } from "react";
import { readAgain, useMetadataText } from "../../project/metadata-texts";
import { Choice } from "../../ui/choice";
import { Detail } from "../../ui/detail";
import { inBackground } from "../../ui/in-background";
import { Select } from "../../ui/select";
import { Tick } from "../../ui/tick";
import { UnplacedRecords } from "../../ui/unplaced-records";

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
  ["cellW", "cell width"],
  ["cellH", "cell height"],
  ["turned", "turned"],
  ["fullW", "untrimmed width"],
  ["fullH", "untrimmed height"],
  ["insetX", "inset x"],
  ["insetY", "inset y"],
  ["originX", "origin x"],
  ["originY", "origin y"],
  ["time", "time"],
  ["clip", "clip"],
  ["facing", "facing"],
];

/** What was understood of a metadata file: our fields and where they stand in it; each can be corrected. */
export function ReadingTable({ source }: { source: Source }) {
  const text = useMetadataText(source);
  const [problem, setProblem] = useState<string | null>(null);
  if (source.cut?.by !== "metadata") return null;
  const { reading, file } = source.cut;
  const change = async (part: Partial<Reading>) => text && setProblem(await readAgain(source, text, { ...reading, ...part }));
  const setField = (field: FrameField, path: string) => {
    const { [field]: _before, ...rest } = reading.fields;
    inBackground(change({ fields: path === "" ? rest : { ...rest, [field]: path } }));
  };
  const shown = FIELDS.filter(([field]) => text || reading.fields[field] !== undefined);
  return (
    <Detail part="metadata" title={`Read from ${file}`} aside={`records at ${reading.frames}`}>
      {problem && (
        <p role="alert" className="mb-2 font-semibold text-brick">
          {problem}
        </p>
      )}
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
                {text ? (
                  <Select
                    label={`Path of ${word}`}
                    value={reading.fields[field] ?? ""}
                    options={[["", "not told"], ...text.paths.map((path) => [path, pathInWords(path)] as const)]}
                    onChange={(path) => setField(field, path)}
                    className="number max-w-40"
                  />
                ) : (
                  <span className="number">{pathInWords(reading.fields[field] ?? "")}</span>
                )}
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
        <div className="mt-2 flex flex-wrap items-center gap-2">
          {reading.fields.originX !== undefined && (
            <>
              <Choice
                label="Unit of origins"
                value={reading.originAs}
                options={[
                  ["pixels", "px"],
                  ["share", "share"],
                ]}
                onChange={(originAs) => inBackground(change({ originAs }))}
              />
              <Tick label="counted upward" checked={reading.originUp} onChange={(originUp) => inBackground(change({ originUp }))} />
            </>
          )}
          {reading.fields.turned !== undefined && (
            <Choice
              label="Sizes of turned frames"
              value={reading.turnedAs}
              options={[
                ["upright", "sizes upright"],
                ["stored", "sizes as stored"],
              ]}
              onChange={(turnedAs) => inBackground(change({ turnedAs }))}
            />
          )}
        </div>
      ) : (
        <p className="mt-2 text-small text-muted">To correct how it is read, drop {file} again.</p>
      )}
    </Detail>
  );
}

function pathInWords(path: string): string {
  return path === "$key" ? "its key" : path.startsWith("../") ? `around: ${path.slice(3)}` : path;
}
