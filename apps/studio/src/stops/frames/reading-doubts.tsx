import type { Grade } from "@caravan/core/metadata";
import { t } from "../../ui/words";

/** Shows why a reading is doubtful, and what it leaves unused. */
export function ReadingDoubts({ grade: { grade, reasons, unused } }: { grade: Grade }) {
  return (
    <>
      {grade === "doubtful" && (
        <div className="mb-2 rounded-box border border-brick p-2">
          <p className="font-semibold text-brick">{t("Not sure about this reading")}</p>
          <ul className="list-disc pl-4">
            {reasons.map((reason) => (
              <li key={reason}>{reason}</li>
            ))}
          </ul>
          <p className="mt-1 text-small text-muted">{t("Compare the frames on the sheet. If they are wrong, set the fields below.")}</p>
        </div>
      )}
      {unused.length > 0 && (
        <details className="mb-2 text-small">
          <summary className="cursor-pointer text-lapis">{t("Not used: {count} fields or lists", { count: unused.length })}</summary>
          <ul className="mt-1 max-h-32 overflow-y-auto">
            {unused.map(({ where, why, count }) => (
              <li key={where} className="break-words">
                <strong>{where}</strong> ({count}): {why}
              </li>
            ))}
          </ul>
        </details>
      )}
    </>
  );
}
