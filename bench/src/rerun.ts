import { readFileSync } from 'node:fs';
import { checkScript, compileRuleset, runScript, World } from '@eager-ember/core';
import { median, rounded, type Row } from './measure.js';

const SECONDS = 60;

/** Sixty seconds of the demo with eight seats that move, ping and pick things up, as fast as it goes. */
export function rerun(): Row {
  const rules = compileRuleset(JSON.parse(readFileSync(new URL('../../examples/brinewick.json', import.meta.url), 'utf8')));
  const names = Array.from({ length: 8 }, (_, i) => `seat${i}`);
  const inputs = names.flatMap((seat, i) =>
    Array.from({ length: SECONDS }, (_, s) => [
      { at: s + 0.1, seat, do: 'moveTo', x: ((i * 131 + s * 97) % 900) + 20, y: ((i * 71 + s * 53) % 500) + 20 },
      { at: s + 0.5, seat, do: 'use', ability: 'sonarPing' },
    ]).flat(),
  );
  const { script, problems } = checkScript(rules, { seats: names.map((id) => ({ id })), inputs });
  if (!script) throw new Error(JSON.stringify(problems));
  const timed = (work: () => void) => {
    const began = performance.now();
    work();
    return performance.now() - began;
  };
  const times: number[] = [];
  const empties: number[] = [];
  for (let round = 0; round < 25; round++) {
    const run = timed(() => runScript(rules, script, { until: SECONDS * rules.tickRate }));
    const empty = timed(() => {
      const world = World.start(rules, 1);
      for (let tick = 0; tick < SECONDS * rules.tickRate; tick++) world.step();
    });
    if (round >= 5) {
      times.push(run);
      empties.push(empty);
    }
  }
  const ms = median(times);
  return {
    what: 're-running 60 s of the demo with 8 seats',
    value: rounded(ms),
    reference: rounded(median(empties)),
    unit: 'ms',
    referenceIs: 'the same 1,200 ticks with nobody in the arena',
    ratio: `${Math.round((SECONDS * 1000) / ms)}x real time`,
    reach: '1,000x real time or better',
  };
}
