export { atlasClip, readAtlas, writeAtlas } from "./file";
export { Atlas, AtlasClip, AtlasFrame } from "./schema";
