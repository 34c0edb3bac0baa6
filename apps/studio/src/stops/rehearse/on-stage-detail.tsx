"use client";

import { setStage } from "@caravan/core/edit";
import {
  type Area,
  type Effect,
  type Extra,
  FACINGS,
  freeName,
  type HitPair,
  type MarkName,
  type Project,
  type Stage,
  type Zone,
} from "@caravan/core/model";
import { playables } from "@caravan/core/stage";
import { X } from "lucide-react";
import type { ReactNode } from "react";
import { act } from "../../project/act";
import { edit, useProject } from "../../project/open-project";
import { Button, IconButton } from "../../ui/button";
import { Detail } from "../../ui/detail";
import { NumberField } from "../../ui/number-field";
import { Select } from "../../ui/select";
import { TextField } from "../../ui/text-field";
import { Tick } from "../../ui/tick";
import { useDrawing } from "./drawing";
import { useSession } from "./session";

/** What is on the stage beside the figure: zones, platforms, effects, others, and what counts as a hit. */
export function OnStageDetail({ stage }: { stage: Stage }) {
  const project = useProject((each) => each);
  const drawing = useDrawing((state) => state.drawing);
  const draw = (what: "zone" | "platform") => useDrawing.setState({ drawing: drawing === what ? null : what });
  return (
    <Detail title="On the stage">
      <div className="mb-2 flex flex-wrap gap-1.5">
        <Button className="min-h-6" aria-pressed={drawing === "zone"} onClick={() => draw("zone")}>
          Draw a zone
        </Button>
        <Button className="min-h-6" aria-pressed={drawing === "platform"} onClick={() => draw("platform")}>
          Draw a platform
        </Button>
        <Button className="min-h-6" onClick={() => addEffect(project, stage)}>
          New effect
        </Button>
        <Button className="min-h-6" onClick={() => addExtra(project, stage)}>
          New other
        </Button>
        {project.marks.some(({ shape }) => shape === "box") && (
          <Button className="min-h-6" onClick={() => addHit(project, stage)}>
            New hit
          </Button>
        )}
      </div>
      {drawing && (
        <p role="status" className="mb-2 text-small text-now-text">
          Drag over the stage to draw the {drawing}.
        </p>
      )}
      <div className="flex flex-col gap-2">
        {stage.zones.map((zone, k) => (
          <ZoneFields key={zone.name} project={project} stage={stage} zone={zone} onChange={(next) => put(stage, "zones", k, next)} />
        ))}
        {stage.platforms.map((platform, k) => (
          <Item key={`platform ${k}`} title={`Platform ${k + 1}`} onRemove={() => put(stage, "platforms", k, null)}>
            <AreaFields of={`platform ${k + 1}`} area={platform} onChange={(next) => put(stage, "platforms", k, next)} />
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

type Lists = Pick<Stage, "zones" | "platforms" | "effects" | "extras" | "hits">;

/** Puts another one at a place of a list, or takes it out; answers what is wrong with it. */
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
  const boxes = project.marks.filter(({ shape }) => shape === "box");
  const [first] = boxes;
  if (!first) return;
  const ours = boxes.find((each) => each.shape === "box" && each.use === "hit") ?? first;
  const theirs = boxes.find((each) => each.shape === "box" && each.use === "hurt") ?? first;
  act(setStage, stage.name, { hits: [...stage.hits, { ours: ours.name, theirs: theirs.name }] });
}

function Item({ title, onRemove, children }: { title: ReactNode; onRemove: () => void; children: ReactNode }) {
  return (
    <section className="rounded-box border border-line p-1.5">
      <header className="flex items-center justify-between">
        <h4 className="min-w-0 font-semibold">{title}</h4>
        <IconButton
          label={`Remove ${typeof title === "string" ? title : "it"}`}
          look="quiet"
          className="pointer-fine:size-6!"
          onClick={onRemove}
        >
          <X size={12} />
        </IconButton>
      </header>
      <div className="flex flex-wrap items-center gap-1.5">{children}</div>
    </section>
  );
}

function AreaFields({ of, area, onChange }: { of: string; area: Area; onChange: (area: Area) => string | undefined }) {
  const side = (field: keyof Area, word: string) => (
    <span className="flex items-center gap-0.5 text-small text-muted">
      {word}
      <NumberField
        label={`${word} of ${of}`}
        value={area[field]}
        least={field === "w" || field === "h" ? 1 : -20_000}
        most={20_000}
        onChange={(value) => onChange({ ...area, [field]: value })}
      />
    </span>
  );
  return (
    <>
      {side("x", "x")}
      {side("y", "y")}
      {side("w", "width")}
      {side("h", "height")}
    </>
  );
}

type Change<Each> = (next: Each | null) => string | undefined;

function ZoneFields({ project, stage, zone, onChange }: { project: Project; stage: Stage; zone: Zone; onChange: Change<Zone> }) {
  const inside = useSession(({ end }) => end?.inside.has(zone.name) === true);
  const inputs = project.behaviours?.find(({ name }) => name === stage.behaviour)?.inputs ?? [];
  const switches = inputs.filter(({ kind }) => kind !== "number");
  const kind = inputs.find(({ name }) => name === zone.input)?.kind;
  const { input: _input, effect: _effect, to: _to, once: _once, ...plain } = zone;
  return (
    <Item
      title={
        <TextField
          label="Name of the zone"
          value={zone.name}
          onChange={(name) =>
            stage.zones.some((each) => each !== zone && each.name === name.trim())
              ? "There is such a zone already."
              : onChange({ ...zone, name: name.trim() })
          }
        />
      }
      onRemove={() => onChange(null)}
    >
      <Select
        label={`When ${zone.name} works`}
        value={zone.on}
        options={[
          ["entering", "on entering"],
          ["leaving", "on leaving"],
          ["inside", "while inside"],
        ]}
        onChange={(on) => onChange({ ...zone, on })}
      />
      <Select
        label={`What ${zone.name} works`}
        value={zone.input ?? ""}
        options={[
          ["", "no input"],
          ...switches.map(({ name, kind: each }) => [name, each === "button" ? `presses ${name}` : `sets ${name}`] as const),
        ]}
        onChange={(input) =>
          onChange({
            ...plain,
            ...(zone.effect ? { effect: zone.effect } : {}),
            ...(zone.once ? { once: true } : {}),
            ...(input === "" ? {} : { input }),
          })
        }
      />
      {kind === "switch" && zone.on !== "inside" && (
        <Select
          label={`To what ${zone.name} sets it`}
          value={String(zone.to ?? true)}
          options={[
            ["true", "on"],
            ["false", "off"],
          ]}
          onChange={(to) => onChange({ ...zone, to: to === "true" })}
        />
      )}
      <Select
        label={`Effect of ${zone.name}`}
        value={zone.effect ?? ""}
        options={[["", "no effect"], ...stage.effects.map(({ name }) => [name, `plays ${name}`] as const)]}
        onChange={(effect) => {
          const { effect: _before, ...rest } = zone;
          onChange(effect === "" ? rest : { ...rest, effect });
        }}
      />
      <Tick
        label="once"
        checked={zone.once === true}
        onChange={(once) => {
          const { once: _before, ...rest } = zone;
          onChange(once ? { ...rest, once: true } : rest);
        }}
      />
      <AreaFields of={zone.name} area={zone.area} onChange={(area) => onChange({ ...zone, area })} />
      {inside && <span className="text-small font-semibold text-now-text">the figure is in it</span>}
    </Item>
  );
}

function PlaySelect({
  project,
  label,
  value,
  onChange,
}: {
  project: Project;
  label: string;
  value: string;
  onChange: (play: string) => void;
}) {
  const names = playables(project).map(({ name }) => name);
  const all = names.includes(value) ? names : [value, ...names];
  return <Select label={label} value={value} options={all.map((name) => [name, name] as const)} onChange={onChange} className="max-w-36" />;
}

/** Names of events that steps have. */
function eventsOf({ clips }: Project): string[] {
  return [...new Set(clips.flatMap(({ steps }) => steps.flatMap(({ events = [] }) => events)))];
}

function EffectFields({ project, effect, onChange }: { project: Project; effect: Effect; onChange: Change<Effect> }) {
  const points = project.marks.filter(({ shape }) => shape === "point");
  const events = eventsOf(project);
  return (
    <Item title={effect.name} onRemove={() => onChange(null)}>
      <Select
        label={`Event of ${effect.name}`}
        value={effect.event ?? ""}
        options={[["", "only by zones"], ...events.map((name) => [name, `when ${name} comes`] as const)]}
        onChange={(event) => {
          const { event: _before, ...rest } = effect;
          onChange(event === "" ? rest : { ...rest, event });
        }}
      />
      <PlaySelect
        project={project}
        label={`What ${effect.name} plays`}
        value={effect.play}
        onChange={(play) => onChange({ ...effect, play })}
      />
      <Select
        label={`Where ${effect.name} begins`}
        value={effect.point ?? ""}
        options={[["", "at the origin"], ...points.map(({ name }) => [name, `at ${name}`] as const)]}
        onChange={(point) => {
          const { point: _before, ...rest } = effect;
          onChange(point === "" ? rest : { ...rest, point: point as MarkName });
        }}
      />
      <span className="flex items-center gap-1 text-small text-muted">
        flies
        <NumberField
          label={`Speed of ${effect.name}`}
          value={effect.speed}
          unit="px/s"
          onChange={(speed) => onChange({ ...effect, speed })}
        />
        for
        <NumberField
          label={`Reach of ${effect.name}`}
          value={effect.reach}
          unit="px"
          onChange={(reach) => onChange({ ...effect, reach })}
        />
      </span>
    </Item>
  );
}

function ExtraFields({ project, extra, onChange }: { project: Project; extra: Extra; onChange: Change<Extra> }) {
  return (
    <Item title={extra.name} onRemove={() => onChange(null)}>
      <PlaySelect
        project={project}
        label={`What ${extra.name} plays`}
        value={extra.play}
        onChange={(play) => onChange({ ...extra, play })}
      />
      <Select
        label={`Where ${extra.name} looks`}
        value={extra.facing}
        options={FACINGS.map((each) => [each, each] as const)}
        onChange={(facing) => onChange({ ...extra, facing })}
      />
      <span className="flex items-center gap-0.5 text-small text-muted">
        x
        <NumberField
          label={`x of ${extra.name}`}
          value={extra.x}
          least={-20_000}
          most={20_000}
          onChange={(x) => onChange({ ...extra, x })}
        />
        y
        <NumberField
          label={`y of ${extra.name}`}
          value={extra.y}
          least={-20_000}
          most={20_000}
          onChange={(y) => onChange({ ...extra, y })}
        />
      </span>
    </Item>
  );
}

function HitFields({
  project,
  stage,
  place,
  hit,
  onChange,
}: {
  project: Project;
  stage: Stage;
  place: number;
  hit: HitPair;
  onChange: Change<HitPair>;
}) {
  const touches = useSession(({ end }) => end?.touching.has(place) === true);
  const boxes = project.marks.filter(({ shape }) => shape === "box").map(({ name }) => [name, name] as const);
  const buttons = (project.behaviours?.find(({ name }) => name === stage.behaviour)?.inputs ?? []).filter(({ kind }) => kind === "button");
  return (
    <Item title={`Hit ${place + 1}`} onRemove={() => onChange(null)}>
      <Select label="Our boxes" value={hit.ours} options={boxes} onChange={(ours) => onChange({ ...hit, ours })} />
      on
      <Select label="Their boxes" value={hit.theirs} options={boxes} onChange={(theirs) => onChange({ ...hit, theirs })} />
      <Select
        label="What a hit presses"
        value={hit.input ?? ""}
        options={[["", "only shown"], ...buttons.map(({ name }) => [name, `presses ${name}`] as const)]}
        onChange={(input) => {
          const { input: _before, ...rest } = hit;
          onChange(input === "" ? rest : { ...rest, input });
        }}
      />
      {touches && <span className="text-small font-semibold text-now-text">it hits</span>}
    </Item>
  );
}
