/** Jobs on incoming files. */
import { lettersOfNames, readZip } from "@caravan/core/codec";
import type { Answer, Ask } from "../jobs";
import { bytesOf, pngCodec } from "../pictures-in-hand";
import { readArt as artIn } from "../read-art";

export async function readArt({ name, blob }: Ask<"readArt">): Promise<Answer<"readArt">> {
  return artIn(blob, name, await pngCodec());
}

export async function unzip({ name, blob }: Ask<"unzip">): Promise<Answer<"unzip">> {
  const archive = await bytesOf(blob);
  return { files: readZip(archive, name), guessed: lettersOfNames(archive) };
}
