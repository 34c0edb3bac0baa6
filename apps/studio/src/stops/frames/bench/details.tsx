"use client";

import {
  colourPieces,
  exchangeEverywhere,
  exchangePieces,
  flipPieces,
  groupPieces,
  hidePieces,
  placeInStack,
  removePieces,
  ungroupPieces,
  withGroups,
} from "@caravan/core/edit";
import {
  type Frame,
  type FrameRef,
  findFrame,
  frameName,
  frameRef,
  LARGEST_CANVAS,
  type Piece,
  type Project,
  type Source,
} from "@caravan/core/model";
import type { DragEndEvent } from "@dnd-kit/core";
import { SortableContext, useSortable, verticalListSortingStrategy } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { ChevronDown, ChevronUp, Eye, EyeOff, FlipHorizontal2, FlipVertical2, X } from "lucide-react";
import { BudgetDetail } from "../../../budget/budget-detail";
import { NearTiles } from "../../../budget/near-tiles";
import { PaletteDetail } from "../../../palettes/palette-detail";
import { FramePicture } from "../../../preview/frame-picture";
import { act } from "../../../project/act";
import { useProject } from "../../../project/open-project";
import { PlaceFindings } from "../../../project/place-findings";
import { useView } from "../../../project/view";
import { Button, IconButton } from "../../../ui/button";
import { Detail } from "../../../ui/detail";
import { Dragging } from "../../../ui/dragging";
import { FieldBox, NumberField } from "../../../ui/number-field";
import { Select } from "../../../ui/select";
import { Tick } from "../../../ui/tick";
import { t } from "../../../ui/words";
import { FrameData } from "../frame-data";
import { OriginDetail } from "../origin-detail";
import { choosePieces, frameOnBench, framesAcross, moveChosen, useBench, useChosenOn } from "./state";
import { restack } from "./surface";
import { Variants } from "./variants";

/** The stack of the frame on the bench, what is chosen of it, and the palettes. */
export function BenchDetails({ source }: { source: Source }) {
  const project = useProject((each) => each);
  const cursor = useView((view) => view.cursor);
  const frame = frameOnBench(source, cursor);
  return frame && <OfFrame project={project} source={source} frame={frame} />;
}

function OfFrame({ project, source, frame }: { project: Project; source: Source; frame: Frame }) {
  const ref = frameRef(source, frame);
  const chosen = useChosenOn(ref, frame);
  const palette = useBench((bench) => bench.palette);
  const open = project.palettes?.find(({ name }) => name === palette);
  return (
    <>
      <Stack project={project} frame={frame} of={ref} chosen={chosen} />
      {chosen.length > 0 && <Chosen project={project} frame={frame} of={ref} chosen={chosen} />}
      <PlaceFindings label={t("Findings on this frame")} at={(place) => place.stop === "frames" && place.frame === ref} />
      <Variants project={project} source={source} frame={frame} />
      {open && (
        <PaletteDetail
          palette={open}
          all={project.palettes ?? []}
          source={source}
          onRenamed={(palette) => useBench.setState({ palette })}
        />
      )}
      <BudgetDetail of={{ source: source.id }}>
        <NearTiles key={source.id} source={source} />
      </BudgetDetail>
      <OriginDetail source={source} frame={frame} />
      <FrameData cursor={ref} />
    </>
  );
}

function nameOf(project: Project, of: FrameRef): string {
  const found = findFrame(project, of);
  return found ? frameName(found.source, found.frame) : t("{of}, missing", { of });
}

/** The pieces in stacking order, topmost first. */
function Stack({ project, frame, of, chosen }: { project: Project; frame: Frame; of: FrameRef; chosen: readonly number[] }) {
  const pieces = frame.pieces ?? [];
  const topFirst = pieces.map((piece, place) => ({ piece, place })).reverse();
  return (
    <Detail title={t("Stack")} aside={t("top first · PgUp moves up")}>
      {pieces.length === 0 && <p className="text-muted">{t("Empty so far: take a piece from the left, then click on the canvas.")}</p>}
      <Dragging id="stack" onDragEnd={(event) => dropped(of, event)}>
        <SortableContext items={topFirst.map(({ place }) => `${place}`)} strategy={verticalListSortingStrategy}>
          <ul aria-label={t("Stack")} className="flex max-h-64 flex-col gap-0.5 overflow-y-auto">
            {topFirst.map(({ piece, place }) => (
              <StackRow
                key={place}
                place={place}
                project={project}
                piece={piece}
                isChosen={chosen.includes(place)}
                onChoose={(adds, alone) => {
                  const whole = alone ? [place] : withGroups(pieces, [place]);
                  const rest = chosen.filter((each) => !whole.includes(each));
                  choosePieces(of, !adds ? whole : chosen.includes(place) ? rest : [...rest, ...whole]);
                }}
                onHide={() => act(hidePieces, of, [place], !piece.hidden)}
              />
            ))}
          </ul>
        </SortableContext>
      </Dragging>
      <div className="mt-1.5 flex gap-1.5">
        <IconButton
          label={t("Up in the stack")}
          aria-keyshortcuts="PageUp"
          disabled={chosen.length === 0}
          onClick={() => restack(of, frame, "up")}
        >
          <ChevronUp size={14} />
        </IconButton>
        <IconButton
          label={t("Down in the stack")}
          aria-keyshortcuts="PageDown"
          disabled={chosen.length === 0}
          onClick={() => restack(of, frame, "down")}
        >
          <ChevronDown size={14} />
        </IconButton>
        <Button className="min-h-7" disabled={chosen.length === 0} onClick={() => restack(of, frame, "top")}>
          {t("To the top")}
        </Button>
        <Button className="min-h-7" disabled={chosen.length === 0} onClick={() => restack(of, frame, "bottom")}>
          {t("To the bottom")}
        </Button>
      </div>
    </Detail>
  );
}

/** A piece dragged onto another takes its place in the stack. */
function dropped(of: FrameRef, { active, over }: DragEndEvent): void {
  const [from, to] = [Number(active.id), Number(over?.id ?? active.id)];
  if (from !== to && act(placeInStack, of, [from], from < to ? to + 1 : to)) choosePieces(of, [to]);
}

function StackRow({
  place,
  project,
  piece,
  isChosen,
  onChoose,
  onHide,
}: {
  place: number;
  project: Project;
  piece: Piece;
  isChosen: boolean;
  /** `alone`: without the others of its group. */
  onChoose: (adds: boolean, alone: boolean) => void;
  onHide: () => void;
}) {
  const found = findFrame(project, piece.of);
  const { listeners, setNodeRef, transform, transition } = useSortable({ id: `${place}` });
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Transform.toString(transform), transition }}
      {...listeners}
      className={`flex items-center gap-1 rounded-box border-l-4 ${isChosen ? "border-l-now bg-lapis-soft" : "border-l-transparent"} ${piece.hidden ? "opacity-60" : ""}`}
    >
      <button
        type="button"
        aria-pressed={isChosen}
        className="flex min-h-9 min-w-0 grow items-center gap-2 text-left"
        onClick={(event) => onChoose(event.shiftKey, event.altKey)}
      >
        <span className="check block size-8 shrink-0 rounded-sm">
          {found && <FramePicture source={found.source} frame={found.frame} size={32} />}
        </span>
        <span className="min-w-0 truncate">{nameOf(project, piece.of)}</span>
        <span className="ml-auto shrink-0 text-small text-muted">
          {piece.group === undefined ? "" : t("group {group}", { group: piece.group })} {piece.palette ?? ""}{" "}
          {piece.flip ? t("flipped {flip}", { flip: piece.flip }) : ""}
        </span>
      </button>
      <IconButton label={piece.hidden ? t("Show it") : t("Hide it")} look="quiet" onClick={onHide}>
        {piece.hidden ? <EyeOff size={13} /> : <Eye size={13} />}
      </IconButton>
    </li>
  );
}

function Chosen({ project, frame, of, chosen }: { project: Project; frame: Frame; of: FrameRef; chosen: readonly number[] }) {
  const [first] = chosen.flatMap((place) => frame.pieces?.[place] ?? []);
  const hand = useBench((bench) => bench.hand);
  const across = useBench((bench) => bench.across);
  const source = findFrame(project, of)?.source;
  if (!first || !source) return null;
  const along = (label: "x" | "y") => (
    <FieldBox label={label}>
      <NumberField
        label={t("{label} of the piece", { label })}
        value={first[label]}
        least={-LARGEST_CANVAS}
        most={LARGEST_CANVAS}
        onChange={(value) => moveChosen(source, frame, { x: 0, y: 0, [label]: value - first[label] })?.message}
      />
    </FieldBox>
  );
  const palettes = (project.palettes ?? []).map(({ name }) => [name as string | null, name] as const);
  return (
    <Detail part="piece" title={chosen.length === 1 ? nameOf(project, first.of) : t("{count} pieces", { count: chosen.length })}>
      <div className="flex flex-wrap items-center gap-1.5">
        {along("x")}
        {along("y")}
        <IconButton label={t("Flip horizontally")} aria-keyshortcuts="x" onClick={() => act(flipPieces, of, chosen, "across")}>
          <FlipHorizontal2 size={14} />
        </IconButton>
        <IconButton label={t("Flip vertically")} onClick={() => act(flipPieces, of, chosen, "down")}>
          <FlipVertical2 size={14} />
        </IconButton>
        <IconButton
          label={t("Remove piece")}
          aria-keyshortcuts="Delete"
          onClick={() => act(removePieces, of, chosen) && choosePieces(of, [])}
        >
          <X size={14} />
        </IconButton>
        <Select
          label={t("Palette of the piece")}
          value={(first.palette ?? "") as string}
          options={[["", t("own colours")], ...palettes.map(([name]) => [name as string, name as string] as const)]}
          onChange={(name) => act(colourPieces, of, chosen, name === "" ? null : name)}
        />
        {hand && (
          <Button
            className="min-h-7"
            onClick={() =>
              across ? act(exchangeEverywhere, framesAcross(source), first.of, hand.of) : act(exchangePieces, of, chosen, hand.of)
            }
          >
            {t("Replace by {name}", { name: nameOf(project, hand.of) })}
          </Button>
        )}
        {chosen.length > 1 && (
          <Button className="min-h-7" aria-keyshortcuts="g" onClick={() => act(groupPieces, of, chosen)}>
            {t("Group")}
          </Button>
        )}
        {chosen.some((place) => frame.pieces?.[place]?.group !== undefined) && (
          <Button className="min-h-7" aria-keyshortcuts="Shift+g" onClick={() => act(ungroupPieces, of, chosen)}>
            {t("Ungroup")}
          </Button>
        )}
        <Button
          className="min-h-7"
          onClick={() =>
            choosePieces(
              of,
              (frame.pieces ?? []).flatMap((piece, place) => (piece.of === first.of ? [place] : [])),
            )
          }
        >
          {t("All of it")}
        </Button>
      </div>
      <Tick
        label={t("in all frames, or the picked ones: moving or replacing a piece applies wherever it is used")}
        checked={across}
        onChange={(next) => useBench.setState({ across: next })}
      />
    </Detail>
  );
}
