import brinewick from '../../../../examples/brinewick.json' with { type: 'json' };
import outOfAir from '../../../../examples/out-of-air.script.json' with { type: 'json' };
import twoPods from '../../../../examples/two-pods.script.json' with { type: 'json' };
import { checkScript, compileRuleset, type RunRecord, runScript } from '../index.js';

/** The same in every engine: the suite that holds this runs in Node and in Chromium. */
const HASH_OF_OUT_OF_AIR = '6dbb945240bb536d';
const HASH_OF_TWO_PODS = '54ab5dd47c5c6492';

const rules = compileRuleset(brinewick);
const run = (seed = 1) => {
  const records: RunRecord[] = [];
  const world = runScript(rules, checkScript(rules, twoPods).script!, { until: 400, seed, every: 20 }, (record) => records.push(record));
  return { world, records };
};
const speeds = (records: readonly RunRecord[]) => records.flatMap((r) => ('sample' in r ? [r.sample['north']['finSpeed']] : []));

describe('The script of two pods', () => {
  it('ends with the same hash in every engine', () => {
    expect(run().world.hash()).toBe(HASH_OF_TWO_PODS);
  });

  it('counts both pods, each on its own clock, and returns to exactly 120', () => {
    const { records } = run();
    expect(speeds(records)).toEqual([120, 168, 168, 216, 216, 216, 216, 168, 168, 120, 120, 120, 120, 120, 120, 120, 120, 120, 120, 120]);
  });

  it('refuses the early ping with the time left', () => {
    const refusals = run().records.flatMap((r) => ('event' in r && r.event.name === 'abilityRefused' ? [[r.t, r.text]] : []));
    expect(refusals).toEqual([[7, 'Sonar ping is cooling down: ready in 6 s.']]);
  });

  it('depends on the seed only where luck has a part', () => {
    expect(speeds(run(1).records)).toEqual(speeds(run(2).records));
  });
});

describe('The script of running out of air', () => {
  const { script, problems: wrong } = checkScript(rules, outOfAir);

  it('ends with the same hash in every engine', () => {
    expect(wrong).toEqual([]);
    expect(runScript(rules, script!, { until: 600, seed: 7 }).hash()).toBe(HASH_OF_OUT_OF_AIR);
  });

  it('takes one hit, suffers while there is no air, and recovers beyond the margin', () => {
    const told: string[] = [];
    runScript(rules, script!, { until: 600, seed: 7 }, (record) => 'text' in record && told.push(`${record.t} ${record.text}`));
    const about = (words: RegExp) => told.filter((line) => words.test(line));
    expect(about(/suit .* →/).slice(0, 2)).toEqual(['2 north’s suit 100 → 100, 30 resisted', '2 north’s suit 100 → 70']);
    expect(about(/Winded/)).toEqual(['4 Winded begins on north', '7.6 Winded is removed on north']);
    expect(about(/Warmth/)).toEqual([
      '9 Warmth begins on north, for 8 s',
      '10 Warmth is renewed on north, for 15 s from now',
      '25 Warmth runs out on north',
    ]);
  });
});

describe('A script', () => {
  const problems = (value: unknown) => checkScript(rules, value).problems.map(({ path, message }) => `${path} ${message}`);

  it('is checked before anything runs', () => {
    expect(problems({})[0]).toContain('/seats');
    expect(problems(null)[0]).toContain('A script is a JSON object');
    expect(
      problems({ seats: [{ id: 'north' }], inputs: [{ at: 'soon', seat: 'nort', do: 'use', ability: 'sonarPign' }] }).join(),
    ).toContain('/inputs/0/at');
    const found = problems({
      seats: [{ id: 'north', team: 'petrl' }, { id: 'north' }],
      inputs: [
        { at: '1s', seat: 'nort', do: 'use', ability: 'sonarPign' },
        { at: 2, seat: 'north', do: 'fly' },
      ],
      pokes: [{ at: '1s', seat: 'north', do: 'hurt', attribute: 'suti', amount: 3 }],
    });
    for (const part of ['/seats/0/team', '/seats/1/id', '/inputs/0/seat', '/inputs/0/ability', '/inputs/1/do', '/pokes/0/attribute'])
      expect(found.some((p) => p.startsWith(part)))
        .withContext(part)
        .toBeTrue();
  });
});
