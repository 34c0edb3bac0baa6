export { atlasAction, atlasClip, atlasData, atlasJsonSchema, readAtlas, writeAtlas } from "./file";
export { Atlas, AtlasAction, AtlasBehaviour, AtlasClip, AtlasFrame } from "./schema";
