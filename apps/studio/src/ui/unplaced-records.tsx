import type { Unplaced } from "@caravan/core/metadata";
import { t } from "./words";

/** Lists records of a metadata file that do not fit, each with its reason; folded by default. */
export function UnplacedRecords({ unplaced }: { unplaced: readonly Unplaced[] }) {
  return (
    <details className="text-small">
      <summary className="cursor-pointer text-lapis">{t("Which, and why")}</summary>
      <ul className="mt-1 max-h-32 overflow-y-auto">
        {unplaced.map(({ where, why }, k) => (
          <li key={k} className="break-words">
            <strong>{where}</strong>: {why}
          </li>
        ))}
      </ul>
    </details>
  );
}
