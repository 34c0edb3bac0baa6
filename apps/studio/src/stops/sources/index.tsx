import type { Project } from "@caravan/core/model";
import { playingAtSources } from "../../preview/playing";
import { Details } from "./details";
import { List } from "./list";
import { Surface } from "./surface";

export const sourcesStop = {
  title: "Sources",
  List,
  Surface,
  Details,
  help: "Drop or paste art anywhere on the page: files, folders, ZIPs. Enter opens the chosen sheet at Frames.",
  playing: playingAtSources,
  state: ({ sources }: Project) => (sources.length === 0 ? "add art" : String(sources.length)),
};
