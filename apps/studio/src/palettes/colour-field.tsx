"use client";

import { coloursInText, oklchOf, rgbOfOklch } from "@caravan/core/palette";
import { hexOf, rgbOf } from "@caravan/core/raster";
import { ChevronLeft, ChevronRight } from "lucide-react";
import { useState } from "react";
import { Button } from "../ui/button";
import { OverScreen } from "../ui/more";
import { Slider } from "../ui/slider";
import { TextField } from "../ui/text-field";
import { t } from "../ui/words";

/** Sliders use whole numbers: lightness and chroma in hundredths, hue in degrees. */
const SIDES = [
  ["l", t("lightness"), 100, 100],
  ["c", t("chroma"), 40, 100],
  ["h", t("hue"), 360, 1],
] as const;

/**
 * A colour set by lightness, chroma and hue, or typed. While a slider moves, `onChange` is called with `sliding`, so that the recoloured
 * art is seen in motion.
 */
export function ColourField({
  label,
  colour,
  onChange,
  onExchange,
}: {
  label: string;
  colour: string;
  onChange: (colour: string, sliding: boolean) => string | null | undefined;
  /** Swaps it with its neighbour in a palette, where colours are matched by position; absent if there is none. */
  onExchange?: (by: 1 | -1) => void;
}) {
  // A grey has no hue, and colours outside the screen's range are clipped: the slider values are remembered, so that nothing jumps.
  const [slid, setSlid] = useState<{ readonly colour: string; readonly at: Record<"l" | "c" | "h", number> } | null>(null);
  const at = slid?.colour === colour ? slid.at : oklchOf(rgbOf(colour as Parameters<typeof rgbOf>[0]));
  return (
    <OverScreen
      title={label}
      opens={
        <button
          type="button"
          aria-label={label}
          title={colour}
          className="size-7 rounded-sm border border-line-strong hover:border-ink pointer-coarse:size-10"
          style={{ background: colour }}
        />
      }
    >
      {SIDES.map(([side, word, most, parts]) => (
        <span key={side} className="flex items-center justify-between gap-3">
          <span className="text-muted">{word}</span>
          <Slider
            label={t("{word} of {label}", { word, label })}
            value={Math.round(at[side] * parts)}
            least={0}
            most={most}
            onChange={(next) => {
              const now = { l: at.l, c: at.c, h: at.h, [side]: next / parts };
              const made = hexOf(rgbOfOklch(now));
              setSlid({ colour: made, at: now });
              onChange(made, true);
            }}
          />
          <span className="number w-10 text-right">{Math.round(at[side] * parts)}</span>
        </span>
      ))}
      <TextField
        label={t("{label} as text", { label })}
        value={colour}
        onChange={(text) => {
          const [typed] = coloursInText(text);
          return typed ? onChange(typed, false) : t("Type a colour such as #3b2f2a.");
        }}
      />
      {onExchange && (
        <span className="flex gap-1.5">
          <Button className="min-h-7" onClick={() => onExchange(-1)}>
            <ChevronLeft size={13} /> {t("Exchange")}
          </Button>
          <Button className="min-h-7" onClick={() => onExchange(1)}>
            {t("Exchange")} <ChevronRight size={13} />
          </Button>
        </span>
      )}
    </OverScreen>
  );
}
