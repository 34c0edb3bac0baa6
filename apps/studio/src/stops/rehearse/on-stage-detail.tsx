"use client";

import { setStage } from "@caravan/core/edit";
import { type Area, freeName, type Project, type Stage } from "@caravan/core/model";
import { playables } from "@caravan/core/stage";
import type { MouseEvent } from "react";
import { act } from "../../project/act";
import { edit, useProject } from "../../project/open-project";
import { Button } from "../../ui/button";
import { Detail } from "../../ui/detail";
import { t } from "../../ui/words";
import { putArea, useDrawing } from "./drawing";
import { AreaFields, EffectFields, ExtraFields, HitFields, Item, ZoneFields } from "./on-stage-fields";

/** Lists what is on the stage besides the figure: zones, platforms, effects, others, and what counts as a hit. */
export function OnStageDetail({ stage }: { stage: Stage }) {
  const project = useProject((each) => each);
  const drawing = useDrawing((state) => state.drawing);
  const moving = useDrawing((state) => state.moving);
  const things = stage.zones.length + stage.platforms.length + stage.extras.length;
  // With a pointer the next drag draws it; with keys it appears in front of the figure at once, to be changed by its numbers.
  const begin = ({ detail }: MouseEvent, what: "zone" | "platform") => {
    if (detail === 0) putArea(stage, what, beforeFigure(stage));
    else useDrawing.setState({ drawing: drawing === what ? null : what, moving: false });
  };
  return (
    <Detail title={t("On the stage")}>
      <div className="mb-2 flex flex-wrap gap-1.5">
        <Button className="min-h-6" aria-pressed={drawing === "zone"} onClick={(event) => begin(event, "zone")}>
          {t("Draw a zone")}
        </Button>
        <Button className="min-h-6" aria-pressed={drawing === "platform"} onClick={(event) => begin(event, "platform")}>
          {t("Draw a platform")}
        </Button>
        {things > 0 && (
          <Button
            className="min-h-6"
            aria-pressed={moving}
            onClick={() => useDrawing.setState({ moving: !moving, drawing: null, held: null })}
          >
            {t("Move things")}
          </Button>
        )}
        <Button className="min-h-6" onClick={() => addEffect(project, stage)}>
          {t("New effect")}
        </Button>
        <Button className="min-h-6" onClick={() => addExtra(project, stage)}>
          {t("New other")}
        </Button>
        {project.marks.some(({ shape }) => shape !== "point") && (
          <Button className="min-h-6" onClick={() => addHit(project, stage)}>
            {t("New hit")}
          </Button>
        )}
      </div>
      {drawing && (
        <p role="status" className="mb-2 text-small text-now-text">
          {t("Drag over the stage to draw the {drawing}.", { drawing })}
        </p>
      )}
      {moving && !drawing && (
        <p role="status" className="mb-2 text-small text-now-text">
          {t("Drag zones, platforms and others over the stage; drag an edge to change a size. Esc ends it.")}
        </p>
      )}
      <div className="flex flex-col gap-2">
        {stage.zones.map((zone, k) => (
          <ZoneFields key={zone.name} project={project} stage={stage} zone={zone} onChange={(next) => put(stage, "zones", k, next)} />
        ))}
        {stage.platforms.map((platform, k) => (
          <Item key={`platform ${k}`} title={t("Platform {number}", { number: k + 1 })} onRemove={() => put(stage, "platforms", k, null)}>
            <AreaFields
              of={t("platform {number}", { number: k + 1 })}
              area={platform}
              onChange={(next) => put(stage, "platforms", k, next)}
            />
          </Item>
        ))}
        {stage.effects.map((effect, k) => (
          <EffectFields key={effect.name} project={project} effect={effect} onChange={(next) => put(stage, "effects", k, next)} />
        ))}
        {stage.extras.map((extra, k) => (
          <ExtraFields key={extra.name} project={project} extra={extra} onChange={(next) => put(stage, "extras", k, next)} />
        ))}
        {stage.hits.map((hit, k) => (
          <HitFields
            key={`hit ${k}`}
            project={project}
            stage={stage}
            place={k}
            hit={hit}
            onChange={(next) => put(stage, "hits", k, next)}
          />
        ))}
      </div>
    </Detail>
  );
}

/** The place of a new zone or platform that was not drawn: in front of the figure's start, within the world. */
function beforeFigure({ start, world }: Stage): Area {
  const [w, h] = [40, 30];
  return { x: Math.max(0, Math.min(world.w - w, start.x + 40)), y: Math.max(0, Math.min(world.h - h, start.y - h)), w, h };
}

type Lists = Pick<Stage, "zones" | "platforms" | "effects" | "extras" | "hits">;

/** Replaces or removes an item of a list; returns an error message. */
function put<List extends keyof Lists>(stage: Stage, list: List, place: number, next: Lists[List][number] | null): string | undefined {
  const all: readonly Lists[List][number][] = stage[list];
  const made = all.flatMap((each, k) => (k !== place ? [each] : next === null ? [] : [next]));
  return edit(setStage, stage.name, { [list]: made })?.message;
}

function firstPlay(project: Project): string {
  const all = playables(project);
  const once = all.filter(({ clips }) => clips.every(({ playback }) => playback === "once"));
  // What hides when it has ended was made as an effect.
  return (once.find(({ clips }) => clips.every(({ after }) => after === "hide")) ?? once[0] ?? all[0])?.name ?? "";
}

function addEffect(project: Project, stage: Stage): void {
  const play = firstPlay(project);
  if (play === "") return;
  const name = freeName(play, new Set(stage.effects.map((each) => each.name)), " ");
  act(setStage, stage.name, { effects: [...stage.effects, { name, play, speed: 0, reach: 0 }] });
}

function addExtra(project: Project, stage: Stage): void {
  const play = playables(project)[0]?.name;
  if (play === undefined) return;
  const name = freeName(play, new Set(stage.extras.map((each) => each.name)), " ");
  const x = Math.min(stage.world.w, stage.start.x + 60);
  act(setStage, stage.name, {
    extras: [...stage.extras, { name, play, facing: "w", x, y: stage.view === "side" ? stage.ground : stage.start.y }],
  });
}

function addHit(project: Project, stage: Stage): void {
  const boxes = project.marks.filter((kind) => kind.shape !== "point");
  const [first] = boxes;
  if (!first) return;
  const ours = boxes.find((each) => each.use === "hit") ?? first;
  const theirs = boxes.find((each) => each.use === "hurt") ?? first;
  act(setStage, stage.name, { hits: [...stage.hits, { ours: ours.name, theirs: theirs.name }] });
}
