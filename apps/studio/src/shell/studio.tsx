"use client";

import dynamic from "next/dynamic";
import type { ReactNode } from "react";
import { useOpenProject, useProject } from "../project/open-project";
import { Boundary } from "../ui/boundary";
import { t } from "../ui/words";
import { endFirstView, useFirstViewOver } from "./first-view/until-shown";

/** The studio needs the browser's storage, so nothing of it is rendered on the server but its first view. */
const Workshop = dynamic(() => import("./workshop").then((module) => module.Workshop), { ssr: false });

/** The studio; until it shows something, `firstView`. */
export function Studio({ firstView }: { firstView: ReactNode }) {
  const id = useOpenProject((state) => state.id);
  const name = useProject((project) => project.name);
  const over = useFirstViewOver();
  return (
    <>
      <title>{id === null ? t("Caravan") : t("{name} – Caravan", { name })}</title>
      {!over && firstView}
      <Boundary name={t("Caravan")} onFailure={endFirstView}>
        <Workshop />
      </Boundary>
    </>
  );
}
