import { fitFileName, fittedName } from "../model";

/** A file's name without folders and ending, fit to be a name. */
export function nameFromFile(fileName: string): string {
  const stem = (fileName.split(/[\\/]/).pop() ?? "").replace(/\.(a?png|gif|webp|jpe?g|avif|bmp|tga|ora|json|xml|csv|tsv|txt)$/i, "");
  if (stem.trim() === "__proto__") return "proto";
  const fit = fittedName(fitFileName(stem), 120);
  return fit === null || /^\.+$/.test(fit) ? "picture" : fit;
}
