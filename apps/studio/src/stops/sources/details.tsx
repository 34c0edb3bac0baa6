"use client";

import { lookOf } from "@caravan/core/art";
import { removeSource, renameSource } from "@caravan/core/edit";
import { isOfPieces, type Source, sheetOf } from "@caravan/core/model";
import { edit, useProject } from "../../project/open-project";
import { type Picture, usePicture } from "../../project/pictures";
import { chosenSource, go, useView } from "../../project/view";
import { Button } from "../../ui/button";
import { Detail, Facts } from "../../ui/detail";
import { FIELDS } from "../../ui/fields-by-key";
import { sizeInWords } from "../../ui/files";
import { inBackground } from "../../ui/in-background";
import { sayUnlessDone } from "../../ui/notices";
import { TextField } from "../../ui/text-field";
import { useIsWide } from "../../ui/wide";
import { t } from "../../ui/words";
import { backgroundInWords, coloursInWords, cutInWords } from "./facts";
import { replaceArt } from "./replace-art";
import { Treatment } from "./treatment";

/** Shows the selected source: its facts, its name, and actions on it. */
export function Details() {
  const project = useProject((each) => each);
  const source = useView((view) => chosenSource(project, view));
  const isWide = useIsWide();
  const picture = usePicture(source && !isOfPieces(source) ? lookOf(source, sheetOf(source)) : undefined);
  if (!source) return null;
  const ofPieces = isOfPieces(source);
  const remove = () => {
    const error = edit(removeSource, source.id);
    sayUnlessDone(error);
  };
  return (
    <>
      <Detail title={t("Selected source")}>
        <TextField
          id={FIELDS.sourceName}
          label={t("Source name")}
          value={source.name}
          onChange={(name) => edit(renameSource, source.id, name)?.message}
          className="mb-1 font-bold"
        />
        <Facts facts={[[t("size"), sizeOf(source)], [t("cut"), cutInWords(source)], ...(ofPieces ? [] : factsOfFile(picture))]} />
        {picture?.facts.ground === "opaque" && (
          <p className="mt-2 rounded-box border border-l-4 border-line border-l-brick bg-raised p-2 text-small">
            {t("Every pixel of it is opaque: in the game its background will show behind each frame.")}
          </p>
        )}
        <div className="mt-3 flex flex-wrap gap-2">
          <Button look="now" onClick={() => go("frames")}>
            {source.cut ? t("See its frames") : t("Cut it")}
          </Button>
          {!ofPieces && <Button onClick={() => inBackground(replaceArt(source))}>{t("Replace its art …")}</Button>}
          <Button once onClick={remove}>
            {t("Remove")}
          </Button>
        </div>
      </Detail>
      {!ofPieces && !isWide && <Treatment source={source} />}
    </>
  );
}

function sizeOf(source: Source): string {
  const { w, h } = isOfPieces(source)
    ? (source.frames[0]?.size ?? { w: 0, h: 0 })
    : { w: sheetOf(source).width, h: sheetOf(source).height };
  return `${w} × ${h} px`;
}

function factsOfFile(picture: Picture | undefined): [word: string, value: string][] {
  return [
    [t("colours"), picture ? coloursInWords(picture.facts) : "…"],
    [t("background"), picture ? backgroundInWords(picture.facts) : "…"],
    [t("file"), picture ? sizeInWords(picture.bytes) : "…"],
  ];
}
