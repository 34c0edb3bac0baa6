/** What a project delivers, and how. */
import { CaravanError, Delivery, type Project, USUAL_DELIVERY } from "../model";
import { edit } from "./edit";

/** What may be set of a delivery at once: whole values, or some of the settings of a part. */
export type DeliveryChange = {
  readonly [K in keyof Delivery]?: Delivery[K] extends readonly unknown[]
    ? Delivery[K]
    : Delivery[K] extends object
      ? Partial<Delivery[K]>
      : Delivery[K];
};

/** Changes the delivery at `index`. Throws `bad-number` with the field that does not fit, `name-taken`. */
export const setDelivery = edit(
  (project, index: number, change: DeliveryChange) => `change ${wordsFor(change)} of ${project.deliveries[index]?.name ?? "the delivery"}`,
  (project, index, change): Project => {
    const before = deliveryAt(project, index);
    const parsed = Delivery.safeParse(merged(before, change));
    if (!parsed.success) {
      const issue = parsed.error.issues[0];
      throw new CaravanError(
        "bad-number",
        String(issue?.path.findLast((part) => typeof part === "string") ?? "delivery"),
        `This does not fit: ${issue?.message}.`,
        "The earlier value was kept.",
      );
    }
    refuseTwin(project, parsed.data.name, index);
    if (JSON.stringify(parsed.data) === JSON.stringify(before)) return project;
    return { ...project, deliveries: project.deliveries.map((each, k) => (k === index ? parsed.data : each)) };
  },
);

/** Adds a delivery behind the others: the usual one, or a copy of the one at `like`. */
export const addDelivery = edit(
  (_project, name: string, _like: number | null) => `add the delivery ${name}`,
  (project, name, like): Project => {
    const model = like === null ? USUAL_DELIVERY : deliveryAt(project, like);
    const parsed = Delivery.safeParse({ ...model, name });
    if (!parsed.success) throw new CaravanError("bad-name", `delivery "${name}"`, "Files cannot be called so.", "Type another name.");
    refuseTwin(project, name, -1);
    return { ...project, deliveries: [...project.deliveries, parsed.data] };
  },
);

/** Takes a delivery away. Throws `last-delivery` if it is the only one. */
export const removeDelivery = edit(
  (project, index: number) => `remove the delivery ${project.deliveries[index]?.name ?? ""}`,
  (project, index): Project => {
    const { name } = deliveryAt(project, index);
    if (project.deliveries.length === 1)
      throw new CaravanError("bad-number", `delivery "${name}"`, "It is the only one.", "Add another one first, or change this one.");
    return { ...project, deliveries: project.deliveries.filter((_, k) => k !== index) };
  },
);

/** A name for a new delivery that no other one has. */
export function freeDeliveryName(project: Project, wanted: string): string {
  const taken = new Set(project.deliveries.map(({ name }) => name));
  let name = wanted;
  for (let n = 2; taken.has(name); n++) name = `${wanted} ${n}`;
  return name;
}

function deliveryAt(project: Project, index: number): Delivery {
  const delivery = project.deliveries[index];
  if (!delivery) throw new CaravanError("not-found", `delivery ${index}`, "There is no such delivery.", "Choose another one.");
  return delivery;
}

function refuseTwin(project: Project, name: string, but: number): void {
  if (project.deliveries.some((each, k) => k !== but && each.name.toLowerCase() === name.toLowerCase()))
    throw new CaravanError("name-taken", `delivery "${name}"`, "There is another delivery of this name.", "Type another name.");
}

function merged(before: Delivery, change: DeliveryChange): object {
  return Object.fromEntries(
    Object.entries({ ...before, ...change }).map(([key, value]) => {
      const old = before[key as keyof Delivery];
      return isParts(old) && isParts(value) ? [key, { ...old, ...value }] : [key, value];
    }),
  );
}

function wordsFor(change: DeliveryChange): string {
  return Object.entries(change)
    .flatMap(([key, value]) => (isParts(value) ? Object.keys(value) : [key]))
    .join(", ");
}

function isParts(value: unknown): value is object {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}
