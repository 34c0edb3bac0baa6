import * as z from "zod";
import { PROJECT_VERSION, ProjectFile } from "./project-file";

/** Makes a format's published JSON Schema from the schema that the code checks files with. */
export function jsonSchemaOf(schema: z.ZodType, title: string): object {
  return { title, ...z.toJSONSchema(schema, { io: "input" }) };
}

/** Of `caravan.json`. */
export function projectJsonSchema(): object {
  return jsonSchemaOf(ProjectFile, `caravan.json: caravan-project, version ${PROJECT_VERSION}`);
}
