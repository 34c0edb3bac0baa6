"use client";

import type { Reading } from "@caravan/core/model";
import { Choice } from "../../ui/choice";
import { Select } from "../../ui/select";
import { Tick } from "../../ui/tick";

/** How the numbers of a metadata file are meant, where more than one way is possible. */
export function ReadingConventions({ reading, onChange }: { reading: Reading; onChange: (part: Partial<Reading>) => void }) {
  const { fields } = reading;
  const cells = fields.column !== undefined || fields.index !== undefined;
  return (
    <div className="mt-2 flex flex-wrap items-center gap-2">
      {!cells && (
        <>
          <Select
            label="How y is counted"
            value={reading.yAs ?? "down"}
            options={[
              ["down", "y down from the top"],
              ["up", "y up, to the lower edge"],
              ["top-up", "y up, to the upper edge"],
            ]}
            onChange={(yAs) => onChange({ yAs })}
          />
          <Choice
            label="Unit of rectangles"
            value={reading.rectAs ?? "pixels"}
            options={[
              ["pixels", "px"],
              ["share", "share"],
            ]}
            onChange={(rectAs) => onChange({ rectAs })}
          />
        </>
      )}
      {fields.insetX !== undefined && (
        <Select
          label="How insets are counted"
          value={reading.insetAs ?? "corner"}
          options={[
            ["corner", "insets from the top left"],
            ["negated", "insets as negative numbers"],
            ["bottom", "insets up from the bottom"],
            ["centre", "insets from the middle, y down"],
            ["centre-up", "insets from the middle, y up"],
          ]}
          onChange={(insetAs) => onChange({ insetAs })}
        />
      )}
      {fields.originX !== undefined && (
        <>
          <Choice
            label="Unit of origins"
            value={reading.originAs}
            options={[
              ["pixels", "px"],
              ["share", "share"],
            ]}
            onChange={(originAs) => onChange({ originAs })}
          />
          <Tick label="origin counted upward" checked={reading.originUp} onChange={(originUp) => onChange({ originUp })} />
        </>
      )}
      {fields.time !== undefined && (
        <Select
          label="Unit of durations"
          value={reading.timeAs}
          options={[
            ["ms", "durations in ms"],
            ["seconds", "durations in seconds"],
            ["fps", "durations as frames per second"],
            ["ticks", "durations in ticks of 1/60 s"],
          ]}
          onChange={(timeAs) => onChange({ timeAs })}
        />
      )}
      {fields.turned !== undefined && (
        <Choice
          label="Sizes of turned frames"
          value={reading.turnedAs}
          options={[
            ["upright", "sizes upright"],
            ["stored", "sizes as stored"],
          ]}
          onChange={(turnedAs) => onChange({ turnedAs })}
        />
      )}
    </div>
  );
}
