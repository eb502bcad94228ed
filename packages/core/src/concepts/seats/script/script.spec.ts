import brinewick from '../../../testing/recorded/brinewick.json' with { type: 'json' };
import crateAndRest from '../../../../../../examples/crate-and-rest.script.json' with { type: 'json' };
import outOfAir from '../../../../../../examples/out-of-air.script.json' with { type: 'json' };
import torchAndLamprey from '../../../../../../examples/torch-and-lamprey.script.json' with { type: 'json' };
import twoPods from '../../../../../../examples/two-pods.script.json' with { type: 'json' };
import { checkScript, compileRuleset, type RunRecord, runScript } from '../../../index.js';

/** The same in every engine: the suite that holds this runs in Node and in Chromium. */
const HASH_OF_CRATE_AND_REST = '4edf4116c805567e';
const HASH_OF_OUT_OF_AIR = 'ceecc6507252844b';
const HASH_OF_TORCH_AND_LAMPREY = '7a93b732d1ea1c9e';
const HASH_OF_TWO_PODS = '91f6ee4c5add5cc6';

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

describe('The script of a torch and a lamprey', () => {
  const { script, problems: wrong } = checkScript(rules, torchAndLamprey);

  it('ends with the same hash in every engine', () => {
    expect(wrong).toEqual([]);
    expect(runScript(rules, script!, { until: 400, seed: 7 }).hash()).toBe(HASH_OF_TORCH_AND_LAMPREY);
  });

  it('breaks, casts, throws, fells, is refused, and gives back what it is to', () => {
    const told: string[] = [];
    runScript(rules, script!, { until: 400, seed: 7 }, (record) => 'text' in record && told.push(record.text));
    for (const line of [
      'north’s cutting torch is broken by moving',
      'north’s stamina 100 → 75',
      'Lamprey falls, by north',
      'Second wind: You have air enough.',
      'north’s tow line is broken on purpose',
      'north’s stamina 60.6 → 70.6',
      'north’s depth charge lands, 0 in it',
      'Lamprey comes back',
    ])
      expect(told).toContain(line);
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

describe('The script of a crate and a rest', () => {
  const { script, problems: wrong } = checkScript(rules, crateAndRest);
  const told = (until = 640) => {
    const lines: string[] = [];
    const world = runScript(rules, script!, { until, seed: 7 }, (record) => 'text' in record && lines.push(`${record.t} ${record.text}`));
    return { world, lines };
  };

  it('ends with the same hash in every engine', () => {
    expect(wrong).toEqual([]);
    expect(told().world.hash()).toBe(HASH_OF_CRATE_AND_REST);
  });

  it('opens, takes, closes, is refused, rests, is broken off and answered, in this order', () => {
    const steps = /supply crate|Supply crate|rest and refill|Rest and refill|Chart-keeper:|answers/;
    const { lines } = told();
    const rolled = / for north: .*\((always there|.*chance .*)\)$/;
    expect(lines.filter((line) => rolled.test(line)).map((line) => line.replace(/ \(.*/, ''))).toEqual([
      '4.2 Supply crate for north: brass fittings',
      '4.2 Supply crate for north: air bottle',
      '4.2 Supply crate for north: 2 × scrip',
      '4.2 Supply crate for north: bubble soap',
    ]);
    expect(lines.filter((line) => steps.test(line) && !line.includes('’s ') && !rolled.test(line))).toEqual([
      '4.2 north opens supply crate',
      '5 north takes 1 brass fittings from supply crate',
      '5 north takes air bottle from supply crate',
      '5 north takes 2 scrip from supply crate',
      '5 north takes bubble soap from supply crate',
      '6.6 Supply crate is closed',
      '9 Rest and refill: Forty scrip a night. The sea is free.',
      '10 Rest and refill: Forty scrip a night. The sea is free.',
      '14 north: rest and refill begins',
      '16.3 north: rest and refill ends: its visitor walked off',
      '20 Chart-keeper: “You want the freight in the wreck. So does everybody.”',
      '25.5 Chart-keeper: “Three of them. Shall I mark the place?”',
      '26 north answers: “We find it ourselves.”',
      '26 Chart-keeper: “Then mind the lampreys.”',
    ]);
  });
});
