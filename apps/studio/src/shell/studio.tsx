"use client";

import dynamic from "next/dynamic";
import { Boundary } from "../ui/boundary";

/** The studio lives on the browser's storage, so there is nothing of it to draw on the server. */
const Workshop = dynamic(() => import("./workshop").then((module) => module.Workshop), { ssr: false });

export function Studio() {
  return (
    <Boundary name="Caravan">
      <Workshop />
    </Boundary>
  );
}
