/** A porter on the Tamarisk Road: what a game does with a delivery, and nothing more. Only delivered files and the player are used. */
import { type Atlas, createPlayer, type FacingName } from "@caravan/player";
import { fittingOf } from "./fitting";

const WIDTH = 320;
const HEIGHT = 180;
const SPEED = 48; // pixels a second
const FACINGS: FacingName[] = ["e", "se", "s", "sw", "w", "nw", "n", "ne"];
const WAYS: Record<string, [number, number]> = { ArrowRight: [1, 0], ArrowLeft: [-1, 0], ArrowDown: [0, 1], ArrowUp: [0, -1] };

const canvas = document.getElementById("stage") as HTMLCanvasElement;
const told = document.getElementById("told") as HTMLElement;
const context = canvas.getContext("2d") as CanvasRenderingContext2D;
const held = new Set<string>();
let wantsToAct = false;

interface Delivery {
  readonly atlas: Atlas;
  readonly text: string;
  readonly pages: readonly ImageBitmap[];
}

/** The delivery as it is now. `atlas.txt` names its atlas file. */
async function load(): Promise<Delivery> {
  const name = (await (await fetch("delivered/atlas.txt", { cache: "no-store" })).text()).trim();
  const text = await (await fetch(`delivered/${name}`, { cache: "no-store" })).text();
  const atlas: Atlas = JSON.parse(text);
  const pages = await Promise.all(
    atlas.pages.map(async ({ image }) => createImageBitmap(await (await fetch(`delivered/${image}`, { cache: "no-store" })).blob())),
  );
  return { atlas, text, pages };
}

/** Pictures may have changed though the atlas has not: what tells is when either was written. */
async function stamp(): Promise<string> {
  return (await fetch("delivered/stamp", { cache: "no-store" })).text();
}

async function begin(): Promise<void> {
  let delivery = await load();
  let player = createPlayer(delivery.atlas);
  let fitting = fittingOf(delivery.atlas);
  const body = { x: WIDTH / 2, y: 130, facing: "s" as FacingName };
  let acting = false;
  let last = performance.now();

  const frame = (time: number) => {
    const ms = Math.max(0, time - last);
    last = time;
    let [dx, dy] = [0, 0];
    for (const key of held) {
      dx += WAYS[key]?.[0] ?? 0;
      dy += WAYS[key]?.[1] ?? 0;
    }
    if (wantsToAct && fitting.act !== null) {
      acting = true;
      player.play(fitting.act, { facing: body.facing, restart: true });
    }
    wantsToAct = false;
    const moving = !acting && (dx !== 0 || dy !== 0);
    if (moving) {
      body.facing = FACINGS[(Math.round(Math.atan2(dy, dx) / (Math.PI / 4)) + 8) % 8] as FacingName;
      const far = (SPEED * ms) / 1000 / Math.hypot(dx, dy);
      body.x = Math.max(20, Math.min(WIDTH - 20, body.x + dx * far));
      body.y = Math.max(96, Math.min(HEIGHT - 6, body.y + dy * far));
    }
    if (!acting) player.play(moving ? fitting.move : fitting.rest, { facing: body.facing });
    const now = player.advance(ms);
    if (acting && now.ended) acting = false;
    drawRoad();
    if (now.visible && now.frame !== null) drawFrame(delivery, now.frame, now.mirror, Math.round(body.x), Math.round(body.y));
    const words = `${acting ? fitting.act : moving ? fitting.move : fitting.rest} · looks ${body.facing}`;
    if (told.textContent !== words) told.textContent = words;
    Object.assign(canvas.dataset, { frame: now.frame ?? "", mirror: String(now.mirror), x: Math.round(body.x), y: Math.round(body.y) });
    requestAnimationFrame(frame);
  };
  requestAnimationFrame(frame);

  // New art comes into the running game.
  let seen = await stamp();
  setInterval(async () => {
    try {
      const next = await stamp();
      if (next === seen) return;
      delivery = await load();
      player = createPlayer(delivery.atlas);
      fitting = fittingOf(delivery.atlas);
      acting = false;
      seen = next;
    } catch {
      // A file may just be being written; the next look has it whole.
    }
  }, 300);
}

/** A frame standing on (x, y): docs/wiring has the reasons. */
function drawFrame({ atlas, pages }: Delivery, name: string, mirror: boolean, x: number, y: number): void {
  const { page, rect, turned, mirrored = false, inset, origin } = atlas.frames[name] as Atlas["frames"][string];
  const upright = turned ? { w: rect.h, h: rect.w } : rect;
  const left = inset.x - Math.round(origin.x);
  const top = inset.y - Math.round(origin.y);
  context.save();
  context.translate(x, y);
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
  context.drawImage(pages[page] as ImageBitmap, rect.x, rect.y, rect.w, rect.h, 0, 0, rect.w, rect.h);
  context.restore();
}

/** Sky, ridges, sand and the road, by rule. */
function drawRoad(): void {
  const band = (colour: string, y: number, h: number, x = 0, w = WIDTH) => {
    context.fillStyle = colour;
    context.fillRect(x, y, w, h);
  };
  for (const [k, colour] of ["#e8c99b", "#eed3a8", "#f3deb8"].entries()) band(colour, k * 26, 26);
  for (let x = 0; x < WIDTH; x++) {
    const far = Math.round(16 + 8 * Math.sin(x / 31) + 3 * Math.sin(x / 9));
    band("#c59a78", 78 - far, far, x, 1);
  }
  band("#d9a766", 78, HEIGHT - 78);
  band("#b98250", 96, 62);
  for (let x = 0; x < WIDTH; x += 5) band("#a06c41", 96 + ((x * 7) % 61), 1, x, 2);
  for (let x = 9; x < WIDTH; x += 43) band("#6f7a4b", 86 + ((x * 3) % 7), 4, x, 5);
}

/** As large as fits by whole numbers. */
function enlarge(): void {
  const zoom = Math.max(1, Math.floor(Math.min(innerWidth / WIDTH, (innerHeight - 80) / HEIGHT)));
  canvas.style.width = `${WIDTH * zoom}px`;
  canvas.style.height = `${HEIGHT * zoom}px`;
}

addEventListener("resize", enlarge);
addEventListener("keydown", (event) => {
  if (event.key in WAYS) held.add(event.key);
  else if (event.key === " ") wantsToAct = !event.repeat;
  else return;
  event.preventDefault();
});
addEventListener("keyup", (event) => held.delete(event.key));
addEventListener("blur", () => held.clear());
enlarge();
begin().catch((error: unknown) => {
  told.textContent = `The game cannot start: ${error instanceof Error ? error.message : String(error)}`;
});
