import { Fragment, type ReactNode } from "react";
import { type GapsOf, inLanguage } from "./words";

/**
 * A text of the catalogue with elements in its gaps, so that a sentence is translated as a whole:
 * `withParts("Delivers into {folder}; writes changed files only.", { folder: <strong>art</strong> })`.
 */
export function withParts<const Text extends string>(text: Text, parts: { readonly [Gap in GapsOf<Text>]: ReactNode }): ReactNode {
  const byGap: Readonly<Record<string, ReactNode>> = parts;
  // Every second piece is the name of a gap.
  return inLanguage(text)
    .split(/\{(\w+)\}/)
    .map((piece, k) => <Fragment key={k}>{k % 2 === 1 ? byGap[piece] : piece}</Fragment>);
}
