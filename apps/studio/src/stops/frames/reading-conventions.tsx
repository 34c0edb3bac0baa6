"use client";

import type { Reading } from "@caravan/core/model";
import { Choice } from "../../ui/choice";
import { Select } from "../../ui/select";
import { Tick } from "../../ui/tick";
import { t } from "../../ui/words";

/** Sets the meaning of a metadata file's numbers where more than one is possible. */
export function ReadingConventions({ reading, onChange }: { reading: Reading; onChange: (part: Partial<Reading>) => void }) {
  const { fields } = reading;
  const cells = fields.column !== undefined || fields.index !== undefined;
  return (
    <div className="mt-2 flex flex-wrap items-center gap-2">
      {!cells && (
        <>
          <Select
            label={t("How y is counted")}
            value={reading.yAs ?? "down"}
            options={[
              ["down", t("y down from the top")],
              ["up", t("y up, to the lower edge")],
              ["top-up", t("y up, to the upper edge")],
            ]}
            onChange={(yAs) => onChange({ yAs })}
          />
          <Choice
            label={t("Unit of rectangles")}
            value={reading.rectAs ?? "pixels"}
            options={[
              ["pixels", "px"],
              ["share", t("fractions")],
            ]}
            onChange={(rectAs) => onChange({ rectAs })}
          />
        </>
      )}
      {fields.insetX !== undefined && (
        <Select
          label={t("How insets are counted")}
          value={reading.insetAs ?? "corner"}
          options={[
            ["corner", t("insets from the top left")],
            ["negated", t("insets as negative numbers")],
            ["bottom", t("insets up from the bottom")],
            ["centre", t("insets from the centre, y down")],
            ["centre-up", t("insets from the centre, y up")],
          ]}
          onChange={(insetAs) => onChange({ insetAs })}
        />
      )}
      {fields.originX !== undefined && (
        <>
          <Choice
            label={t("Unit of origins")}
            value={reading.originAs}
            options={[
              ["pixels", "px"],
              ["share", t("fractions")],
            ]}
            onChange={(originAs) => onChange({ originAs })}
          />
          <Tick label={t("origin counted upward")} checked={reading.originUp} onChange={(originUp) => onChange({ originUp })} />
        </>
      )}
      {fields.time !== undefined && (
        <Select
          label={t("Unit of durations")}
          value={reading.timeAs}
          options={[
            ["ms", t("durations in ms")],
            ["seconds", t("durations in seconds")],
            ["fps", t("durations as frames per second")],
            ["ticks", t("durations in ticks of 1/60 s")],
          ]}
          onChange={(timeAs) => onChange({ timeAs })}
        />
      )}
      {fields.turned !== undefined && (
        <Choice
          label={t("Sizes of turned frames")}
          value={reading.turnedAs}
          options={[
            ["upright", t("sizes upright")],
            ["stored", t("sizes as stored")],
          ]}
          onChange={(turnedAs) => onChange({ turnedAs })}
        />
      )}
    </div>
  );
}
