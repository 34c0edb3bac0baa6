"use client";

import { type Micros, msFromMicros } from "@caravan/core/model";
import { FieldBox, NumberField } from "../../ui/number-field";

const HOUR = 3_600_000; // ms

interface Props {
  /** In the box. */
  readonly word: string;
  /** For screen readers. */
  readonly label: string;
  readonly id?: string;
  readonly value: Micros;
  readonly onChange: (value: Micros) => string | undefined;
  readonly least?: number;
  readonly step?: number;
}

/** A time of steps, shown and typed in milliseconds. */
export function MsField({ word, label, value, onChange, id, least = 0.001, step = 10 }: Props) {
  return (
    <FieldBox label={word}>
      <NumberField
        {...(id === undefined ? {} : { id })}
        label={label}
        value={msFromMicros(value)}
        least={least}
        most={HOUR}
        step={step}
        decimals={3}
        unit="ms"
        onChange={(ms) => onChange(ms * 1000)}
      />
    </FieldBox>
  );
}
