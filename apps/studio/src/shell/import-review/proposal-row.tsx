"use client";

import { lookOf } from "@caravan/core/art";
import type { Choices, KnownSource, Proposal } from "@caravan/core/intake";
import { usePicture } from "../../project/pictures";
import { Choice } from "../../ui/choice";
import { Select } from "../../ui/select";
import { Tick } from "../../ui/tick";
import { useBeat } from "../../ui/ticking";
import { UnplacedRecords } from "../../ui/unplaced-records";
import { t } from "../../ui/words";

const GROUNDS = { plain: t("plain background"), key: t("key colour"), checker: t("picture of a checkerboard") };

/** One thing that came in: what it is, what is odd about it, and what may be chosen. */
export function ProposalRow({
  proposal,
  choices,
  onChange,
}: {
  proposal: Proposal;
  choices: Choices;
  onChange: (change: Partial<Choices>) => void;
}) {
  const { name, what, outcome, notes, shows, kind, ground, layering, layers, parting, cuts, known, unplaced } = proposal;
  const clips = proposal.clips(choices);
  const isNew = !choices.replaces;
  const isUsual = (["include", "clips", "replaces"] as const).every((each) => choices[each] === proposal.usual[each]);
  return (
    <li className={`flex gap-3 rounded-box border border-line bg-raised p-2.5 ${choices.include ? "" : "opacity-60"}`}>
      <div className="check flex h-18 w-24 shrink-0 items-center justify-center overflow-hidden rounded-sm">
        <Moving
          hashes={[...shows, ...(kind === "layers" ? [] : (layers ?? []).flatMap(({ pictures }) => pictures.slice(0, 1)))].map(
            ({ sha256 }) => sha256,
          )}
        />
      </div>
      <div className="min-w-0 grow">
        <h3 className="truncate font-bold">{name}</h3>
        <p>{what}.</p>
        {outcome && isUsual && <p className="text-small text-muted">{outcome}</p>}
        {notes.map((note) => (
          <p key={note} className="text-small font-semibold text-brick">
            {note}
          </p>
        ))}
        {unplaced && unplaced.length > 0 && <UnplacedRecords unplaced={unplaced} />}
        <div className="mt-1 flex flex-wrap items-center gap-x-4 gap-y-1">
          <Tick
            label={kind === "recut" ? t("Cut it this way") : t("Import")}
            checked={choices.include}
            onChange={(include) => onChange({ include })}
          />
          {known && (
            <Choice
              label={t("What {name} is", { name })}
              value={choices.replaces ? "replaces" : "new"}
              options={[
                ["replaces", newArtInWords(known, kind)],
                ["new", t("A new source")],
              ]}
              onChange={(way) => onChange({ replaces: way === "replaces" })}
            />
          )}
          {isNew && layering && (
            <Choice
              label={t("What becomes of the layers of {name}", { name })}
              value={choices.layers ? "whole" : "apart"}
              options={[
                ["whole", layering.whole],
                ["apart", layering.apart],
              ]}
              onChange={(way) => onChange({ layers: way === "whole" })}
            />
          )}
          {isNew && parting && (
            <Choice
              label={t("What to make of {name}", { name })}
              value={choices.apart ? "apart" : "whole"}
              options={[
                ["whole", parting.whole],
                ["apart", parting.apart],
              ]}
              onChange={(way) => onChange({ apart: way === "apart" })}
            />
          )}
          {isNew && cuts && cuts.length > 1 && (
            <Select label={t("How to cut {name}", { name })} value={choices.cut} options={cuts} onChange={(cut) => onChange({ cut })} />
          )}
          {isNew && ground && (
            <Tick
              label={t("Clear its {ground} {colours}", {
                ground: GROUNDS[ground.kind],
                colours: ground.clearing.colours.join(` ${t("and")} `),
              })}
              checked={choices.clear}
              onChange={(clear) => onChange({ clear })}
            />
          )}
          {isNew && clips.length > 0 && (
            <Tick
              label={
                kind === "recut"
                  ? clips.length === 1
                    ? t("Add its clip {name}", { name: clips[0]?.name ?? "" })
                    : t("Add its {count} clips that are not here", { count: clips.length })
                  : clips.length === 1
                    ? kind === "animation"
                      ? t("Make a clip with its times")
                      : t("Make a clip")
                    : t("Make its {count} clips", { count: clips.length })
              }
              checked={choices.clips}
              onChange={(take) => onChange({ clips: take })}
            />
          )}
        </div>
      </div>
    </li>
  );
}

/** Plays its pictures, small; only the first with reduced motion. */
function Moving({ hashes }: { hashes: readonly string[] }) {
  const beat = useBeat(hashes.length > 1);
  return <SmallPicture sha256={hashes[beat % Math.max(1, hashes.length)]} />;
}

function SmallPicture({ sha256 }: { sha256: string | undefined }) {
  const picture = usePicture(sha256 === undefined ? undefined : lookOf({}, { sha256 }));
  const paint = (canvas: HTMLCanvasElement | null) => {
    const context = canvas?.getContext("2d");
    if (!context || !picture) return;
    const from = picture.overview?.bitmap ?? picture.bitmap;
    const fit = Math.min(96 / from.width, 72 / from.height);
    const scale = fit >= 1 ? Math.min(4, Math.floor(fit)) : fit;
    context.canvas.width = Math.max(1, Math.round(from.width * scale));
    context.canvas.height = Math.max(1, Math.round(from.height * scale));
    context.imageSmoothingEnabled = scale < 1;
    context.drawImage(from, 0, 0, context.canvas.width, context.canvas.height);
  };
  return <canvas ref={paint} aria-hidden />;
}

function newArtInWords({ isSame, name }: KnownSource, kind: Proposal["kind"]): string {
  if (!isSame) return t("New art of {name}", { name });
  return kind === "animation" ? t("New times of {name}", { name }) : t("{name}, cut again", { name });
}
