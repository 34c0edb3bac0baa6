"use client";

import { addRehearsal } from "@caravan/core/edit";
import { findFrame, type Project } from "@caravan/core/model";
import { guessedRoles, playables, proposed, type Roles } from "@caravan/core/stage";
import { useMemo, useState } from "react";
import { create } from "zustand";
import { stillOf } from "../../preview/draw-frame";
import { MovingFrames } from "../../preview/moving-frames";
import { act } from "../../project/act";
import { currentProject, useProject } from "../../project/open-project";
import { go, useView } from "../../project/view";
import { Button } from "../../ui/button";
import { EmptyPanel } from "../../ui/empty-panel";
import { Select } from "../../ui/select";
import { Tick } from "../../ui/tick";
import { t } from "../../ui/words";

/** Whether roles are being chosen for another behaviour. */
const useProposing = create<{ readonly another: boolean }>(() => ({ another: false }));

export function proposeAnother(): void {
  useProposing.setState({ another: true });
}

export function useAnother(): boolean {
  return useProposing((state) => state.another);
}

/** So many are offered to act on a key, those guessed first. */
const MOST_OFFERED = 200;

/** Which action stands, moves, jumps, falls and acts: guessed, shown, and editable before anything is made. */
export function Proposing({ first }: { first: boolean }) {
  const project = useProject((each) => each);
  const all = playables(project);
  const [chosen, setChosen] = useState<Partial<Roles>>({});
  if (all.length === 0)
    return (
      <EmptyPanel title={t("Nothing to rehearse yet")} next={{ label: t("Go to Clips"), run: () => go("clips") }}>
        {t(
          "Here you drive a character with keys, and rules decide which clip shows. Make clips first, ideally as actions in all their facings.",
        )}
      </EmptyPanel>
    );
  const guessed = guessedRoles(project);
  const roles = { ...guessed, ...chosen };
  const names = all.map(({ name }) => [name, name] as const);
  const part = (role: "stand" | "move" | "jump" | "fall", word: string, optional: boolean) => (
    <>
      <dt className="text-muted">{word}</dt>
      <dd className="flex items-center gap-3">
        <Select
          label={t("What plays to {role}", { role })}
          value={roles[role] ?? ""}
          options={optional || roles[role] === null ? [["", t("nothing")] as const, ...names] : names}
          onChange={(name) => setChosen({ ...chosen, [role]: name === "" ? null : name })}
          className="w-48"
        />
        <Moving project={project} name={roles[role]} />
      </dd>
    </>
  );
  const acting = all
    .filter(({ name }) => ![roles.stand, roles.move, roles.jump, roles.fall].includes(name))
    .toSorted((a, b) => Number(guessed.acts.includes(b.name)) - Number(guessed.acts.includes(a.name)));
  return (
    <section aria-label={t("What plays when")} className="mx-auto flex max-w-160 grow flex-col justify-center gap-4">
      <div>
        <h2 className="text-title font-bold">{first ? t("See the character behave") : t("Another behaviour")}</h2>
        <p className="text-muted">
          {t(
            "This is what the names and playback suggest. Correct what is wrong, then drive it with the arrow keys. The rules can be changed at any time.",
          )}
        </p>
      </div>
      <dl className="grid grid-cols-[auto_1fr] items-center gap-x-4 gap-y-2">
        {part("stand", "stands", false)}
        {part("move", "moves", false)}
        {part("jump", "jumps", true)}
        {part("fall", "falls", true)}
        {acting.length > 0 && (
          <>
            <dt className="self-start pt-1 text-muted">{t("acts on a key")}</dt>
            <dd className="flex max-h-40 flex-wrap gap-x-4 overflow-y-auto">
              {acting.slice(0, MOST_OFFERED).map(({ name }) => (
                <Tick
                  key={name}
                  label={name}
                  checked={roles.acts.includes(name)}
                  onChange={(acts) =>
                    setChosen({ ...chosen, acts: acts ? [...roles.acts, name].slice(-4) : roles.acts.filter((each) => each !== name) })
                  }
                />
              ))}
              {acting.length > MOST_OFFERED && (
                <span className="text-muted">
                  {t("and {more} more, which rules can play later", { more: acting.length - MOST_OFFERED })}
                </span>
              )}
            </dd>
          </>
        )}
      </dl>
      <div className="flex gap-2">
        <Button look="now" onClick={() => begin(project, roles)}>
          {t("Rehearse it")}
        </Button>
        {!first && <Button onClick={() => useProposing.setState({ another: false })}>{t("Cancel")}</Button>}
      </div>
    </section>
  );
}

/** What it looks like, small and moving. */
function Moving({ project, name }: { project: Project; name: string | null }) {
  const clips = playables(project).find((each) => each.name === name)?.clips;
  const clip = clips?.[0];
  const stills = useMemo(
    () =>
      (clip?.steps ?? []).flatMap(({ frame }) => {
        const found = findFrame(project, frame);
        return found ? [stillOf(project, found.source, found.frame)] : [];
      }),
    [project, clip],
  );
  return <MovingFrames stills={stills} size={48} />;
}

function begin(project: Project, roles: Roles): void {
  const { behaviour, stage } = proposed(project, roles, nameFor(roles));
  if (!act(addRehearsal, behaviour, stage)) return;
  useProposing.setState({ another: false });
  useView.setState({ stageName: currentProject().stages?.at(-1)?.name ?? null, ruleName: null });
}

/** Named after what moves, without the word for moving if another is left: porter from porter-walk. */
function nameFor({ move, stand }: Roles): string {
  const [a, b] = [move ?? stand ?? "figure", stand ?? move ?? "figure"];
  let common = 0;
  while (common < a.length && a[common] === b[common]) common++;
  const shared = a.slice(0, common).replace(/[-_ .]+$/u, "");
  return shared.length > 2 && a !== b ? shared : "hero";
}
