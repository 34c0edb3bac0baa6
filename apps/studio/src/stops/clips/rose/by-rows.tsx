"use client";

import { actionOfRows, mirroredRows, type RowFacing, rowsOfSource } from "@caravan/core/edit";
import { type NumberedFrom, roseFrom } from "@caravan/core/facing";
import { type ActionName, FACINGS, type Facing, freeName, type Source, type Ways } from "@caravan/core/model";
import { useMemo, useState } from "react";
import { FramePicture } from "../../../preview/frame-picture";
import { act } from "../../../project/act";
import { useProject } from "../../../project/open-project";
import { chooseAction, chosenSource, useView } from "../../../project/view";
import { Button } from "../../../ui/button";
import { Choice } from "../../../ui/choice";
import { useCountFrom } from "../../../ui/counting";
import { FieldBox } from "../../../ui/number-field";
import { Select } from "../../../ui/select";
import { SheetDialog } from "../../../ui/sheet-dialog";
import { TextField } from "../../../ui/text-field";
import { Tick } from "../../../ui/tick";
import { NumberedFields } from "./numbered-fields";

/** Makes an action of the rows of a sheet: each row becomes a clip and takes a facing, in an order that is chosen and shown. */
export function ByRows({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <SheetDialog
      title="An action by rows"
      description="Each row of a sheet becomes a clip and one facing of the action."
      open={open}
      onClose={onClose}
    >
      <RowsForm onDone={onClose} />
    </SheetDialog>
  );
}

function RowsForm({ onDone }: { onDone: () => void }) {
  const project = useProject((each) => each);
  const fitting = project.sources.filter((source) => rowsOfSource(source).length > 1);
  const current = useView((view) => chosenSource(project, view));
  const [sourceId, setSourceId] = useState<string>((fitting.find(({ id }) => id === current?.id) ?? fitting[0])?.id ?? "");
  const source = fitting.find(({ id }) => id === sourceId);
  if (!source) return <p>No sheet is cut into several rows yet. Cut one at Frames.</p>;
  return (
    <>
      <span className="mb-3 flex items-center gap-1.5 text-muted">
        Rows of
        <Select label="Sheet" value={source.id} options={fitting.map((each) => [each.id, each.name] as const)} onChange={setSourceId} />
      </span>
      <RowsOfSheet key={source.id} source={source} onDone={onDone} />
    </>
  );
}

function RowsOfSheet({ source, onDone }: { source: Source; onDone: () => void }) {
  const project = useProject((each) => each);
  const countFrom = useCountFrom();
  const rows = useMemo(() => rowsOfSource(source), [source]);
  const [name, setName] = useState(() => freeName(source.name, new Set(project.actions.map((each) => each.name))));
  const [ways, setWays] = useState<Ways>(waysOfRows(rows.length));
  const [from, setFrom] = useState<NumberedFrom>({ first: "s", clockwise: true });
  const [own, setOwn] = useState<Readonly<Record<number, Facing | "none">>>({});
  const [mirror, setMirror] = useState(rows.length < waysOfRows(rows.length));
  const order = roseFrom(ways, from);
  const usual: readonly Facing[] = rows.length < ways && mirror ? mirroredRows(ways, rows.length) : order;
  const facings = rows.map((_, k): Facing | "none" => own[k] ?? usual[k] ?? "none");
  const chosen = rows.flatMap((row, k): RowFacing[] => (facings[k] === "none" ? [] : [{ row, facing: facings[k] as Facing }]));
  const twice = new Set(chosen.map(({ facing }) => facing)).size < chosen.length;
  const make = () => {
    if (!act(actionOfRows, source.id, name, ways, chosen, mirror)) return;
    onDone();
    chooseAction(name.trim() as ActionName);
  };
  return (
    <>
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <FieldBox label="called">
          <TextField label="Name of the action" value={name} onChange={(next) => void setName(next)} className="font-semibold" />
        </FieldBox>
        <Choice
          label="Facings of the action"
          value={String(ways) as "2" | "4" | "8"}
          options={[
            ["2", "2 ways"],
            ["4", "4"],
            ["8", "8"],
          ]}
          onChange={(next) => {
            setWays(Number(next) as Ways);
            setOwn({});
          }}
        />
        <Tick label="mirror what is missing" checked={mirror} onChange={setMirror} />
      </div>
      <NumberedFields
        from={from}
        onChange={(next) => {
          setFrom(next);
          setMirror(rows.length < ways && mirror);
          setOwn(Object.fromEntries(rows.map((_, k) => [k, roseFrom(ways, next)[k] ?? "none"])));
        }}
      />
      <ul aria-label="Rows" className="mt-3 flex flex-col gap-1.5">
        {rows.map((row, k) => (
          <li key={row} className="flex items-center gap-3 rounded-box border border-line bg-raised px-2 py-1">
            <span className="w-14 text-muted">row {row + countFrom}</span>
            <Select
              label={`Facing of row ${row + countFrom}`}
              value={facings[k] ?? "none"}
              options={[
                ["none", "left out"],
                ...FACINGS.filter((facing) => order.includes(facing)).map((facing) => [facing, facing.toUpperCase()] as const),
              ]}
              onChange={(facing) => setOwn((before) => ({ ...before, [k]: facing }))}
            />
            <RowPictures source={source} row={row} />
          </li>
        ))}
      </ul>
      <div className="mt-4 flex items-center justify-end gap-3">
        {twice && <span className="text-brick">Two rows have one facing.</span>}
        <Button look="now" onClick={make} disabled={twice || chosen.length === 0}>
          Make {name}
        </Button>
      </div>
    </>
  );
}

/** The rose for so many rows: those of three or five leave facings to be mirrored. */
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
