"use client";

import { type Figures, isNearest, type ProposedScale, proposedScales, scaleInWords, sheetLook } from "@caravan/core/art";
import { setPixelsPerUnit } from "@caravan/core/edit";
import { isOfPieces, type Source, type SourceId, scaledSide, scaleOf, sheetOf } from "@caravan/core/model";
import { drawnPart } from "@caravan/core/raster";
import { useState } from "react";
import { edit, useProject } from "../../project/open-project";
import { type Picture, usePicture } from "../../project/pictures";
import { scaleSource } from "../../project/scaling";
import { Button } from "../../ui/button";
import { Choice } from "../../ui/choice";
import { Detail } from "../../ui/detail";
import { FieldBox, NumberField } from "../../ui/number-field";
import { Select } from "../../ui/select";
import { facts, t } from "../../ui/words";

/** Scales that have their own button. */
const USUAL = [0.25, 0.5, 1, 2, 3, 4] as const;
/** The number of frames examined for the height of a source's figures. */
const LOOKED_AT = 200;

/** How large the chosen art is in the project: by a factor, or to match other art; and how many pixels are a unit of the game's world. */
export function ScaleDetail({ source }: { source: Source }) {
  const scale = scaleOf(source);
  const sheet = sheetOf(source);
  const perUnit = useProject((project) => project.pixelsPerUnit ?? null);
  const usual = USUAL.find((each) => each === scale);
  return (
    <Detail
      title={t("Scale")}
      aside={
        scale === 1
          ? t("as drawn")
          : t("{width} × {height} px in the project", {
              width: scaledSide(sheet.width, scale),
              height: scaledSide(sheet.height, scale),
            })
      }
    >
      <div className="flex flex-wrap items-center gap-2">
        <Choice
          label={t("Scale of the art")}
          value={usual === undefined ? "" : String(usual)}
          options={USUAL.map((each) => [String(each), scaleInWords(each)] as const)}
          onChange={(next) => scaleSource(source.id, Number(next))}
        />
        <FieldBox label="×">
          <NumberField
            label={t("Scale")}
            value={scale}
            least={0.01}
            most={16}
            step={0.25}
            decimals={4}
            onChange={(next) => scaleSource(source.id, next, `scale ${source.id}`)?.message}
          />
        </FieldBox>
      </div>
      <MatchDetail key={source.id} source={source} />
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <FieldBox label={t("Pixels per unit")}>
          <NumberField
            label={t("Pixels per unit")}
            value={perUnit ?? 0}
            least={0}
            most={100_000}
            step={1}
            decimals={2}
            onChange={(next) => edit(setPixelsPerUnit, next === 0 ? null : next)?.message}
          />
        </FieldBox>
        <span className="text-small text-muted">
          {perUnit === null ? t("0: not delivered") : t("of the whole project, in the atlas file")}
        </span>
      </div>
    </Detail>
  );
}

/** Proposals that make this art match another source's. */
function MatchDetail({ source }: { source: Source }) {
  const sources = useProject((project) => project.sources);
  const [chosen, setChosen] = useState<SourceId | null>(null);
  const others = sources.filter(({ id }) => id !== source.id);
  const other = others.find(({ id }) => id === chosen) ?? null;
  const own = useFigures(source);
  const theirs = useFigures(other);
  const soft = usePicture(sheetLook(source))?.coverage.soft === true;
  if (others.length === 0) return null;
  const proposals = own && theirs ? proposedScales(own, theirs) : [];
  return (
    <div className="mt-2">
      <span className="flex items-center gap-2">
        <span className="shrink-0 text-small text-muted">{t("Match")}</span>
        <Select
          label={t("Match")}
          className="min-w-0 grow"
          value={chosen}
          placeholder={t("another source …")}
          options={others.map(({ id, name }) => [id, name] as const)}
          onChange={setChosen}
        />
      </span>
      {other && (
        <ul aria-label={t("Scales that match {name}", { name: other.name })} className="mt-1 flex flex-col gap-1">
          {!theirs && <li className="text-small text-muted">{t("reading …")}</li>}
          {proposals.map((proposal) => (
            <li key={proposal.because} className="flex items-center gap-2">
              <Button
                look={proposal.scale !== scaleOf(source) && isNearest(proposal.scale, soft) ? "now" : "plain"}
                disabled={proposal.scale === scaleOf(source)}
                onClick={() => scaleSource(source.id, proposal.scale)}
              >
                {scaleInWords(proposal.scale)}
              </Button>
              <span className="text-small text-muted">
                {facts(reasonFor(proposal, other), !soft && !isNearest(proposal.scale, soft) && t("its pixels will blend"))}
              </span>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

function reasonFor({ because, own, other }: ProposedScale, { name }: Source): string {
  return because === "heights"
    ? t("figures {own} px tall, as in {name} ({other} px)", { own, name, other })
    : t("single pixels of {own} px, as in {name} ({other} px)", { own, name, other });
}

/** What is known about a source's art once its picture has been read; undefined until then, and for no source. */
function useFigures(source: Source | null): Figures | undefined {
  const picture = usePicture(source && !isOfPieces(source) ? sheetLook(source) : undefined);
  return source && picture ? figuresOf(source, picture) : undefined;
}

function figuresOf(source: Source, { coverage, facts }: Picture): Figures {
  const onSheet = source.frames.filter(({ picture, dropped, empty }) => picture === undefined && !dropped && !empty);
  const heights = onSheet.slice(0, LOOKED_AT).flatMap(({ rect, turned }) => {
    const drawn = drawnPart(coverage, rect);
    return drawn ? [turned ? drawn.w : drawn.h] : [];
  });
  return { heights, pixel: facts.pixel, scale: scaleOf(source) };
}
