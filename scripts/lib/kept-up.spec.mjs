import { spawn } from 'node:child_process';
import { keptUp, MOST_DEATHS } from './kept-up.mjs';

/** A process that says that it is there, and then does what it is told. */
function processes(...deeds) {
  const pids = [];
  const start = (ready) => {
    const deed = deeds[Math.min(pids.length, deeds.length - 1)];
    const child = spawn(process.execPath, ['-e', deed], { stdio: ['ignore', 'pipe', 'ignore'] });
    pids.push(child.pid);
    child.stdout.once('data', ready);
    return child;
  };
  return { start, pids };
}
const THERE = 'console.log("there");';
const STAYS = `${THERE} setInterval(() => undefined, 1000);`;
const DIES = `${THERE} setTimeout(() => process.exit(3), 50);`;

describe('A process that is kept up', () => {
  /** Waits for a number of starts, or for its being given up. */
  const kept = (deeds, options = {}) => {
    const said = [];
    const { start, pids } = processes(...deeds);
    let end;
    const over = new Promise((done) => {
      end = keptUp({
        start: (ready) => {
          const child = start(ready);
          if (deeds[pids.length - 1] === STAYS) child.stdout.once('data', () => setTimeout(() => done('stays')));
          return child;
        },
        say: (text) => said.push(text),
        gaveUp: () => done('given up'),
        firstWaitMs: 1,
        ...options,
      });
    });
    return { over, said, pids, end };
  };

  it('is started again where it died, with a word', async () => {
    const { over, said, pids, end } = kept([DIES, DIES, STAYS]);
    expect(await over).toBe('stays');
    expect([pids.length, said.length]).toEqual([3, 2]);
    expect(said[0]).toBe('The server ended (3). It is started again; who was there comes back by themselves.');
    await end();
  });

  it('is left alone where it dies again and again', async () => {
    const { over, said, pids } = kept([DIES]);
    expect(await over).toBe('given up');
    expect(pids.length).toBe(MOST_DEATHS + 1);
    expect(said.at(-1)).toContain('6 times within ten minutes: it is not started again');
  });

  it('may die as often as that again, once ten minutes have gone by', async () => {
    let minutes = 0;
    const { over, pids, end } = kept([...Array(7).fill(DIES), STAYS], { now: () => (minutes += 6) * 60_000 });
    expect(await over).toBe('stays');
    expect(pids.length).toBe(8);
    await end();
  });

  it('is not started again where it never was ready: it would not be the next time either', async () => {
    const { over, said, pids } = kept(['process.exit(2)']);
    expect([await over, pids.length, said]).toEqual(['given up', 1, ['The server ended (2) before it was ready.']]);
  });

  it('ends for good when it is told to', async () => {
    const { over, said, pids, end } = kept([STAYS]);
    await over;
    await end();
    await end();
    expect([pids.length, said]).toEqual([1, []]);
  });
});
