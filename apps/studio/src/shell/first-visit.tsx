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
import { remember, remembered } from "../ui/remembered";
import { t } from "../ui/words";
import { MET } from "./first-view/been-here";
import { FIRST_STEPS, FirstWords } from "./first-words";

const useMet = create<{ readonly met: boolean }>(() => ({ met: remembered(MET) === "yes" }));

function meet(): void {
  useMet.setState({ met: true });
  remember(MET, "yes");
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
    <section aria-label={t("First steps")} className={FIRST_STEPS}>
      <FirstWords />
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
