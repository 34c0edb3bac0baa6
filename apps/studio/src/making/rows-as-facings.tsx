"use client";

import { actionOfRows, mirroredRows, type RowFacing } from "@caravan/core/edit";
import { roseFrom } from "@caravan/core/facing";
import { type ActionName, FACINGS, type Facing, freeName, type Source, type Ways } from "@caravan/core/model";
import { useState } from "react";
import { FacingOrderFields } from "../preview/facing-order-fields";
import { FramePicture } from "../preview/frame-picture";
import { useFacingOrder } from "../project/facing-order";
import { apply, useProject } from "../project/open-project";
import { chooseAction } from "../project/view";
import { Button } from "../ui/button";
import { Choice } from "../ui/choice";
import { useCountFrom } from "../ui/counting";
import { FieldBox } from "../ui/number-field";
import { Select } from "../ui/select";
import { TextField } from "../ui/text-field";
import { Tick } from "../ui/tick";
import { t } from "../ui/words";
import { RowMoving } from "./row-moving";
import type { RowsOf } from "./rows-of";

/** Makes an action from the rows of a sheet: each row becomes a clip with a facing, in a chosen, visible order. */
export function RowsAsFacings({ parted: { source, rows, cut }, onMade }: { parted: RowsOf; onMade: () => void }) {
  const project = useProject((each) => each);
  const countFrom = useCountFrom();
  const [name, setName] = useState(() => freeName(source.name, new Set(project.actions.map((each) => each.name))));
  const [ways, setWays] = useState<Ways>(waysOfRows(rows.length));
  const from = useFacingOrder();
  const [problem, setProblem] = useState<string | null>(null);
  const [own, setOwn] = useState<Readonly<Record<number, Facing | "none">>>({});
  const [mirror, setMirror] = useState(rows.length < waysOfRows(rows.length));
  // With fewer rows than facings, they are taken for the drawn side until someone sets the first one.
  const [inOrder, setOrdered] = useState(false);
  const order = roseFrom(ways, from);
  const usual: readonly Facing[] = rows.length < ways && mirror && !inOrder ? mirroredRows(ways, rows.length) : order;
  const facings = rows.map((_, k): Facing | "none" => own[k] ?? usual[k] ?? "none");
  const chosen = rows.flatMap((row, k): RowFacing[] => (facings[k] === "none" ? [] : [{ row, facing: facings[k] as Facing }]));
  const twice = new Set(chosen.map(({ facing }) => facing)).size < chosen.length;
  const make = () => {
    const error = apply(
      (each) => actionOfRows(cut(each), source.id, name, ways, chosen, mirror),
      (each) => actionOfRows.label(each, source.id, name, ways, chosen, mirror),
    );
    if (error) return setProblem(error.message);
    chooseAction(name.trim() as ActionName);
    onMade();
  };
  return (
    <>
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <FieldBox label={t("called")}>
          <TextField label={t("Name of the action")} value={name} onChange={(next) => void setName(next)} className="font-semibold" />
        </FieldBox>
        <Choice
          label={t("Facings of the action")}
          value={String(ways) as "2" | "4" | "8"}
          options={[
            ["2", t("2 ways")],
            ["4", "4"],
            ["8", "8"],
          ]}
          onChange={(next) => {
            setWays(Number(next) as Ways);
            setOwn({});
          }}
        />
        <Tick label={t("mirror missing facings")} checked={mirror} onChange={setMirror} />
      </div>
      <FacingOrderFields
        onChange={() => {
          setMirror(rows.length < ways && mirror);
          setOwn({});
          setOrdered(true);
        }}
      />
      <ul aria-label={t("Rows")} className="mt-3 flex flex-col gap-1.5">
        {rows.map((row, k) => (
          <li key={row} className="flex items-center gap-3 rounded-box border border-line bg-raised px-2 py-1">
            <span className="w-14 text-muted">{t("row {row}", { row: row + countFrom })}</span>
            <Select
              label={t("Facing of row {row}", { row: row + countFrom })}
              value={facings[k] ?? "none"}
              options={[
                ["none", t("left out")],
                ...FACINGS.filter((facing) => order.includes(facing)).map((facing) => [facing, facing.toUpperCase()] as const),
              ]}
              onChange={(facing) => setOwn((before) => ({ ...before, [k]: facing }))}
              className="w-20"
            />
            <RowMoving source={source} row={row} />
            <RowPictures source={source} row={row} />
          </li>
        ))}
      </ul>
      <div className="sticky -bottom-4 mt-3 -mb-4 flex items-center justify-end gap-3 bg-paper pt-2 pb-4">
        {problem && (
          <span role="alert" className="font-semibold text-brick">
            {problem}
          </span>
        )}
        {twice && <span className="text-brick">{t("Two rows have the same facing.")}</span>}
        <Button look="now" onClick={make} disabled={twice || chosen.length === 0}>
          {t("Make {name}", { name })}
        </Button>
      </div>
    </>
  );
}

/** The rose for a number of rows: with three or five, some facings are mirrored. */
function waysOfRows(count: number): Ways {
  return count <= 2 ? 2 : count <= 4 ? 4 : 8;
}

function RowPictures({ source, row }: { source: Source; row: number }) {
  const frames = source.frames.filter((frame) => frame.row === row && !frame.dropped);
  return (
    <span className="flex gap-1 overflow-hidden">
      {frames.slice(0, 9).map((frame) => (
        <FramePicture key={frame.key} source={source} frame={frame} size={40} className="check rounded-sm" />
      ))}
    </span>
  );
}
