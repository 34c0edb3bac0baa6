"use client";

import { lookOf } from "@caravan/core/art";
import { type Clearing, type Colour, type Source, sheetOf } from "@caravan/core/model";
import { useEffect, useState } from "react";
import { clearSource } from "../../project/clear-source";
import { loadPictures, usePicture } from "../../project/pictures";
import { Button } from "../../ui/button";
import { Choice } from "../../ui/choice";
import { Detail } from "../../ui/detail";
import { inBackground } from "../../ui/in-background";
import { FieldBox, NumberField } from "../../ui/number-field";
import { TextField } from "../../ui/text-field";
import { Tick } from "../../ui/tick";
import { useIsWide } from "../../ui/wide";
import { t } from "../../ui/words";
import { WholePicture } from "./source-card";

const WHITE: Clearing = { colours: ["#ffffff"], tolerance: 8, from: "edges", fringe: false };

/** Clearing an opaque ground: its colours, how far they may be off, from where; before and after side by side. */
export function ClearingDetail({ source }: { source: Source }) {
  const asItCame = lookOf({}, sheetOf(source));
  const original = usePicture(asItCame);
  useEffect(() => loadPictures([asItCame]), [asItCame]);
  const [tried, setTried] = useState<{ of: string; clearing: Clearing } | null>(null);
  const proposed = source.clearing ?? original?.ground?.clearing ?? null;
  const clearing = tried?.of === source.id ? tried.clearing : proposed;
  if (!original || (!clearing && original.facts.ground !== "opaque")) return null;
  if (!clearing)
    return (
      <Detail title={t("Background")}>
        <p className="text-muted">{t("Every pixel is opaque, and no single colour dominates the edges.")}</p>
        <Button onClick={() => setTried({ of: source.id, clearing: WHITE })}>{t("Clear a colour …")}</Button>
      </Detail>
    );
  const isSet = JSON.stringify(source.clearing) === JSON.stringify(clearing);
  const change = (part: Partial<Clearing>): undefined => setTried({ of: source.id, clearing: { ...clearing, ...part } }) as undefined;
  return (
    <Detail title={t("Background")} aside={source.clearing ? t("cleared by recipe") : t("opaque")}>
      <div className="mb-2 grid grid-cols-2 gap-2 text-center text-small text-muted">
        <Side word={t("before")} source={source} clearing={null} />
        <Side word={t("after")} source={source} clearing={clearing} />
      </div>
      <div className="flex flex-wrap items-center gap-2">
        {clearing.colours.length === 0 && original.facts.ground === "opaque" && (
          <Button onClick={() => change({ ...(original.ground?.clearing ?? WHITE), specks: clearing.specks })}>
            {t("Clear a colour too …")}
          </Button>
        )}
        {clearing.colours.map((colour, k) => (
          <span key={k} className="inline-flex items-center gap-1 rounded-box border border-line bg-raised px-1.5">
            <span aria-hidden className="size-4 rounded-sm border border-line-strong" style={{ background: colour }} />
            <TextField
              label={t("Background colour {number}", { number: k + 1 })}
              value={colour}
              onChange={(next) => {
                if (!/^#[0-9a-f]{6}$/i.test(next)) return t("Type a colour such as #ffffff.");
                change({ colours: clearing.colours.map((each, at) => (at === k ? (next.toLowerCase() as Colour) : each)) });
                return null;
              }}
            />
          </span>
        ))}
        <FieldBox label={t("tolerance")}>
          <NumberField
            label={t("Tolerance")}
            value={clearing.tolerance}
            least={0}
            most={255}
            onChange={(tolerance) => change({ tolerance })}
          />
        </FieldBox>
        <Choice
          label={t("Where the background is cleared")}
          value={clearing.from}
          options={[
            ["edges", t("From the edges")],
            ["everywhere", t("Everywhere")],
          ]}
          onChange={(from) => change({ from })}
        />
        <Tick label={t("Also clean soft edges")} checked={clearing.fringe} onChange={(fringe) => change({ fringe })} />
        <FieldBox label={t("and specks of up to")}>
          <NumberField
            label={t("Specks")}
            value={clearing.specks ?? 0}
            least={0}
            most={64}
            onChange={(specks) => {
              const { specks: _, ...rest } = clearing;
              setTried({ of: source.id, clearing: specks > 0 ? { ...rest, specks } : rest });
              return null;
            }}
          />
          <span className="text-small text-muted">{t("px")}</span>
        </FieldBox>
      </div>
      <div className="mt-2 flex gap-2">
        <Button
          look={isSet ? "plain" : "now"}
          disabled={isSet}
          onClick={() => inBackground(clearSource(source, clearing).then((done) => done && setTried(null)))}
        >
          {source.clearing ? t("Apply") : t("Clear the background")}
        </Button>
        {source.clearing && (
          <Button onClick={() => inBackground(clearSource(source, null).then((done) => done && setTried(null)))}>
            {t("Restore background")}
          </Button>
        )}
      </div>
    </Detail>
  );
}

function Side({ word, source, clearing }: { word: string; source: Source; clearing: Clearing | null }) {
  const sheet = sheetOf(source);
  const isWide = useIsWide();
  return (
    <figure>
      <span className={`check flex ${isWide ? "h-44" : "h-24"} items-center justify-center overflow-hidden rounded-sm`}>
        <WholePicture
          look={lookOf(clearing ? { clearing } : {}, sheet)}
          width={sheet.width}
          height={sheet.height}
          room={isWide ? { w: 152, h: 168 } : { w: 128, h: 90 }}
        />
      </span>
      <figcaption>{word}</figcaption>
    </figure>
  );
}
