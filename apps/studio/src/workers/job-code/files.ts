/** Jobs on whole projects in one file. */
import { readBundle as bundleIn, writeBundle as bundleOf, picturesOf, salvagedBundle, writeProjectFile } from "@caravan/core/bundle";
import { textFromUtf8, writeZip } from "@caravan/core/codec";
import { checkDocument, withDistinctPaths } from "@caravan/core/model";
import { type Answer, type Ask, fromText } from "../jobs";
import { bytesOf, pngCodec } from "../pictures-in-hand";

export async function zip({ files }: Ask<"zip">): Promise<Answer<"zip">> {
  return writeZip(files);
}

/** Writes the document as a bundle has it, with distinct paths. Throws `damaged-project` rather than write what cannot be read. */
export async function projectFile({ project: given }: Ask<"projectFile">): Promise<Answer<"projectFile">> {
  const project = withDistinctPaths(fromText(given));
  checkDocument(project, project.name);
  return textFromUtf8(writeProjectFile(project));
}

export async function writeBundle({ project, pictures, texts }: Ask<"writeBundle">): Promise<Answer<"writeBundle">> {
  const bytes = await Promise.all(pictures.map(async ([sha256, blob]) => [sha256, await bytesOf(blob)] as const));
  return bundleOf({ project: fromText(project), pictures: new Map(bytes), texts: new Map(texts) });
}

export async function readBundle({ name, blob }: Ask<"readBundle">): Promise<Answer<"readBundle">> {
  const { project, pictures, texts } = bundleIn(await bytesOf(blob), name);
  // A picture that does not open would leave a project that cannot be shown: better to refuse the file now.
  const png = await pngCodec();
  for (const { sha256, file } of picturesOf(project)) png.decode(pictures.get(sha256) as Uint8Array, `${name}, ${file}`);
  return { project, pictures: [...pictures], texts: [...texts] };
}

export async function salvageBundle({ name, blob }: Ask<"salvageBundle">): Promise<Answer<"salvageBundle">> {
  const found = salvagedBundle(await bytesOf(blob), name);
  return found && { ...found, pictures: [...found.pictures], texts: [...found.texts] };
}
