/** Does something with each item of a list, as work in parts: one item in each. */
export function* eachInPart<T, R>(items: readonly T[], work: (item: T, i: number) => R): Generator<void, R[]> {
  const done: R[] = [];
  for (let i = 0; i < items.length; i++) {
    done.push(work(items[i], i));
    yield;
  }
  return done;
}

/** Does all parts of a piece of work at once. */
export function atOnce<T>(parts: Generator<void, T>): T {
  for (;;) {
    const { done, value } = parts.next();
    if (done) return value;
  }
}
