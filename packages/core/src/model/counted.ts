import { inLanguage } from "../words";

/** "1 frame", "3 frames"; the words without their number are what another language translates. */
export function counted(count: number, one: string, many = `${one}s`): string {
  return inLanguage(count === 1 ? `{count} ${one}` : `{count} ${many}`).replace("{count}", String(count));
}
