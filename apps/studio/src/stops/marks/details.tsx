"use client";

import { removeMarkKind, renameMarkKind, setBoxUse, setMarkLook } from "@caravan/core/edit";
import { BOX_USES, FIELD_OF_SHAPE, MARK_LINES, type MarkKind, type MarkName } from "@caravan/core/model";
import { chosenReel } from "../../preview/reel";
import { act } from "../../project/act";
import { useNaming } from "../../project/naming";
import { edit, useProject } from "../../project/open-project";
import { PlaceFindings } from "../../project/place-findings";
import { chosenClip, chosenMark, useView } from "../../project/view";
import { Button } from "../../ui/button";
import { Detail } from "../../ui/detail";
import { Select } from "../../ui/select";
import { TextField } from "../../ui/text-field";
import { t } from "../../ui/words";
import { Jumps } from "./jumps";
import { PartsDetail } from "./parts-detail";
import { SHAPES, USES } from "./shapes";

/** Shows the selected kind, with its name and tag, and the findings on the clip's marks. */
export function Details() {
  const project = useProject((each) => each);
  const kind = useView((view) => chosenMark(project, view));
  const clip = useView((view) => chosenClip(project, view));
  const atSource = useView((view) => (chosenReel(project, view)?.source ?? null) !== null);
  return (
    <>
      {kind ? <KindDetail key={kind.name} kind={kind} /> : <OriginDetail />}
      <PartsDetail clip={atSource ? null : clip} />
      {clip && !atSource && <Jumps clip={clip} />}
      {clip && !atSource && (
        <PlaceFindings label={t("Findings on these marks")} at={(place) => place.stop === "marks" && place.clip === clip.name} />
      )}
    </>
  );
}

function OriginDetail() {
  return (
    <Detail title={t("Origin")}>
      <p className="text-muted">
        {t(
          "The point of a frame that goes to the character’s position in the game, usually between its feet. Frames turn and mirror about it, and the line through it is the ground.",
        )}
      </p>
    </Detail>
  );
}

const KIND_NAME_FIELD = "mark-name";

const titled = (word: string) => word.replace(/^./, (first) => first.toUpperCase());

function KindDetail({ kind }: { kind: MarkKind }) {
  useNaming(KIND_NAME_FIELD);
  const rename = (name: string): string | undefined => {
    const error = edit(renameMarkKind, kind.name, name);
    if (!error) useView.setState({ markName: name.trim() as MarkName });
    return error?.message;
  };
  return (
    <Detail part="kind of marks" title={titled(SHAPES[kind.shape].several)}>
      <dl className="grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-1.5">
        <dt className="text-muted">{t("name")}</dt>
        <dd>
          <TextField
            id={KIND_NAME_FIELD}
            label={t("Name of the marks")}
            value={kind.name}
            onChange={rename}
            className="max-w-full font-bold"
          />
        </dd>
        <dt className="text-muted">{t("letter")}</dt>
        <dd>
          <TextField
            label={t("Letter")}
            value={kind.letter}
            onChange={(letter) => edit(setMarkLook, kind.name, { letter: letter.trim() })?.message}
          />
        </dd>
        <dt className="text-muted">{t("line")}</dt>
        <dd>
          <Select
            label={t("Line")}
            value={kind.line}
            options={MARK_LINES.map((line) => [line, line] as const)}
            onChange={(line) => act(setMarkLook, kind.name, { line })}
          />
        </dd>
        {kind.shape !== "point" && (
          <>
            <dt className="text-muted">{t("for")}</dt>
            <dd>
              <Select
                label={t("What the {several} are for", { several: SHAPES[kind.shape].several })}
                className="max-w-full"
                value={kind.use ?? ""}
                options={[["", t("anything")], ...BOX_USES.map((use) => [use, USES[use]] as const)]}
                onChange={(use) => act(setBoxUse, kind.name, use === "" ? null : use)}
              />
            </dd>
          </>
        )}
      </dl>
      <p className="mt-2 text-small text-muted">
        {t("In the atlas file each frame has them under {field}, in its own untrimmed pixels.", {
          field: FIELD_OF_SHAPE[kind.shape],
        })}
      </p>
      <Button
        once
        className="mt-2"
        onClick={() => {
          if (act(removeMarkKind, kind.name)) useView.setState({ markName: null });
        }}
      >
        {t("Remove with all its marks")}
      </Button>
    </Detail>
  );
}
