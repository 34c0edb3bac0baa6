"use client";

import type { Source } from "@caravan/core/model";
import { useView, type Way } from "../../project/view";
import { Choice } from "../../ui/choice";
import { useKeys } from "../../ui/keys";
import { rememberCells } from "./cells-before";
import { WAYS, wayNamed, wayOf } from "./ways-table";

/** Choosing how to cut. Frames that stay the same rectangle keep their names and clips, whichever way. */
export function Ways({ source }: { source: Source }) {
  const chosen = useView((view) => view.way);
  const way = wayOf(source, chosen);
  const choose = (next: Way) => {
    useView.setState({ way: next });
    wayNamed(next)?.begin?.(source);
  };
  rememberCells(source);
  useKeys(
    "Ways of cutting",
    WAYS.map(({ way: each, key, command }) => ({ keys: key, label: command, run: () => choose(each) })),
  );
  if (way === "pictures") return <p className="text-muted">A series: each of its {source.pictures.length} pictures is a frame.</p>;
  const options = WAYS.map(({ way: each, title }) => [each as string, title] as const);
  return (
    <Choice
      label="Way of cutting"
      value={way === "metadata" ? "" : way}
      options={way === "metadata" ? [...options, ["", "Metadata"] as const] : options}
      onChange={(next) => next !== "" && choose(next as Way)}
    />
  );
}
