"use client";

import { assignField } from "@caravan/core/edit";
import { MEANINGS_OF_FIELDS, type Told, type ToldLine } from "@caravan/core/example";
import type { Example } from "@caravan/core/model";
import { act } from "../../project/act";
import { Button } from "../../ui/button";
import { Select } from "../../ui/select";
import { inLanguage, t } from "../../ui/words";

/** Lists an example's fields: what will be written, what stays, what is unknown, and what cannot be expressed. */
export function WhatStandsWhere({ example, told, onForget }: { example: Example; told: Told; onForget: () => void }) {
  const assigned = new Map(example.assigned?.map(({ path, means }) => [path, means]));
  const unknown = [...told.strange, ...[...assigned.keys()].filter((path) => !told.strange.includes(path))];
  const written = told.lines.filter((line) => line.written !== null && !assigned.has(line.path));
  const stays = told.lines.filter((line) => line.written === null && !unknown.includes(line.path));
  return (
    <div className="flex flex-col gap-4">
      {unknown.length > 0 && (
        <Unknown paths={unknown} told={told} assigned={assigned} onAssign={(path, means) => act(assignField, example.name, path, means)} />
      )}
      <Lines title={t("Written per record")} lines={written} last={t("will contain")} />
      {stays.length > 0 && <Lines title={t("Stays as it is")} lines={stays} last="" />}
      <p>
        <strong>{t("Cannot be written in this shape:")}</strong> {told.noPlace.join(", ")}.
      </p>
      <div className="flex justify-between gap-3 border-t border-line pt-3">
        <p className="text-small text-muted">{t("Each file is read back like the example, and compared with what was meant.")}</p>
        <Button onClick={onForget}>{t("Forget this example")}</Button>
      </div>
    </div>
  );
}

/** Fields that differ from frame to frame and equal nothing that is known: each may be given its meaning. */
function Unknown({
  paths,
  told,
  assigned,
  onAssign,
}: {
  paths: readonly string[];
  told: Told;
  assigned: ReadonlyMap<string, string>;
  onAssign: (path: string, means: string | null) => void;
}) {
  const examples = new Map(told.lines.map(({ path, example }) => [path, example]));
  const open = told.unassigned.length;
  return (
    <section aria-label={t("Not understood")} className={`rounded-box border p-3 ${open > 0 ? "border-brick" : "border-line"}`}>
      <h3 className="font-bold">{t("Not understood")}</h3>
      <p className={open > 0 ? "font-semibold text-brick" : "text-muted"}>
        {open > 0
          ? t(
              "These differ from frame to frame and equal nothing that is known. Nothing is delivered until those that look like places or sizes have a meaning, or stay.",
            )
          : t("These differ from frame to frame. They are written as set here.")}
      </p>
      <ul className="mt-2 flex flex-col gap-1.5">
        {paths.map((path) => (
          <li key={path} className="flex flex-wrap items-center gap-x-3 gap-y-1">
            <span className="number min-w-0 grow break-words">{fieldInWords(path)}</span>
            <span className="number max-w-32 truncate text-muted">{examples.get(path)}</span>
            <Select
              label={t("What {field} means", { field: fieldInWords(path) })}
              value={assigned.get(path) ?? ""}
              options={[
                ["", told.unassigned.includes(path) ? t("say what it means …") : t("stays, its meaning is unknown")],
                ...MEANINGS_OF_FIELDS.map(([means, words]) => [means, inLanguage(words)] as const),
              ]}
              onChange={(means) => onAssign(path, means === "" ? null : means)}
            />
          </li>
        ))}
      </ul>
    </section>
  );
}

function Lines({ title, lines, last }: { title: string; lines: readonly ToldLine[]; last: string }) {
  return (
    <section aria-label={title}>
      <h3 className="mb-1 font-bold">{title}</h3>
      <table className="w-full table-fixed border-collapse text-small">
        <thead>
          <tr className="text-left text-muted">
            <th className="w-2/5 py-1 pr-3 font-normal">{t("field")}</th>
            <th className="py-1 pr-3 font-normal">{t("in the example")}</th>
            {last !== "" && <th className="w-2/5 py-1 font-normal">{last}</th>}
          </tr>
        </thead>
        <tbody>
          {lines.map(({ path, example, written, by }) => (
            <tr key={path} className="border-t border-line align-top">
              <td className="number py-1 pr-3 break-words">{fieldInWords(path)}</td>
              <td className="number truncate py-1 pr-3 text-muted">{example}</td>
              {written !== null && (
                <td className="py-1">
                  {inLanguage(written)}
                  {by === "values" && <span className="text-muted"> · {t("recognised by its values")}</span>}
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** `frames.*.rect.x` -> frames › each › rect › x. */
function fieldInWords(path: string): string {
  const parts = path.replace(/#$/, "").split(".");
  const words = parts.map((part) => (part === "*" ? t("each") : part)).join(" › ");
  return path.endsWith("#") ? t("{words}, its name", { words }) : words;
}
