"use client";

import { renameStage, type StageChange, setStage } from "@caravan/core/edit";
import type { Movement, SourceId, Stage, StageName } from "@caravan/core/model";
import { act } from "../../project/act";
import { edit, useProject } from "../../project/open-project";
import { useView } from "../../project/view";
import { Choice } from "../../ui/choice";
import { Detail } from "../../ui/detail";
import { NumberField } from "../../ui/number-field";
import { Select } from "../../ui/select";
import { TextField } from "../../ui/text-field";
import { Tick } from "../../ui/tick";
import { t } from "../../ui/words";
import { giveKeysBack, useStageLook } from "./stage-view";

/** Settings of the world: its size, its view, and how a figure moves in it. */
export function StageDetail({ stage }: { stage: Stage }) {
  const project = useProject((each) => each);
  const look = useStageLook();
  const unit = project.pixelsPerUnit;
  const isThere = project.behaviours?.some(({ name }) => name === stage.behaviour);
  const set = (change: StageChange) => edit(setStage, stage.name, change)?.message;
  const boxes = project.marks.filter(({ shape }) => shape !== "point");
  const moves = (field: keyof Movement, word: string, of: string) => (
    <>
      <dt className="text-muted">{word}</dt>
      <dd className="flex flex-wrap items-center gap-1.5">
        <NumberField
          label={`${word}, ${of}`}
          value={stage.movement[field]}
          decimals={2}
          unit={of}
          onChange={(value) => set({ movement: { ...stage.movement, [field]: value } })}
        />
        {unit !== undefined && (
          <span className="text-small text-muted">
            {Number((stage.movement[field] / unit).toFixed(2))} {of.replace("px", "units")}
          </span>
        )}
      </dd>
    </>
  );
  return (
    <Detail title={t("Stage")}>
      <dl className="grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-1.5">
        <dt className="text-muted">{t("name")}</dt>
        <dd>
          <TextField
            label={t("Name of the stage")}
            value={stage.name}
            onChange={(name) => {
              const error = edit(renameStage, stage.name, name);
              if (!error) useView.setState({ stageName: name.trim() as StageName });
              return error?.message;
            }}
            className="font-bold"
          />
        </dd>
        <dt className="text-muted">{t("drives")}</dt>
        <dd>
          <Select
            label={t("Behaviour on this stage")}
            value={stage.behaviour}
            options={[
              ...(isThere ? [] : [[stage.behaviour, t("{name}, removed", { name: stage.behaviour })] as const]),
              ...(project.behaviours ?? []).map(({ name }) => [name, name] as const),
            ]}
            onChange={(behaviour) => act(setStage, stage.name, { behaviour })}
          />
        </dd>
        <dt className="text-muted">{t("seen")}</dt>
        <dd>
          <Choice
            label={t("Seen from")}
            value={stage.view}
            options={[
              ["side", t("from the side")],
              ["above", t("from above")],
            ]}
            onChange={(view) => act(setStage, stage.name, { view })}
          />
        </dd>
        <dt className="text-muted">{t("window")}</dt>
        <dd className="flex items-center gap-1">
          <NumberField
            label={t("Width of the game’s window")}
            value={stage.size.w}
            least={16}
            most={4096}
            onChange={(w) => set({ size: { ...stage.size, w } })}
          />
          ×
          <NumberField
            label={t("Height of the game’s window")}
            value={stage.size.h}
            least={16}
            most={4096}
            unit="px"
            onChange={(h) => set({ size: { ...stage.size, h } })}
          />
        </dd>
        <dt className="text-muted">{t("world")}</dt>
        <dd className="flex items-center gap-1">
          <NumberField
            label={t("Width of the world")}
            value={stage.world.w}
            least={16}
            most={20_000}
            onChange={(w) => set({ world: { ...stage.world, w } })}
          />
          ×
          <NumberField
            label={t("Height of the world")}
            value={stage.world.h}
            least={16}
            most={20_000}
            unit="px"
            onChange={(h) => set({ world: { ...stage.world, h } })}
          />
        </dd>
        <dt className="text-muted">{stage.view === "side" ? t("ground at") : t("ground from")}</dt>
        <dd>
          <NumberField
            label={t("Ground line")}
            value={stage.ground}
            least={0}
            most={20_000}
            unit="px down"
            onChange={(ground) => set({ ground })}
          />
        </dd>
        <dt className="text-muted">{t("backdrop")}</dt>
        <dd>
          <Select
            label={t("Backdrop")}
            value={typeof stage.backdrop === "object" ? String(stage.backdrop.source) : stage.backdrop}
            options={[
              ["land", t("a dry country")],
              ["plain", t("one colour")],
              ...project.sources.map(({ id, name }) => [String(id), t("picture of {name}", { name })] as const),
            ]}
            onChange={(next) =>
              act(setStage, stage.name, { backdrop: next === "land" || next === "plain" ? next : { source: next as SourceId } })
            }
            className="max-w-44"
          />
        </dd>
        <dt className="text-muted">{t("camera")}</dt>
        <dd>
          <Choice
            label={t("Camera")}
            value={stage.camera}
            options={[
              ["follows", t("follows")],
              ["fixed", t("fixed")],
            ]}
            onChange={(camera) => act(setStage, stage.name, { camera })}
          />
        </dd>
        <dt className="text-muted">{t("collides by")}</dt>
        <dd>
          <Select
            label={t("What of the figure collides")}
            value={stage.body ?? ""}
            options={[["", t("its bottom centre")], ...boxes.map(({ name }) => [name, name] as const)]}
            onChange={(name) => act(setStage, stage.name, { body: name === "" ? null : (name as NonNullable<Stage["body"]>) })}
          />
        </dd>
        {moves("speed", t("top speed"), "px/s")}
        {moves("start", t("speeds up"), "px/s²")}
        {moves("stop", t("slows down"), "px/s²")}
        {stage.view === "side" && moves("jump", "jumps", "px")}
        {stage.view === "side" && moves("gravity", "falls", "px/s²")}
      </dl>
      {/* biome-ignore lint/a11y: what is clicked are the ticks in it; here they only give the keys back */}
      <div className="mt-1 flex flex-wrap gap-x-3" onClick={giveKeysBack}>
        <Tick label={t("boxes, points, outlines")} checked={look.marks} onChange={(marks) => useStageLook.setState({ marks })} />
        <Tick label={t("origin and ground")} checked={look.origin} onChange={(origin) => useStageLook.setState({ origin })} />
        <Tick label={t("events")} checked={look.events} onChange={(events) => useStageLook.setState({ events })} />
        <Tick label={t("click on events")} checked={look.clicks} onChange={(clicks) => useStageLook.setState({ clicks })} />
        <Tick label={t("zones")} checked={look.zones} onChange={(zones) => useStageLook.setState({ zones })} />
      </div>
    </Detail>
  );
}
