import * as z from "zod";
import { PROJECT_VERSION, ProjectFile } from "./project-file";

/** The JSON Schema of a format, as it is published: made from the very schema that the code checks files by. */
export function jsonSchemaOf(schema: z.ZodType, title: string): object {
  return { title, ...z.toJSONSchema(schema, { io: "input" }) };
}

/** Of `caravan.json`. */
export function projectJsonSchema(): object {
  return jsonSchemaOf(ProjectFile, `caravan.json: caravan-project, version ${PROJECT_VERSION}`);
}
