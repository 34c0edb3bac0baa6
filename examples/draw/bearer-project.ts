/** The lamp-bearer of the demo: walking in four facings, with the lamp and without, put together from pieces, in three palettes. */
import { sha256Hex } from "@caravan/core/codec";
import {
  addAction,
  addClip,
  addFrameOfPieces,
  addPalette,
  addPiecesSource,
  addSources,
  addVariants,
  drawFrames,
  mirrorMissing,
  putPieces,
  renameFrame,
  setClipTotal,
  setPetal,
  setSourceOrigin,
} from "@caravan/core/edit";
import { type ActionName, type ClipName, type FrameRef, frameRef, type Piece, type Project, type Source } from "@caravan/core/model";
import { pngCodec } from "../../packages/cli/src/png";
import { BEARER_CANVAS, BEARER_FACINGS, BEARER_GROUND, type BearerFacing, type BearerPiece, bearerSheet } from "./bearer";
import { RAMPS } from "./palette";

const STEPS = ["one", "pass", "two", "pass"] as const;

/** `keep` stores a picture file's bytes by hash. */
export function withBearer(start: Project, keep: (sha256: string, bytes: Uint8Array) => void): Project {
  const { pixels, pieces } = bearerSheet();
  const bytes = pngCodec().encode(pixels);
  const sha256 = sha256Hex(bytes);
  keep(sha256, bytes);
  const { width, height } = pixels;
  let project = addSources(start, [{ fileName: "bearer-pieces.png", sha256, width, height }]);
  const parts = () => project.sources.find(({ name }) => name === "bearer-pieces") as Source;
  project = drawFrames(
    project,
    parts().id,
    pieces.map(({ rect }) => rect),
  );
  const partRefs = parts().frames.map((frame) => frameRef(parts(), frame));
  for (const [k, { name }] of pieces.entries()) project = renameFrame(project, partRefs[k] as FrameRef, name);

  const at = (name: string) => pieces.findIndex((piece) => piece.name === name);
  const laid = (name: string, flip = false): Piece => {
    const { at: place } = pieces[at(name)] as BearerPiece;
    const x = flip ? BEARER_CANVAS.w - place.x - place.w : place.x;
    return { of: partRefs[at(name)] as FrameRef, x, y: place.y, ...(flip ? { flip: "across" } : {}) };
  };
  const stack = (facing: BearerFacing, step: number, lamp: boolean): Piece[] => {
    const leg = STEPS[step] as (typeof STEPS)[number];
    const phase = leg === "pass" ? "pass" : "stride";
    // Seen from before and behind, the second half of the walk is the first one mirrored.
    const second = step >= 2 && facing !== "e";
    const legs = laid(`legs-${facing}-${leg === "two" && second ? "one" : leg}`, second);
    const held = lamp ? [laid(`lamp-${facing}-${phase}`)] : [];
    const body = [legs, laid(`robe-${facing}-${phase}`), laid(`head-${facing}-${phase}`)];
    return facing === "n" ? [...held, ...body] : [...body, ...held];
  };

  project = addPiecesSource(project, "bearer", BEARER_CANVAS);
  const bearer = () => project.sources.at(-1) as Source;
  const clips: { name: string; refs: FrameRef[] }[] = [];
  for (const [way, lamp] of [
    ["bearer-walk", false],
    ["bearer-lamp", true],
  ] as const)
    for (const facing of BEARER_FACINGS) {
      const refs: FrameRef[] = [];
      for (const step of STEPS.keys()) {
        // Seen from the side, one foot passes the other as the other does the one: the same frame.
        if (facing === "e" && step === 3) {
          refs.push(refs[1] as FrameRef);
          continue;
        }
        const last = frameRef(bearer(), bearer().frames.at(-1) as Source["frames"][number]);
        if (clips.length > 0 || step > 0) project = addFrameOfPieces(project, last, false);
        const made = frameRef(bearer(), bearer().frames.at(-1) as Source["frames"][number]);
        project = putPieces(project, made, stack(facing, step, lamp), null);
        refs.push(made);
      }
      clips.push({ name: `${way}-${facing}`, refs });
    }
  project = setSourceOrigin(project, bearer().id, { x: BEARER_CANVAS.w / 2, y: BEARER_GROUND + 1 });
  for (const { name, refs } of clips) {
    for (const [step, ref] of [...new Set(refs)].entries()) project = renameFrame(project, ref, `${name}/${step}`);
    project = setClipTotal(addClip(project, refs, name), name as ClipName, 600_000);
  }
  for (const name of ["bearer-walk", "bearer-lamp"] as ActionName[]) {
    project = addAction(project, name, 4);
    for (const facing of BEARER_FACINGS) project = setPetal(project, name, facing, { clip: `${name}-${facing}` as ClipName });
    project = mirrorMissing(project, name);
  }
  project = addPalette(project, { name: "robe", colours: [...RAMPS.coat] });
  project = addPalette(project, { name: "guard", of: "robe", colours: [...RAMPS.turban] });
  project = addPalette(project, { name: "elder", of: "robe", colours: [...ELDER] });
  const names = clips.map(({ name }) => name as ClipName);
  return addVariants(addVariants(project, names, "elder"), names, "guard");
}

/** The violet of old robes: its own ramp, from night to dust. */
const ELDER = ["#2a1838", "#4c2c5e", "#734a86", "#a078ae", "#d4b4cc"] as const;
