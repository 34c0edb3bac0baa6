import { readText } from "@caravan/core/codec";

/** What a metadata file says, read as when it is imported. */
export async function textOfFile(file: File): Promise<string> {
  return readText(new Uint8Array(await file.arrayBuffer())).text;
}
