"use client";

import { sheetLook } from "@caravan/core/art";
import { addPalette, colourPieces, usesOfPiece } from "@caravan/core/edit";
import { frameName, frameRef, type Palette, type Project, type Source } from "@caravan/core/model";
import { coloursIn, coloursInText } from "@caravan/core/palette";
import { FramePicture } from "../../../preview/frame-picture";
import { act } from "../../../project/act";
import { useProject } from "../../../project/open-project";
import { pictureOfLook } from "../../../project/pictures";
import { useView } from "../../../project/view";
import { Button } from "../../../ui/button";
import { inBackground } from "../../../ui/in-background";
import { say } from "../../../ui/notices";
import { ListHeading } from "../../../ui/row-list";
import { Select } from "../../../ui/select";
import { chosenOn, frameOnBench, partSources, useBench } from "./state";

/** What can be put on a frame, and the palettes that it can wear. */
export function PartsList({ source }: { source: Source }) {
  const project = useProject((each) => each);
  const sources = partSources(project);
  const wanted = useBench((bench) => bench.parts);
  const parts = sources.find(({ id }) => id === wanted) ?? sources[0];
  if (!parts)
    return <p className="mt-4 px-1.5 text-muted">Bring in a sheet of pieces at Sources and cut it; its frames can then be put here.</p>;
  return (
    <>
      <div className="mt-4 flex items-center justify-between gap-2 px-1.5">
        <h3 className="font-semibold text-muted">Pieces</h3>
        <Select
          label="Pieces of"
          value={parts.id as string}
          options={sources.map(({ id, name }) => [id as string, name] as const)}
          onChange={(id) => useBench.setState({ parts: id })}
        />
      </div>
      <Parts project={project} parts={parts} />
      <Palettes project={project} source={source} parts={parts} />
    </>
  );
}

function Parts({ project, parts }: { project: Project; parts: Source }) {
  const hand = useBench((bench) => bench.hand);
  const frames = parts.frames.filter(({ dropped, empty }) => !dropped && !empty);
  return (
    <>
      <ul aria-label="Pieces" className="check mt-1.5 flex max-h-72 flex-wrap gap-1 overflow-y-auto rounded-box border border-line p-1">
        {frames.map((frame) => {
          const ref = frameRef(parts, frame);
          const uses = usesOfPiece(project, ref).size;
          const isHeld = hand?.of === ref;
          return (
            <li key={frame.key}>
              <button
                type="button"
                aria-pressed={isHeld}
                aria-label={`${frameName(parts, frame)}, on ${uses} ${uses === 1 ? "frame" : "frames"}`}
                title={`${frameName(parts, frame)}: on ${uses} ${uses === 1 ? "frame" : "frames"}`}
                onClick={() => useBench.setState({ hand: isHeld ? null : { of: ref, flip: null, palette: null } })}
                className={`rounded-sm border-2 ${isHeld ? "border-now bg-now-soft" : "border-transparent hover:border-line-strong"}`}
              >
                <FramePicture source={parts} frame={frame} size={40} />
              </button>
            </li>
          );
        })}
      </ul>
      <p className="mt-1 px-1.5 text-small text-muted">A click takes a piece in hand; X flips it, Esc lays it away.</p>
    </>
  );
}

/** Palettes by name with their colours; a click dresses the chosen pieces in one. */
function Palettes({ project, source, parts }: { project: Project; source: Source; parts: Source }) {
  const palettes = project.palettes ?? [];
  const cursor = useView((view) => view.cursor);
  const frame = frameOnBench(source, cursor);
  const bench = useBench();
  const ref = frame && frameRef(source, frame);
  const chosen = frame && ref ? chosenOn(ref, frame, bench) : [];
  const wear = (palette: string | null) => {
    if (bench.hand) useBench.setState({ hand: { ...bench.hand, palette } });
    else if (ref && chosen.length > 0) act(colourPieces, ref, chosen, palette);
    else say({ tone: "plain", text: "Choose pieces first: a palette then colours them." });
  };
  return (
    <section aria-label="Palettes" className="mt-4">
      <ListHeading title="Palettes" count={palettes.length} />
      <ul className="flex flex-col gap-0.5">
        {palettes.length > 0 && <PaletteRow name="own colours" colours={[]} onClick={() => wear(null)} />}
        {palettes.map((palette) => (
          <PaletteRow key={palette.name} name={palette.name} colours={palette.colours} onClick={() => wear(palette.name)} />
        ))}
      </ul>
      <div className="mt-1.5 flex flex-wrap gap-1.5">
        <Button className="min-h-6" onClick={() => inBackground(fromPicture(parts))}>
          Colours of {parts.name}
        </Button>
        {palettes[0] && (
          <Button className="min-h-6" onClick={() => act(addPalette, variantOf(chosenBase(palettes)))}>
            A variant
          </Button>
        )}
      </div>
    </section>
  );
}

function PaletteRow({ name, colours, onClick }: { name: string; colours: readonly string[]; onClick: () => void }) {
  return (
    <li>
      <button
        type="button"
        onClick={onClick}
        aria-label={`Wear ${name}`}
        className="flex min-h-7 w-full items-center justify-between gap-2 rounded-box px-1.5 text-left hover:bg-lapis-soft pointer-coarse:min-h-10"
      >
        <span className="truncate">{name}</span>
        <span className="flex shrink-0 gap-0.5">
          {colours.slice(0, 4).map((colour, k) => (
            <span key={k} className="size-4 rounded-sm border border-line" style={{ background: colour }} />
          ))}
        </span>
      </button>
    </li>
  );
}

const chosenBase = (palettes: readonly Palette[]): Palette => palettes.find(({ of }) => of === undefined) ?? (palettes[0] as Palette);

/** Begins as what it stands for, to be changed colour by colour. */
function variantOf(base: Palette): Palette {
  return { name: `${base.name} variant`, of: base.name, colours: base.colours };
}

/** The colours of a sheet as a palette. */
async function fromPicture(parts: Source): Promise<void> {
  const { bitmap, width, height } = await pictureOfLook(sheetLook(parts));
  const context = new OffscreenCanvas(width, height).getContext("2d", { willReadFrequently: true });
  context?.drawImage(bitmap, 0, 0);
  const data = context?.getImageData(0, 0, width, height).data;
  const colours = data && coloursIn([{ width, height, bytes: new Uint8Array(data.buffer) }]);
  if (!colours || colours.length === 0) {
    say({ tone: "trouble", text: `${parts.name} has more colours than a palette holds. Reduce them in its art, or type a palette.` });
    return;
  }
  act(addPalette, { name: parts.name, colours: coloursInText(colours.map(({ colour }) => colour).join(" ")) });
}
