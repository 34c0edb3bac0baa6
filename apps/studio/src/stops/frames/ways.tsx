"use client";

import type { Source } from "@caravan/core/model";
import { useView, type Way } from "../../project/view";
import { Choice } from "../../ui/choice";
import { useKeys } from "../../ui/keys";
import { t } from "../../ui/words";
import { WAYS, wayNamed, wayOf } from "./ways-table";

/** Chooses the way of cutting. Frames whose rectangle stays the same keep their names and clips in any way. */
export function Ways({ source }: { source: Source }) {
  const chosen = useView((view) => view.way);
  const way = wayOf(source, chosen);
  const choose = (next: Way) => {
    useView.setState({ way: next });
    wayNamed(next)?.begin?.(source);
  };
  useKeys(
    t("Ways of cutting"),
    WAYS.map(({ way: each, key, command }) => ({ keys: key, label: command, run: () => choose(each) })),
  );
  if (way === "pictures")
    return <p className="text-muted">{t("A series: each of its {count} pictures is a frame.", { count: source.pictures.length })}</p>;
  const options = WAYS.map(({ way: each, title }) => [each as string, title] as const);
  return (
    <Choice
      label={t("Way of cutting")}
      value={way === "metadata" ? "" : way}
      options={way === "metadata" ? [...options, ["", t("Metadata")] as const] : options}
      onChange={(next) => next !== "" && choose(next as Way)}
    />
  );
}
