"use client";

/** Fields for each kind of thing on a stage. */
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
import { t } from "../../ui/words";
import { useSession } from "./session";

export function Item({ title, onRemove, children }: { title: ReactNode; onRemove: () => void; children: ReactNode }) {
  return (
    <section className="rounded-box border border-line p-1.5">
      <header className="flex items-center justify-between">
        <h4 className="min-w-0 font-semibold">{title}</h4>
        <IconButton
          once
          label={typeof title === "string" ? t("Remove {title}", { title }) : t("Remove it")}
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
        label={t("{word} of {of}", { word, of })}
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
      {side("w", t("width"))}
      {side("h", t("height"))}
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
          label={t("Name of the zone")}
          value={zone.name}
          onChange={(name) =>
            stage.zones.some((each) => each !== zone && each.name === name.trim())
              ? t("There is such a zone already.")
              : onChange({ ...zone, name: name.trim() })
          }
        />
      }
      onRemove={() => onChange(null)}
    >
      <Select
        label={t("When {name} works", { name: zone.name })}
        value={zone.on}
        options={[
          ["entering", t("on entering")],
          ["leaving", t("on leaving")],
          ["inside", t("while inside")],
        ]}
        onChange={(on) => onChange({ ...zone, on })}
      />
      <Select
        label={t("What {name} works", { name: zone.name })}
        value={zone.input ?? ""}
        options={[
          ["", t("no input")],
          ...switches.map(
            ({ name, kind: each }) => [name, each === "button" ? t("presses {name}", { name }) : t("sets {name}", { name })] as const,
          ),
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
          label={t("To what {name} sets it", { name: zone.name })}
          value={String(zone.to ?? true)}
          options={[
            ["true", t("on")],
            ["false", t("off")],
          ]}
          onChange={(to) => onChange({ ...zone, to: to === "true" })}
        />
      )}
      <Select
        label={t("Effect of {name}", { name: zone.name })}
        value={zone.effect ?? ""}
        options={[["", t("no effect")], ...stage.effects.map(({ name }) => [name, t("plays {name}", { name })] as const)]}
        onChange={(effect) => {
          const { effect: _before, ...rest } = zone;
          onChange(effect === "" ? rest : { ...rest, effect });
        }}
      />
      <Tick
        label={t("once")}
        checked={zone.once === true}
        onChange={(once) => {
          const { once: _before, ...rest } = zone;
          onChange(once ? { ...rest, once: true } : rest);
        }}
      />
      <AreaFields of={zone.name} area={zone.area} onChange={(area) => onChange({ ...zone, area })} />
      {inside && <span className="text-small font-semibold text-now-text">{t("the figure is in it")}</span>}
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
        label={t("Event of {name}", { name: effect.name })}
        value={effect.event ?? ""}
        options={[["", t("only by zones")], ...events.map((name) => [name, t("when {name} comes", { name })] as const)]}
        onChange={(event) => {
          const { event: _before, ...rest } = effect;
          onChange(event === "" ? rest : { ...rest, event });
        }}
      />
      <PlaySelect
        project={project}
        label={t("What {name} plays", { name: effect.name })}
        value={effect.play}
        onChange={(play) => onChange({ ...effect, play })}
      />
      <Select
        label={t("Where {name} begins", { name: effect.name })}
        value={effect.point ?? ""}
        options={[["", t("at the origin")], ...points.map(({ name }) => [name, t("at {name}", { name })] as const)]}
        onChange={(point) => {
          const { point: _before, ...rest } = effect;
          onChange(point === "" ? rest : { ...rest, point: point as MarkName });
        }}
      />
      <span className="flex items-center gap-1 text-small text-muted">
        {t("flies")}
        <NumberField
          label={t("Speed of {name}", { name: effect.name })}
          value={effect.speed}
          unit="px/s"
          onChange={(speed) => onChange({ ...effect, speed })}
        />
        {t("for")}
        <NumberField
          label={t("Reach of {name}", { name: effect.name })}
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
        label={t("What {name} plays", { name: extra.name })}
        value={extra.play}
        onChange={(play) => onChange({ ...extra, play })}
      />
      <Select
        label={t("Where {name} looks", { name: extra.name })}
        value={extra.facing}
        options={FACINGS.map((each) => [each, each] as const)}
        onChange={(facing) => onChange({ ...extra, facing })}
      />
      <span className="flex items-center gap-0.5 text-small text-muted">
        x
        <NumberField
          label={t("x of {name}", { name: extra.name })}
          value={extra.x}
          least={-20_000}
          most={20_000}
          onChange={(x) => onChange({ ...extra, x })}
        />
        y
        <NumberField
          label={t("y of {name}", { name: extra.name })}
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
    <Item title={t("Hit {place}", { place: place + 1 })} onRemove={() => onChange(null)}>
      <Select label={t("Our boxes")} value={hit.ours} options={boxes} onChange={(ours) => onChange({ ...hit, ours })} />
      {t("on")}
      <Select label={t("Their boxes")} value={hit.theirs} options={boxes} onChange={(theirs) => onChange({ ...hit, theirs })} />
      <Select
        label={t("What a hit presses")}
        value={hit.input ?? ""}
        options={[["", t("only shown")], ...buttons.map(({ name }) => [name, t("presses {name}", { name })] as const)]}
        onChange={(input) => {
          const { input: _before, ...rest } = hit;
          onChange(input === "" ? rest : { ...rest, input });
        }}
      />
      {touches && <span className="text-small font-semibold text-now-text">{t("it hits")}</span>}
    </Item>
  );
}
