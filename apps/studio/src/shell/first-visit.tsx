"use client";

import { X } from "lucide-react";
import { useEffect } from "react";
import { create } from "zustand";
import { ART_FILES, takeInAndGo } from "../project/import-later";
import { useOpenProject } from "../project/open-project";
import { go } from "../project/view";
import { Button, IconButton } from "../ui/button";
import { chooseFiles } from "../ui/files";
import { inBackground } from "../ui/in-background";
import { withParts } from "../ui/rich-words";
import { t } from "../ui/words";

const KEY = "caravan-met";

const useMet = create<{ readonly met: boolean }>(() => ({ met: globalThis.localStorage?.getItem(KEY) === "yes" }));

function meet(): void {
  useMet.setState({ met: true });
  try {
    localStorage.setItem(KEY, "yes");
  } catch {
    // Full or forbidden: it is shown again next time.
  }
}

/** What this is, and three ways in; shown with the untouched demo until one of them is taken. */
export function FirstVisit() {
  const met = useMet((state) => state.met);
  const demo = useOpenProject((open) => open.demo);
  const ownWork = useOpenProject((open) => open.id !== null && !open.demo);
  // A user with work of their own has found a way in, for example by a drop.
  useEffect(() => {
    if (ownWork) meet();
  }, [ownWork]);
  if (met || !demo) return null;
  const open = async () => {
    const files = await chooseFiles(ART_FILES, true);
    if (files.length === 0) return;
    meet();
    await takeInAndGo(files);
  };
  return (
    <section
      aria-label={t("First steps")}
      className="relative flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-line border-l-4 border-l-now bg-raised py-2.5 pr-14 pl-4"
    >
      <p className="min-w-64 grow basis-0">
        <strong>{t("Caravan cuts sprite sheets into frames, builds animation clips of them, and packs both for your game.")}</strong>{" "}
        <span className="max-[799px]:hidden">
          {withParts("Drop art anywhere on this page to begin: it stays in this browser. What you see now is {demo}, a made-up demo.", {
            demo: <em>{t("The Tamarisk Road")}</em>,
          })}
        </span>
      </p>
      <Button look="now" onClick={() => inBackground(open())}>
        {t("Open art or a project …")}
      </Button>
      <Button
        onClick={() => {
          meet();
          go("clips");
        }}
      >
        {t("See the demo move")}
      </Button>
      <IconButton label={t("Do not show this again")} look="quiet" className="absolute top-2.5 right-3" onClick={meet}>
        <X size={15} />
      </IconButton>
    </section>
  );
}
