"use client";

import type { Source } from "@caravan/core/model";
import { useMetadataText } from "../../project/metadata-texts";

/** Right above the sheet: that its metadata file could be read otherwise, and why. The fields to correct stand at the right. */
export function DoubtLine({ source }: { source: Source }) {
  const text = useMetadataText(source);
  if (source.cut?.by !== "metadata" || text?.grade.grade !== "doubtful") return null;
  const [first, ...others] = text.grade.reasons;
  return (
    <p role="status" data-testid="doubt" className="rounded-box border border-brick px-2.5 py-1.5 text-brick">
      <strong>Not sure about this reading:</strong> {first}
      {others.length > 0 && ` (and ${others.length} more)`}. Compare the frames; if they are wrong, set the fields under “Read from{" "}
      {source.cut.file}”.
    </p>
  );
}
