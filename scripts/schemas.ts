import { atlasJsonSchema } from "@caravan/core/atlas";
import { projectJsonSchema } from "@caravan/core/model";
import { printedJsonSchema } from "../packages/cli/src/printed";

/** The published schemas by file name, as text. */
export const SCHEMAS: Record<string, string> = {
  "atlas.schema.json": asText(atlasJsonSchema()),
  "project.schema.json": asText(projectJsonSchema()),
  "command.schema.json": asText(printedJsonSchema()),
};

function asText(schema: object): string {
  return `${JSON.stringify(schema, null, 2)}\n`;
}
