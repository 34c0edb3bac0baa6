"use client";

import { forgetExample } from "@caravan/core/edit";
import type { Told } from "@caravan/core/example";
import type { Example } from "@caravan/core/model";
import { type DragEvent, useEffect, useState } from "react";
import { edit, useProject } from "../../project/open-project";
import { Button } from "../../ui/button";
import { Detail } from "../../ui/detail";
import { chooseFiles } from "../../ui/files";
import { inBackground } from "../../ui/in-background";
import { sayTrouble } from "../../ui/notices";
import { Select } from "../../ui/select";
import { SheetDialog } from "../../ui/sheet-dialog";
import { t } from "../../ui/words";
import { run } from "../../workers/client";
import { useDelivery } from "./chosen-delivery";
import { WhatStandsWhere } from "./example-fields";
import { learnFrom } from "./learn-example";

/** Chooses the example for metadata in a game's own shape: learns it from a file, and shows what will be written. */
export function ExampleShape() {
  const { delivery, index, set } = useDelivery();
  const examples = useProject((project) => project.examples);
  const [shown, setShown] = useState<string | null>(null);
  const shownExample = examples.find((each) => each.name === shown);
  const told = useTold(shownExample);
  const [over, setOver] = useState(false);
  const name = delivery.data.example;
  const example = examples.find((each) => each.name === name);
  const learn = async (files: readonly File[]) => {
    if (files.length > 0) setShown((await learnFrom(files, index))?.name ?? null);
  };
  const drop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    inBackground(learn([...event.dataTransfer.files]));
  };
  return (
    <Detail title={t("In the shape of an example")}>
      <section
        aria-label={t("In the shape of an example")}
        data-takes-files=""
        onDragEnter={() => setOver(true)}
        onDragLeave={() => setOver(false)}
        onDrop={drop}
        className={`flex flex-col items-start gap-1.5 rounded-box ${over ? "outline-2 outline-lapis outline-offset-4" : ""}`}
      >
        {examples.length > 0 && (
          <Select
            label={t("Example")}
            className="w-full"
            value={name ?? ""}
            options={[["", t("None")], ...examples.map((each) => [each.name, each.name] as const)]}
            onChange={(next) => set({ data: { example: next === "" ? null : next } })}
          />
        )}
        {!example && (
          <p className="text-small text-muted">
            {t(
              "Drop or choose a metadata file that your game reads, with or without its picture. The delivery is then written in the same shape.",
            )}
          </p>
        )}
        <div className="flex flex-wrap gap-1.5">
          <Button onClick={async () => learn(await chooseFiles("", true))}>{t("Learn from a file")}</Button>
          {example && <Button onClick={() => setShown(example.name)}>{t("Its fields")}</Button>}
        </div>
      </section>
      <SheetDialog
        title={t("In the shape of {shown}", { shown: shown ?? "" })}
        description={t("What each field of the example will contain, and what stays as it is.")}
        open={told !== null}
        onClose={() => setShown(null)}
      >
        {told && shownExample && (
          <WhatStandsWhere
            example={shownExample}
            told={told}
            onForget={() => {
              edit(forgetExample, shownExample.name);
              setShown(null);
            }}
          />
        )}
      </SheetDialog>
    </Detail>
  );
}

/** The contents of an example, recomputed when an assignment changes; null until known, or without an example. */
function useTold(example: Example | undefined): Told | null {
  const [found, setFound] = useState<{ readonly of: Example; readonly told: Told } | null>(null);
  useEffect(() => {
    if (!example) return;
    let gone = false;
    run("tellExample", { example })
      .then((told) => !gone && setFound({ of: example, told }))
      .catch(sayTrouble);
    return () => {
      gone = true;
    };
  }, [example]);
  // What was known stays in sight while a change of it is worked out.
  return example && found?.of.name === example.name ? found.told : null;
}
