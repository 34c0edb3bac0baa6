/** Jobs on metadata and examples. */
import { learnExample as learned, toldOfExample } from "@caravan/core/example";
import { understandAs, understand as understood } from "@caravan/core/metadata";
import type { Answer, Ask } from "../jobs";

export async function understand({ text, where, picture, coverage, known }: Ask<"understand">): Promise<Answer<"understand">> {
  return understood(text, { picture, coverage }, where, known);
}

export async function readAs({ text, where, picture, coverage, reading }: Ask<"readAs">): Promise<Answer<"readAs">> {
  return understandAs(text, { picture, coverage }, where, reading);
}

export async function learnExample({ text, where, seen }: Ask<"learnExample">): Promise<Answer<"learnExample">> {
  return learned(text, where, seen);
}

export async function tellExample({ example }: Ask<"tellExample">): Promise<Answer<"tellExample">> {
  return toldOfExample(example);
}
