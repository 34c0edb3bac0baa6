import { CaravanError, checkedName, Delivery, type Packing, type Project } from "../model";
import { edit } from "./edit";

/** Throws `bad-name`. */
export const renameProject = edit(
  (_project, name: string) => `rename the project to ${name.trim()}`,
  (project, wanted) => {
    const name = checkedName(wanted, "project name");
    return name === project.name ? project : { ...project, name };
  },
);

/** What may be set of a delivery at once. */
export type DeliveryChange = Partial<Pick<Delivery, "name" | "filter">> & { readonly packing?: Partial<Packing> };

/** Changes the delivery at `index`. Throws `bad-number` with the field that does not fit. */
export const setDelivery = edit(
  (project, index: number, change: DeliveryChange) =>
    `change ${Object.keys(change.packing ?? change).join(", ")} of ${project.deliveries[index]?.name ?? "the delivery"}`,
  (project, index, change): Project => {
    const before = project.deliveries[index];
    if (!before) throw new CaravanError("not-found", `delivery ${index}`, "There is no such delivery.", "Choose another one.");
    const parsed = Delivery.safeParse({ ...before, ...change, packing: { ...before.packing, ...change.packing } });
    if (!parsed.success) {
      const issue = parsed.error.issues[0];
      throw new CaravanError(
        "bad-number",
        String(issue?.path.at(-1) ?? "delivery"),
        `This does not fit: ${issue?.message}.`,
        "The earlier value was kept.",
      );
    }
    if (JSON.stringify(parsed.data) === JSON.stringify(before)) return project;
    return { ...project, deliveries: project.deliveries.map((each, k) => (k === index ? parsed.data : each)) };
  },
);
