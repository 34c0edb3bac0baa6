"use client";

import type { FrameField, Reading, Source } from "@caravan/core/model";
import { useState } from "react";
import { type MetadataText, readAgain, useMetadataText } from "../../project/metadata-texts";
import { Detail } from "../../ui/detail";
import { inBackground } from "../../ui/in-background";
import { Select } from "../../ui/select";
import { UnplacedRecords } from "../../ui/unplaced-records";
import { t } from "../../ui/words";
import { ReadingCommand } from "./reading-command";
import { ReadingConventions } from "./reading-conventions";
import { ReadingDoubts } from "./reading-doubts";

const FIELDS: readonly (readonly [FrameField, string])[] = [
  ["name", t("name")],
  ["x", "x"],
  ["y", "y"],
  ["w", t("width")],
  ["h", t("height")],
  ["right", t("right edge")],
  ["bottom", t("bottom edge")],
  ["column", t("column")],
  ["row", t("row")],
  ["index", t("cell number")],
  ["cellW", t("cell width")],
  ["cellH", t("cell height")],
  ["turned", t("turned")],
  ["fullW", t("untrimmed width")],
  ["fullH", t("untrimmed height")],
  ["insetX", t("inset x")],
  ["insetY", t("inset y")],
  ["originX", t("origin x")],
  ["originY", t("origin y")],
  ["time", t("duration")],
  ["clip", t("clip")],
  ["facing", t("facing")],
];
/** Shown where they are set: few files have them. */
const RARE: readonly (readonly [FrameField, string])[] = [
  ["columns", t("columns")],
  ["marginX", t("margin x")],
  ["marginY", t("margin y")],
  ["gapX", t("spacing x")],
  ["gapY", t("spacing y")],
  ["total", t("duration of the clip")],
  ["loop", t("loop")],
  ["picture", t("picture")],
  ["event", t("events")],
];

/** A metadata file's reading: our fields and their paths in it; each can be corrected. */
export function ReadingTable({ source }: { source: Source }) {
  const text = useMetadataText(source);
  const [problem, setProblem] = useState<string | null>(null);
  if (source.cut?.by !== "metadata") return null;
  const { reading, file } = source.cut;
  const change = async (correct: (reading: Reading) => Reading) => setProblem(await readAgain(source, correct));
  const shown = [
    ...FIELDS.filter(([field]) => text || reading.fields[field] !== undefined),
    ...RARE.filter(([field]) => reading.fields[field] !== undefined),
  ];
  return (
    <Detail part="metadata" title={t("Read from {file}", { file })} aside={t("records at {frames}", { frames: reading.frames })}>
      {problem && (
        <p role="alert" className="mb-2 font-semibold text-brick">
          {problem}
        </p>
      )}
      {text && <ReadingDoubts grade={text.grade} />}
      <table className="w-full">
        <thead className="sr-only">
          <tr>
            <th>{t("Our field")}</th>
            <th>{t("Their path")}</th>
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
          <p className="font-semibold text-brick">
            {t("{count} of its records do not fit and are left out.", { count: text.unplaced.length })}
          </p>
          <UnplacedRecords unplaced={text.unplaced} />
        </div>
      )}
      {text ? (
        <>
          <ReadingConventions reading={reading} onChange={(part) => inBackground(change((now) => ({ ...now, ...part })))} />
          <ReadingCommand picture={`${source.name}.png`} file={file} reading={reading} />
        </>
      ) : (
        <p className="mt-2 text-small text-muted">{t("To correct how it is read, drop {file} again.", { file })}</p>
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
  onChange: (correct: (reading: Reading) => Reading) => Promise<unknown>;
}) {
  const path = reading.fields[field] ?? "";
  if (!text) return <span className="number">{pathInWords(path)}</span>;
  const set = (next: string) =>
    inBackground(
      onChange((now) => {
        const { [field]: _before, ...rest } = now.fields;
        return { ...now, fields: next === "" ? rest : { ...rest, [field]: next } };
      }),
    );
  return (
    <Select
      label={t("Path of {word}", { word })}
      value={path}
      options={[["", t("not given")], ...text.paths.map((each) => [each, pathInWords(each)] as const)]}
      onChange={set}
      className="number max-w-40"
    />
  );
}

function pathInWords(path: string): string {
  return path === "$key" ? t("its key") : path.startsWith("../") ? t("around: {path}", { path: path.slice(3) }) : path;
}
