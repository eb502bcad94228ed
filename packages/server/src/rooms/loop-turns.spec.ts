import { LoopTurns } from './loop-turns.js';

/** Keeps the thread for so many milliseconds. */
function work(ms: number): void {
  const until = performance.now() + ms;
  while (performance.now() < until);
}

describe('Turns of the event loop', () => {
  it('let timers that are due fire between two pieces of work that were ready together', async () => {
    const turns = new LoopTurns();
    const order: string[] = [];
    const ticking = setInterval(() => order.push('tick'), 1);
    const pieces = Array.from({ length: 4 }, async (_, n) => {
      await turns.next();
      order.push(`piece ${n}`);
      work(5);
    });
    await Promise.all(pieces);
    clearInterval(ticking);
    const between = order.slice(order.indexOf('piece 0'), order.indexOf('piece 3') + 1);
    expect(between).toEqual(['piece 0', 'tick', 'piece 1', 'tick', 'piece 2', 'tick', 'piece 3']);
  });

  it('let them fire between the parts of one piece as well', async () => {
    const order: string[] = [];
    function* parts(): Generator<void, string> {
      for (let n = 0; n < 3; n++) {
        order.push(`part ${n}`);
        work(5);
        yield;
      }
      return 'done';
    }
    const ticking = setInterval(() => order.push('tick'), 1);
    expect(await new LoopTurns().through(parts())).toBe('done');
    clearInterval(ticking);
    expect(order.slice(order.indexOf('part 0'), order.indexOf('part 2') + 1)).toEqual(['part 0', 'tick', 'part 1', 'tick', 'part 2']);
  });
});
