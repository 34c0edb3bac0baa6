import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, test } from "./fixtures";

test("the schemas of the formats are served as published, and an unknown one is refused", async ({ request }) => {
  for (const format of ["atlas", "project"]) {
    const answer = await request.get(`/api/schema/${format}`);
    expect(answer.headers()["content-type"]).toBe("application/schema+json");
    expect(await answer.json()).toEqual(
      JSON.parse(readFileSync(join(import.meta.dirname, `../docs/formats/${format}.schema.json`), "utf8")),
    );
  }
  const unknown = await request.get("/api/schema/constructor");
  expect(unknown.status()).toBe(404);
  expect(await unknown.json()).toEqual({ error: 'There is no format "constructor". There are: atlas, project.' });
});
