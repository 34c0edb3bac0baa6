/** Ends the waiting for parts of the browser that may stop for good, such as its decoders, without an error of their own. */

/** Far beyond what a decoder needs for one answer, also on a busy machine; in ms. */
const PATIENCE = 120_000;

/** The outcome of `work`. Throws `late()` if there is none in two minutes. */
export async function inTime<Value>(work: Promise<Value>, late: () => Error): Promise<Value> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const waited = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(late()), PATIENCE);
  });
  try {
    return await Promise.race([work, waited]);
  } finally {
    clearTimeout(timer);
  }
}

/** The same values, each in time. */
export async function* eachInTime<Value>(values: AsyncGenerator<Value, unknown>, late: () => Error): AsyncGenerator<Value> {
  try {
    for (;;) {
      const next = await inTime(values.next(), late);
      if (next.done) return;
      yield next.value;
    }
  } finally {
    // Not waited for: what does not answer does not end either.
    values.return(undefined).catch(() => {});
  }
}
