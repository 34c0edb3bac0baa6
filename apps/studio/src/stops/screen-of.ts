import type { ComponentType } from "react";
import { type Part, part } from "../ui/part";

interface Screen {
  readonly List: ComponentType;
  readonly Surface: ComponentType;
  readonly Details: ComponentType;
}

/** The three columns of a stop, whose code comes when the stop is first gone to, or before. */
export function screenOf(load: () => Promise<Screen>): { readonly [Column in keyof Screen]: Part<object> } {
  return {
    List: part(async () => (await load()).List),
    Surface: part(async () => (await load()).Surface),
    Details: part(async () => (await load()).Details),
  };
}
