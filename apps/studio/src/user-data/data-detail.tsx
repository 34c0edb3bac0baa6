"use client";

import { type DataPlaces, removeData, renameData, setData } from "@caravan/core/edit";
import { type DataEntry, type DataValue, sameValue, textOfValue, valueFromText, valueIn, whyOf } from "@caravan/core/model";
import { X } from "lucide-react";
import { type ComponentProps, useRef, useState } from "react";
import { edit } from "../project/open-project";
import { AS_TYPED } from "../ui/as-typed";
import { Button, IconButton } from "../ui/button";
import { Detail } from "../ui/detail";
import { FieldBox } from "../ui/number-field";
import { TextField } from "../ui/text-field";
import { t } from "../ui/words";

interface Props {
  /** What is written on: all of it gets what is typed. */
  readonly on: DataPlaces;
  /** What each of them has now. */
  readonly things: readonly { readonly data?: readonly DataEntry[] | undefined }[];
  /** What they are, in words: "this frame", "the 8 picked frames". */
  readonly what: string;
}

/** Names and values that the atlas carries to the game, on frames or on clips. */
export function DataDetail({ on, things, what }: Props) {
  const names = [...new Set(things.flatMap(({ data = [] }) => data.map(({ name }) => name)))];
  return (
    <Detail part="data" title={t("Data for the game")} aside={names.length > 0 ? what : undefined}>
      {names.length > 0 && (
        <ul aria-label={t("Data")} className="mb-2 flex flex-col gap-1">
          {names.map((name) => (
            <li key={name} className="flex items-center gap-1">
              <TextField
                label={t("Name of {name}", { name })}
                value={name}
                onChange={(next) => edit(renameData, on, name, next)?.message}
                className="w-28 font-semibold"
              />
              <ValueField
                label={t("Value of {name}", { name })}
                values={things.map(({ data }) => valueIn(data, name))}
                onChange={(value) => edit(setData, on, name, value)?.message}
              />
              <IconButton once label={t("Remove {name}", { name })} look="quiet" onClick={() => edit(removeData, on, name)}>
                <X size={14} />
              </IconButton>
            </li>
          ))}
        </ul>
      )}
      <NewEntry on={on} taken={names} />
      {names.length === 0 && (
        <p className="mt-1.5 text-small text-muted">{t("On {what}. The atlas carries it; without a value it is a tag.", { what })}</p>
      )}
    </Detail>
  );
}

/** One value of several things; if they differ it says so, and a typed value becomes that of all. */
function ValueField({
  label,
  values,
  onChange,
}: {
  readonly label: string;
  readonly values: readonly (DataValue | undefined)[];
  readonly onChange: (value: DataValue) => string | null | undefined;
}) {
  const [first] = values;
  const same = values.every((value) => sameValue(value, first));
  return (
    <TextField
      label={label}
      value={same && first !== undefined ? textOfValue(first) : ""}
      placeholder={same ? t("tag") : t("mixed")}
      onChange={(text) => withValue(text, onChange)}
      className="number max-w-40 grow"
    />
  );
}

/** Passes the value of a text to `take`. Returns what is wrong with the text, or what `take` returns. */
export function withValue(text: string, take: (value: DataValue) => string | null | undefined): string | null | undefined {
  try {
    return take(valueFromText(text, "value"));
  } catch (error) {
    return whyOf(error);
  }
}

function NewEntry({ on, taken }: { on: DataPlaces; taken: readonly string[] }) {
  const [name, setName] = useState("");
  const [value, setValue] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const nameField = useRef<HTMLInputElement>(null);
  const add = () => {
    const wrong = taken.includes(name.trim())
      ? t('There is "{name}" already.', { name: name.trim() })
      : withValue(value, (given) => edit(setData, on, name, given)?.message);
    setProblem(wrong ?? null);
    if (wrong) return;
    setName("");
    setValue("");
    nameField.current?.focus();
  };
  const field = (word: "name" | "value", text: string, set: (text: string) => void, more: ComponentProps<"input">) => (
    <FieldBox label={word === "name" ? t("name") : t("value")}>
      <input
        aria-label={word === "name" ? t("Name of new data") : t("Value of new data")}
        value={text}
        onChange={(event) => set(event.target.value)}
        onKeyDown={(event) => event.key === "Enter" && name.trim() !== "" && add()}
        className="min-h-7 w-20 bg-transparent outline-none"
        {...AS_TYPED}
        {...more}
      />
    </FieldBox>
  );
  return (
    <div className="flex flex-wrap items-center gap-1.5">
      {field("name", name, setName, { ref: nameField })}
      {field("value", value, setValue, { placeholder: t("tag") })}
      <Button disabled={name.trim() === ""} onClick={add}>
        {t("Add")}
      </Button>
      {problem && (
        <p role="alert" className="basis-full text-small text-brick">
          {problem}
        </p>
      )}
    </div>
  );
}
