"use client";

import { whyOf } from "@caravan/core/model";
import { playCrossing } from "@caravan/crossing/game";
import { useEffect, useRef, useState } from "react";
import { t } from "../ui/words";
import { handedOver } from "./handed-over";

/** The small game, playing a delivery from a project that is open in another tab. */
export function Crossing({ project, delivery }: { project: string; delivery: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const told = useRef<HTMLParagraphElement>(null);
  const [silence, setSilence] = useState<string | null>(null);
  useEffect(() => {
    const ending = new AbortController();
    const [stage, words] = [canvas.current, told.current];
    if (!stage || !words) return;
    words.textContent = "Asking the studio for the delivery …";
    const depot = handedOver({ project, delivery }, setSilence, ending.signal);
    playCrossing(stage, words, depot, ending.signal).catch((error: unknown) => {
      setSilence(t("The game cannot start: {why}", { why: whyOf(error) }));
    });
    return () => ending.abort();
  }, [project, delivery]);
  return (
    <main className="grid min-h-screen place-content-center gap-2 bg-paper p-4 text-center">
      <h1 className="text-strong font-bold">{t("The Crossing, played with {delivery}", { delivery })}</h1>
      <canvas
        ref={canvas}
        id="stage"
        width={320}
        height={180}
        tabIndex={0}
        aria-label={t("The road and who walks on it")}
        aria-describedby="told"
        className="mx-auto rounded-box"
        style={{ imageRendering: "pixelated" }}
      />
      <p ref={told} id="told" role="status" />
      <p className="text-muted">
        {t(
          "Arrow keys walk, Space acts, 1 toggles a switch, B shows boxes, points and outlines. New builds of the studio load automatically.",
        )}
      </p>
      {silence && (
        <p role="alert" className="mx-auto max-w-lg rounded-box border border-l-4 border-line border-l-brick bg-raised p-2">
          {silence}
        </p>
      )}
    </main>
  );
}
