"use client";

import type { Behaviour, Condition, Rule } from "@caravan/core/model";
import { X } from "lucide-react";
import { IconButton } from "../../ui/button";
import { More } from "../../ui/more";
import { NumberField } from "../../ui/number-field";
import { Select } from "../../ui/select";
import { Tick } from "../../ui/tick";
import { t } from "../../ui/words";

/** Makes an initial condition: on an input or, without a name, on a rule that shows. Null if there is no other rule. */
export function freshCondition({ inputs, rules }: Behaviour, rule: Rule, name: string): Condition | null {
  if (name === "") {
    const other = rules.find((each) => each.name !== rule.name);
    return other ? { showing: [other.name] } : null;
  }
  switch (inputs.find((each) => each.name === name)?.kind) {
    case "button":
      return { input: name, is: "pressed" };
    case "switch":
      return { input: name, is: true };
    case "number":
      return { input: name, above: 0 };
    default:
      return null;
  }
}

const BUTTON_STATES = [
  ["pressed", t("is pressed")],
  ["down", t("is down")],
  ["up", t("is up")],
  ["released", t("is released")],
] as const;

interface Props {
  readonly behaviour: Behaviour;
  readonly rule: Rule;
  readonly condition: Condition;
  /** Null removes it. */
  readonly onChange: (condition: Condition | null) => boolean;
}

/** One condition of a rule. */
export function ConditionFields({ behaviour, rule, condition, onChange }: Props) {
  return (
    <span className="flex flex-wrap items-center gap-1.5">
      {"showing" in condition ? (
        <ShowingFields behaviour={behaviour} rule={rule} condition={condition} onChange={onChange} />
      ) : (
        <InputFields condition={condition} onChange={onChange} />
      )}
      <IconButton once label={t("Remove the condition")} look="quiet" className="pointer-fine:size-6!" onClick={() => onChange(null)}>
        <X size={12} />
      </IconButton>
    </span>
  );
}

function InputFields({ condition, onChange }: { condition: Exclude<Condition, { showing: string[] }>; onChange: Props["onChange"] }) {
  const { input } = condition;
  if ("is" in condition) {
    const { is } = condition;
    return (
      <>
        <b>{input}</b>
        {typeof is === "boolean" ? (
          <Select
            label={t("{input} must be", { input })}
            value={String(is)}
            options={[
              ["true", t("is on")],
              ["false", t("is off")],
            ]}
            onChange={(next) => onChange({ input, is: next === "true" })}
          />
        ) : (
          <Select
            label={t("{input} must be", { input })}
            value={is}
            options={BUTTON_STATES}
            onChange={(next) => onChange({ input, is: next })}
          />
        )}
      </>
    );
  }
  const { above, below } = condition;
  const way = above === undefined ? "below" : below === undefined ? "above" : "between";
  const limit = (which: "above" | "below", value: number) => (
    <NumberField
      label={`${input} ${which}`}
      value={value}
      least={-1_000_000}
      decimals={2}
      onChange={(next) => {
        onChange({ ...condition, [which]: next });
        return null;
      }}
    />
  );
  return (
    <>
      <b>{input}</b>
      <Select
        label={t("How {input} is compared", { input })}
        value={way}
        options={[
          ["above", t("above")],
          ["below", t("below")],
          ["between", t("between")],
        ]}
        onChange={(next) => {
          const value = above ?? below ?? 0;
          onChange(
            next === "above"
              ? { input, above: value }
              : next === "below"
                ? { input, below: value }
                : { input, above: value, below: (below ?? value) + (below === undefined ? 10 : 0) },
          );
        }}
      />
      {above !== undefined && limit("above", above)}
      {way === "between" && t("and")}
      {below !== undefined && limit("below", below)}
    </>
  );
}

function ShowingFields({
  behaviour,
  rule,
  condition,
  onChange,
}: Omit<Props, "condition"> & { condition: Extract<Condition, { showing: string[] }> }) {
  const { showing, forMs, ended } = condition;
  const others = behaviour.rules.filter(({ name }) => name !== rule.name || showing.includes(name)).map(({ name }) => name);
  return (
    <>
      <More label={showing.join(" or ")} title={t("Rules, one of which shows")}>
        {others.map((name) => (
          <Tick
            key={name}
            label={name}
            checked={showing.includes(name)}
            onChange={(on) => {
              const next = on ? [...showing, name] : showing.filter((each) => each !== name);
              if (next.length > 0) onChange({ ...condition, showing: next });
            }}
          />
        ))}
      </More>
      <span className="flex items-center gap-1">
        {t("for")}
        <NumberField
          label={t("Shown for at least")}
          value={forMs ?? 0}
          most={86_400_000}
          decimals={3}
          step={100}
          unit="ms"
          onChange={(ms) => {
            const { forMs: _before, ...rest } = condition;
            onChange(ms > 0 ? { ...rest, forMs: ms } : rest);
            return null;
          }}
        />
      </span>
      <Tick
        label={t("and has ended")}
        checked={ended === true}
        onChange={(on) => {
          const { ended: _before, ...rest } = condition;
          onChange(on ? { ...rest, ended: true } : rest);
        }}
      />
    </>
  );
}
