import { withParts } from "../ui/rich-words";
import { t } from "../ui/words";

/** What this is and how to begin, for a person who is here for the first time. */
export function FirstWords() {
  return (
    <p className="min-w-64 grow basis-0">
      <strong>{t("Caravan cuts sprite sheets into frames, builds animation clips of them, and packs both for your game.")}</strong>{" "}
      <span className="max-[49.9375em]:hidden">
        {withParts("Drop art anywhere on this page to begin: it stays in this browser. What you see now is {demo}, a made-up demo.", {
          demo: <em>{t("The Tamarisk Road")}</em>,
        })}
      </span>
    </p>
  );
}

/** The strip they stand in, with what to do beside them. */
export const FIRST_STEPS =
  "relative flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-line border-l-4 border-l-now bg-raised py-2.5 pr-14 pl-4";
