"use client";

import dynamic from "next/dynamic";
import { useOpenProject, useProject } from "../project/open-project";
import { Boundary } from "../ui/boundary";
import { t } from "../ui/words";

/** The studio needs the browser's storage, so nothing of it is rendered on the server. */
const Workshop = dynamic(() => import("./workshop").then((module) => module.Workshop), { ssr: false });

export function Studio() {
  const id = useOpenProject((state) => state.id);
  const name = useProject((project) => project.name);
  return (
    <>
      <title>{id === null ? t("Caravan") : t("{name} – Caravan", { name })}</title>
      <Boundary name={t("Caravan")}>
        <Workshop />
      </Boundary>
    </>
  );
}
