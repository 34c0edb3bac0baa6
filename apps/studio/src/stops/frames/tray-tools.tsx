"use client";

import { moveFrames, nameFrames, namesByPattern, orderFrames, type TrayOrder } from "@caravan/core/edit";
import { counted, drawnSize, type Frame, type FrameRef, frameName, frameRef, type Source } from "@caravan/core/model";
import { useState } from "react";
import { useInspection } from "../../project/inspection";
import { edit } from "../../project/open-project";
import { togglePicks, useView } from "../../project/view";
import { AS_TYPED } from "../../ui/as-typed";
import { Button } from "../../ui/button";
import { useKeys } from "../../ui/keys";
import { sayUnlessDone } from "../../ui/notices";
import { FieldBox, NumberField } from "../../ui/number-field";
import { SheetDialog } from "../../ui/sheet-dialog";
import { t } from "../../ui/words";

/** Tools for the tray: order, names by pattern, and finding frames by name. */
export function TrayTools({ source, picked }: { source: Source; picked: readonly FrameRef[] }) {
  const [dialog, setDialog] = useState<"names" | "find" | null>(null);
  const order = (by: TrayOrder) => {
    const error = edit(orderFrames, source.id, by);
    sayUnlessDone(error);
  };
  useKeys(t("The tray"), [
    { keys: "n", label: t("Name the picked frames, or all, by a pattern"), run: () => setDialog("names") },
    { keys: "/", label: t("Find frames by name"), run: () => setDialog("find") },
    { keys: "s", label: t("Sort the tray by position"), run: () => order("position") },
    { keys: "Shift+s", label: t("Sort the tray by name"), run: () => order("name") },
    { keys: "v", label: t("Reverse the tray"), run: () => order("reverse") },
  ]);
  const shift = (by: 1 | -1) => {
    const { cursor } = useView.getState();
    const keys = source.frames.filter((frame) => picked.includes(frameRef(source, frame))).map(({ key }) => key);
    const moving = keys.length > 0 ? keys : source.frames.filter((frame) => frameRef(source, frame) === cursor).map(({ key }) => key);
    const first = source.frames.findIndex(({ key }) => key === moving[0]);
    if (first < 0) return;
    const error = edit(moveFrames, source.id, moving, first + by);
    sayUnlessDone(error);
  };
  useKeys(t("Order of the tray"), [
    { keys: "Mod+Shift+ArrowLeft", repeats: true, label: t("Move the picked frames earlier in the tray"), run: () => shift(-1) },
    { keys: "Mod+Shift+ArrowRight", repeats: true, label: t("Move them later"), run: () => shift(1) },
  ]);
  if (source.frames.length === 0) return null;
  const own = new Set(picked);
  const chosen = source.frames.filter((frame) => own.has(frameRef(source, frame)));
  return (
    <div className="flex items-center gap-1.5">
      <Button className="min-h-6" onClick={() => setDialog("names")}>
        {t("Name …")}
      </Button>
      <Button className="min-h-6" onClick={() => setDialog("find")}>
        {t("Find …")}
      </Button>
      <Button className="min-h-6" onClick={() => order("reverse")}>
        {t("Reverse")}
      </Button>
      {dialog === "names" && (
        <NamesDialog source={source} frames={chosen.length > 0 ? chosen : source.frames} onClose={() => setDialog(null)} />
      )}
      {dialog === "find" && <FindDialog source={source} onClose={() => setDialog(null)} />}
    </div>
  );
}

function NamesDialog({ source, frames, onClose }: { source: Source; frames: readonly Frame[]; onClose: () => void }) {
  const [pattern, setPattern] = useState({ text: "{source}/{n}", start: 0, step: 1, padding: 0 });
  const [problem, setProblem] = useState<string | null>(null);
  const names = namesByPattern(source, frames, pattern);
  const take = () => {
    const error = edit(
      nameFrames,
      source.id,
      frames.map(({ key }) => key),
      pattern,
    );
    if (error) setProblem(error.message);
    else onClose();
  };
  const number = (part: "start" | "step" | "padding", label: string, least: number, most: number) => (
    <FieldBox label={label}>
      <NumberField
        label={label}
        value={pattern[part]}
        least={least}
        most={most}
        onChange={(value) => {
          setPattern({ ...pattern, [part]: value });
          return undefined;
        }}
      />
    </FieldBox>
  );
  return (
    <SheetDialog
      title={t("Names by pattern")}
      description={t("For {frames} of {name}. {gaps} and {last} are filled in.", {
        frames: counted(frames.length, "frame"),
        name: source.name,
        gaps: "{source}, {row}, {column}",
        last: "{n}",
      })}
      open
      onClose={onClose}
    >
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          take();
        }}
      >
        <input
          aria-label={t("Pattern")}
          className="min-h-8 rounded-sm border border-line-strong bg-raised px-2"
          value={pattern.text}
          {...AS_TYPED}
          onChange={(event) => {
            setPattern({ ...pattern, text: event.target.value });
            setProblem(null);
          }}
        />
        <div className="flex flex-wrap gap-4">
          {number("start", t("starts at"), -9999, 999_999)}
          {number("step", t("steps by"), 1, 9999)}
          {number("padding", "digits", 0, 9)}
        </div>
        <p className="number rounded-box bg-surface p-2" aria-live="polite">
          {names.slice(0, 4).join(", ")}
          {names.length > 5 ? ", …" : ""}
          {names.length > 4 ? `, ${names.at(-1)}` : ""}
        </p>
        {problem && (
          <p role="alert" className="font-semibold text-brick">
            {problem}
          </p>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>{t("Cancel")}</Button>
          <Button look="now" type="submit">
            {t("Name {frames}", { frames: counted(frames.length, "frame") })}
          </Button>
        </div>
      </form>
    </SheetDialog>
  );
}

function FindDialog({ source, onClose }: { source: Source; onClose: () => void }) {
  const [text, setText] = useState("");
  const cursor = useView((view) => view.cursor);
  const kept = source.frames.filter((frame) => !frame.dropped);
  const atCursor = kept.find((frame) => frameRef(source, frame) === cursor) ?? kept[0];
  const sizeOf = (frame: Frame) => `${drawnSize(frame).w} × ${drawnSize(frame).h}`;
  const alike = atCursor ? kept.filter((frame) => sizeOf(frame) === sizeOf(atCursor)) : [];
  const empties = kept.filter((frame) => frame.empty);
  const repeats = useInspection(source)?.findings.find(({ code }) => code === "repeats")?.frames ?? [];
  const pick = (frames: readonly Frame[]) => {
    togglePicks(frames.map((frame) => frameRef(source, frame)));
    onClose();
  };
  const found = source.frames.filter((frame) => !frame.dropped && frameName(source, frame).toLowerCase().includes(text.toLowerCase()));
  return (
    <SheetDialog
      title={t("Find frames")}
      description={t("Frames of {name} whose names contain this.", { name: source.name })}
      open
      onClose={onClose}
    >
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          pick(found);
        }}
      >
        <input
          aria-label={t("Part of the name")}
          className="min-h-8 rounded-sm border border-line-strong bg-raised px-2"
          value={text}
          {...AS_TYPED}
          onChange={(event) => setText(event.target.value)}
        />
        <p aria-live="polite" className="text-muted">
          {t("{found} of {frames}", { found: found.length, frames: source.frames.length })}
          {found.length > 0 &&
            `: ${found
              .slice(0, 5)
              .map((frame) => frameName(source, frame))
              .join(", ")}${found.length > 5 ? ", …" : ""}`}
        </p>
        <div className="flex justify-end gap-2">
          {empties.length > 0 && <Button onClick={() => pick(empties)}>{t("Pick {count} empty", { count: empties.length })}</Button>}
          {repeats.length > 0 && (
            <Button
              onClick={() => {
                togglePicks(repeats);
                onClose();
              }}
            >
              {t("Pick {count} repeated", { count: repeats.length })}
            </Button>
          )}
          {alike.length > 1 && atCursor && (
            <Button onClick={() => pick(alike)}>
              {t("Pick {count} of {w} × {h}", { count: alike.length, w: drawnSize(atCursor).w, h: drawnSize(atCursor).h })}
            </Button>
          )}
          <Button look="now" type="submit" disabled={found.length === 0}>
            {t("Pick {count}", { count: found.length })}
          </Button>
        </div>
      </form>
    </SheetDialog>
  );
}
