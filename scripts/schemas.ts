import { Atlas } from "@caravan/core/atlas";
import { ProjectFile } from "@caravan/core/model";
import * as z from "zod";

/** The published schemas by file name, as text. */
export const SCHEMAS: Record<string, string> = {
  "atlas.schema.json": asText(Atlas, "What a game loads: caravan-atlas, version 1"),
  "project.schema.json": asText(ProjectFile, "caravan.json: caravan-project, version 2"),
};

function asText(schema: z.ZodType, title: string): string {
  return `${JSON.stringify({ title, ...z.toJSONSchema(schema, { io: "input" }) }, null, 2)}\n`;
}
