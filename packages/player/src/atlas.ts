/** The atlas file's shape, as far as playing and drawing need it. docs/formats/atlas.md says what each field means. */
export interface Atlas {
  format: "caravan-atlas";
  version: number;
  /** Pixels of the project for one unit of the game's world. */
  pixelsPerUnit?: number;
  pages: AtlasPage[];
  frames: Record<string, AtlasFrame>;
  clips: Record<string, AtlasClip>;
  actions?: Record<string, AtlasAction>;
}

export interface AtlasPage {
  image: string;
  width: number;
  height: number;
  scale: number;
  filter: "nearest" | "linear";
}

export interface AtlasFrame {
  page: number;
  rect: { x: number; y: number; w: number; h: number };
  turned: boolean;
  mirrored?: boolean;
  inset: { x: number; y: number };
  size: { w: number; h: number };
  origin: { x: number; y: number };
  boxes?: Record<string, { x: number; y: number; w: number; h: number }[]>;
  points?: Record<string, { x: number; y: number }>;
}

export interface AtlasClip {
  steps: { frame: string; ms: number; events?: string[] }[];
  playback?: "once" | "loop" | "pingpong";
  times?: number;
  loopFrom?: number;
  after?: "hold" | "first" | "hide";
  doubleEnds?: boolean;
}

export type FacingName = "e" | "se" | "s" | "sw" | "w" | "nw" | "n" | "ne";

export interface AtlasAction {
  facings: { [facing in FacingName]?: { clip: string; mirror?: boolean } };
}
