export { atlasAction, atlasClip, atlasJsonSchema, readAtlas, writeAtlas } from "./file";
export { Atlas, AtlasAction, AtlasClip, AtlasFrame } from "./schema";
