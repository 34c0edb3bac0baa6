/** Converts behaviours to and from their form in `caravan.json` and in atlas files, keyed by name. */
import type { Behaviour, BehaviourName, FileBehaviour, Input } from "./behaviour";
import { entriesOf, orderedRecord } from "./ordered-record";

export function behavioursToFile(behaviours: readonly Behaviour[]): Record<string, FileBehaviour> {
  return orderedRecord(
    behaviours.map(({ name, inputs, rules }) => [
      name,
      { inputs: orderedRecord(inputs.map(({ name: input, ...rest }) => [input, rest])) as FileBehaviour["inputs"], rules },
    ]),
  );
}

export function behavioursFromFile(file: Readonly<Record<string, FileBehaviour>>): Behaviour[] {
  return entriesOf(file).map(([name, { inputs, rules }]) => ({
    name: name as BehaviourName,
    inputs: entriesOf(inputs).map(([input, rest]) => ({ name: input, ...rest }) as Input),
    rules,
  }));
}
