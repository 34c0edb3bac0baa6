/** The page to hand round: lists the contents of a delivery, and plays the selection with the player that games use. */
import type { Atlas, FacingName } from "@caravan/player";
import { button, choice, element, heldButton, tick } from "./controls";
import { carried, type Delivery } from "./delivery";
import { type Reach, reachOf } from "./draw";
import { type Choice, choicesIn, FACINGS, type Playing, playingOf, type Shown } from "./playing";
import { drawStage, GROUNDS, type Look } from "./stage";

const SPEEDS = [0.1, 0.25, 0.5, 1, 2, 4] as const;
const ZOOMS = [1, 2, 3, 4, 6, 8, 12, 16] as const;
const ARROWS: Readonly<Record<FacingName, string>> = { e: "→", se: "↘", s: "↓", sw: "↙", w: "←", nw: "↖", n: "↑", ne: "↗" };
/** The facings as arranged around the figure. */
const ROSE: readonly (FacingName | null)[] = ["nw", "n", "ne", "w", null, "e", "sw", "s", "se"];
const WORDS: Readonly<Record<Choice["kind"], string>> = { action: "Actions", clip: "Clips", behaviour: "Behaviours" };
/** How long an event's name is seen. */
const EVENT = 700; // ms of the screen

const told = document.getElementById("delivery")?.textContent ?? "";
const page = document.getElementById("page") as HTMLElement;
carried(told).then(show, (error: unknown) => page.append(`This page cannot be shown: ${String(error)}`));

function show(delivery: Delivery): void {
  const { atlas, title } = delivery;
  const choices = choicesIn(atlas);
  const first = choices[0];
  page.append(element("h1", {}, title));
  if (!first) {
    page.append(element("p", {}, "This delivery has frames but no clips, so nothing moves."));
    return;
  }
  let look: Look = { ground: "sand", zoom: null, marks: false, origin: false };
  let speed: number = 1;
  let paused = matchMedia("(prefers-reduced-motion: reduce)").matches;
  let facing: FacingName = "s";
  let playing = playingOf(atlas, first);
  let reach: Reach = reachOf(atlas, playing.frames);
  let shown: Shown | null = null;
  /** Whether what shows is no longer what was chosen, which is seen though nothing moves. */
  let stale = true;
  let event = { words: "", until: 0 };

  const canvas = element("canvas", { tabindex: "0", "aria-label": "Figure", role: "img" });
  const reading = element("p", { id: "reading" });
  const side = element("section", { "aria-label": "Facing and inputs", id: "side" });
  const pause = button("", () => setPaused(!paused));
  const rows = new Map<string, HTMLButtonElement>();
  const setPaused = (next: boolean) => {
    paused = next;
    pause.textContent = paused ? "Play" : "Pause";
  };
  const turn = (next: FacingName) => {
    facing = next;
    stale = true;
    for (const each of side.querySelectorAll("[data-facing]"))
      each.setAttribute("aria-pressed", String(each.getAttribute("data-facing") === facing));
  };
  const choose = (next: Choice) => {
    playing = playingOf(atlas, next);
    reach = reachOf(atlas, playing.frames);
    if (playing.facings.length > 0 && !playing.facings.includes(facing))
      facing = playing.facings.includes("s") ? "s" : (playing.facings[0] ?? "s");
    for (const [key, row] of rows) row.setAttribute("aria-current", String(key === keyOf(next)));
    side.replaceChildren(...sideOf(atlas, playing, turn));
    turn(facing);
  };
  /** Advances to the next step, a millisecond at a time: none is shorter. */
  const stepOn = () => {
    setPaused(true);
    const before = shown;
    for (let ms = 0; ms < 60_000; ms++) {
      shown = playing.advance(1, facing);
      if (shown.step !== before?.step || shown.pass !== before.pass || shown.clip !== before.clip) return;
    }
  };

  const list = element("nav", { "aria-label": "Contents" });
  for (const kind of ["action", "clip", "behaviour"] as const) {
    const own = choices.filter((each) => each.kind === kind);
    if (own.length === 0) continue;
    const items = own.map((each) => {
      const row = button(each.name, () => choose(each));
      rows.set(keyOf(each), row);
      return element("li", {}, row);
    });
    list.append(element("h2", {}, `${WORDS[kind]} `, element("small", {}, String(own.length))), element("ul", {}, ...items));
  }
  const bar = element(
    "section",
    { "aria-label": "Playback", id: "bar" },
    pause,
    button("Next step", stepOn),
    button("Restart", () => {
      playing.restart(facing);
      // A behaviour begins with its inputs as they are at first.
      side.replaceChildren(...sideOf(atlas, playing, turn));
      turn(facing);
    }),
    choice(
      "speed",
      SPEEDS.map((each) => [each, `${each} ×`] as const),
      1,
      (next) => {
        speed = next;
      },
    ),
    choice("size", [[0, "fit"] as const, ...ZOOMS.map((each) => [each, `${each} ×`] as const)], 0, (zoom) => {
      look = { ...look, zoom: zoom === 0 ? null : zoom };
    }),
    choice("backdrop", GROUNDS, look.ground, (ground) => {
      look = { ...look, ground };
    }),
    tick("boxes, points, outlines", look.marks, (marks) => {
      look = { ...look, marks };
    }),
    tick("origin", look.origin, (origin) => {
      look = { ...look, origin };
    }),
  );
  page.append(
    list,
    element("section", { "aria-label": "Player", id: "player" }, element("div", { id: "stage" }, canvas), reading, bar),
    side,
  );
  setPaused(paused);
  choose(first);
  canvas.addEventListener("pointermove", ({ buttons, offsetX, offsetY }) => {
    if (buttons !== 1) return;
    const angle = Math.atan2(offsetY - canvas.clientHeight / 2, offsetX - canvas.clientWidth / 2);
    const next = FACINGS[(Math.round(angle / (Math.PI / 4)) + 8) % 8] as FacingName;
    if (playing.facings.includes(next)) turn(next);
  });
  addEventListener("keydown", (pressed) => {
    if (pressed.target instanceof HTMLElement && pressed.target.closest("button, select, input")) return;
    if (pressed.key === " ") setPaused(!paused);
    else if (pressed.key === ".") stepOn();
    else return;
    pressed.preventDefault();
  });

  let last = performance.now();
  const tell = (now: Shown, zoom: number, time: number) => {
    if (now.events.length > 0) event = { words: ` · ${now.events.join(", ")}`, until: time + EVENT };
    const clip = now.clip === null ? undefined : atlas.clips[now.clip];
    const words = clip
      ? `${now.rule === null ? "" : `${now.rule}: `}${now.clip}${now.mirror ? ", mirrored" : ""} · step ${now.step + 1} of ${clip.steps.length} · ${Math.round((clip.steps[now.step]?.ms ?? 0) * 100) / 100} ms · ${zoom} ×${time < event.until ? event.words : ""}`
      : "nothing shows";
    if (reading.textContent !== words) reading.textContent = words;
    Object.assign(canvas.dataset, { frame: now.frame ?? "", clip: now.clip ?? "", step: now.step, mirror: now.mirror });
  };
  const draw = (time: number) => {
    requestAnimationFrame(draw);
    const ms = Math.max(0, time - last) * speed;
    last = time;
    if (!paused || stale || !shown) shown = playing.advance(paused ? 0 : ms, facing);
    stale = false;
    // A switch that a rule has turned is seen turned.
    for (const box of side.querySelectorAll<HTMLInputElement>("label[data-switch] input")) {
      const value = shown.set?.[box.parentElement?.dataset.switch ?? ""];
      if (value !== undefined) box.checked = value;
    }
    tell(shown, drawStage(canvas, delivery, shown, reach, look), time);
  };
  requestAnimationFrame(draw);
}

function keyOf({ kind, name }: Choice): string {
  return `${kind} ${name}`;
}

/** The rose of an action's facings, and what a behaviour is given. */
function sideOf(atlas: Atlas, playing: Playing, turn: (facing: FacingName) => void): HTMLElement[] {
  const made: HTMLElement[] = [];
  if (playing.facings.length > 1) {
    const rose = ROSE.map((facing) => {
      if (facing === null) return element("span");
      const each = button(ARROWS[facing], () => turn(facing), { "data-facing": facing, "aria-label": `Face ${facing}` });
      each.disabled = !playing.facings.includes(facing);
      return each;
    });
    made.push(element("h2", {}, "Facing"), element("div", { class: "rose" }, ...rose));
  }
  const { kind, name } = playing.choice;
  const inputs = kind === "behaviour" ? Object.entries(atlas.behaviours?.[name]?.inputs ?? {}) : [];
  if (inputs.length > 0) made.push(element("h2", {}, "Inputs"));
  for (const [input, { kind: of, initial }] of inputs) {
    if (of === "button") made.push(heldButton(input, (down) => playing.press(input, down)));
    else if (of === "switch") {
      const turned = tick(input, initial === true, (on) => playing.set(input, on));
      turned.dataset.switch = input;
      made.push(turned);
    } else {
      const field = element("input", { type: "number", value: String(typeof initial === "number" ? initial : 0), step: "any" });
      field.addEventListener("input", () => Number.isFinite(field.valueAsNumber) && playing.set(input, field.valueAsNumber));
      made.push(element("label", {}, `${input} `, field));
    }
  }
  return made;
}
