"use client";

import { angleOfFacing } from "@caravan/core/facing";
import { type Action, FACINGS_OF, type Facing, findFrame, type Petal } from "@caravan/core/model";
import { useDroppable } from "@dnd-kit/core";
import { FramePicture } from "../../../preview/frame-picture";
import { usePlayer } from "../../../preview/player-state";
import { useProject } from "../../../project/open-project";
import { t } from "../../../ui/words";

const WIDE = 600; // px
const HIGH = 386; // as little as keeps neighbouring cells apart: small screens show all of it
const ACROSS = 226; // px from the middle to a petal's tip, along and down
const DOWN = 140;
const CELL = { w: 116, h: 96 };

/** The facings of an action as a wind rose: petals with a clip are filled, mirrored ones hatched, missing ones only outlined. */
export function WindRose({ action, looks }: { action: Action; looks: Facing }) {
  const rose = FACINGS_OF[action.ways];
  return (
    <section
      aria-label={t("Wind rose of {name}", { name: action.name })}
      className="relative mx-auto shrink-0"
      style={{ width: WIDE, height: HIGH }}
    >
      <svg aria-hidden width={WIDE} height={HIGH} className="absolute inset-0">
        <defs>
          <pattern id="hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="6" height="6" className="fill-surface" />
            <rect width="2.5" height="6" className="fill-lapis" />
          </pattern>
        </defs>
        {rose.map((facing) => (
          <path
            key={facing}
            d={leaf(facing, rose.length)}
            fill={action.facings[facing]?.mirror ? "url(#hatch)" : undefined}
            strokeDasharray={action.facings[facing] ? undefined : "4 4"}
            className={`${action.facings[facing]?.mirror ? "" : action.facings[facing] ? "fill-lapis" : "fill-transparent"} ${facing === looks ? "stroke-now" : "stroke-lapis"}`}
            strokeWidth={facing === looks ? 3 : 1.5}
          />
        ))}
        <circle cx={WIDE / 2} cy={HIGH / 2} r={7} className="fill-raised stroke-lapis" strokeWidth={1.5} />
      </svg>
      {rose.map((facing) => (
        <PetalCell key={facing} action={action} facing={facing} looking={facing === looks} />
      ))}
    </section>
  );
}

/** A leaf from the middle toward a facing; the fewer there are, the broader. */
function leaf(facing: Facing, count: number): string {
  const angle = (angleOfFacing(facing) * Math.PI) / 180;
  const at = (share: number, aside: number) => {
    const x = WIDE / 2 + Math.cos(angle) * ACROSS * share - Math.sin(angle) * aside;
    const y = HIGH / 2 + Math.sin(angle) * DOWN * share + Math.cos(angle) * aside;
    return `${x.toFixed(1)} ${y.toFixed(1)}`;
  };
  const broad = count > 4 ? 20 : 30;
  return `M${at(0.05, 0)} Q${at(0.28, broad)} ${at(0.62, 0)} Q${at(0.28, -broad)} ${at(0.05, 0)}Z`;
}

function PetalCell({ action, facing, looking }: { action: Action; facing: Facing; looking: boolean }) {
  const petal = action.facings[facing];
  const { setNodeRef, isOver } = useDroppable({ id: `petal ${facing}`, data: { facing } });
  const angle = (angleOfFacing(facing) * Math.PI) / 180;
  const left = WIDE / 2 + Math.cos(angle) * ACROSS - CELL.w / 2;
  const top = HIGH / 2 + Math.sin(angle) * DOWN - CELL.h / 2;
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
      style={{ left, top, width: CELL.w, height: CELL.h }}
    >
      <span className="flex w-full justify-between px-1 text-small">
        <strong>{facing.toUpperCase()}</strong>
        {petal?.mirror && <span className="text-muted">{t("mirrored")}</span>}
      </span>
      {petal ? <PetalPicture petal={petal} /> : <span className="text-muted">{t("missing")}</span>}
      <span className="w-full truncate text-center text-small">{petal?.clip ?? " "}</span>
    </button>
  );
}

function PetalPicture({ petal }: { petal: Petal }) {
  const project = useProject((each) => each);
  const first = project.clips.find(({ name }) => name === petal.clip)?.steps[0];
  const found = first && findFrame(project, first.frame);
  if (!found) return <span className="text-small text-brick">{t("no frame")}</span>;
  return (
    <span className="check rounded-sm">
      <FramePicture source={found.source} frame={found.frame} size={48} className={`block ${petal.mirror ? "-scale-x-100" : ""}`} />
    </span>
  );
}
