/** Findings about a delivery's settings that are risky in the game. */

import { forgetOrigins, makeEqual, setDelivery } from "../edit";
import {
  counted,
  type Delivery,
  type Frame,
  type FrameRef,
  frameRef,
  frameSize,
  keptFrames,
  msFromMicros,
  originOf,
  type Project,
} from "../model";
import { t } from "../words";
import { deliveredNames } from "./delivered-names";
import type { Finding } from "./finding";
import { guarded } from "./guarded";
import { tickFindings } from "./tick-findings";

/** All of them, delivery by delivery; then origins outside their frames. Cost: O(frames + steps) for each delivery. */
export function deliveryFindings(project: Project): Finding[] {
  return [
    ...project.deliveries.flatMap((delivery, index) =>
      guarded(t('delivery "{name}"', { name: delivery.name }), () => [
        ...bleeding(delivery, index),
        ...largePages(delivery, index),
        ...shortTimes(project, delivery, index),
        ...unequalStrips(project, delivery, index),
        ...tickFindings(project, delivery, index),
      ]),
    ),
    ...deliveredNames(project),
    ...guarded(t("origins"), () => originsOutside(project)),
  ];
}

function finding(delivery: Delivery, index: number, rest: Pick<Finding, "code" | "severity" | "message" | "mend">): Finding {
  return { where: t('delivery "{name}"', { name: delivery.name }), place: { stop: "ship", delivery: index }, delivery: index, ...rest };
}

/** When drawn between pixels or scaled smoothly, a frame's edge mixes with its neighbours on the page. */
function bleeding(delivery: Delivery, index: number): Finding[] {
  const { kind, packing, sheet } = delivery;
  const why = whyBetweenPixels(delivery);
  if (!why) return [];
  const risk = (message: string, mend: Finding["mend"]) => [
    finding(delivery, index, {
      code: "bleeding",
      severity: "warning",
      message: t("{why}, and {message}", { why, message }),
      ...(mend ? { mend } : {}),
    }),
  ];
  if (kind === "atlas" && packing.extrudePx === 0)
    return risk(t("no edges are extruded: neighbours will bleed in at the edges of frames."), {
      label: t("Extrude by 1 px"),
      apply: (project) => setDelivery(project, index, { packing: { extrudePx: 1, paddingPx: Math.max(1, packing.paddingPx) } }),
    });
  if ((kind === "grid" || kind === "strips") && sheet.gapPx === 0)
    return risk(t("its cells touch: neighbours will bleed in at their edges."), {
      label: t("Set a spacing of 2 px"),
      apply: (project) => setDelivery(project, index, { sheet: { gapPx: 2 } }),
    });
  return [];
}

/** Why the game will read its pages between their pixels, null if it need not: smooth filtering, or sizes that are no whole multiple. */
function whyBetweenPixels({ filter, densities }: Delivery): string | null {
  if (filter === "linear") return t("The game scales it smoothly");
  const broken = densities.find(({ scale }) => !Number.isInteger(scale));
  return broken ? t("It goes out at {scale} of its size, so edges fall between pixels", { scale: broken.scale }) : null;
}

/** Every graphics processor in use supports this side; not all support larger ones. */
const SAFE_SIDE = 4096; // px

function largePages(delivery: Delivery, index: number): Finding[] {
  const { kind, packing } = delivery;
  if (kind !== "atlas") return [];
  const fixed = packing.sides === "fixed";
  const side = fixed ? Math.max(packing.fixed.w, packing.fixed.h) : packing.maxPx;
  if (side <= SAFE_SIDE) return [];
  return [
    finding(delivery, index, {
      code: "large-pages",
      severity: "note",
      message: t("Pages may become {side} px a side. Some phones and older machines allow {safeSide} px at most, and then show nothing.", {
        side,
        safeSide: SAFE_SIDE,
      }),
      mend: {
        label: t("Stay within {most} px", { most: SAFE_SIDE }),
        apply: (project) =>
          setDelivery(project, index, {
            packing: fixed
              ? { fixed: { w: Math.min(SAFE_SIDE, packing.fixed.w), h: Math.min(SAFE_SIDE, packing.fixed.h) } }
              : { maxPx: SAFE_SIDE },
          }),
      },
    }),
  ];
}

/** Browsers show pictures of a GIF that are shorter than this far longer. */
const SHORTEST_IN_GIF = 20_000; // µs

function shortTimes(project: Project, delivery: Delivery, index: number): Finding[] {
  if (delivery.kind !== "films" || !delivery.films.includes("gif")) return [];
  const quick = project.clips.filter(({ steps }) => steps.some(({ duration }) => duration < SHORTEST_IN_GIF));
  if (quick.length === 0) return [];
  const shortest = Math.min(...quick.flatMap(({ steps }) => steps.map(({ duration }) => duration)));
  return [
    finding(delivery, index, {
      code: "times-not-held",
      severity: "warning",
      message:
        quick.length === 1
          ? t("GIF holds no step under 20 ms; {quick} has some of {shortest} ms and will play slower.", {
              quick: quick.map(({ name }) => name).join(", "),
              shortest: msFromMicros(shortest),
            })
          : t("GIF holds no step under 20 ms; {quick} have some of {shortest} ms and will play slower.", {
              quick: quick.map(({ name }) => name).join(", "),
              shortest: msFromMicros(shortest),
            }),
      ...(delivery.films.includes("apng")
        ? { mend: { label: t("Deliver APNG only"), apply: (current: Project) => setDelivery(current, index, { films: ["apng"] }) } }
        : {}),
    }),
  ];
}

/** A game that cuts a strip into equal cells finds frames of unequal size standing in them by their origins. */
function unequalStrips(project: Project, { kind, name }: Delivery, index: number): Finding[] {
  if (kind !== "strips") return [];
  const sizes = new Map<FrameRef, string>(
    keptFrames(project).map(({ source, frame }) => [
      frameRef(source, frame),
      `${frameSize(source, frame).w} × ${frameSize(source, frame).h}`,
    ]),
  );
  return project.clips.flatMap((clip): Finding[] => {
    const refs = [...new Set(clip.steps.map(({ frame }) => frame))];
    const own = new Set(refs.map((ref) => sizes.get(ref)));
    if (own.size < 2) return [];
    return [
      {
        code: "unequal-strip",
        severity: "note",
        where: t('clip "{name}"', { name: clip.name }),
        message: t('Its frames have {own} sizes. On the strip of "{name}" they are aligned by their origins in equal cells.', {
          own: own.size,
          name,
        }),
        place: { stop: "clips", clip: clip.name },
        delivery: index,
        mend: { label: t("Make all equal, feet on feet"), apply: (current) => makeEqual(current, refs, "feet") },
      },
    ];
  });
}

/** An origin may be outside the frame on purpose, as for a thrown blade; usually it is a typing mistake. */
function originsOutside(project: Project): Finding[] {
  const outside = keptFrames(project).filter(({ source, frame }) => {
    const { x, y } = originOf(source, frame);
    const { w, h } = frameSize(source, frame);
    return x < 0 || y < 0 || x > w || y > h;
  });
  const [first] = outside;
  if (!first) return [];
  const own = outside.filter(({ frame }: { frame: Frame }) => frame.origin).map(({ source, frame }): FrameRef => frameRef(source, frame));
  return [
    {
      code: "origin-outside",
      severity: "note",
      where: t("project"),
      message:
        outside.length === 1
          ? t("{frames} on a point outside itself.", { frames: counted(outside.length, "frame stands", "frames stand") })
          : t("{frames} on a point outside themselves.", { frames: counted(outside.length, "frame stands", "frames stand") }),
      place: { stop: "frames", frame: frameRef(first.source, first.frame) },
      ...(own.length > 0
        ? { mend: { label: t("Use their source's origin"), apply: (current: Project) => forgetOrigins(current, "frames", own) } }
        : {}),
    },
  ];
}
