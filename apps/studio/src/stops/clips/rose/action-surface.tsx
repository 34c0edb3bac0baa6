"use client";

import { mirrorMissing, removeAction, renameAction, setPetal, setWays, turnAction } from "@caravan/core/edit";
import { mirrorOf, nearestPresent, turnedBy } from "@caravan/core/facing";
import { type Action, type ActionName, type Clip, type ClipName, FACINGS_OF, type Facing, type Ways } from "@caravan/core/model";
import { type DragEndEvent, pointerWithin, useDraggable } from "@dnd-kit/core";
import { CSS } from "@dnd-kit/utilities";
import { usePlayer } from "../../../preview/player-state";
import { act } from "../../../project/act";
import { freezeMirrorOf } from "../../../project/freeze-mirror";
import { edit, useProject } from "../../../project/open-project";
import { chooseAction, chooseClip } from "../../../project/view";
import { Button } from "../../../ui/button";
import { Choice } from "../../../ui/choice";
import { Dragging } from "../../../ui/dragging";
import { inBackground } from "../../../ui/in-background";
import { useKeys } from "../../../ui/keys";
import { say } from "../../../ui/notices";
import { TextField } from "../../../ui/text-field";
import { t } from "../../../ui/words";
import { WindRose } from "./wind-rose";

/** Shows one action: its rose, and the clips to add to it. The current facing is the one that the player shows. */
export function ActionSurface({ action }: { action: Action }) {
  const clips = useProject((project) => project.clips);
  const facing = usePlayer((state) => state.facing);
  const looks = nearestPresent(facing, FACINGS_OF[action.ways]) as Facing;
  const petal = action.facings[looks];
  const across = mirrorOf(looks);
  const { name } = action;
  const turn = (by: 1 | -1) => usePlayer.setState({ facing: turnedBy(looks, action.ways, by) });
  const mirror = () => {
    const other = action.facings[across];
    if (other && across !== looks) act(setPetal, name, looks, { clip: other.clip, ...(other.mirror ? {} : { mirror: true as const }) });
  };
  const clear = () => act(setPetal, name, looks, null);
  const canMirror = across !== looks && action.facings[across] !== undefined;
  const gaps = FACINGS_OF[action.ways].filter((each) => !action.facings[each]);
  const canFill = gaps.some(
    (each) => mirrorOf(each) !== each && action.facings[mirrorOf(each)]?.mirror !== true && action.facings[mirrorOf(each)],
  );

  useKeys(t("The action"), [
    { keys: "ArrowRight", repeats: true, label: t("Next facing, clockwise"), run: () => turn(1) },
    { keys: "ArrowLeft", repeats: true, label: t("Previous facing"), run: () => turn(-1) },
    { keys: "m", label: t("Mirror the opposite facing"), run: mirror },
    { keys: "Delete Backspace", label: t("Clear the facing"), run: clear },
    { keys: "Enter", label: t("Open the clip of this facing"), run: () => petal && chooseClip(petal.clip) },
    { keys: "Shift+ArrowRight", label: t("Turn the rose clockwise, clips and their names with it"), run: () => act(turnAction, name, 1) },
    { keys: "Shift+ArrowLeft", label: t("Turn the rose the other way"), run: () => act(turnAction, name, -1) },
    { keys: "n F2", label: t("Rename the action"), run: () => document.getElementById(ACTION_NAME_FIELD)?.focus() },
  ]);

  const assign = (clip: ClipName, to: Facing, moveOn: boolean) => {
    if (!act(setPetal, name, to, { clip })) return;
    const next = moveOn ? nextMissing(action, to) : to;
    usePlayer.setState({ facing: next });
  };
  const dropped = ({ active, over }: DragEndEvent) => {
    const to = over?.data.current?.facing as Facing | undefined;
    const clip = active.data.current?.clip as ClipName | undefined;
    if (to && clip) assign(clip, to, false);
  };

  return (
    <Dragging id="rose" collisionDetection={pointerWithin} onDragEnd={dropped}>
      <header className="flex flex-wrap items-center justify-between gap-x-3 gap-y-2">
        <div className="flex min-w-0 items-baseline gap-2">
          <h2 className="min-w-0 text-title font-bold">
            <ActionNameField key={name} action={action} />
          </h2>
          <span className="text-muted">{t("action")}</span>
        </div>
        <Choice
          label={t("Facings")}
          value={String(action.ways) as "1" | "2" | "4" | "8"}
          options={[
            ["1", t("1 way")],
            ["2", "2"],
            ["4", "4"],
            ["8", "8"],
          ]}
          onChange={(ways) => act(setWays, name, Number(ways) as Ways)}
        />
      </header>
      <WindRose action={action} looks={looks} />
      <div className="flex flex-wrap items-center gap-2">
        <span className="font-semibold">{looks.toUpperCase()}</span>
        {across !== looks && (
          <Button onClick={mirror} disabled={!canMirror} hint="M">
            {t("Mirror of {across}", { across: across.toUpperCase() })}
          </Button>
        )}
        <Button onClick={clear} disabled={!petal} hint="Del">
          {t("Clear facing")}
        </Button>
        {petal && (
          <Button onClick={() => chooseClip(petal.clip)} hint="Enter">
            {t("Open {clip}", { clip: petal.clip })}
          </Button>
        )}
        {petal?.mirror && (
          <Button
            title={t("Stores mirrored copies of its frames, so that this facing can be edited separately")}
            onClick={() =>
              inBackground(freezeMirrorOf(name, looks).then((error) => error && say({ tone: "trouble", text: error.message })))
            }
          >
            {t("Freeze the mirror")}
          </Button>
        )}
        <span className="grow" />
        <Button onClick={() => act(turnAction, name, -1)} title={t("Shift every clip to the previous facing, with its name")}>
          {t("Turn the rose ↺")}
        </Button>
        <Button onClick={() => act(turnAction, name, 1)} title={t("Shift every clip to the next facing clockwise, with its name")}>
          ↻
        </Button>
        {canFill && <Button onClick={() => act(mirrorMissing, name)}>{t("Mirror missing facings")}</Button>}
        <Button once onClick={() => act(removeAction, name)}>
          {t("Remove the action")}
        </Button>
      </div>
      <section
        aria-label={t("Clips to add")}
        className="max-h-36 shrink-0 overflow-y-auto [@media(max-height:50em)]:max-h-20 rounded-box border border-line bg-surface p-2"
      >
        <p className="mb-1.5 text-muted">
          {t("Click a clip to put it at {looks}, or drag it onto a petal.", { looks: looks.toUpperCase() })}
        </p>
        <ul className="flex flex-wrap gap-1.5">
          {likeliestFirst(clips, name).map((clip) => (
            <li key={clip.name}>
              <ClipChip clip={clip} onClick={() => assign(clip.name, looks, true)} />
            </li>
          ))}
        </ul>
      </section>
    </Dragging>
  );
}

const ACTION_NAME_FIELD = "action-name";

function ActionNameField({ action }: { action: Action }) {
  const rename = (name: string): string | undefined => {
    const error = edit(renameAction, action.name, name);
    if (!error) chooseAction(name.trim() as ActionName);
    return error?.message;
  };
  return (
    <TextField id={ACTION_NAME_FIELD} label={t("Action name")} value={action.name} onChange={rename} className="max-w-full font-bold" />
  );
}

/** The next facing without a clip, clockwise; of a whole rose the same one. */
function nextMissing({ ways, facings }: Action, from: Facing): Facing {
  const rose = FACINGS_OF[ways];
  const start = rose.indexOf(from);
  const following = rose.map((_, k) => rose[(start + 1 + k) % rose.length] as Facing);
  return following.find((each) => each !== from && !facings[each]) ?? from;
}

/** Clips whose names begin like the action's, then the others, each in the order of the list. */
function likeliestFirst(clips: readonly Clip[], name: string): Clip[] {
  const alike = (clip: Clip) => clip.name.toLowerCase().startsWith(name.toLowerCase());
  return [...clips.filter(alike), ...clips.filter((clip) => !alike(clip))];
}

function ClipChip({ clip, onClick }: { clip: Clip; onClick: () => void }) {
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({ id: `clip ${clip.name}`, data: { clip: clip.name } });
  return (
    <button
      ref={setNodeRef}
      type="button"
      onClick={onClick}
      {...listeners}
      className={`min-h-7 touch-manipulation rounded-box border border-line bg-raised px-2 hover:border-lapis ${isDragging ? "relative z-30 opacity-80" : ""}`}
      style={{ transform: CSS.Translate.toString(transform) }}
    >
      {clip.name}
    </button>
  );
}
