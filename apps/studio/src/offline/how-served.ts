/**
 * Decides how the service worker answers a request. A page and its files always come from the same build, so nothing changes under open
 * work when the server restarts with a newer one.
 */

/** Pages that are cached, whatever query their address has. */
export const PAGES = ["/", "/crossing"] as const;
/** What is cached besides pages and build output. */
export const EXTRAS = ["/demo.caravan", "/icon.svg", "/manifest.webmanifest"] as const;

/** Which cached copy is used: this build's own, or any build's, for files whose names identify their contents. */
export interface Kept {
  readonly path: string;
  readonly of: "this build" | "any build";
}

/** Null for requests that only the server can answer: uploads, and anything not cached. */
export function howServed(request: { readonly url: string; readonly method: string; readonly mode: string }, origin: string): Kept | null {
  const { origin: host, pathname } = new URL(request.url);
  if (host !== origin || request.method !== "GET") return null;
  if (pathname.startsWith("/_next/static/")) return { path: pathname, of: "any build" };
  if (request.mode === "navigate" && isIn(PAGES, pathname)) return { path: pathname, of: "this build" };
  return isIn(EXTRAS, pathname) ? { path: pathname, of: "this build" } : null;
}

function isIn(list: readonly string[], path: string): boolean {
  return list.includes(path);
}

/** The files of builds that a page names and that are not among `files`: the server has begun to serve another build meanwhile. */
export function ofAnotherBuild(html: string, files: readonly string[]): string[] {
  const own = new Set(files);
  const named = [...html.matchAll(/\/_next\/static\/[\w./~-]+\.(?:js|css)/g)].map(([path]) => path);
  return [...new Set(named)].filter((path) => !own.has(path));
}
