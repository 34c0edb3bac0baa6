"use client";

import type { Told, ToldLine } from "@caravan/core/example";
import { Button } from "../../ui/button";

/** The example field by field: what will be written, what stays, and what of a delivery has no place in it. */
export function WhatStandsWhere({ told, onForget }: { told: Told; onForget: () => void }) {
  const written = told.lines.filter((line) => line.written !== null);
  const stays = told.lines.filter((line) => line.written === null);
  return (
    <div className="flex flex-col gap-4">
      <Lines title="Written anew" lines={written} last="will say" />
      {stays.length > 0 && <Lines title="Stays as it is" lines={stays} last="" />}
      {told.strange.length > 0 && (
        <p>
          <strong className="text-brick">Not understood:</strong> <span className="number">{told.strange.join(", ")}</span> differs from
          record to record and equals nothing that is known. It keeps what the example says.
        </p>
      )}
      <p>
        <strong>Has no place in it:</strong> {told.noPlace.join(", ")}.
      </p>
      <div className="flex justify-between gap-3 border-t border-line pt-3">
        <p className="text-small text-muted">Each file is read back as the example was, and compared with what was meant.</p>
        <Button onClick={onForget}>Forget this example</Button>
      </div>
    </div>
  );
}

function Lines({ title, lines, last }: { title: string; lines: readonly ToldLine[]; last: string }) {
  return (
    <section aria-label={title}>
      <h3 className="mb-1 font-bold">{title}</h3>
      <table className="w-full table-fixed border-collapse text-small">
        <thead>
          <tr className="text-left text-muted">
            <th className="w-2/5 py-1 pr-3 font-normal">field</th>
            <th className="py-1 pr-3 font-normal">in the example</th>
            {last !== "" && <th className="w-2/5 py-1 font-normal">{last}</th>}
          </tr>
        </thead>
        <tbody>
          {lines.map(({ path, example, written, found }) => (
            <tr key={path} className="border-t border-line align-top">
              <td className="number py-1 pr-3 break-words">{fieldInWords(path)}</td>
              <td className="number truncate py-1 pr-3 text-muted">{example}</td>
              {written !== null && (
                <td className="py-1">
                  {written}
                  {found && <span className="text-muted"> · told by its values</span>}
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
  const words = parts.map((part) => (part === "*" ? "each" : part)).join(" › ");
  return path.endsWith("#") ? `${words}, its name` : words;
}
