/**
 * The atlas file's shape, as far as playing and drawing need it. docs/formats/atlas.md says what each field means.
 *
 * Everything is read only, and words are any text: so the parsed file, an imported JSON module and Caravan's typed module all fit as they
 * are, without a cast.
 */
export interface Atlas {
  readonly format: string;
  readonly version: number;
  /** Pixels of the project, not of a page at another scale, for one unit of the game's world. */
  readonly pixelsPerUnit?: number;
  /** The rate of the game's clock, if steps have ticks. */
  readonly ticksPerSecond?: number;
  /** Further layers over the pages' own pictures, from below, with their blend modes. */
  readonly layers?: readonly { readonly name: string; readonly blend: "normal" | "add" | "multiply" | OtherText }[];
  /** All sizes of the same content, including this one; absent if there is only one. */
  readonly densities?: readonly { readonly atlas: string; readonly scale: number; readonly suffix: string }[];
  readonly pages: readonly AtlasPage[];
  readonly frames: Readonly<Record<string, AtlasFrame>>;
  readonly clips: Readonly<Record<string, AtlasClip>>;
  readonly actions?: Readonly<Record<string, AtlasAction>>;
  /** Clips that are drawn on others, the lowest first. */
  readonly parts?: readonly AtlasPart[];
  readonly behaviours?: Readonly<Record<string, AtlasBehaviour>>;
}

export interface AtlasPage {
  readonly image: string;
  readonly width: number;
  readonly height: number;
  readonly scale: number;
  readonly filter: "nearest" | "linear" | OtherText;
  /** The page's picture of each layer, by its name; a layer with nothing on the page has none. */
  readonly layers?: Readonly<Record<string, string>>;
}

export interface AtlasFrame {
  readonly page: number;
  readonly rect: { readonly x: number; readonly y: number; readonly w: number; readonly h: number };
  readonly turned: boolean;
  readonly mirrored?: boolean;
  readonly inset: { readonly x: number; readonly y: number };
  readonly size: { readonly w: number; readonly h: number };
  readonly origin: { readonly x: number; readonly y: number };
  readonly boxes?: Readonly<Record<string, readonly { readonly x: number; readonly y: number; readonly w: number; readonly h: number }[]>>;
  /** With an angle where a point has one: degrees clockwise, 0 to the right. */
  readonly points?: Readonly<Record<string, { readonly x: number; readonly y: number; readonly angle?: number }>>;
  /** Simple polygons, clockwise as seen. */
  readonly outlines?: Readonly<Record<string, readonly (readonly { readonly x: number; readonly y: number }[])[]>>;
  readonly data?: AtlasData;
}

export interface AtlasClip {
  readonly steps: readonly {
    readonly frame: string;
    readonly ms: number;
    /** Ticks of the game's clock, where the delivery counts them. */
    readonly ticks?: number;
    readonly events?: readonly string[];
    /** What some of the events carry, by their names. */
    readonly eventValues?: AtlasData;
    readonly parts?: AtlasStepParts;
  }[];
  readonly playback?: "once" | "loop" | "pingpong" | OtherText;
  readonly times?: number;
  readonly loopFrom?: number;
  readonly after?: "hold" | "first" | "hide" | OtherText;
  readonly doubleEnds?: boolean;
  readonly data?: AtlasData;
}

/** Custom data of a frame, a clip or an event: any JSON, by name. */
export type AtlasData = { readonly [name: string]: unknown };

export interface AtlasPart {
  readonly name: string;
  /** The host (an action, or else a clip), and the guest drawn on it. */
  readonly host: string;
  readonly guest: string;
  /** The host's point at which it is fastened, and the guest's; absent for the guest's origin. */
  readonly at: string;
  readonly by?: string;
  readonly time: "together" | "own" | OtherText;
  readonly front: boolean;
}

/** Exceptions for parts at a step, by name. */
export type AtlasStepParts = { readonly [name: string]: { readonly front?: boolean; readonly hidden?: boolean } | undefined };

export type FacingName = "e" | "se" | "s" | "sw" | "w" | "nw" | "n" | "ne";

export interface AtlasAction {
  readonly facings: { readonly [facing in FacingName]?: { readonly clip: string; readonly mirror?: boolean } };
}

/** Which clip shows when. docs/formats/behaviours.md says exactly what each field means. */
export interface AtlasBehaviour {
  readonly inputs: Readonly<Record<string, AtlasInput>>;
  readonly rules: readonly AtlasRule[];
}

export interface AtlasInput {
  readonly kind: "button" | "switch" | "number" | OtherText;
  readonly bufferMs?: number;
  readonly initial?: boolean | number;
}

export interface AtlasRule {
  readonly name: string;
  readonly when: readonly {
    readonly input?: string;
    readonly is?: string | boolean;
    readonly above?: number;
    readonly below?: number;
    readonly showing?: readonly string[];
    readonly forMs?: number;
    readonly ended?: boolean;
  }[];
  readonly play: string;
  readonly keep?: string | number;
  readonly cutBy?: readonly string[];
  readonly again?: boolean;
  readonly then?: string;
  readonly set?: { readonly [name: string]: boolean | undefined };
  readonly phase?: string;
  readonly turns?: boolean;
}

/** Any text, besides words that an editor should offer. */
type OtherText = string & Record<never, never>;
