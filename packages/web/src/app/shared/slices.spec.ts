import { inSlices } from './slices';

describe('Work in slices', () => {
  /** Work of so many parts, each longer than a slice. */
  function* parts(count: number, done: number[]): Generator<void, string> {
    for (let n = 0; n < count; n++) {
      for (const end = performance.now() + 10; performance.now() < end;);
      done.push(n);
      yield;
    }
    return 'all';
  }

  it('lets others in between its parts', async () => {
    const done: number[] = [];
    const seen: number[] = [];
    const channel = new MessageChannel();
    channel.port1.onmessage = () => {
      seen.push(done.length);
      if (done.length < 4) channel.port2.postMessage(0);
    };
    channel.port2.postMessage(0);
    expect(await inSlices(parts(4, done), () => false)).toBe('all');
    expect(seen.some((count) => count > 0 && count < 4)).toBeTrue();
    channel.port1.close();
  });

  it('is left where nobody wants it any more', async () => {
    const done: number[] = [];
    expect(await inSlices(parts(50, done), () => done.length >= 2)).toBeUndefined();
    expect(done.length).toBe(2);
  });
});
