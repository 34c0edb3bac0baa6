"use client";

import { frameLook } from "@caravan/core/art";
import { renameFrame } from "@caravan/core/edit";
import { type Frame, frameName, frameRef, isOfPieces, type Source } from "@caravan/core/model";
import { drawnPart } from "@caravan/core/raster";
import { putTogetherFrom } from "../../budget/budget";
import { BudgetDetail } from "../../budget/budget-detail";
import { useFrameNumber } from "../../preview/frame-number";
import { FramePicture } from "../../preview/frame-picture";
import { sizeFacts } from "../../preview/size-facts";
import { edit, useProject } from "../../project/open-project";
import { usePicture } from "../../project/pictures";
import { chosenSource, useView } from "../../project/view";
import { Button } from "../../ui/button";
import { CountFrom, useCountFrom } from "../../ui/counting";
import { Detail, Facts } from "../../ui/detail";
import { FIELDS } from "../../ui/fields-by-key";
import { inBackground } from "../../ui/in-background";
import { sayTrouble } from "../../ui/notices";
import { TextField } from "../../ui/text-field";
import { t } from "../../ui/words";
import { BenchDetails } from "./bench/details";
import { FrameData } from "./frame-data";
import { WorthALook } from "./frame-findings";
import { GridPart } from "./grid-part";
import { dropOrRestore } from "./make-clip";
import { OriginDetail } from "./origin-detail";
import { ReadingTable } from "./reading-table";
import { wayOf } from "./ways-table";

/** Shows the frame at the cursor, and the common origin of the sheet's frames. */
export function Details() {
  const project = useProject((each) => each);
  const source = useView((view) => chosenSource(project, view));
  return source && isOfPieces(source) ? <BenchDetails source={source} /> : <SheetDetails />;
}

function SheetDetails() {
  const project = useProject((each) => each);
  const source = useView((view) => chosenSource(project, view));
  const cursor = useView((view) => view.cursor);
  const chosenWay = useView((view) => view.way);
  const way = source && wayOf(source, chosenWay);
  if (!source || source.frames.length === 0) return null;
  const frame = source.frames.find((each) => frameRef(source, each) === cursor) ?? (source.frames[0] as Frame);
  return (
    <>
      {/** The reading comes first if a metadata file cuts the sheet. */}
      {way === "metadata" && <ReadingTable source={source} />}
      <FrameDetail source={source} frame={frame} />
      <WorthALook source={source} />
      <OriginDetail source={source} frame={frame} />
      <FrameData cursor={frameRef(source, frame)} />
      <GridPart source={source} />
      {way !== "metadata" && <ReadingTable source={source} />}
      <BudgetDetail of={{ source: source.id }}>
        <Button className="mt-1.5 min-h-7" onClick={() => inBackground(putTogetherFrom(source).catch(sayTrouble))}>
          {t("Put together from its tiles")}
        </Button>
      </BudgetDetail>
    </>
  );
}

function FrameDetail({ source, frame }: { source: Source; frame: Frame }) {
  const picture = usePicture(useProject((project) => frameLook(project, source, frame)));
  const drawn = picture && drawnPart(picture.coverage, frame.rect);
  const ref = frameRef(source, frame);
  const { x, y } = frame.rect;
  const countFrom = useCountFrom();
  const numberOf = useFrameNumber(source);
  const deliveries = useProject((project) => project.deliveries);
  return (
    <Detail part="frame" title={t("Frame {number}", { number: numberOf(frame) })} aside={<CountFrom />}>
      <div className="flex gap-3">
        <span className="check block size-21 shrink-0 rounded-box">
          <FramePicture source={source} frame={frame} size={84} />
        </span>
        <div className="min-w-0 grow">
          <TextField
            id={FIELDS.frameName}
            label={t("Frame name")}
            value={frameName(source, frame)}
            onChange={(name) => edit(renameFrame, ref, name)?.message}
            className="w-full font-bold"
          />
          <Facts
            facts={[
              [t("column, row"), `${frame.column + countFrom}, ${frame.row + countFrom}`],
              ["x, y", `${x}, ${y}`],
              ...sizeFacts(source, frame, deliveries),
              [t("drawn part"), drawn ? `${drawn.w} × ${drawn.h}` : t("nothing")],
            ]}
          />
        </div>
      </div>
      <div className="mt-2 flex gap-2">
        <Button onClick={() => dropOrRestore([ref], frame.dropped === true)}>{frame.dropped ? t("Restore") : t("Drop this frame")}</Button>
        {frame.name !== undefined && <Button onClick={() => edit(renameFrame, ref, "")}>{t("Default name")}</Button>}
      </div>
    </Detail>
  );
}

/** The common origin of the sheet's frames. */
