/** Plays the files that lie in `delivered/` beside the page. */
import { whyOf } from "@caravan/core/model";
import { type Depot, playCrossing } from "./game";

const get = (path: string) => fetch(`delivered/${path}`, { cache: "no-store" });

/** `atlas.txt` names the atlas file, and `stamp` changes when files are written. */
const beside: Depot = {
  atlas: async () => (await get((await (await get("atlas.txt")).text()).trim())).text(),
  page: async (image) => (await get(image)).blob(),
  stamp: async () => (await get("stamp")).text(),
};

const told = document.getElementById("told") as HTMLElement;
playCrossing(document.getElementById("stage") as HTMLCanvasElement, told, beside, new AbortController().signal).catch((error: unknown) => {
  told.textContent = `The game cannot start: ${whyOf(error)}`;
});
