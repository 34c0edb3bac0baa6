/**
 * Keeps a copy of the studio in the browser, so that it opens and works without its server. scripts/build-service-worker.mjs bundles this
 * into `public/sw.js` and inserts the build's name and file list. A newer version waits until a person takes it (`keep-offline.ts`) or no
 * page is open.
 */
import { EXTRAS, howServed, type Kept, ofAnotherBuild, PAGES } from "./how-served";

declare const BUILD: string;
/** Paths of all build output for browsers; their names identify their contents. */
declare const FILES: readonly string[];

const PREFIX = "caravan-studio-";
const CACHE = PREFIX + BUILD;
/** The copy before the last one stays: pages that were opened with it may still ask for their files. */
const COPIES = 2;

const worker = self as unknown as ServiceWorkerGlobalScope;

worker.addEventListener("install", (event) => event.waitUntil(keepAll()));
worker.addEventListener("activate", (event) => event.waitUntil(takeOver()));
worker.addEventListener("message", ({ data }) => {
  if (data === "take over") void worker.skipWaiting();
});
worker.addEventListener("fetch", (event) => {
  const kept = howServed(event.request, worker.location.origin);
  if (kept) event.respondWith(answer(event.request, kept));
});

/** All or nothing: a copy that lacks a file is none. */
async function keepAll(): Promise<void> {
  const cache = await caches.open(CACHE);
  try {
    await Promise.all(FILES.map((path) => keepFile(cache, path)));
    await cache.addAll(EXTRAS.map((path) => new Request(path, { cache: "reload" })));
    for (const path of PAGES) {
      const page = await fetch(path, { cache: "reload" });
      if (!page.ok || ofAnotherBuild(await page.clone().text(), FILES).length > 0) throw new Error(`${path} is not of this build.`);
      await cache.put(path, page);
    }
  } catch (error) {
    await caches.delete(CACHE);
    throw error;
  }
}

async function keepFile(cache: Cache, path: string): Promise<void> {
  const known = await caches.match(path);
  if (known) await cache.put(path, known);
  else await cache.add(path);
}

async function takeOver(): Promise<void> {
  // In the order in which they were made.
  const own = (await caches.keys()).filter((name) => name.startsWith(PREFIX) && name !== CACHE);
  await Promise.all(own.slice(0, Math.max(0, own.length - COPIES + 1)).map((name) => caches.delete(name)));
  await worker.clients.claim();
}

async function answer(request: Request, { path, of }: Kept): Promise<Response> {
  const options = { ignoreVary: true, ...(of === "this build" ? { cacheName: CACHE } : {}) };
  const known = await caches.match(path, options);
  // Copied without its own address: a worker reads its script name from behind the # of the requested address.
  return known ? new Response(known.body, known) : fetch(request);
}
