"use client";

import { addRule, duplicateRule, moveRule, removeRule, setRule } from "@caravan/core/edit";
import type { Behaviour, Condition, Rule } from "@caravan/core/model";
import { entriesOf } from "@caravan/core/model";
import { conditionInWords, keepInWords, ruleInWords } from "@caravan/core/rehearse";
import { playables } from "@caravan/core/stage";
import type { DragEndEvent } from "@dnd-kit/core";
import { SortableContext, useSortable, verticalListSortingStrategy } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { GripVertical } from "lucide-react";
import { Fragment, type ReactNode } from "react";
import { act } from "../../project/act";
import { currentProject } from "../../project/open-project";
import { useView } from "../../project/view";
import { Button } from "../../ui/button";
import { Detail } from "../../ui/detail";
import { Dragging } from "../../ui/dragging";
import { type Menu, WithMenu } from "../../ui/with-menu";
import { t } from "../../ui/words";
import { RuleEditor, ruleFieldId } from "./rule-editor";
import { rehearsalAt, shownTime, useSession } from "./session";
import { type Standing, standingOf } from "./why-not";

/** Lists the rules, top first: each as a sentence with clickable parts, whether it shows now, and why not. */
export function RulesDetail({ behaviour }: { behaviour: Behaviour }) {
  const chosen = useView((view) => view.ruleName);
  return (
    <Detail
      title={t("Rules")}
      aside={
        <Button className="min-h-6" onClick={() => newRule(behaviour)}>
          {t("New rule")}
        </Button>
      }
    >
      <p className="mb-1.5 text-small text-muted">{t("The first that holds, shows.")}</p>
      <Dragging id="rules" onDragEnd={(event) => dropped(behaviour, event)}>
        <SortableContext items={behaviour.rules.map(({ name }) => name)} strategy={verticalListSortingStrategy}>
          <WithMenu label={t("Rule menu")} menuOf={(target) => ruleMenu(behaviour, target)}>
            <ol aria-label={t("Rules")} className="-mx-1.5 flex flex-col gap-1">
              {behaviour.rules.map((rule, k) => (
                <RuleRow key={rule.name} behaviour={behaviour} rule={rule} number={k + 1} chosen={rule.name === chosen} />
              ))}
            </ol>
          </WithMenu>
        </SortableContext>
      </Dragging>
    </Detail>
  );
}

function RuleRow({ behaviour, rule, number, chosen }: { behaviour: Behaviour; rule: Rule; number: number; chosen: boolean }) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: rule.name });
  const { shows, text } = useStanding(rule);
  return (
    <li
      ref={setNodeRef}
      data-rule={rule.name}
      style={{ transform: CSS.Transform.toString(transform), transition }}
      className={`rounded-box border-l-4 py-1 pr-1 pl-1 ${shows ? "border-l-now bg-now-soft" : chosen ? "border-l-lapis bg-lapis-soft" : "border-l-transparent"} ${rule.off ? "opacity-70" : ""}`}
    >
      <div className="flex gap-1">
        <button
          type="button"
          aria-label={t("Move the rule {name}", { name: rule.name })}
          className="flex w-7 shrink-0 cursor-grab flex-col items-center gap-0.5 rounded-sm pt-1 text-muted touch-none"
          {...attributes}
          {...listeners}
          onKeyDown={(event) => {
            if (event.key !== "ArrowUp" && event.key !== "ArrowDown") return;
            event.preventDefault();
            event.stopPropagation();
            move(behaviour, rule, event.key === "ArrowUp" ? -1 : 1);
          }}
        >
          <span className="number">{number}</span>
          <GripVertical size={12} />
        </button>
        <div className="min-w-0 grow">
          <Sentence rule={rule} />
          <p data-standing className={`text-small ${shows ? "font-semibold text-now-text" : "text-muted"}`}>
            {text}
          </p>
        </div>
      </div>
      {chosen && <RuleEditor key={rule.name} behaviour={behaviour} rule={rule} />}
    </li>
  );
}

/** The rule as a sentence; a click on a part opens the rule there. */
function Sentence({ rule }: { rule: Rule }) {
  const part = (field: string, text: ReactNode) => (
    <button
      type="button"
      data-chooses
      className="rounded-sm border border-line bg-raised px-1 font-semibold hover:border-line-strong"
      onClick={() => open(rule, field)}
    >
      {text}
    </button>
  );
  const { when, play, keep = "while", cutBy = [], set = {}, then: next, phase, turns, again } = rule;
  return (
    <p className="leading-6" title={ruleInWords(rule)}>
      <button
        type="button"
        data-chooses
        aria-expanded={undefined}
        className="mr-1 font-bold hover:underline"
        onClick={() => useView.setState(({ ruleName }) => ({ ruleName: ruleName === rule.name ? null : rule.name }))}
      >
        {rule.name}
      </button>
      {when.length === 0 ? (
        <>{part("when", t("otherwise"))} </>
      ) : (
        <>
          {t("when")}{" "}
          {when.map((condition, k) => (
            <Fragment key={k}>
              {k > 0 && <> {t("and")} </>}
              {part("when", conditionInWords(condition))}
            </Fragment>
          ))}
          ,{" "}
        </>
      )}
      {t("play")} {part("play", play)}
      {keep !== "while" && (
        <>
          {" "}
          {t("for")} {part("keep", keepInWords(rule))}
        </>
      )}
      {cutBy.length > 0 && (
        <>
          ; {part("cutBy", cutBy.join(" or "))} {t("may cut it")}
        </>
      )}
      {again && (
        <>
          ; {part("again", "again")} {t("at once")}
        </>
      )}
      {phase === "carry" && <>, {part("phase", t("in step"))}</>}
      {turns === false && <>, {part("turns", t("not turning"))}</>}
      {entriesOf(set).map(([name, value]) => (
        <Fragment key={name}>; {part("set", `${name} ${value ? t("on") : t("off")}`)}</Fragment>
      ))}
      {next !== undefined && (
        <>
          ; {t("then")} {part("then", next)}
        </>
      )}
    </p>
  );
}

function open(rule: Rule, field: string): void {
  useView.setState({ ruleName: rule.name });
  requestAnimationFrame(() => document.getElementById(ruleFieldId(field))?.querySelector<HTMLElement>("button, input")?.focus());
}

/** Whether the rule shows at the current moment; as a text that changes rarely, so that few rows render again. */
function useStanding(rule: Rule): Standing {
  const text = useSession((session) => {
    const { setting, end, stay, pointed } = session;
    if (!setting || !end) return "0";
    const own = setting.program.rules.find(({ name }) => name === rule.name);
    const state = (stay === null && pointed === null ? end : rehearsalAt(session, shownTime(session)))?.run.now;
    if (!own || !state) return "0";
    const standing = standingOf(setting.program, state, own);
    return `${standing.shows ? "1" : "0"}${standing.text}`;
  });
  return { shows: text.startsWith("1"), text: text.slice(1) };
}

function dropped({ name, rules }: Behaviour, { active, over }: DragEndEvent): void {
  const to = rules.findIndex((rule) => rule.name === over?.id);
  if (over && active.id !== over.id && to >= 0) act(moveRule, name, String(active.id), to);
}

function move({ name, rules }: Behaviour, rule: Rule, by: 1 | -1): void {
  const to = rules.indexOf(rule) + by;
  if (to >= 0 && to < rules.length) act(moveRule, name, rule.name, to);
}

function ruleMenu(behaviour: Behaviour, target: Element): Menu | null {
  const name = target.closest<HTMLElement>("[data-rule]")?.dataset.rule;
  const rule = behaviour.rules.find((each) => each.name === name);
  if (!rule) return null;
  return [
    { label: t("Duplicate"), run: () => act(duplicateRule, behaviour.name, rule.name) },
    {
      label: rule.off ? t("Switch on") : t("Switch off"),
      run: () => act(setRule, behaviour.name, rule.name, { off: rule.off ? undefined : true }),
    },
    { label: t("Move up"), run: () => move(behaviour, rule, -1) },
    { label: t("Move down"), run: () => move(behaviour, rule, 1) },
    null,
    { label: t("Remove the rule"), run: () => act(removeRule, behaviour.name, rule.name) },
  ];
}

/** Adds a rule above all others, to be filled in: it plays the first thing without a rule when a new button is pressed. */
function newRule({ name, rules, inputs }: Behaviour): void {
  const played = new Set(rules.map(({ play }) => play));
  const all = playables(currentProject());
  const play = (all.find((each) => !played.has(each.name)) ?? all[0])?.name ?? rules[0]?.play ?? "";
  const button = inputs.find(({ kind }) => kind === "button");
  const when: Condition[] = button ? [{ input: button.name, is: "pressed" }] : [];
  const rule: Rule = { name: play || "rule", when, play, ...(button ? { keep: "whole" } : {}) };
  if (!act(addRule, name, rule, 0)) return;
  const made = currentProject().behaviours?.find((each) => each.name === name)?.rules[0];
  if (made) open(made, "when");
}
