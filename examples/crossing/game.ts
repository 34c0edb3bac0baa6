/** A porter on the Tamarisk Road: what a game does with a delivery, and nothing more. Only delivered files and the player are used. */
import type { Atlas, FacingName } from "@caravan/player";
import { type Figure, figureOf } from "./figure";
import { drawMarks, type Standing } from "./marks";

const WIDTH = 320;
const HEIGHT = 180;
/** The road is longer than its visible part. */
const ROAD = 960;
const SPEED = 30; // pixels a second: at this speed the porter's feet stay where they are
const FACINGS: FacingName[] = ["e", "se", "s", "sw", "w", "nw", "n", "ne"];
const WAYS: Record<string, [number, number]> = { ArrowRight: [1, 0], ArrowLeft: [-1, 0], ArrowDown: [0, 1], ArrowUp: [0, -1] };

/** The source of the delivered files. */
export interface Depot {
  /** The text of the atlas file. */
  atlas(): Promise<string>;
  page(image: string): Promise<Blob>;
  /** Something that differs whenever any of the files does: a picture may change though the atlas has not. */
  stamp(): Promise<string>;
}

interface Delivery {
  readonly atlas: Atlas;
  /** Pictures of each page, the lowest first. */
  readonly pages: readonly (readonly PageLayer[])[];
  /** Who walks; null if there is nothing to play in it. */
  readonly figure: Figure | null;
}

interface PageLayer {
  readonly picture: ImageBitmap;
  readonly operation: GlobalCompositeOperation;
}

const OPERATIONS: Readonly<Record<string, GlobalCompositeOperation>> = { add: "lighter", multiply: "multiply" };

async function load(depot: Depot): Promise<Delivery> {
  const atlas: Atlas = JSON.parse(await depot.atlas());
  const layer = async (image: string, blend: string): Promise<PageLayer> => ({
    picture: await createImageBitmap(await depot.page(image)),
    operation: OPERATIONS[blend] ?? "source-over",
  });
  const pages = atlas.pages.map(({ image, layers = {} }) => {
    const over = (atlas.layers ?? []).filter(({ name }) => Object.hasOwn(layers, name));
    return Promise.all([layer(image, "normal"), ...over.map(({ name, blend }) => layer(layers[name] as string, blend))]);
  });
  return { atlas, pages: await Promise.all(pages), figure: figureOf(atlas) };
}

/** Plays a delivery on a canvas until the signal aborts; `told` is kept in step with what is seen. Throws what the depot throws. */
export async function playCrossing(canvas: HTMLCanvasElement, told: HTMLElement, depot: Depot, signal: AbortSignal): Promise<void> {
  const context = canvas.getContext("2d") as CanvasRenderingContext2D;
  let delivery = await load(depot);
  const { held, wants } = listening(canvas, signal, {
    button: (number, down) => delivery.figure?.button(number, down),
    flip: (number) => delivery.figure?.flip(number),
  });
  const body = { x: ROAD / 2, y: 130, facing: "s" as FacingName };
  let last = performance.now();

  const say = (words: string) => {
    if (told.textContent !== words) told.textContent = words;
  };
  const frame = (time: number) => {
    if (signal.aborted) return;
    requestAnimationFrame(frame);
    const ms = Math.max(0, time - last);
    last = time;
    const { figure } = delivery;
    // The camera follows to the ends of the road.
    const camera = () => Math.round(Math.max(0, Math.min(ROAD - WIDTH, body.x - WIDTH / 2)));
    if (!figure) {
      drawRoad(context, camera());
      say("The delivery has no clips, so there is nothing to play yet.");
      return;
    }
    let [dx, dy] = [0, 0];
    for (const key of held) {
      dx += WAYS[key]?.[0] ?? 0;
      dy += WAYS[key]?.[1] ?? 0;
    }
    const wanted = dx !== 0 || dy !== 0;
    if (wanted) body.facing = FACINGS[(Math.round(Math.atan2(dy, dx) / (Math.PI / 4)) + 8) % 8] as FacingName;
    const moving = wanted && figure.free;
    if (moving) {
      const far = (SPEED * ms) / 1000 / Math.hypot(dx, dy);
      body.x = Math.max(20, Math.min(ROAD - 20, body.x + dx * far));
      body.y = Math.max(96, Math.min(HEIGHT - 6, body.y + dy * far));
    }
    const now = figure.advance(ms, moving ? SPEED : 0, body.facing);
    drawRoad(context, camera());
    const at = { x: Math.round(body.x) - camera(), y: Math.round(body.y), mirror: now.mirror };
    if (now.visible && now.frame !== null) {
      const drawParts = (front: boolean) => {
        for (const part of now.parts)
          if (part.front === front)
            drawFrame(
              context,
              delivery,
              part.frame,
              { x: at.x + Math.round(part.x), y: at.y + Math.round(part.y), mirror: part.mirror },
              part.angle,
            );
      };
      drawParts(false);
      drawFrame(context, delivery, now.frame, at);
      drawParts(true);
      if (wants.marks) drawMarks(context, delivery.atlas.frames[now.frame] as Atlas["frames"][string], at);
    }
    say(`${now.what} · looks ${body.facing}`);
    const { x, y } = at;
    Object.assign(canvas.dataset, { frame: now.frame ?? "", mirror: String(now.mirror), x, y, road: Math.round(body.x) });
  };
  requestAnimationFrame(frame);

  // New art replaces the old in the running game.
  let seen = await depot.stamp();
  const looking = setInterval(async () => {
    try {
      const next = await depot.stamp();
      if (next === seen) return;
      // All of it or nothing: a delivery that cannot be played leaves the one that plays.
      delivery = await load(depot);
      seen = next;
    } catch {
      // A file may just be being written; the next look has it whole.
    }
  }, 300);
  signal.addEventListener("abort", () => clearInterval(looking));
}

/** A frame standing on (x, y), turned by `angle` degrees about it: docs/wiring has the reasons. */
function drawFrame(
  context: CanvasRenderingContext2D,
  { atlas, pages }: Delivery,
  name: string,
  { x, y, mirror }: Standing,
  angle = 0,
): void {
  const { page, rect, turned, mirrored = false, inset, origin } = atlas.frames[name] as Atlas["frames"][string];
  const upright = turned ? { w: rect.h, h: rect.w } : rect;
  const left = inset.x - Math.round(origin.x);
  const top = inset.y - Math.round(origin.y);
  context.save();
  context.translate(x, y);
  if (angle !== 0) context.rotate((angle * Math.PI) / 180);
  if (mirror) context.scale(-1, 1);
  context.translate(left, top);
  if (mirrored) {
    context.translate(upright.w, 0);
    context.scale(-1, 1);
  }
  if (turned) {
    context.translate(0, upright.h);
    context.rotate(-Math.PI / 2);
  }
  context.imageSmoothingEnabled = false;
  for (const { picture, operation } of pages[page] ?? []) {
    context.globalCompositeOperation = operation;
    context.drawImage(picture, rect.x, rect.y, rect.w, rect.h, 0, 0, rect.w, rect.h);
  }
  context.restore();
}

/** Sky, ridges, sand and the road, by rule. */
function drawRoad(context: CanvasRenderingContext2D, from: number): void {
  const band = (colour: string, y: number, h: number, x = 0, w = WIDTH) => {
    context.fillStyle = colour;
    context.fillRect(x, y, w, h);
  };
  for (const [k, colour] of ["#e8c99b", "#eed3a8", "#f3deb8"].entries()) band(colour, k * 26, 26);
  for (let x = 0; x < WIDTH; x++) {
    // Distant things scroll more slowly.
    const ridge = x + from / 4;
    const far = Math.round(16 + 8 * Math.sin(ridge / 31) + 3 * Math.sin(ridge / 9));
    band("#c59a78", 78 - far, far, x, 1);
  }
  band("#d9a766", 78, HEIGHT - 78);
  band("#b98250", 96, 62);
  for (let x = 0; x < ROAD; x += 5) band("#a06c41", 96 + ((x * 7) % 61), 1, x - from, 2);
  for (let x = 9; x < ROAD; x += 43) band("#6f7a4b", 86 + ((x * 3) % 7), 4, x - from, 5);
}

/** Keys that work the buttons of a behaviour, in their order; digits turn its switches over. */
const BUTTONS = [" ", "f", "d", "s"];

interface Worked {
  readonly button: (number: number, down: boolean) => void;
  readonly flip: (number: number) => void;
}

/** Keys that are held, and whether boxes and points are shown; the canvas is kept as large as fits by whole numbers. */
function listening(canvas: HTMLCanvasElement, signal: AbortSignal, worked: Worked): { held: Set<string>; wants: { marks: boolean } } {
  const held = new Set<string>();
  const wants = { marks: false };
  const enlarge = () => {
    const zoom = Math.max(1, Math.floor(Math.min(innerWidth / WIDTH, (innerHeight - 120) / HEIGHT)));
    canvas.style.width = `${WIDTH * zoom}px`;
    canvas.style.height = `${HEIGHT * zoom}px`;
  };
  const press = (event: KeyboardEvent) => {
    const button = BUTTONS.indexOf(event.key);
    if (event.key in WAYS) held.add(event.key);
    else if (button >= 0) {
      if (!event.repeat) worked.button(button, true);
    } else if (/^[1-9]$/.test(event.key) && !event.repeat) worked.flip(Number(event.key) - 1);
    else if (event.key === "b" && !event.repeat) wants.marks = !wants.marks;
    else return;
    event.preventDefault();
  };
  const letGo = (key: string) => {
    held.delete(key);
    if (BUTTONS.includes(key)) worked.button(BUTTONS.indexOf(key), false);
  };
  window.addEventListener("resize", enlarge, { signal });
  window.addEventListener("keydown", press, { signal });
  window.addEventListener("keyup", (event) => letGo(event.key), { signal });
  window.addEventListener("blur", () => [...held, ...BUTTONS].forEach(letGo), { signal });
  enlarge();
  return { held, wants };
}
