export { type GapsOf, inLanguage, speak, t } from "./words";
