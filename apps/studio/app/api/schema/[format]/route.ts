import { atlasJsonSchema } from "@caravan/core/atlas";
import { projectJsonSchema } from "@caravan/core/model";
import { foreignIn } from "../../../../src/server/foreign";

const SCHEMAS: Record<string, () => object> = { atlas: atlasJsonSchema, project: projectJsonSchema };

/** `GET /api/schema/atlas` and `/api/schema/project`: the JSON Schemas of our formats, for editors and build scripts. */
export async function GET(request: Request, { params }: { params: Promise<{ format: string }> }): Promise<Response> {
  const foreign = foreignIn(request.headers, process.env.CARAVAN_HOST);
  if (foreign) return Response.json({ error: foreign }, { status: 403 });
  const { format } = await params;
  const schema = Object.hasOwn(SCHEMAS, format) ? SCHEMAS[format] : undefined;
  if (!schema) return Response.json({ error: `There is no format "${format}". There are: atlas, project.` }, { status: 404 });
  return Response.json(schema(), { headers: { "content-type": "application/schema+json" } });
}
