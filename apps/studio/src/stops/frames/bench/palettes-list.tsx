"use client";

import { colourPieces } from "@caravan/core/edit";
import { frameRef, type Source } from "@caravan/core/model";
import { NewPalette } from "../../../palettes/new-palette";
import { act } from "../../../project/act";
import { useProject } from "../../../project/open-project";
import { useView } from "../../../project/view";
import { ListHeading } from "../../../ui/row-list";
import { t } from "../../../ui/words";
import { chosenOn, frameOnBench, useBench } from "./state";

/** Lists palettes by name with their colours; a click opens one, and recolours the piece in hand or the selected pieces. */
export function PalettesList({ source, parts }: { source: Source; parts: Source }) {
  const palettes = useProject((project) => project.palettes) ?? [];
  const cursor = useView((view) => view.cursor);
  const frame = frameOnBench(source, cursor);
  const open = useBench((bench) => bench.palette);
  const wear = (palette: string | null) => {
    const bench = useBench.getState();
    const ref = frame && frameRef(source, frame);
    const chosen = frame && ref ? chosenOn(ref, frame, bench) : [];
    useBench.setState({ palette });
    if (bench.hand) useBench.setState({ hand: { ...bench.hand, palette } });
    else if (ref && chosen.length > 0) act(colourPieces, ref, chosen, palette);
  };
  return (
    <section aria-label={t("Palettes")} className="mt-4">
      <ListHeading title={t("Palettes")} count={palettes.length} />
      <ul className="flex flex-col gap-0.5">
        {palettes.length > 0 && <PaletteRow name={t("own colours")} colours={[]} isOpen={false} onClick={() => wear(null)} />}
        {palettes.map(({ name, colours }) => (
          <PaletteRow key={name} name={name} colours={colours} isOpen={open === name} onClick={() => wear(name)} />
        ))}
      </ul>
      <div className="mt-1.5 px-1.5">
        <NewPalette parts={parts} onMade={(palette) => useBench.setState({ palette })} />
      </div>
    </section>
  );
}

function PaletteRow({
  name,
  colours,
  isOpen,
  onClick,
}: {
  name: string;
  colours: readonly string[];
  isOpen: boolean;
  onClick: () => void;
}) {
  return (
    <li>
      <button
        type="button"
        onClick={onClick}
        aria-label={t("Wear {name}", { name })}
        aria-pressed={isOpen}
        className={`flex min-h-7 w-full items-center justify-between gap-2 rounded-box border-l-4 px-1.5 text-left hover:bg-lapis-soft pointer-coarse:min-h-10 ${isOpen ? "border-l-now bg-lapis-soft" : "border-l-transparent"}`}
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
