import { describe, expect, it } from "vitest";
import { howServed, ofAnotherBuild } from "./how-served";

const ORIGIN = "http://localhost:4600";
const asked = (path: string, mode = "navigate", method = "GET") => howServed({ url: new URL(path, ORIGIN).href, mode, method }, ORIGIN);

describe("a request, with a cached copy of the studio", () => {
  it("for a page gets the copy's own page, whatever its query", () => {
    expect(asked("/?project=7")).toEqual({ path: "/", of: "this build" });
    expect(asked("/crossing?played=x")).toEqual({ path: "/crossing", of: "this build" });
  });

  it("for a built file may get any build's copy: the name identifies the contents", () => {
    expect(asked("/_next/static/chunks/a.js?dpl=1", "no-cors")).toEqual({ path: "/_next/static/chunks/a.js", of: "any build" });
  });

  it("goes to the server for uploads, data of pages, unknown pages and other hosts", () => {
    expect(asked("/api/build", "cors", "POST")).toBeNull();
    expect(asked("/api/schema/atlas", "cors")).toBeNull();
    expect(asked("/", "cors")).toBeNull();
    expect(asked("/elsewhere")).toBeNull();
    expect(howServed({ url: "http://localhost:4601/", mode: "navigate", method: "GET" }, ORIGIN)).toBeNull();
  });
});

describe("a page that came from the server", () => {
  const html =
    '<script src="/_next/static/chunks/a-1.js"></script><link href="/_next/static/chunks/b~2.css"><i>/_next/static/media/c.woff2</i>';

  it("belongs to another build if it names a script or style that this one lacks", () => {
    expect(ofAnotherBuild(html, ["/_next/static/chunks/a-1.js", "/_next/static/chunks/b~2.css"])).toEqual([]);
    expect(ofAnotherBuild(html, ["/_next/static/chunks/a-1.js"])).toEqual(["/_next/static/chunks/b~2.css"]);
  });
});
