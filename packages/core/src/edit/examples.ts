/** Edits the example files whose shape deliveries are written in. */
import { checkedName, type Delivery, type Example, exampleNamed, type Project } from "../model";
import { t } from "../words";
import { edit } from "./edit";

/** Keeps an example by its name, in the place of an earlier one of that name, and has the delivery at `index` written in its shape. Throws `bad-name`. */
export const deliverLike = edit(
  (_project, example: Example, _index: number) => t("deliver in the shape of {name}", { name: example.name }),
  (project, example, index): Project => {
    checkedName(example.name, t("The example"));
    return {
      ...project,
      examples: project.examples.some(({ name }) => name === example.name)
        ? project.examples.map((each) => (each.name === example.name ? example : each))
        : [...project.examples, example],
      deliveries: project.deliveries.map((each, k) => (k === index ? withExample(each, example.name) : each)),
    };
  },
);

/** Sets the meaning of an example's field; null removes it. The example keeps its position in the project. */
export const assignField = edit(
  (_project, name: string, path: string, means: string | null) =>
    means === null ? t("reset the meaning of {path} in {name}", { path, name }) : t("set the meaning of {path} in {name}", { path, name }),
  (project, name, path, means): Project => {
    const example = exampleNamed(project, name);
    const others = (example.assigned ?? []).filter((each) => each.path !== path);
    const { assigned: _before, ...rest } = example;
    const assigned = means === null ? others : [...others, { path, means }];
    const next: Example = assigned.length > 0 ? { ...rest, assigned } : rest;
    return { ...project, examples: project.examples.map((each) => (each === example ? next : each)) };
  },
);

/** Removes an example from the project, and from the deliveries in its shape. */
export const forgetExample = edit(
  (_project, name: string) => t("remove the example {name}", { name }),
  (project, name): Project => ({
    ...project,
    examples: project.examples.filter((each) => each.name !== name),
    deliveries: project.deliveries.map((each) => (each.data.example === name ? withExample(each, null) : each)),
  }),
);

function withExample(delivery: Delivery, example: string | null): Delivery {
  return { ...delivery, data: { ...delivery.data, example } };
}
