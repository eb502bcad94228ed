/** How long a thread works on without looking whether anybody wants something else of it, in milliseconds. */
const SLICE_MS = 8;

/** Lets everything in that has come for this thread meanwhile. */
const breathe = (): Promise<void> =>
  new Promise((done) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      done();
    };
    port2.postMessage(0);
  });

/**
 * Does long work in parts so that what is asked meanwhile need not wait for the end of it.
 * @param stopped whether nobody wants it any more: it is left where it is
 * @returns what it came to; undefined where it was left
 */
export async function inSlices<T>(parts: Generator<void, T>, stopped: () => boolean): Promise<T | undefined> {
  for (;;) {
    const end = performance.now() + SLICE_MS;
    do {
      const { done, value } = parts.next();
      if (done) return value;
    } while (performance.now() < end);
    await breathe();
    if (stopped()) return undefined;
  }
}
