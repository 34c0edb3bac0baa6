export { type Catalogue, type GapsOf, inLanguage, speak, t } from "./words";
