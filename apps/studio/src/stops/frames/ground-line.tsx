"use client";

import { sheetLook } from "@caravan/core/art";
import type { Source } from "@caravan/core/model";
import { clearSource } from "../../project/clear-source";
import { usePicture } from "../../project/pictures";
import { Button } from "../../ui/button";
import { useKeys } from "../../ui/keys";

const GROUNDS = {
  plain: "a plain background",
  key: "a key colour as its background",
  checker: "a picture of a checkerboard as its background",
};

/** Tells of an opaque ground, with the way to clear it. */
export function GroundLine({ source }: { source: Source }) {
  const picture = usePicture(sheetLook(source));
  const { clearing } = source;
  const ground = clearing && clearing.colours.length > 0 ? null : (picture?.ground ?? null);
  const clear = () => ground && clearSource(source, { ...ground.clearing, specks: clearing?.specks });
  useKeys("The background", ground ? [{ keys: "u", label: "Clear the opaque background", run: () => clear() }] : []);
  if (!ground) return null;
  return (
    <div className="flex items-center justify-between gap-3 rounded-box border border-l-4 border-line border-l-brick bg-raised px-3 py-1.5">
      <p>
        This sheet has {GROUNDS[ground.kind]}, {ground.clearing.colours.join(" and ")}: games would show it.
      </p>
      <Button look="now" onClick={() => clear()} hint="U" aria-keyshortcuts="u">
        Clear the background
      </Button>
    </div>
  );
}
