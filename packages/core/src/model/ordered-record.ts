/**
 * Builds records that keep their names in the given order. An object puts names that look like numbers first, in their order, whatever
 * the project says; so the order is remembered beside the object, and everything that is written asks for it here.
 */
const orders = new WeakMap<object, readonly string[]>();

/** The entries as an object whose order `entriesOf` and `orderedJson` preserve. A duplicate name keeps its first position. */
export function orderedRecord<Value>(entries: readonly (readonly [name: string, value: Value])[]): Record<string, Value> {
  const record = Object.fromEntries(entries) as Record<string, Value>;
  orders.set(record, [...new Set(entries.map(([name]) => name))]);
  return record;
}

/** Its entries in the order in which they were given; of any other object in its own. */
export function entriesOf<Value>(record: Readonly<Record<string, Value>>): [name: string, value: Value][] {
  const order = orders.get(record);
  return order ? order.map((name) => [name, record[name] as Value]) : Object.entries(record);
}

/** A record's own value under a name that people chose, which may be one that every object has, such as `constructor`. */
export function ownOf<Value>(record: Readonly<Record<string, Value>> | null | undefined, name: string): Value | undefined {
  return record && Object.hasOwn(record, name) ? record[name] : undefined;
}

/** As `JSON.stringify(value, null, 1)`, with the names of ordered records in their order. */
export function orderedJson(value: unknown, indent = ""): string {
  if (typeof value !== "object" || value === null) return JSON.stringify(value) ?? "null";
  const inner = `${indent} `;
  const lines = Array.isArray(value)
    ? value.map((each) => orderedJson(each, inner))
    : entriesOf(value as Record<string, unknown>).flatMap(([name, each]) =>
        each === undefined ? [] : [`${JSON.stringify(name)}: ${orderedJson(each, inner)}`],
      );
  const [open, close] = Array.isArray(value) ? "[]" : "{}";
  return lines.length === 0 ? `${open}${close}` : `${open}\n${inner}${lines.join(`,\n${inner}`)}\n${indent}${close}`;
}

/** As `JSON.stringify(value)`, with the names of ordered records in their order. */
export function orderedCompactJson(value: unknown): string {
  if (typeof value !== "object" || value === null) return JSON.stringify(value) ?? "null";
  if (Array.isArray(value)) return `[${value.map(orderedCompactJson).join(",")}]`;
  const fields = entriesOf(value as Record<string, unknown>).flatMap(([name, each]) =>
    each === undefined ? [] : [`${JSON.stringify(name)}:${orderedCompactJson(each)}`],
  );
  return `{${fields.join(",")}}`;
}
