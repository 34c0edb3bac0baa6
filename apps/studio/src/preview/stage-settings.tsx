"use client";

import { useProject } from "../project/open-project";
import { Button } from "../ui/button";
import { Choice } from "../ui/choice";
import { CloseMore, More } from "../ui/more";
import { FieldBox, NumberField } from "../ui/number-field";
import { t } from "../ui/words";
import { MOST_GHOSTS } from "./ghosts";
import { layersToSee } from "./hidden-layers";
import { LayersShown } from "./layers-shown";
import { usePlayer } from "./player-state";

/** Settings of the stage: backdrop, which point stays still, ghosts of neighbouring steps. */
export function StageSettings({ onPickColour }: { onPickColour: () => void }) {
  const ground = usePlayer((state) => state.ground);
  const held = usePlayer((state) => state.held);
  const before = usePlayer((state) => state.ghostsBefore);
  const after = usePlayer((state) => state.ghostsAfter);
  const look = usePlayer((state) => state.ghostLook);
  const layered = useProject((project) => layersToSee(project).length > 0);
  return (
    <More label={t("Stage")} title={t("How the stage looks")}>
      <Setting word={t("Backdrop")}>
        <Choice
          label={t("Backdrop")}
          value={ground}
          options={[
            ["check", t("Check")],
            ["flat", t("Flat")],
            ["land", t("Desert")],
          ]}
          onChange={(next) => usePlayer.setState({ ground: next })}
        />
      </Setting>
      {ground === "flat" && (
        <Setting word={t("Its colour")}>
          <CloseMore asChild>
            <Button onClick={onPickColour}>{t("Pick from the art")}</Button>
          </CloseMore>
          <Button onClick={() => usePlayer.setState({ colour: null })}>{t("Grey")}</Button>
        </Setting>
      )}
      <Setting word={t("Held still")}>
        <Choice
          label={t("Held still")}
          value={held}
          options={[
            ["origin", t("Origin")],
            ["frame", t("Frame")],
          ]}
          onChange={(next) => usePlayer.setState({ held: next })}
        />
      </Setting>
      <Setting word={t("Ghosts")}>
        <FieldBox label={t("before")}>
          <NumberField
            label={t("Ghosts before")}
            value={before}
            most={MOST_GHOSTS}
            onChange={(next) => void usePlayer.setState({ ghostsBefore: next })}
          />
        </FieldBox>
        <FieldBox label={t("after")}>
          <NumberField
            label={t("Ghosts after")}
            value={after}
            most={MOST_GHOSTS}
            onChange={(next) => void usePlayer.setState({ ghostsAfter: next })}
          />
        </FieldBox>
      </Setting>
      {layered && (
        <Setting word={t("Layers")}>
          <LayersShown />
        </Setting>
      )}
      {before + after > 0 && (
        <Setting word={t("Seen as")}>
          <Choice
            label={t("Ghosts are")}
            value={look}
            options={[
              ["tint", t("Tints")],
              ["outline", t("Outlines")],
            ]}
            onChange={(next) => usePlayer.setState({ ghostLook: next })}
          />
        </Setting>
      )}
    </More>
  );
}

function Setting({ word, children }: { word: string; children: React.ReactNode }) {
  return (
    <div className="flex flex-wrap items-center gap-1.5">
      <span className="w-18 shrink-0 text-small text-muted">{word}</span>
      {children}
    </div>
  );
}
