import type { Stock } from "@caravan/core/art";
import { useMemo } from "react";
import { useProject } from "./open-project";

/** What frames of the open project are drawn from; the same object until one of it changes. */
export function useStock(): Stock {
  const sources = useProject((project) => project.sources);
  const palettes = useProject((project) => project.palettes);
  return useMemo(() => ({ sources, palettes }), [sources, palettes]);
}
