"use client";

import { sheetLook } from "@caravan/core/art";
import type { Source } from "@caravan/core/model";
import { clearSource } from "../../project/clear-source";
import { usePicture } from "../../project/pictures";
import { Button } from "../../ui/button";
import { useKeys } from "../../ui/keys";
import { t } from "../../ui/words";

const GROUNDS = {
  plain: t("a plain background"),
  key: "a key colour as its background",
  checker: t("a picture of a checkerboard as its background"),
};

/** Tells of an opaque ground, with the way to clear it. */
export function GroundLine({ source }: { source: Source }) {
  const picture = usePicture(sheetLook(source));
  const { clearing } = source;
  const ground = clearing && clearing.colours.length > 0 ? null : (picture?.ground ?? null);
  const clear = () => ground && clearSource(source, { ...ground.clearing, specks: clearing?.specks });
  useKeys(t("The background"), ground ? [{ keys: "u", label: t("Clear the opaque background"), run: () => clear() }] : []);
  if (!ground) return null;
  return (
    <div className="flex items-center justify-between gap-3 rounded-box border border-l-4 border-line border-l-brick bg-raised px-3 py-1.5">
      <p>
        {t("This sheet has {ground}, {colours}: games would show it.", {
          ground: GROUNDS[ground.kind],
          colours: ground.clearing.colours.join(` ${t("and")} `),
        })}
      </p>
      <Button look="now" onClick={() => clear()} hint="U" aria-keyshortcuts="u">
        {t("Clear the background")}
      </Button>
    </div>
  );
}
