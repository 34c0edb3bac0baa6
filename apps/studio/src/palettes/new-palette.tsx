"use client";

import { sheetLook } from "@caravan/core/art";
import { addPalette } from "@caravan/core/edit";
import { counted, MOST_COLOURS, type Source } from "@caravan/core/model";
import { coloursIn, coloursInReadingOrder, coloursInText, matchedByBrightness, ramps, touchingIn } from "@caravan/core/palette";
import { hexOf, rgbOf } from "@caravan/core/raster";
import { useEffect, useState } from "react";
import { act } from "../project/act";
import { currentProject, useProject } from "../project/open-project";
import { pictureOfLook } from "../project/pictures";
import { AS_TYPED } from "../ui/as-typed";
import { Button } from "../ui/button";
import { Choice } from "../ui/choice";
import { chooseFiles } from "../ui/files";
import { inBackground } from "../ui/in-background";
import { CloseMore, More } from "../ui/more";
import { sayTrouble } from "../ui/notices";
import { Select } from "../ui/select";
import { facts, t } from "../ui/words";
import { pixelsOfStill } from "../workers/still";

/** Makes a palette from a sheet's colours, from typed or pasted text, or from a picture; to draw in, or to replace another. */
export function NewPalette({ parts, onMade }: { parts: Source; onMade: (name: string) => void }) {
  return (
    <More label={t("New palette")} title={t("A new palette")}>
      <Fields key={parts.id} parts={parts} onMade={onMade} />
    </More>
  );
}

/** Common palette sizes of machines; one place is often reserved for transparent. */
const SIZES = [
  ["3", t("3 + clear")],
  ["4", "4"],
  ["15", t("15 + clear")],
  ["0", t("any")],
] as const;

function Fields({ parts, onMade }: { parts: Source; onMade: (name: string) => void }) {
  const palettes = useProject((project) => project.palettes) ?? [];
  const bases = palettes.filter(({ of }) => of === undefined);
  const found = useRamps(parts);
  const [text, setText] = useState("");
  const [of, setOf] = useState("");
  const [size, setSize] = useState<(typeof SIZES)[number][0]>("0");
  const [order, setOrder] = useState<"typed" | "brightness">("typed");
  const base = bases.find(({ name }) => name === of);
  const typed = coloursInText(text);
  const kept = size === "0" ? typed : typed.slice(0, Number(size));
  const colours = base && order === "brightness" && kept.length > 0 ? matchedByBrightness(base.colours, kept) : kept;
  const add = (more: readonly string[]) => setText((now) => [...new Set([...coloursInText(now), ...more])].join(" "));
  const make = () => {
    const name = base ? t("{name} variant", { name: base.name }) : parts.name;
    if (act(addPalette, { name, ...(base ? { of: base.name } : {}), colours })) onMade(currentProject().palettes?.at(-1)?.name ?? name);
  };
  return (
    <>
      <div className="flex w-full items-center gap-2">
        <span className="text-muted">{t("it is")}</span>
        <Select
          label={t("What the new palette replaces")}
          value={of}
          options={[["", t("drawn in")], ...bases.map(({ name }) => [name as string, t("replaces {name}", { name })] as const)]}
          onChange={(next) => {
            setOf(next);
            if (text === "") setText(bases.find(({ name }) => name === next)?.colours.join(" ") ?? "");
          }}
        />
      </div>
      <p className="text-muted">
        {found === null
          ? t("{name} has more than {most} colours: type some, or read them from a picture.", { name: parts.name, most: MOST_COLOURS })
          : t("Colours of {name}, in ramps; a click adds one:", { name: parts.name })}
      </p>
      <div className="flex max-h-40 flex-wrap gap-1.5 overflow-y-auto">
        {found?.map((ramp) => (
          <button
            key={ramp.join()}
            type="button"
            aria-label={t("Add the ramp {ramp}", { ramp: ramp.join(" ") })}
            onClick={() => add(ramp)}
            className="flex max-w-full flex-wrap gap-0.5 rounded-box border border-line p-1 hover:border-line-strong"
          >
            {ramp.map((colour) => (
              <span key={colour} className="size-4 rounded-sm" style={{ background: colour }} />
            ))}
          </button>
        ))}
      </div>
      <textarea
        aria-label={t("Colours of the new palette")}
        value={text}
        onChange={(event) => setText(event.target.value)}
        placeholder={t("or type #3b2f2a #8a5a3c …")}
        rows={3}
        {...AS_TYPED}
        className="number w-full rounded-box border border-line bg-raised p-1.5"
      />
      <div className="flex flex-wrap items-center gap-2">
        <Button className="min-h-7" onClick={() => inBackground(fromFile().then((read) => read && add(read)))}>
          {t("From a picture …")}
        </Button>
        {found && found.length > 0 && (
          <Button className="min-h-7" onClick={() => add(found.flat())}>
            {t("All ramps")}
          </Button>
        )}
      </div>
      <Choice label={t("Size of the palette")} value={size} options={SIZES} onChange={setSize} />
      {base && (
        <Choice
          label={t("Matched")}
          value={order}
          options={[
            ["typed", t("in this order")],
            ["brightness", t("by brightness")],
          ]}
          onChange={setOrder}
        />
      )}
      {base && (
        <p className="flex flex-wrap gap-1">
          {base.colours.map((colour, place) => (
            <span
              key={place}
              title={t("{colour} becomes {worn}", { colour, worn: colours[place] ?? colour })}
              className="overflow-hidden rounded-sm border border-line"
            >
              <span className="block h-3 w-5" style={{ background: colour }} />
              <span className="block h-3 w-5" style={{ background: colours[place] ?? colour }} />
            </span>
          ))}
        </p>
      )}
      <p className="text-small text-muted" role="status">
        {facts(
          counted(colours.length, "colour"),
          typed.length > kept.length && t("{count} left out", { count: typed.length - kept.length }),
          base &&
            colours.length < base.colours.length &&
            colours.length > 0 &&
            t("{count} of {name} stay", { count: base.colours.length - colours.length, name: base.name }),
        )}
      </p>
      <CloseMore asChild>
        <Button look="now" disabled={colours.length === 0} onClick={make}>
          {t("Make it")}
        </Button>
      </CloseMore>
    </>
  );
}

/** The ramps of a sheet's colours: undefined while they are computed, null if there are too many. */
function useRamps(parts: Source): string[][] | null | undefined {
  const [found, setFound] = useState<string[][] | null>();
  useEffect(() => {
    let isLate = false;
    const look = async () => {
      const { bitmap, width, height } = await pictureOfLook(sheetLook(parts));
      const context = new OffscreenCanvas(width, height).getContext("2d", { willReadFrequently: true });
      context?.drawImage(bitmap, 0, 0);
      const data = context?.getImageData(0, 0, width, height).data;
      if (!data || isLate) return;
      const pixels = { width, height, bytes: new Uint8Array(data.buffer) };
      const colours = coloursIn([pixels])?.map(({ colour }) => rgbOf(colour as Parameters<typeof rgbOf>[0]));
      setFound(colours ? ramps(colours, touchingIn(pixels)).map((ramp) => ramp.map(hexOf)) : null);
    };
    inBackground(look());
    return () => {
      isLate = true;
    };
  }, [parts]);
  return found;
}

/** The colours of a chosen picture, in reading order; null if it has too many, which is reported. */
async function fromFile(): Promise<string[] | null> {
  const [file] = await chooseFiles("image/*", false);
  if (!file) return null;
  try {
    const colours = coloursInReadingOrder(await pixelsOfStill(file, file.name));
    if (!colours || colours.length === 0)
      sayTrouble(
        colours
          ? t("{name} is fully transparent: it has no colours.", { name: file.name })
          : t("{name} has more than {most} colours, so it cannot be a palette. Choose a picture with one swatch per colour.", {
              name: file.name,
              most: MOST_COLOURS,
            }),
      );
    return colours;
  } catch (error) {
    sayTrouble(error);
    return null;
  }
}
