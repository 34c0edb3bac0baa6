import { BEEN, MET, THEME } from "./been-here";

/**
 * A script for the start of the page, run before anything is drawn, because the studio's code comes too late for what it does:
 *
 * - The chosen theme is set, so that the page does not begin in the other.
 * - The first view is the demo's: it is not for a browser that has projects, nor for an address that asks for one. Otherwise its picture,
 *   at the address `picture`, is asked for before the code.
 * - Dropped files are kept for the studio (`project/importing/early-drops`): the browser would leave the page and show one of them. The
 *   entries of a drop are read in the event itself, afterwards it has none.
 */
export function beforeAnything(picture: string): string {
  return `try {
  const page = document.documentElement.dataset, theme = localStorage.getItem(${JSON.stringify(THEME)});
  if (theme === "day" || theme === "dusk") page.theme = theme;
  const been = localStorage.getItem(${JSON.stringify(BEEN)}) || localStorage.getItem(${JSON.stringify(MET)});
  if (been || (location.search && location.search !== "?demo")) page.been = "";
  else document.head.append(Object.assign(document.createElement("link"), { rel: "preload", as: "image", href: ${JSON.stringify(picture)}, fetchPriority: "high" }));
} catch {}
{
  const drops = [];
  const over = (event) => event.dataTransfer?.types.includes("Files") && event.preventDefault();
  const drop = (event) => {
    over(event);
    const entries = [...event.dataTransfer.items].map((item) => item.webkitGetAsEntry?.() ?? null);
    drops.push({ items: entries.map((entry) => ({ webkitGetAsEntry: () => entry })), files: [...event.dataTransfer.files] });
  };
  addEventListener("dragover", over);
  addEventListener("drop", drop);
  window.caravanEarly = { drops, over: () => { removeEventListener("dragover", over); removeEventListener("drop", drop); } };
}`;
}
