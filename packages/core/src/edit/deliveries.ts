/** Edits deliveries and their settings. */
import { CaravanError, Delivery, freeName, type Project, USUAL_DELIVERY } from "../model";
import { inLanguage, t } from "../words";
import { edit } from "./edit";

/** What may be set of a delivery at once: whole values, or some of the settings of a part. */
export type DeliveryChange = {
  readonly [K in keyof Delivery]?: Delivery[K] extends readonly unknown[]
    ? Delivery[K]
    : Delivery[K] extends object
      ? Partial<Delivery[K]>
      : Delivery[K];
};

/** Changes the delivery at `index`. Throws `bad-number` with the invalid field, `name-taken`. */
export const setDelivery = edit(
  (project, index: number, change: DeliveryChange) =>
    t("change {what} of {name}", { what: wordsFor(change), name: project.deliveries[index]?.name ?? "" }),
  (project, index, change): Project => {
    const before = deliveryAt(project, index);
    const parsed = Delivery.safeParse(merged(before, change));
    if (!parsed.success) {
      const issue = parsed.error.issues[0];
      throw new CaravanError(
        "bad-number",
        String(issue?.path.findLast((part) => typeof part === "string") ?? "delivery"),
        t("This does not fit: {message}.", { message: issue?.message ?? "" }),
        t("The earlier value was kept."),
      );
    }
    refuseTwin(project, parsed.data.name, index);
    if (JSON.stringify(parsed.data) === JSON.stringify(before)) return project;
    return { ...project, deliveries: project.deliveries.map((each, k) => (k === index ? parsed.data : each)) };
  },
);

/** Adds a delivery behind the others: the usual one, or a copy of the one at `like`. */
export const addDelivery = edit(
  (_project, name: string, _like: number | null) => t("add the delivery {name}", { name }),
  (project, name, like): Project => {
    const model = like === null ? USUAL_DELIVERY : deliveryAt(project, like);
    const parsed = Delivery.safeParse({ ...model, name });
    if (!parsed.success)
      throw new CaravanError("bad-name", t('delivery "{name}"', { name }), t("Files cannot have this name."), t("Type another name."));
    refuseTwin(project, name, -1);
    return { ...project, deliveries: [...project.deliveries, parsed.data] };
  },
);

/** Removes a delivery. Throws `last-delivery` if it is the only one. */
export const removeDelivery = edit(
  (project, index: number) => t("remove the delivery {name}", { name: project.deliveries[index]?.name ?? "" }),
  (project, index): Project => {
    const { name } = deliveryAt(project, index);
    if (project.deliveries.length === 1)
      throw new CaravanError(
        "bad-number",
        t('delivery "{name}"', { name }),
        t("It is the only one."),
        t("Add another one first, or change this one."),
      );
    return { ...project, deliveries: project.deliveries.filter((_, k) => k !== index) };
  },
);

/** A name for a new delivery that no other one has. */
export function freeDeliveryName(project: Project, wanted: string): string {
  return freeName(wanted, new Set(project.deliveries.map(({ name }) => name)), " ");
}

function deliveryAt(project: Project, index: number): Delivery {
  const delivery = project.deliveries[index];
  if (!delivery)
    throw new CaravanError("not-found", t("delivery {index}", { index }), t("There is no such delivery."), t("Choose another one."));
  return delivery;
}

function refuseTwin(project: Project, name: string, but: number): void {
  if (project.deliveries.some((each, k) => k !== but && each.name.toLowerCase() === name.toLowerCase()))
    throw new CaravanError(
      "name-taken",
      t('delivery "{name}"', { name }),
      t("There is already a delivery of this name."),
      t("Type another name."),
    );
}

function merged(before: Delivery, change: DeliveryChange): object {
  return Object.fromEntries(
    Object.entries({ ...before, ...change }).map(([key, value]) => {
      const old = before[key as keyof Delivery];
      return isParts(old) && isParts(value) ? [key, { ...old, ...value }] : [key, value];
    }),
  );
}

/** What undo calls the change: the trade's words, not the fields' names. */
function wordsFor(change: DeliveryChange): string {
  const said = Object.entries(change).flatMap(([key, value]) =>
    isParts(value) ? Object.keys(value).map((part) => PART_WORDS[`${key}.${part}`] ?? part) : [WORDS[key as keyof Delivery] ?? key],
  );
  return [...new Set(said)].map(inLanguage).join(", ");
}

const WORDS: Record<keyof Delivery, string> = {
  name: "the name",
  kind: "the kind of pictures",
  filter: "the filter",
  choice: "the contents",
  frameNames: "the frame names",
  densities: "the sizes",
  packing: "the packing",
  sheet: "the sheet",
  films: "the films",
  mirroredFilms: "the films of mirrored facings",
  gifBackground: "the background of GIFs",
  data: "the files beside",
  parts: "the handling of parts",
  counting: "how numbers count",
};

/** A part of a setting that would not be understood by its own name. */
const PART_WORDS: Readonly<Record<string, string>> = {
  "choice.of": "the contents",
  "choice.names": "the contents",
  "choice.pattern": "the contents",
  "choice.frames": "the contents",
  "packing.paddingPx": "the distance of frames",
  "packing.extrudePx": "the extruded edge",
  "packing.borderPx": "the border",
  "packing.sides": "the page sides",
  "packing.maxPx": "the largest side",
  "packing.fixed": "the size of pages",
  "packing.square": "the page sides",
  "packing.maxPages": "the most pages",
  "packing.together": "what stays on one page",
  "packing.turn": "the turning of frames",
  "packing.trim": "the trimming",
  "packing.trimMarginPx": "the trimming",
  "packing.share": "the sharing of identical frames",
  "packing.shareMirrored": "the sharing of mirrored frames",
  "packing.effort": "the search for smaller pages",
  "sheet.columns": "the columns",
  "sheet.marginPx": "the margin",
  "sheet.gapPx": "the spacing",
  "sheet.run": "the run of strips",
  "sheet.rows": "the rows of the sheet",
  "data.atlas": "the atlas file",
  "data.compact": "the atlas file",
  "data.times": "the table of times",
  "data.ticksPerSecond": "the ticks a second",
  "data.ticks": "the ticks of steps",
  "data.frames": "the table of frames",
  "data.rules": "the tables of rules",
  "data.tiles": "the tiles",
  "data.example": "the example",
  "data.contact": "the contact sheet",
  "data.page": "the page to hand round",
  "data.module": "the module",
  "counting.origin": "how origins count",
  "counting.y": "how origins count",
  "counting.from": "where numbers begin",
};

function isParts(value: unknown): value is object {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}
