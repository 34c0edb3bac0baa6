/** The former one, done or not. */
let former: Promise<unknown> = Promise.resolve();

/**
 * Does work that replaces what the same person set a moment ago, one after the other in the order asked for: a worker may take longer for the
 * first than for the second, and the second must build on the first.
 */
export function inTurn<Result>(work: () => Promise<Result>): Promise<Result> {
  const done = former.then(work);
  former = done.catch(() => {});
  return done;
}
