"use client";

import { addInput, removeInput, renameBehaviour, renameInput, setInput, setStage } from "@caravan/core/edit";
import { type Behaviour, type BehaviourName, type Feeds, freeName, type Input, type InputKind, type Stage } from "@caravan/core/model";
import { X } from "lucide-react";
import { act } from "../../project/act";
import { currentProject, edit } from "../../project/open-project";
import { Button, IconButton } from "../../ui/button";
import { Detail } from "../../ui/detail";
import { NumberField } from "../../ui/number-field";
import { TextField } from "../../ui/text-field";
import { Tick } from "../../ui/tick";
import { inLanguage, t } from "../../ui/words";
import { useSession } from "./session";

/** Lists the inputs of the rules, with their initial and current values. */
export function InputsDetail({ behaviour, stage }: { behaviour: Behaviour; stage: Stage }) {
  const add = (kind: InputKind) =>
    act(addInput, behaviour.name, kind, freeName(FIRST_NAMES[kind], new Set(behaviour.inputs.map(({ name }) => name))));
  return (
    <Detail title={t("Inputs")} aside={t("now")}>
      <div className="mb-1.5 flex items-center gap-2">
        <span className="text-small text-muted">{t("of the behaviour")}</span>
        <TextField
          label={t("Name of the behaviour")}
          value={behaviour.name}
          onChange={(name) => edit(renameBehaviour, behaviour.name as BehaviourName, name)?.message}
          className="font-bold"
        />
      </div>
      <ul aria-label={t("Inputs")} className="flex flex-col gap-1">
        {behaviour.inputs.map((input) => (
          <InputRow key={input.name} behaviour={behaviour} input={input} stage={stage} />
        ))}
      </ul>
      <div className="mt-2 flex flex-wrap gap-1.5">
        <Button className="min-h-6" onClick={() => add("button")}>
          {t("New button")}
        </Button>
        <Button className="min-h-6" onClick={() => add("switch")}>
          {t("New switch")}
        </Button>
        <Button className="min-h-6" onClick={() => add("number")}>
          {t("New number")}
        </Button>
      </div>
    </Detail>
  );
}

const FIRST_NAMES: Readonly<Record<InputKind, string>> = { button: "act", switch: "armed", number: "speed" };

function InputRow({ behaviour, input, stage }: { behaviour: Behaviour; input: Input; stage: Stage }) {
  const now = useSession(({ end }) => end?.run.now.values.get(input.name));
  const fed = (Object.entries(stage.feeds) as [keyof Feeds, string][]).find(([, name]) => name === input.name)?.[0];
  const set = (next: Input) => edit(setInput, behaviour.name, next)?.message;
  return (
    <li className="flex flex-wrap items-center gap-x-2">
      <TextField
        label={t("Name of the input {name}", { name: input.name })}
        value={input.name}
        onChange={(name) => edit(renameInput, behaviour.name, input.name, name)?.message}
        className="font-semibold"
      />
      {input.kind === "button" && (
        <span className="flex items-center gap-1 text-small text-muted">
          {t("waits")}
          <NumberField
            label={t("How long a press of {name} waits", { name: input.name })}
            value={input.bufferMs ?? 0}
            most={86_400_000}
            decimals={3}
            step={10}
            unit="ms"
            onChange={(bufferMs) => set(bufferMs > 0 ? { ...input, bufferMs } : { name: input.name, kind: "button" })}
          />
        </span>
      )}
      {input.kind === "switch" && !fed && (
        <Tick
          label={t("on at first")}
          checked={input.initial === true}
          onChange={(initial) => act(setInput, behaviour.name, initial ? { ...input, initial } : { name: input.name, kind: "switch" })}
        />
      )}
      {input.kind === "number" && !fed && (
        <span className="flex items-center gap-1 text-small text-muted">
          {t("at first")}
          <NumberField
            label={t("What {name} is at first", { name: input.name })}
            value={input.initial ?? 0}
            least={-1_000_000}
            decimals={3}
            onChange={(initial) => set({ ...input, initial })}
          />
        </span>
      )}
      {fed && <span className="text-small text-muted">{FED[fed]}</span>}
      {!fed && input.kind !== "button" && (
        <span className="text-small">
          <FeedButton stage={stage} input={input} />
        </span>
      )}
      <span className="number ml-auto text-small">
        {now === undefined ? "" : typeof now === "number" ? now : inLanguage(WORDS[input.kind][now ? 1 : 0])}
      </span>
      <IconButton
        once
        label={t("Remove the input {name}", { name: input.name })}
        look="quiet"
        className="pointer-fine:size-6!"
        onClick={() => act(removeInput, behaviour.name, input.name)}
      >
        <X size={12} />
      </IconButton>
    </li>
  );
}

const WORDS: Readonly<Record<InputKind, readonly [string, string]>> = { button: ["up", "down"], switch: ["off", "on"], number: ["0", "1"] };

const FED: Readonly<Record<keyof Feeds, string>> = {
  speed: t("how fast it goes, px/s"),
  rise: t("how fast it rises, px/s"),
  air: t("stands on nothing"),
};

/** Feeds this input from the movement, while a feed of its kind is still free. */
function FeedButton({ stage, input }: { stage: Stage; input: Input }) {
  const free = (input.kind === "switch" ? (["air"] as const) : (["speed", "rise"] as const)).find(
    (each) => stage.feeds[each] === undefined,
  );
  if (!free) return null;
  const tell = () => {
    const now = currentProject().stages?.find(({ name }) => name === stage.name);
    if (now) act(setStage, stage.name, { feeds: { ...now.feeds, [free]: input.name } });
  };
  return (
    <Button className="min-h-6" onClick={tell}>
      {{ air: t("Tell it when it is in the air"), speed: t("Tell it the speed"), rise: t("Tell it how it rises") }[free]}
    </Button>
  );
}
