/// <reference types="next/image-types/global" />
/**
 * What an empty browser shows until the studio's code is there: the demo's first sheet and its porter, walking, where the studio is going
 * to show them. The server draws it and it needs none of the code, so on a slow line it is seen seconds earlier. Nothing in it can be
 * used yet: buttons are faint, and it is hidden from the keyboard and from screen readers. A test holds its places against the studio's.
 */

import porter from "../../../../../examples/tamarisk-road/art/porter-walk.png";
import demo from "../../../../../examples/tamarisk-road/caravan.json";
import { t } from "../../ui/words";
import { FIRST_STEPS, FirstWords } from "../first-words";
import { ROAD_PIECE, STOP_MARK, StopMark } from "../stop-mark";

const STOPS = [t("Sources"), t("Frames"), t("Clips"), t("Marks"), t("Rehearse"), t("Ship")];

const FAINT = "inline-flex items-center justify-center rounded-box border px-3 py-1 whitespace-nowrap opacity-50";

/** The address of its picture. */
export const FIRST_PICTURE = porter.src;

export function FirstView() {
  const art = { backgroundImage: `url(${FIRST_PICTURE})` };
  return (
    <div data-testid="first-view" inert className="first-view pointer-events-none fixed inset-0 z-40 flex flex-col bg-paper">
      <div className="flex h-14.5 shrink-0 items-center gap-3 border-b border-line px-3">
        <div className="w-60 shrink-0 px-1 max-[68.6875em]:w-44 max-[49.9375em]:w-32">
          <p className="truncate text-strong font-bold">{demo.name}</p>
          <p className="mt-1 truncate text-small text-muted">{t("opening …")}</p>
        </div>
        <div className="grow">
          <div className="mx-auto flex max-w-180 items-center">
            {STOPS.map((title, k) => (
              <Stop key={title} title={title} number={k + 1} here={k === 1} />
            ))}
          </div>
        </div>
        <div className="w-82 shrink-0 max-[87.4375em]:w-70 max-[74.9375em]:w-48" />
      </div>
      <div className={FIRST_STEPS}>
        <FirstWords />
        <span className={`${FAINT} border-now bg-now font-semibold text-on-now`}>{t("Open art or a project …")}</span>
        <span className={`${FAINT} border-line bg-raised`}>{t("See the demo move")}</span>
      </div>
      <div className="flex min-h-0 grow">
        <div className="w-51.25 shrink-0 overflow-hidden border-r border-line p-2.5 max-[68.6875em]:hidden">
          <p className="flex justify-between px-1.5 pb-2 font-semibold text-muted">
            {t("Sheets")} <span className="number">{demo.sources.length}</span>
          </p>
          {demo.sources.map(({ id, name }, k) => (
            <p
              key={id}
              className={`flex min-h-7 items-center rounded-box border-l-4 px-1.5 ${k === 0 ? "border-l-now bg-lapis-soft" : "border-l-transparent"}`}
            >
              <span className="truncate">{name}</span>
            </p>
          ))}
        </div>
        <div className="flex min-w-0 grow flex-col gap-2.5 p-3.5">
          {/* Where the tools are going to be. */}
          <div className="h-36.5 shrink-0 max-[49.9375em]:hidden" />
          <div className="first-sheet check relative min-h-0 grow overflow-hidden rounded-box border border-line">
            <div className="first-sheet-art crisp" style={art} />
          </div>
          <div className="h-31.5 shrink-0 rounded-box border border-line bg-surface max-[49.9375em]:hidden" />
        </div>
        <div className="w-76.25 shrink-0 border-l border-line max-[49.9375em]:hidden">
          <div className="check relative h-57.5 overflow-hidden">
            <div className="first-porter crisp" style={art} />
          </div>
        </div>
      </div>
      <div className="h-6.5 shrink-0 border-t border-line max-[68.6875em]:h-9.25" />
    </div>
  );
}

function Stop({ title, number, here }: { title: string; number: number; here: boolean }) {
  return (
    <>
      {number > 1 && <span className={ROAD_PIECE} />}
      <span className={STOP_MARK}>
        <StopMark number={number} title={title} here={here}>
          <span className="block h-4" />
        </StopMark>
      </span>
    </>
  );
}
