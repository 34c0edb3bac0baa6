import { buildUpload, MOST_BYTES, Refusal } from "../../../src/server/build-upload";
import { foreignIn } from "../../../src/server/foreign";

export const runtime = "nodejs";

/** `POST /api/build`, a `*.caravan` file as its body: what the project delivers, as a ZIP; else `{"error"}` in words. */
export async function POST(request: Request): Promise<Response> {
  const foreign = foreignIn(request.headers, process.env.CARAVAN_HOST);
  if (foreign) return Response.json({ error: foreign }, { status: 403 });
  try {
    const told = Number(request.headers.get("content-length") ?? 0);
    if (told > MOST_BYTES)
      throw new Refusal(413, `The project is larger than ${MOST_BYTES >> 20} MB. Build it with the command line: npx caravan build.`);
    if (!request.body) throw new Refusal(422, "Nothing was uploaded. Send a *.caravan file as the request's body.");
    const { stream, bytes } = await buildUpload(request.body, request.signal);
    return new Response(stream, { headers: { "content-type": "application/zip", "content-length": String(bytes) } });
  } catch (error) {
    // The client went away; nobody hears the answer.
    if (request.signal.aborted) return new Response(null, { status: 499 });
    if (error instanceof Refusal) return Response.json({ error: error.message }, { status: error.status });
    console.error("POST /api/build:", error);
    return Response.json({ error: "The build failed, and it is not the project's fault. The server's log has more." }, { status: 500 });
  }
}
