"use client";

import { attachPart, movePart, removePart, renamePart, setPart } from "@caravan/core/edit";
import { hostClips } from "@caravan/core/marks";
import { type Clip, freeName, type MarkName, type Part, type Project } from "@caravan/core/model";
import { ArrowDown, ArrowUp, Plus, X } from "lucide-react";
import { useState } from "react";
import { act } from "../../project/act";
import { currentProject, edit, useProject } from "../../project/open-project";
import { Button, IconButton } from "../../ui/button";
import { Choice } from "../../ui/choice";
import { Detail } from "../../ui/detail";
import { Select } from "../../ui/select";
import { TextField } from "../../ui/text-field";
import { t } from "../../ui/words";
import { PartSteps } from "./part-steps";

const ORIGIN = "";
/** One list, since what a store is asked for may not be another at each look. */
const NO_PARTS: readonly Part[] = [];

/** Attachments: set by their points, playing on the host at once; over it or under it, per step if needed. */
export function PartsDetail({ clip }: { clip: Clip | null }) {
  const parts = useProject((project) => project.parts);
  const points = useProject((project) => project.marks.some(({ shape }) => shape === "point"));
  const [attaching, setAttaching] = useState(false);
  const count = parts?.length ?? 0;
  return (
    <Detail title={t("Parts")} aside={count > 0 ? String(count) : undefined}>
      {count === 0 && !attaching && (
        <p className="mb-2 text-muted">{t("A lamp in a hand, a hat on a head: one movement attached to another by points.")}</p>
      )}
      <ul aria-label={t("Parts, the topmost first")} className="flex flex-col gap-1.5">
        {(parts ?? []).toReversed().map((part) => (
          <Row key={part.name} part={part} clip={clip} />
        ))}
      </ul>
      {attaching ? (
        <Attaching clip={clip} onEnd={() => setAttaching(false)} />
      ) : points ? (
        <Button onClick={() => setAttaching(true)}>
          <Plus size={14} /> {t("Attach a part …")}
        </Button>
      ) : (
        <p className="text-small text-muted">
          {t("A part attaches to a point: make one with “New points”, and put it where the hand is.")}
        </p>
      )}
    </Detail>
  );
}

/** Actions first, then clips: what can be played. */
function playsOf({ actions, clips }: Pick<Project, "actions" | "clips">): (readonly [string, string])[] {
  return [...new Set([...actions, ...clips].map(({ name }) => name as string))].map((name) => [name, name] as const);
}

function pointsOf({ marks }: Pick<Project, "marks">): (readonly [MarkName, string])[] {
  return marks.flatMap(({ shape, name }) => (shape === "point" ? [[name, name] as const] : []));
}

/** The fields of a part besides its name. */
function Fields({
  part,
  label,
  onChange,
}: {
  part: Omit<Part, "name">;
  label: string;
  onChange: (change: Partial<Omit<Part, "name">>) => void;
}) {
  const project = useProject((each) => each);
  const plays = playsOf(project);
  const points = pointsOf(project);
  return (
    <dl className="grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-1">
      <dt className="text-muted">{t("shows")}</dt>
      <dd>
        <Select
          label={t("What {label} shows", { label })}
          className="max-w-full"
          value={part.guest}
          options={plays}
          onChange={(guest) => onChange({ guest })}
        />
      </dd>
      <dt className="text-muted">{t("on")}</dt>
      <dd>
        <Select
          label={t("What {label} is attached to", { label })}
          className="max-w-full"
          value={part.host}
          options={plays}
          onChange={(host) => onChange({ host })}
        />
      </dd>
      <dt className="text-muted">{t("at")}</dt>
      <dd>
        <Select
          label={t("The point that {label} is attached to", { label })}
          value={part.at}
          options={points}
          onChange={(at) => onChange({ at })}
        />
      </dd>
      <dt className="text-muted">{t("by")}</dt>
      <dd>
        <Select<MarkName | "">
          label={t("The point of {label} that is attached", { label })}
          value={part.by ?? ORIGIN}
          options={[[ORIGIN, t("its origin")], ...points]}
          onChange={(by) => onChange({ by: by === ORIGIN ? undefined : by })}
        />
      </dd>
      <dt className="text-muted">{t("drawn")}</dt>
      <dd>
        <Choice
          label={t("Where {label} is drawn", { label })}
          value={part.front ? "front" : "behind"}
          options={[
            ["front", t("Over")],
            ["behind", t("Under")],
          ]}
          onChange={(way) => onChange({ front: way === "front" })}
        />
      </dd>
      <dt className="text-muted">{t("time")}</dt>
      <dd>
        <Choice
          label={t("The time of {label}", { label })}
          value={part.time}
          options={[
            ["own", t("Its own")],
            ["together", t("The host's")],
          ]}
          onChange={(time) => onChange({ time })}
        />
      </dd>
    </dl>
  );
}

function Row({ part, clip }: { part: Part; clip: Clip | null }) {
  const { name } = part;
  const parts = useProject((project) => project.parts ?? NO_PARTS);
  const hosts = useProject((project) => (clip ? hostClips(project, part.host).includes(clip) : false));
  const at = parts.indexOf(part);
  return (
    <li className="rounded-box border border-line p-1.5">
      <div className="mb-1 flex items-center gap-1">
        <TextField
          label={t("Name of the part {name}", { name })}
          value={name}
          onChange={(next) => edit(renamePart, name, next)?.message}
          className="min-w-0 grow font-semibold"
        />
        <IconButton label={t("{name} up", { name })} look="quiet" disabled={at === parts.length - 1} onClick={() => act(movePart, name, 1)}>
          <ArrowUp size={14} />
        </IconButton>
        <IconButton label={t("{name} down", { name })} look="quiet" disabled={at === 0} onClick={() => act(movePart, name, -1)}>
          <ArrowDown size={14} />
        </IconButton>
        <IconButton once label={t("Remove {name}", { name })} look="quiet" onClick={() => act(removePart, name)}>
          <X size={14} />
        </IconButton>
      </div>
      <Fields part={part} label={name} onChange={(change) => act(setPart, name, change)} />
      {hosts && clip && <PartSteps part={part} clip={clip} />}
    </li>
  );
}

/** A part that is to be: shown as it would be, made by one press. */
function Attaching({ clip, onEnd }: { clip: Clip | null; onEnd: () => void }) {
  const [part, setPart] = useState(() => firstGuess(currentProject(), clip));
  const attach = () => {
    const taken = new Set((currentProject().parts ?? []).map(({ name }) => name));
    if (act(attachPart, { ...part, name: freeName(part.guest, taken, " ") })) onEnd();
  };
  return (
    <div className="rounded-box border border-lapis p-1.5">
      <Fields part={part} label={t("the new part")} onChange={(change) => setPart((before) => sound({ ...before, ...change }))} />
      <div className="mt-2 flex gap-2">
        <Button look="now" onClick={attach}>
          {t("Attach")}
        </Button>
        <Button look="quiet" onClick={onEnd}>
          {t("Cancel")}
        </Button>
      </div>
    </div>
  );
}

function sound({ by, ...part }: Omit<Part, "name"> & { by?: MarkName | undefined }): Omit<Part, "name"> {
  return by === undefined ? part : { ...part, by };
}

/** The movement in hand as the host, by its action if it has one; the first other one as the guest. */
function firstGuess(project: Project, clip: Clip | null): Omit<Part, "name"> {
  const action = clip && project.actions.find(({ facings }) => Object.values(facings).some((petal) => petal.clip === clip.name));
  const plays = playsOf(project).map(([name]) => name);
  const host = action?.name ?? clip?.name ?? plays[0] ?? "";
  const guest = plays.find((name) => name !== host && !hostClips(project, host).some((each) => each.name === name)) ?? host;
  return { host, guest, at: (pointsOf(project)[0]?.[0] ?? "") as MarkName, time: "own", front: true };
}
