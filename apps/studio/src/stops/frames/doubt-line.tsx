"use client";

import type { Source } from "@caravan/core/model";
import { useMetadataText } from "../../project/metadata-texts";
import { t } from "../../ui/words";

/** A line above the sheet if its metadata file could be read another way, with the reasons. The fields to correct are at the right. */
export function DoubtLine({ source }: { source: Source }) {
  const text = useMetadataText(source);
  if (source.cut?.by !== "metadata" || text?.grade.grade !== "doubtful") return null;
  const [first = "", ...others] = text.grade.reasons;
  return (
    <p role="status" data-testid="doubt" className="rounded-box border border-brick px-2.5 py-1.5 text-brick">
      <strong>{t("Not sure about this reading:")}</strong>{" "}
      {others.length > 0 ? t("{reason} (and {count} more).", { reason: first, count: others.length }) : t("{reason}.", { reason: first })}{" "}
      {t("Compare the frames; if they are wrong, set the fields under “Read from {file}”.", { file: source.cut.file })}
    </p>
  );
}
