"use client";

import { sheetLook } from "@caravan/core/art";
import { type Clearing, MOST_GROUNDS, type Source } from "@caravan/core/model";
import { useEffect, useRef } from "react";
import { clearSource } from "../../project/clear-source";
import { type Picture, usePicture } from "../../project/pictures";
import { Button } from "../../ui/button";
import { inBackground } from "../../ui/in-background";
import { useKeys } from "../../ui/keys";
import { t } from "../../ui/words";

const GROUNDS = {
  plain: t("a plain background"),
  key: "a key colour as its background",
  checker: t("a picture of a checkerboard as its background"),
};

interface Offer {
  readonly words: string;
  readonly button: string;
  /** Whether it is surely none of the figures. */
  readonly sure: boolean;
  readonly clearing: Clearing;
}

/** Tells of an opaque ground, or of one behind each figure, with the way to clear it. */
export function GroundLine({ source }: { source: Source }) {
  const picture = usePicture(sheetLook(source));
  const offer = picture ? offerOf(source, picture) : null;
  // Asked for while the picture is still being read, it is done as soon as it is there.
  const asked = useRef<Source["id"] | null>(null);
  const clear = () => {
    if (offer) inBackground(clearSource(source, offer.clearing));
    else asked.current = source.id;
  };
  useEffect(() => {
    if (!picture) return;
    if (asked.current === source.id) clear();
    asked.current = null;
  });
  useKeys(t("The background"), offer || !picture ? [{ keys: "u", label: t("Clear the opaque background"), run: clear }] : []);
  if (!offer) return null;
  const { words, button, sure } = offer;
  return (
    <div
      className={`flex items-center justify-between gap-3 rounded-box border border-line bg-raised px-3 py-1.5 ${sure ? "border-l-4 border-l-brick" : ""}`}
    >
      <p>{words}</p>
      <Button look={sure ? "now" : "plain"} onClick={clear} hint="U" aria-keyshortcuts="u">
        {button}
      </Button>
    </div>
  );
}

function offerOf({ clearing }: Source, { ground, blocks }: Picture): Offer | null {
  const cleared = clearing?.colours ?? [];
  if (ground && cleared.length === 0)
    return {
      words: t("This sheet has {ground}, {colours}: games would show it.", {
        ground: GROUNDS[ground.kind],
        colours: ground.clearing.colours.join(` ${t("and")} `),
      }),
      button: t("Clear the background"),
      sure: true,
      clearing: { ...ground.clearing, specks: clearing?.specks },
    };
  if (!blocks || cleared.includes(blocks) || cleared.length >= MOST_GROUNDS) return null;
  return {
    words: t("Its figures stand in front of blocks of {colour}: games would show these too.", { colour: blocks }),
    button: t("Clear the blocks"),
    sure: false,
    clearing: { tolerance: 0, from: "edges", fringe: false, ...clearing, colours: [...cleared, blocks] },
  };
}
