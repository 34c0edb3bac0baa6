"use client";

import { setStage } from "@caravan/core/edit";
import type { Behaviour, Stage, StageKey } from "@caravan/core/model";
import { X } from "lucide-react";
import { useState } from "react";
import { act } from "../../project/act";
import { Button, IconButton } from "../../ui/button";
import { Detail } from "../../ui/detail";
import { useKeys } from "../../ui/keys";
import { say } from "../../ui/notices";
import { Select } from "../../ui/select";
import { t } from "../../ui/words";
import { chordOfCode, controlOf, nameOfControl, printedOn } from "./keys-of-stage";

/** Lists which key does what; click a key to change it. */
export function KeysDetail({ stage, behaviour }: { stage: Stage; behaviour: Behaviour | null }) {
  const [waiting, setWaiting] = useState<number | null>(null);
  const put = (keys: StageKey[]) => act(setStage, stage.name, { keys });
  const free = (behaviour?.inputs ?? []).filter(
    ({ name, kind }) => kind === "button" && !stage.keys.some((key) => "input" in key && key.input === name),
  );
  return (
    <Detail title={t("Keys")}>
      <ul aria-label={t("Keys")} className="flex flex-col gap-1">
        {stage.keys.map((key, k) => (
          <li key={`${key.code} ${k}`} className="flex items-center gap-2">
            <Button
              className="min-h-6 min-w-14"
              aria-label={t("Key for {control}", { control: nameOfControl(controlOf(key)) })}
              onClick={() => setWaiting(k)}
            >
              {waiting === k ? t("press one …") : printedOn(key.code)}
            </Button>
            <span className="grow">{nameOfControl(controlOf(key))}</span>
            {"input" in key && (
              <IconButton
                once
                label={t("Remove the key of {input}", { input: key.input })}
                look="quiet"
                className="pointer-fine:size-6!"
                onClick={() => put(stage.keys.filter((each) => each !== key))}
              >
                <X size={12} />
              </IconButton>
            )}
          </li>
        ))}
      </ul>
      {free.length > 0 && (
        <Select
          label={t("Give a button a key")}
          value={null}
          placeholder={t("a key for …")}
          options={free.map(({ name }) => [name, name] as const)}
          onChange={(input) => put([...stage.keys, { code: freeCode(stage), input }])}
          className="mt-1.5"
        />
      )}
      {waiting !== null && (
        <NextKey
          onKey={(code) => {
            setWaiting(null);
            if (code === null) return;
            const taken = stage.keys.find((each, k) => each.code === code && k !== waiting);
            if (taken) {
              say({
                tone: "plain",
                text: t("{key} is for {control} already.", {
                  key: printedOn(code),
                  control: nameOfControl(controlOf(taken)),
                }),
              });
              return;
            }
            put(stage.keys.map((each, k) => (k === waiting ? { ...each, code } : each)));
          }}
        />
      )}
    </Detail>
  );
}

const CODES = ["Space", "KeyF", "KeyD", "KeyS", "KeyA", "KeyQ", "KeyW", "KeyE"];

function freeCode({ keys }: Stage): string {
  return CODES.find((code) => !keys.some((key) => key.code === code)) ?? "KeyX";
}

/** Every key that can drive, while one is being assigned; Escape cancels. */
function NextKey({ onKey }: { onKey: (code: string | null) => void }) {
  const letters = [..."ABCDEFGHIJKLMNOPQRSTUVWXYZ"].map((letter) => `Key${letter}`);
  const codes = ["ArrowLeft", "ArrowRight", "ArrowUp", "ArrowDown", "Space", ...letters];
  useKeys(
    t("Waiting for a key"),
    [
      ...codes.map((code) => ({
        keys: chordOfCode(code) ?? code,
        label: t("Drive with {key}", { key: printedOn(code) }),
        run: () => onKey(code),
      })),
      { keys: "Escape", label: t("Keep the key"), run: () => onKey(null) },
    ],
    { scope: "layer" },
  );
  return null;
}
