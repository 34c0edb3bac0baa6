/** The text of metadata files that cut a source, for as long as the page is open: to read them again when a field was understood wrongly. */
import { cutByMetadata } from "@caravan/core/edit";
import { lookOf, type Reading, type Source, type SourceId, sheetOf } from "@caravan/core/model";
import { create } from "zustand";
import { run } from "../workers/client";
import { framesAndClips } from "./arriving/proposals";
import { edit } from "./open-project";
import { pictureOfLook } from "./pictures";

export interface MetadataText {
  readonly text: string;
  readonly file: string;
  /** Paths that its records have. */
  readonly paths: readonly string[];
}

export const useMetadataTexts = create<{ readonly texts: ReadonlyMap<SourceId, MetadataText> }>(() => ({ texts: new Map() }));

export function keepMetadataText(source: SourceId, text: MetadataText): void {
  useMetadataTexts.setState(({ texts }) => ({ texts: new Map(texts).set(source, text) }));
}

/** Cuts the source anew by a corrected reading. Returns what is wrong with it, null if nothing is. */
export async function readAgain(source: Source, { text, file }: MetadataText, reading: Reading): Promise<string | null> {
  try {
    const { coverage } = await pictureOfLook(lookOf(source, sheetOf(source)));
    const understood = await run("readAs", { text, where: file, picture: `${source.name}.png`, coverage, reading });
    if (understood.frames.length === 0) return `So read, no frame lies on the picture. ${understood.unplaced[0]?.why ?? ""}`;
    const { told } = framesAndClips(understood);
    return edit(cutByMetadata, source.id, { by: "metadata", file, reading }, told)?.message ?? null;
  } catch (error) {
    return error instanceof Error ? error.message : String(error);
  }
}
