"use client";

import { colourPieces } from "@caravan/core/edit";
import { type Frame, frameRef, type Palette, type Project, type Source } from "@caravan/core/model";
import { recolouringOf } from "@caravan/core/palette";
import { FramePicture } from "../../../preview/frame-picture";
import { act } from "../../../project/act";
import { Detail } from "../../../ui/detail";
import { t } from "../../../ui/words";
import { chosenOn, useBench } from "./state";

/** Shows the frame on the bench in every palette that it could wear; a click opens the palette. */
export function Variants({ project, source, frame }: { project: Project; source: Source; frame: Frame }) {
  const { palettes = [] } = project;
  const open = useBench((bench) => bench.palette);
  const looks = palettes.filter((palette) => palette.of === undefined || recolouringOf(palettes, palette.name) !== null);
  if (palettes.every(({ of }) => of === undefined)) return null;
  return (
    <Detail title={t("In other colours")} aside={t("{count} palettes", { count: looks.length })}>
      <ul aria-label={t("In other colours")} className="flex max-h-48 flex-wrap gap-1.5 overflow-y-auto">
        {looks.map((palette) => (
          <li key={palette.name}>
            <button
              type="button"
              aria-pressed={open === palette.name}
              onClick={() => useBench.setState({ palette: palette.name })}
              onDoubleClick={() => wear(source, frame, palette)}
              className={`flex w-18 flex-col items-center rounded-box border-2 ${open === palette.name ? "border-now" : "border-transparent hover:border-line-strong"}`}
            >
              <span className="check block rounded-sm">
                <FramePicture source={source} frame={inPalette(frame, palette)} size={64} />
              </span>
              <span className="w-full truncate text-center text-small">{palette.name}</span>
            </button>
          </li>
        ))}
      </ul>
    </Detail>
  );
}

/** Its pieces in one palette: those in the colours that it replaces, or in another palette that replaces them. */
function inPalette(frame: Frame, { name, of }: Palette): Frame {
  const pieces = (frame.pieces ?? []).map(({ palette: _worn, ...piece }) => (of === undefined ? piece : { ...piece, palette: name }));
  return { ...frame, pieces };
}

/** Recolours the selection, or else the whole frame. */
function wear(source: Source, frame: Frame, { name, of }: Palette): void {
  const ref = frameRef(source, frame);
  const chosen = chosenOn(ref, frame, useBench.getState());
  const places = chosen.length > 0 ? chosen : (frame.pieces ?? []).map((_, place) => place);
  act(colourPieces, ref, places, of === undefined ? null : name);
}
