"use client";

import {
  addSourceVariant,
  addVariants,
  clipsToDress,
  colourEverywhere,
  removePalette,
  renamePalette,
  setPaletteColours,
  setPaletteOf,
  setSourcePalette,
} from "@caravan/core/edit";
import { counted, frameRef, isOfPieces, type Palette, type Source } from "@caravan/core/model";
import { coloursInText, matchedByBrightness } from "@caravan/core/palette";
import { X } from "lucide-react";
import { act } from "../project/act";
import { edit, editInGesture, useProject } from "../project/open-project";
import { Button, IconButton } from "../ui/button";
import { Detail } from "../ui/detail";
import { sayUnlessDone } from "../ui/notices";
import { Select } from "../ui/select";
import { TextField } from "../ui/text-field";
import { t } from "../ui/words";
import { ColourField } from "./colour-field";

/** Shows a palette's name, what it replaces, and its colours, to edit one by one or as text. */
export function PaletteDetail({
  palette,
  all,
  source,
  onRenamed,
}: {
  palette: Palette;
  all: readonly Palette[];
  source: Source;
  /** What it is called now, for who keeps it open by its name. */
  onRenamed: (name: string) => void;
}) {
  const { name, of, colours } = palette;
  const base = all.find((each) => each.name === of);
  const others = all.filter((each) => each.name !== name && each.of === undefined);
  const set = (next: readonly string[]) => edit(setPaletteColours, name, next)?.message;
  return (
    <Detail part={`palette ${name}`} title={t("Palette {name}", { name })} aside={t("{count} colours", { count: colours.length })}>
      <div className="mb-1.5 flex items-center gap-1.5">
        <TextField
          label={t("Name of the palette {name}", { name })}
          value={name}
          onChange={(next) => {
            const error = edit(renamePalette, name, next);
            if (!error) onRenamed(next.trim());
            return error?.message;
          }}
        />
        <Select
          label={t("What {name} replaces", { name })}
          value={of ?? ""}
          options={[
            ["", t("drawn in")],
            ...others.map((each) => [each.name as string, t("replaces {name}", { name: each.name })] as const),
          ]}
          onChange={(next) => act(setPaletteOf, name, next === "" ? null : next)}
        />
        <IconButton once label={t("Remove the palette {name}", { name })} look="quiet" onClick={() => act(removePalette, name)}>
          <X size={13} />
        </IconButton>
      </div>
      {base && <p className="mb-1 text-small text-muted">{t("{name} above, what each colour becomes below:", { name: base.name })}</p>}
      <div className="flex flex-wrap gap-1">
        {colours.map((colour, place) => (
          <span key={place} className="flex flex-col">
            {base && <span className="h-3 rounded-t-sm border border-line border-b-0" style={{ background: base.colours[place] }} />}
            <ColourField
              label={t("Colour {place} of {name}", { place, name })}
              colour={colour}
              onChange={(next, sliding) => {
                const all = colours.with(place, next);
                return sliding ? editInGesture(`colour ${place} of ${name}`, setPaletteColours, name, all)?.message : set(all);
              }}
              onExchange={(by) => {
                const other = colours[place + by];
                if (other !== undefined) sayUnlessDone(edit(setPaletteColours, name, colours.with(place, other).with(place + by, colour)));
              }}
            />
          </span>
        ))}
      </div>
      {base && (
        <Button
          className="mt-1.5 mr-1.5 min-h-7"
          onClick={() => act(setPaletteColours, name, matchedByBrightness(base.colours, colours))}
          title={t("The darkest for the darkest, and so on.")}
        >
          {t("Match by brightness")}
        </Button>
      )}
      <TextField
        label={t("Colours of {name} as text", { name })}
        value={colours.join(" ")}
        onChange={(text) => (coloursInText(text).length === 0 ? t("Type colours such as #3b2f2a #8a5a3c.") : set(coloursInText(text)))}
        className="mt-1.5 w-full"
      />
      {of !== undefined && (isOfPieces(source) ? <ForPieces name={name} source={source} /> : <ForPictures name={name} source={source} />)}
    </Detail>
  );
}

function ForPieces({ name, source }: { name: string; source: Source }) {
  const clips = clipsToDress(
    useProject((each) => each),
    name,
  );
  const refs = source.frames.map((each) => frameRef(source, each));
  return (
    <div className="mt-1.5 flex flex-wrap gap-1.5">
      <Button className="min-h-7" onClick={() => act(colourEverywhere, refs, null, name)}>
        {t("Recolour every frame")}
      </Button>
      <Button
        className="min-h-7"
        disabled={clips.length === 0}
        title={clips.length === 0 ? t("No clip uses the colours that it replaces.") : clips.join(", ")}
        onClick={() => act(addVariants, clips, name)}
      >
        {t("Make {clips} in these colours", { clips: counted(clips.length, "clip") })}
      </Button>
    </div>
  );
}

function ForPictures({ name, source }: { name: string; source: Source }) {
  return (
    <div className="mt-1.5 flex flex-wrap gap-1.5">
      <Button className="min-h-7" disabled={source.palette === name} onClick={() => act(setSourcePalette, source.id, name)}>
        {t("Recolour {name}", { name: source.name })}
      </Button>
      <Button
        className="min-h-7"
        title={t("The same frames, clips and actions again, in these colours.")}
        onClick={() => act(addSourceVariant, source.id, name)}
      >
        {t("A variant of {name}", { name: source.name })}
      </Button>
    </div>
  );
}
