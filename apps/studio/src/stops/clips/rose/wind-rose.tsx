"use client";

import { angleOfFacing } from "@caravan/core/facing";
import { type Action, FACINGS_OF, type Facing, findFrame, type Petal } from "@caravan/core/model";
import { useDroppable } from "@dnd-kit/core";
import { useRef } from "react";
import { FramePicture } from "../../../preview/frame-picture";
import { usePlayer } from "../../../preview/player-state";
import { useProject } from "../../../project/open-project";
import { useElementSize } from "../../../ui/element-size";
import { t } from "../../../ui/words";
import { petalAt, type RoseLayout, roseLayout } from "./rose-layout";

/** The facings of an action as a wind rose: petals with a clip are filled, mirrored ones hatched, missing ones only outlined. */
export function WindRose({ action, looks }: { action: Action; looks: Facing }) {
  const rose = FACINGS_OF[action.ways];
  const room = useRef<HTMLDivElement>(null);
  const { width, height } = useElementSize(room);
  const layout = roseLayout({ w: width, h: height });
  const { w, h } = layout.size;
  return (
    <div ref={room} className="grid min-h-0 grow overflow-auto rounded-box border border-line bg-surface">
      <section
        aria-label={t("Wind rose of {name}", { name: action.name })}
        className="relative m-auto shrink-0"
        style={{ width: w, height: h }}
      >
        <svg aria-hidden width={w} height={h} className="absolute inset-0">
          <defs>
            <pattern id="hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
              <rect width="6" height="6" className="fill-surface" />
              <rect width="2.5" height="6" className="fill-lapis" />
            </pattern>
          </defs>
          {rose.map((facing) => (
            <path
              key={facing}
              d={leaf(layout, facing, rose.length)}
              fill={action.facings[facing]?.mirror ? "url(#hatch)" : undefined}
              strokeDasharray={action.facings[facing] ? undefined : "4 4"}
              className={`${action.facings[facing]?.mirror ? "" : action.facings[facing] ? "fill-lapis" : "fill-transparent"} ${facing === looks ? "stroke-now" : "stroke-lapis"}`}
              strokeWidth={facing === looks ? 3 : 1.5}
            />
          ))}
          <circle cx={w / 2} cy={h / 2} r={7} className="fill-raised stroke-lapis" strokeWidth={1.5} />
        </svg>
        {rose.map((facing) => (
          <PetalCell key={facing} layout={layout} action={action} facing={facing} looking={facing === looks} />
        ))}
      </section>
    </div>
  );
}

/** A leaf from the middle toward a facing; the fewer there are, the broader. */
function leaf({ size, across, down }: RoseLayout, facing: Facing, count: number): string {
  const angle = (angleOfFacing(facing) * Math.PI) / 180;
  const at = (share: number, aside: number) => {
    const x = size.w / 2 + Math.cos(angle) * across * share - Math.sin(angle) * aside;
    const y = size.h / 2 + Math.sin(angle) * down * share + Math.cos(angle) * aside;
    return `${x.toFixed(1)} ${y.toFixed(1)}`;
  };
  const broad = count > 4 ? 20 : 30;
  return `M${at(0.05, 0)} Q${at(0.28, broad)} ${at(0.62, 0)} Q${at(0.28, -broad)} ${at(0.05, 0)}Z`;
}

function PetalCell({ layout, action, facing, looking }: { layout: RoseLayout; action: Action; facing: Facing; looking: boolean }) {
  const petal = action.facings[facing];
  const { setNodeRef, isOver } = useDroppable({ id: `petal ${facing}`, data: { facing } });
  const { cell, picture } = layout;
  const { x, y } = petalAt(layout, facing);
  const shows = !petal ? t("missing") : petal.mirror ? t("mirror of {clip}", { clip: petal.clip }) : petal.clip;
  return (
    <button
      ref={setNodeRef}
      type="button"
      data-chooses
      aria-pressed={looking}
      aria-label={t("Facing {facing}: {shows}", { facing, shows })}
      onClick={() => usePlayer.setState({ facing })}
      className={`absolute flex flex-col items-center justify-between rounded-box border-2 bg-raised px-1 pt-0.5 pb-1 ${isOver ? "border-now bg-now-soft" : looking ? "border-now" : petal ? "border-line" : "border-dashed border-line-strong"}`}
      style={{ left: x - cell.w / 2, top: y - cell.h / 2, width: cell.w, height: cell.h }}
    >
      <span className="flex w-full justify-between px-1 text-small">
        <strong>{facing.toUpperCase()}</strong>
        {petal?.mirror && <span className="text-muted">{t("mirrored")}</span>}
      </span>
      {petal ? <PetalPicture petal={petal} size={picture} /> : <span className="text-muted">{t("missing")}</span>}
      <span className="w-full truncate text-center text-small">{petal?.clip ?? " "}</span>
    </button>
  );
}

function PetalPicture({ petal, size }: { petal: Petal; size: number }) {
  const project = useProject((each) => each);
  const first = project.clips.find(({ name }) => name === petal.clip)?.steps[0];
  const found = first && findFrame(project, first.frame);
  if (!found) return <span className="text-small text-brick">{t("no frame")}</span>;
  return (
    <span className="check rounded-sm">
      <FramePicture source={found.source} frame={found.frame} size={size} className={`block ${petal.mirror ? "-scale-x-100" : ""}`} />
    </span>
  );
}
