"use client";

import { type FrameRef, findFrame, frameName } from "@caravan/core/model";
import { useProject } from "../../project/open-project";
import { useView } from "../../project/view";
import { t } from "../../ui/words";
import { DataDetail } from "../../user-data/data-detail";

/** Edits the data of the picked frames of any sheet, or else of the frame at the cursor. */
export function FrameData({ cursor }: { cursor: FrameRef }) {
  const project = useProject((each) => each);
  const picked = useView((view) => view.picked);
  const placed = (picked.length > 0 ? picked : [cursor]).flatMap((ref) => {
    const found = findFrame(project, ref);
    return found ? [{ ref, ...found }] : [];
  });
  const [first] = placed;
  if (!first) return null;
  const what = placed.length === 1 ? frameName(first.source, first.frame) : t("the {count} picked frames", { count: placed.length });
  return <DataDetail key={what} on={{ frames: placed.map(({ ref }) => ref) }} things={placed.map(({ frame }) => frame)} what={what} />;
}
