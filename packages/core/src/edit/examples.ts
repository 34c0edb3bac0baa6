/** Edits the example files whose shape deliveries are written in. */
import { checkedName, type Delivery, type Example, exampleNamed, freeName, type Project } from "../model";
import { t } from "../words";
import { edit } from "./edit";

/**
 * Keeps an example by its name, and has the delivery at `index` written in its shape. It takes the place of an earlier one of that name, with
 * the meanings that a person assigned in it, unless another delivery is written in the shape of that: then it gets a name of its own.
 * Throws `bad-name`.
 */
export const deliverLike = edit(
  (_project, example: Example, _index: number) => t("deliver in the shape of {name}", { name: example.name }),
  (project, example, index): Project => {
    checkedName(example.name, t("The example"));
    const { examples } = project;
    const known = examples.find(({ name }) => name === example.name);
    const isOfOthers = project.deliveries.some(({ data }, k) => k !== index && data.example === example.name);
    if (known && isOfOthers && known.text !== example.text) {
      const apart = { ...example, name: freeName(example.name, new Set(examples.map(({ name }) => name))) };
      return { ...withShapeOf(project, index, apart.name), examples: [...examples, apart] };
    }
    const kept = known?.assigned ? { ...example, assigned: known.assigned } : example;
    return {
      ...withShapeOf(project, index, example.name),
      examples: known ? examples.map((each) => (each === known ? kept : each)) : [...examples, example],
    };
  },
);

function withShapeOf(project: Project, index: number, name: string): Project {
  return { ...project, deliveries: project.deliveries.map((each, k) => (k === index ? withExample(each, name) : each)) };
}

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
