/**
 * What the schema cannot express about a document: unique ids, names and keys, loops that start inside their clip, frames that lie on their
 * pictures, references that must resolve.
 */
import { t } from "../words";
import type { Clip } from "./clip";
import { counted } from "./counted";
import { FIELD_OF_SHAPE, MARK_SHAPES, type MarkShape } from "./marks";
import { isFitCanvas, LARGEST_CANVAS } from "./piece";
import type { Project } from "./project";
import { drawnSize, type Frame, isOfPieces, pictureOf, type Source } from "./source";

export interface UnfitPart {
  /** Its path in the document: `["sources", 0, "frames", 12]`. Without it, or with another value there, the document fits. */
  readonly at: readonly (string | number)[];
  /** What is wrong, as a sentence. */
  readonly what: string;
}

type Path = UnfitPart["at"];

/** Sources whose frames were found to be on their pictures, under keys of their own. */
const whole = new WeakSet<Source>();

/** For sources whose marks were found to be of kinds that there are, those kinds. */
const markedOf = new WeakMap<Source, Project["marks"]>();

/** Clips whose data and values of events were found to be in order. */
const valued = new WeakSet<Clip>();

/** In the document's order; nothing for a document that fits. Parts that fit are remembered by identity and skipped the next time. */
export function* unfitParts(project: Project): Generator<UnfitPart> {
  yield* doubles(t("sources with the id"), project.sources, ["sources"], ({ id }) => id, "id");
  yield* unfitNames(project);
  yield* lostFacings(project);
  const kinds = new Map(MARK_SHAPES.map((shape) => [shape, kindsOf(project, shape)]));
  for (const [k, source] of project.sources.entries()) {
    const at = ["sources", k];
    if (yield* isNewFit(whole, source, unfitInSource(source, at))) whole.add(source);
    if (markedOf.get(source) === project.marks) continue;
    let isFit = true;
    for (const [n, { key, marks }] of source.frames.entries()) {
      if (!marks) continue;
      for (const part of unknownMarks(kinds, source.name, key, marks, [...at, "frames", n, "marks"])) {
        isFit = false;
        yield part;
      }
    }
    if (isFit) markedOf.set(source, project.marks);
  }
  for (const [k, clip] of project.clips.entries()) if (yield* isNewFit(valued, clip, unfitInClip(clip, ["clips", k]))) valued.add(clip);
  for (const [k, { name, loopFrom, steps }] of project.clips.entries())
    if (loopFrom > 0 && loopFrom >= steps.length)
      yield {
        at: ["clips", k, "loopFrom"],
        what: t('The clip "{name}" loops from step {loopFrom}, which it does not have.', { name, loopFrom }),
      };
}

/** Yields what is unfit in a thing that is not known to fit; returns whether there was nothing. */
function* isNewFit<Thing extends object>(known: WeakSet<Thing>, thing: Thing, parts: Generator<UnfitPart>): Generator<UnfitPart, boolean> {
  if (known.has(thing)) return false;
  let isFit = true;
  for (const part of parts) {
    isFit = false;
    yield part;
  }
  return isFit;
}

/** Second ones of a name. */
function* unfitNames(project: Project): Generator<UnfitPart> {
  const once = (kind: string, of: readonly { readonly name: string }[], at: Path) => doubles(kind, of, at, ({ name }) => name, "name");
  yield* once(t("sources named"), project.sources, ["sources"]);
  yield* once(t("clips named"), project.clips, ["clips"]);
  yield* once(t("actions named"), project.actions, ["actions"]);
  yield* once(t("marks named"), project.marks, ["marks"]);
  yield* once(t("examples named"), project.examples, ["examples"]);
  yield* once(t("palettes named"), project.palettes ?? [], ["palettes"]);
  yield* once(t("parts named"), project.parts ?? [], ["parts"]);
  yield* once(t("behaviours named"), project.behaviours ?? [], ["behaviours"]);
  for (const [k, { name, inputs, rules }] of (project.behaviours ?? []).entries()) {
    yield* once(t('inputs of "{name}" named', { name }), inputs, ["behaviours", k, "inputs"]);
    yield* once(t('rules of "{name}" named', { name }), rules, ["behaviours", k, "rules"]);
  }
  yield* once(t("stages named"), project.stages ?? [], ["stages"]);
  for (const [k, { name, zones, effects, extras }] of (project.stages ?? []).entries()) {
    yield* once(t('zones of "{name}" named', { name }), zones, ["stages", k, "zones"]);
    yield* once(t('effects of "{name}" named', { name }), effects, ["stages", k, "effects"]);
    yield* once(t('extras of "{name}" named', { name }), extras, ["stages", k, "extras"]);
  }
  yield* once(t("drives named"), project.drives ?? [], ["drives"]);
  yield* once(t("deliveries named"), project.deliveries, ["deliveries"]);
}

function* lostFacings({ clips, actions }: Project): Generator<UnfitPart> {
  const there = new Set<string>(clips.map(({ name }) => name));
  for (const [k, { name, facings }] of actions.entries())
    for (const [facing, { clip }] of Object.entries(facings))
      if (!there.has(clip))
        yield {
          at: ["actions", k, "facings", facing],
          what: t('The action "{name}" shows the clip "{clip}", which does not exist.', { name, clip }),
        };
}

function* unfitInSource(source: Source, at: Path): Generator<UnfitPart> {
  const { name, frames } = source;
  if (source.pictures.length === 0 && !isOfPieces(source)) {
    yield { at: [...at, "cut"], what: t("{name} has no picture, and its frames are not put together.", { name }) };
    return;
  }
  yield* unfitLayers(source, at);
  yield* doubles(t("frames of {name} with the key", { name }), frames, [...at, "frames"], ({ key }) => key);
  for (const [n, frame] of frames.entries()) {
    const what = unfitFrame(source, frame);
    if (what !== null) yield { at: [...at, "frames", n], what };
  }
  for (const [n, { key, data }] of frames.entries())
    if (data)
      yield* doubles(
        t('data of the frame {key} of "{name}" named', { key, name }),
        data,
        [...at, "frames", n, "data"],
        (each) => each.name,
      );
}

function* unfitInClip({ name, data, steps }: Clip, at: Path): Generator<UnfitPart> {
  if (data) yield* doubles(t('data of "{name}" named', { name }), data, [...at, "data"], (each) => each.name);
  for (const [n, { events = [], eventValues }] of steps.entries()) {
    if (!eventValues) continue;
    const values = [...at, "steps", n, "eventValues"];
    yield* doubles(t('event values of a step of "{name}" named', { name }), eventValues, values, (each) => each.name);
    for (const [m, each] of eventValues.entries())
      if (!events.includes(each.name))
        yield {
          at: [...values, m],
          what: t('A step of "{name}" has a value for the event "{each}", which it does not fire.', { name, each: each.name }),
        };
  }
}

/** `field` is the one that could be another; absent where the second thing is one too many. */
function* doubles<Each>(
  kind: string,
  all: readonly Each[],
  at: Path,
  nameOf: (each: Each) => string,
  field?: string,
): Generator<UnfitPart> {
  const seen = new Set<string>();
  for (const [k, each] of all.entries()) {
    const name = nameOf(each);
    if (seen.has(name))
      yield { at: [...at, k, ...(field === undefined ? [] : [field])], what: t('There are two {kind} "{name}".', { kind, name }) };
    seen.add(name);
  }
}

function kindsOf({ marks }: Project, shape: MarkShape): ReadonlySet<string> {
  return new Set(marks.filter((kind) => kind.shape === shape).map(({ name }) => name));
}

/** Marks are of kinds that the project has. */
function* unknownMarks(
  kinds: ReadonlyMap<MarkShape, ReadonlySet<string>>,
  source: string,
  key: string,
  marks: NonNullable<Frame["marks"]>,
  at: Path,
): Generator<UnfitPart> {
  for (const shape of MARK_SHAPES) {
    const field = FIELD_OF_SHAPE[shape];
    for (const name of Object.keys(marks[field] ?? {}))
      if (!kinds.get(shape)?.has(name))
        yield {
          at: [...at, field, name],
          what: t('The frame {key} of {source} has a {shape} "{name}", which is not a kind of marks of the project.', {
            key,
            source,
            shape,
            name,
          }),
        };
  }
}

/** A layer has a picture over each of the source's, as large as that. */
function* unfitLayers({ name: source, pictures, layers = [] }: Source, at: Path): Generator<UnfitPart> {
  yield* doubles(t("layers of {source} named", { source }), layers, [...at, "layers"], ({ name }) => name.toLowerCase());
  for (const [k, { name, pictures: own }] of layers.entries()) {
    const layer = [...at, "layers", k];
    if (own.length !== pictures.length) {
      const [above, below] = [counted(own.length, "picture"), pictures.length];
      yield {
        at: layer,
        what: t('The layer "{name}" of {source} has {pictures} for {below} below.', { name, source, pictures: above, below }),
      };
      continue;
    }
    const unlike = own.find(({ width, height }, n) => width !== pictures[n]?.width || height !== pictures[n]?.height);
    const below = unlike && pictures[own.indexOf(unlike)];
    if (unlike && below)
      yield {
        at: layer,
        what: t('The layer "{name}" of {source} is {width} × {height} px over a picture of {belowW} × {belowH} px.', {
          name,
          source,
          width: unlike.width,
          height: unlike.height,
          belowW: below.width,
          belowH: below.height,
        }),
      };
  }
}

/** A frame lies on a picture of its source, and its rectangle within its untrimmed size. Null if it does, otherwise why not. */
function unfitFrame(source: Source, frame: Frame): string | null {
  const { name } = source;
  const { key, rect, size, inset, picture = 0 } = frame;
  if (frame.pieces || isOfPieces(source)) {
    if (!frame.pieces || !isOfPieces(source))
      return t("The frame {key} of {name} and its source differ in whether they are put together from pieces.", { key, name });
    if (!size || rect.x !== 0 || rect.y !== 0 || rect.w !== size.w || rect.h !== size.h || frame.turned || inset)
      return t("The frame {key} of {name} is put together, so its rectangle is its whole canvas.", { key, name });
    if (!isFitCanvas(size))
      return t("The canvas of the frame {key} of {name} is larger than {largestCanvas} px.", { key, name, largestCanvas: LARGEST_CANVAS });
    return null;
  }
  if (picture >= source.pictures.length) return t("The frame {key} of {name} is on a picture that it does not have.", { key, name });
  const { width, height } = pictureOf(source, frame);
  if (rect.x + rect.w > width || rect.y + rect.h > height)
    return t("The frame {key} of {name} reaches beyond its {width} × {height} px picture.", { key, name, width, height });
  if (!size) return null;
  const upright = drawnSize({ ...frame, size: undefined });
  const at = inset ?? { x: 0, y: 0 };
  if (at.x + upright.w > size.w || at.y + upright.h > size.h)
    return t("The frame {key} of {name} is larger than its own untrimmed size.", { key, name });
  return null;
}
