"use client";

import { duplicateRule, type RuleChange, removeRule, renameRule, setRule } from "@caravan/core/edit";
import { type Behaviour, type Condition, entriesOf, ownOf, type Rule } from "@caravan/core/model";
import { playables } from "@caravan/core/stage";
import type { ReactNode } from "react";
import { act } from "../../project/act";
import { edit, useProject } from "../../project/open-project";
import { useView } from "../../project/view";
import { Button } from "../../ui/button";
import { More } from "../../ui/more";
import { NumberField } from "../../ui/number-field";
import { Select } from "../../ui/select";
import { TextField } from "../../ui/text-field";
import { Tick } from "../../ui/tick";
import { t } from "../../ui/words";
import { ConditionFields, freshCondition } from "./condition-fields";

/** The id of the open part of the rule. */
export function ruleFieldId(field: string): string {
  return `rule-${field}`;
}

const KEEPS = [
  ["while", t("while it holds")],
  ["whole", t("its whole length")],
  ["ms", t("a time")],
] as const;

/** Everything of one rule. */
export function RuleEditor({ behaviour, rule }: { behaviour: Behaviour; rule: Rule }) {
  const project = useProject((each) => each);
  const change = (next: RuleChange) => act(setRule, behaviour.name, rule.name, next);
  const { when, play, keep = "while", cutBy = [], set = {} } = rule;
  const others = behaviour.rules.filter(({ name }) => name !== rule.name).map(({ name }) => name);
  const switches = behaviour.inputs.filter(({ kind }) => kind === "switch").map(({ name }) => name);
  const names = playables(project).map(({ name }) => name);
  const plays = names.includes(play) ? names : [play, ...names];
  const rename = (name: string): string | undefined => {
    const error = edit(renameRule, behaviour.name, rule.name, name);
    if (!error) useView.setState({ ruleName: name.trim() });
    return error?.message;
  };
  const putWhen = (k: number, condition: Condition | null) =>
    change({ when: when.flatMap((each, n) => (n !== k ? [each] : condition ? [condition] : [])) });
  return (
    <dl aria-label={t("The rule {name}", { name: rule.name })} className="mt-1.5 ml-8 flex flex-col gap-1.5">
      <Field id="name" word={t("name")}>
        <TextField label={t("Name of the rule")} value={rule.name} onChange={rename} className="font-bold" />
      </Field>
      <Field id="when" word={t("when")}>
        <div className="flex flex-col items-start gap-1.5">
          {when.map((condition, k) => (
            <ConditionFields key={k} behaviour={behaviour} rule={rule} condition={condition} onChange={(next) => putWhen(k, next)} />
          ))}
          <Select
            label={t("Add a condition")}
            value={null}
            placeholder={when.length === 0 ? t("always") : t("and …")}
            options={[...behaviour.inputs.map(({ name }) => [name, name] as const), ["", t("a rule shows")] as const]}
            onChange={(name) => {
              const next = freshCondition(behaviour, rule, name);
              if (next) change({ when: [...when, next] });
            }}
          />
        </div>
      </Field>
      <Field id="play" word={t("play")}>
        <Select
          label={t("What it plays")}
          value={play}
          options={plays.map((name) => [name, name] as const)}
          onChange={(name) => change({ play: name })}
          className="max-w-44"
        />
      </Field>
      <Field id="keep" word={t("for")}>
        <span className="flex flex-wrap items-center gap-1.5">
          <Select
            label={t("How long it is kept")}
            value={typeof keep === "number" ? "ms" : keep}
            options={KEEPS}
            onChange={(next) => change({ keep: next === "ms" ? 400 : next === "while" ? undefined : next })}
          />
          {typeof keep === "number" && (
            <NumberField
              label={t("Kept for")}
              value={keep}
              most={86_400_000}
              decimals={3}
              step={10}
              unit="ms"
              onChange={(ms) => edit(setRule, behaviour.name, rule.name, { keep: ms })?.message}
            />
          )}
        </span>
      </Field>
      <Field id="then" word={t("then")}>
        <Select
          label={t("What follows")}
          value={rule.then ?? ""}
          options={[["", t("whatever the rules say")], ...others.map((name) => [name, name] as const)]}
          onChange={(name) => change({ then: name === "" ? undefined : name })}
          className="max-w-44"
        />
      </Field>
      <div className="flex flex-wrap gap-1.5">
        {others.length > 0 && (
          <span id={ruleFieldId("cutBy")}>
            <More label={cutBy.length > 0 ? t("cut by {count}", { count: cutBy.length }) : t("cut by")} title={t("Rules that may cut it")}>
              <p className="text-small text-muted">{t("While it is kept, these may start all the same.")}</p>
              {others.map((name) => (
                <Tick
                  key={name}
                  label={name}
                  checked={cutBy.includes(name)}
                  onChange={(on) => {
                    const next = on ? [...cutBy, name] : cutBy.filter((each) => each !== name);
                    change({ cutBy: next.length > 0 ? next : undefined });
                  }}
                />
              ))}
            </More>
          </span>
        )}
        {switches.length > 0 && (
          <span id={ruleFieldId("set")}>
            <More label={t("sets")} title={t("Switches that it sets")}>
              <p className="text-small text-muted">{t("When it starts.")}</p>
              {switches.map((name) => (
                <span key={name} className="flex items-center gap-2">
                  {name}
                  <Select
                    label={t("What it does to {name}", { name })}
                    value={String(ownOf(set, name) ?? "")}
                    options={[
                      ["", t("leaves it")],
                      ["true", t("on")],
                      ["false", t("off")],
                    ]}
                    onChange={(next) => {
                      const rest = Object.fromEntries(entriesOf(set).filter(([each]) => each !== name));
                      const made = next === "" ? rest : { ...rest, [name]: next === "true" };
                      change({ set: Object.keys(made).length > 0 ? made : undefined });
                    }}
                  />
                </span>
              ))}
            </More>
          </span>
        )}
      </div>
      <div className="flex flex-wrap gap-x-3">
        <Flag
          id="phase"
          label={t("in step with the previous clip")}
          checked={rule.phase === "carry"}
          onChange={(on) => change({ phase: on ? "carry" : undefined })}
        />
        <Flag id="turns" label={t("turns")} checked={rule.turns !== false} onChange={(on) => change({ turns: on ? undefined : false })} />
        <Flag
          id="again"
          label={t("may start again")}
          checked={rule.again === true}
          onChange={(on) => change({ again: on ? true : undefined })}
        />
        <Flag id="off" label={t("switched on")} checked={!rule.off} onChange={(on) => change({ off: on ? undefined : true })} />
      </div>
      <div className="flex flex-wrap gap-1.5">
        <Button className="min-h-6" onClick={() => act(duplicateRule, behaviour.name, rule.name)}>
          {t("Duplicate")}
        </Button>
        <Button once className="min-h-6" onClick={() => act(removeRule, behaviour.name, rule.name)}>
          {t("Remove")}
        </Button>
      </div>
    </dl>
  );
}

function Field({ id, word, children }: { id: string; word: string; children: ReactNode }) {
  return (
    <div id={ruleFieldId(id)} className="flex items-start gap-2">
      <dt className="w-9 shrink-0 pt-1 text-small text-muted">{word}</dt>
      <dd className="min-w-0 grow">{children}</dd>
    </div>
  );
}

function Flag({ id, label, checked, onChange }: { id: string; label: string; checked: boolean; onChange: (on: boolean) => void }) {
  return (
    <span id={ruleFieldId(id)}>
      <Tick label={label} checked={checked} onChange={onChange} />
    </span>
  );
}
