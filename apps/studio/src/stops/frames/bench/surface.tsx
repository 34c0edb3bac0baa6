"use client";

import {
  addFrameOfPieces,
  flipPieces,
  groupPieces,
  hidePieces,
  mirrorPieces,
  placesRestacked,
  putPieces,
  type Restacking,
  removePieces,
  restackPieces,
  setCanvas,
  ungroupPieces,
} from "@caravan/core/edit";
import { type Frame, type FrameRef, frameRef, LARGEST_CANVAS, type Source } from "@caravan/core/model";
import { act } from "../../../project/act";
import { currentProject, edit } from "../../../project/open-project";
import { useView } from "../../../project/view";
import { Button } from "../../../ui/button";
import { Choice } from "../../../ui/choice";
import { type Binding, useKeys } from "../../../ui/keys";
import { sayUnlessDone } from "../../../ui/notices";
import { FieldBox, NumberField } from "../../../ui/number-field";
import { pasteUnlessArt } from "../../../ui/paste";
import { Select } from "../../../ui/select";
import { t } from "../../../ui/words";
import { makeClip } from "../make-clip";
import { Tray } from "../tray";
import { BenchCanvas } from "./canvas";
import { choosePieces, chosenOn, frameOnBench, moveChosen, stepFrame, useBench } from "./state";

const GRIDS = [
  ["8", "8"],
  ["16", "16"],
  ["1", t("free")],
] as const;

const GHOSTS = [
  ["none", t("none")],
  ["before", t("before")],
  ["both", t("both")],
] as const;

/** Frames put together from pieces: the canvas, and the frames in order under it. */
export function BenchSurface({ source }: { source: Source }) {
  const cursor = useView((view) => view.cursor);
  const picked = useView((view) => view.picked);
  const frame = frameOnBench(source, cursor);
  const grid = useBench((bench) => bench.grid);
  const ghosts = useBench((bench) => bench.ghosts);
  if (!frame) return null;
  const size = frame.size ?? { w: 1, h: 1 };
  const side = (label: string, value: number, change: (value: number) => { w: number; h: number }) => (
    <NumberField
      label={label}
      value={value}
      least={1}
      most={LARGEST_CANVAS}
      onChange={(next) => edit(setCanvas, source.id, change(next))?.message}
    />
  );
  return (
    <>
      <BenchKeys source={source} frame={frame} />
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1.5">
        <FieldBox label={t("canvas")}>
          {side(t("Canvas width"), size.w, (w) => ({ ...size, w }))}×{side(t("Canvas height"), size.h, (h) => ({ ...size, h }))}
        </FieldBox>
        <span className="flex items-center gap-1.5 text-muted">
          {t("grid")}
          <Choice
            label={t("Grid")}
            value={String(grid)}
            options={GRIDS}
            onChange={(next) => useBench.setState({ grid: Number(next) as 1 | 8 | 16 })}
          />
        </span>
        <span className="flex items-center gap-1.5 text-muted">
          {t("ghosts")}
          <Select label={t("Ghosts")} value={ghosts} options={GHOSTS} onChange={(next) => useBench.setState({ ghosts: next })} />
        </span>
        <span className="grow" />
        <Button onClick={() => addFrame(source, frame, true)} hint="N" aria-keyshortcuts="n">
          {t("Copy to next")}
        </Button>
        <Button look={picked.length > 0 ? "now" : "plain"} onClick={() => makeClip()} hint="C" aria-keyshortcuts="c">
          {picked.length > 0 ? t("Make clip") : t("Make clip of all")}
        </Button>
      </div>
      <BenchCanvas source={source} frame={frame} />
      <Tray source={source}>
        <Button className="min-h-6" onClick={() => addFrame(source, frame, false)}>
          {t("Empty frame")}
        </Button>
      </Tray>
    </>
  );
}

/** The new frame is on the bench then, with the same pieces chosen. */
function addFrame(source: Source, frame: Frame, copied: boolean): void {
  const behind = frameRef(source, frame);
  if (!act(addFrameOfPieces, behind, copied)) return;
  const now = currentProject().sources.find(({ id }) => id === source.id);
  const made = now?.frames[now.frames.findIndex(({ key }) => key === frame.key) + 1];
  if (!now || !made) return;
  const ref = frameRef(now, made);
  const chosen = copied ? chosenOn(behind, frame, useBench.getState()) : [];
  useView.setState({ cursor: ref });
  choosePieces(ref, chosen);
}

/** Restacks the chosen pieces, which stay chosen at their new places. */
export function restack(ref: FrameRef, frame: Frame, to: Restacking): void {
  const chosen = chosenOn(ref, frame, useBench.getState());
  if (chosen.length > 0 && act(restackPieces, ref, chosen, to)) choosePieces(ref, placesRestacked(frame.pieces?.length ?? 0, chosen, to));
}

function BenchKeys({ source, frame }: { source: Source; frame: Frame }) {
  const ref = frameRef(source, frame);
  const pieces = frame.pieces ?? [];
  const chosen = () => chosenOn(ref, frame, useBench.getState());
  const withChosen = (run: (places: readonly number[]) => void) => () => {
    const places = chosen();
    if (places.length > 0) run(places);
  };
  const move = (x: number, y: number): Binding["run"] => withChosen(() => sayUnlessDone(moveChosen(source, frame, { x, y })));
  const { grid } = useBench.getState();
  const flip = (way: "across" | "down") => () => {
    const { hand } = useBench.getState();
    if (!hand) {
      withChosen((places) => act(flipPieces, ref, places, way))();
      return;
    }
    const across = (hand.flip === "across" || hand.flip === "both") !== (way === "across");
    const down = (hand.flip === "down" || hand.flip === "both") !== (way === "down");
    useBench.setState({ hand: { ...hand, flip: across && down ? "both" : across ? "across" : down ? "down" : null } });
  };
  useKeys(
    t("The bench"),
    [
      { keys: "ArrowLeft", repeats: true, label: t("Move the selected pieces left"), run: move(-1, 0) },
      { keys: "ArrowRight", repeats: true, label: t("Move them right"), run: move(1, 0) },
      { keys: "ArrowUp", repeats: true, label: t("Move them up"), run: move(0, -1) },
      { keys: "ArrowDown", repeats: true, label: t("Move them down"), run: move(0, 1) },
      { keys: "Shift+ArrowLeft", repeats: true, label: t("Left by a grid step"), run: move(-grid, 0) },
      { keys: "Shift+ArrowRight", repeats: true, label: t("Right by a grid step"), run: move(grid, 0) },
      { keys: "Shift+ArrowUp", repeats: true, label: t("Up by a grid step"), run: move(0, -grid) },
      { keys: "Shift+ArrowDown", repeats: true, label: t("Down by a grid step"), run: move(0, grid) },
      { keys: "x", label: t("Flip horizontally: the selected pieces, or the one in hand"), run: flip("across") },
      { keys: "Shift+x", label: t("Flip vertically"), run: flip("down") },
      { keys: "PageUp", label: t("Up in the stack"), run: () => restack(ref, frame, "up") },
      { keys: "PageDown", label: t("Down in the stack"), run: () => restack(ref, frame, "down") },
      { keys: "Shift+PageUp", label: t("To the top of the stack"), run: () => restack(ref, frame, "top") },
      { keys: "Shift+PageDown", label: t("To the bottom"), run: () => restack(ref, frame, "bottom") },
      {
        keys: "Delete Backspace",
        label: t("Remove the selected pieces"),
        run: withChosen((places) => act(removePieces, ref, places) && choosePieces(ref, [])),
      },
      {
        keys: "g",
        label: t("Group the selected pieces, to select and move them together"),
        run: withChosen((places) => act(groupPieces, ref, places)),
      },
      { keys: "Shift+g", label: t("Ungroup them"), run: withChosen((places) => act(ungroupPieces, ref, places)) },
      {
        keys: "h",
        label: t("Hide or show the selected pieces"),
        run: withChosen((places) => act(hidePieces, ref, places, !places.every((place) => pieces[place]?.hidden))),
      },
      {
        keys: "Shift+m",
        label: t("Mirror the selected pieces as one, or the whole frame"),
        run: () => act(mirrorPieces, ref, chosen().length > 0 ? chosen() : pieces.map((_, place) => place)),
      },
      {
        keys: "Mod+a",
        label: t("Select all pieces"),
        run: () =>
          choosePieces(
            ref,
            pieces.map((_, place) => place),
          ),
      },
      {
        keys: "Mod+c",
        label: t("Copy the selected pieces"),
        run: withChosen((places) => useBench.setState({ copied: places.flatMap((place) => pieces[place] ?? []) })),
      },
      {
        keys: "Mod+v",
        label: t("Paste pieces in place"),
        run: () =>
          pasteUnlessArt(() => {
            const { copied } = useBench.getState();
            if (copied.length > 0 && act(putPieces, ref, copied, null))
              choosePieces(
                ref,
                copied.map((_, k) => pieces.length + k),
              );
          }),
      },
      {
        keys: "d",
        label: t("Duplicate the selected pieces on top"),
        run: withChosen((places) => {
          const twins = places.flatMap((place) => pieces[place] ?? []).map((piece) => ({ ...piece, x: piece.x + grid, y: piece.y }));
          if (act(putPieces, ref, twins, null))
            choosePieces(
              ref,
              twins.map((_, k) => pieces.length + k),
            );
        }),
      },
      { keys: "n", label: t("Copy to the next frame"), run: () => addFrame(source, frame, true) },
      { keys: ",", repeats: true, label: t("Previous frame"), run: () => stepFrame(source, frame, -1) },
      { keys: ".", repeats: true, label: t("Next frame"), run: () => stepFrame(source, frame, 1) },
      { keys: "c", label: t("Make a clip of the picked frames, or of all"), run: () => makeClip() },
      {
        keys: "Escape",
        label: t("Put the piece back, or deselect the pieces, or unpick the frames"),
        run: () => {
          if (useBench.getState().hand) useBench.setState({ hand: null });
          else if (chosen().length > 0) choosePieces(ref, []);
          else useView.setState({ picked: [] });
        },
      },
    ],
    { scope: "surface" },
  );
  return null;
}
