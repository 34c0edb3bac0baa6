"use client";

/** The fields of each kind of thing on a stage. */
import {
  type Area,
  type Effect,
  type Extra,
  FACINGS,
  type HitPair,
  type MarkName,
  type Project,
  type Stage,
  type Zone,
} from "@caravan/core/model";
import { playables } from "@caravan/core/stage";
import { X } from "lucide-react";
import type { ReactNode } from "react";
import { IconButton } from "../../ui/button";
import { NumberField } from "../../ui/number-field";
import { Select } from "../../ui/select";
import { TextField } from "../../ui/text-field";
import { Tick } from "../../ui/tick";
import { useSession } from "./session";

export function Item({ title, onRemove, children }: { title: ReactNode; onRemove: () => void; children: ReactNode }) {
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

export function AreaFields({ of, area, onChange }: { of: string; area: Area; onChange: (area: Area) => string | undefined }) {
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

export function ZoneFields({ project, stage, zone, onChange }: { project: Project; stage: Stage; zone: Zone; onChange: Change<Zone> }) {
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

export function EffectFields({ project, effect, onChange }: { project: Project; effect: Effect; onChange: Change<Effect> }) {
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

export function ExtraFields({ project, extra, onChange }: { project: Project; extra: Extra; onChange: Change<Extra> }) {
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

export function HitFields({
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
  const boxes = project.marks.filter(({ shape }) => shape !== "point").map(({ name }) => [name, name] as const);
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
