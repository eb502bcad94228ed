import { readFileSync } from 'node:fs';
import { type Command, compileRuleset, type Rules, wiringOf, World } from '@eager-ember/core';
import { median, rounded, type Row } from './measure.js';

const TICKS = 600;
const SEATS = 8;
/** A tick of 20 a second has this long. */
const TICK_US = 50_000;
const DEMO = JSON.parse(readFileSync(new URL('../../examples/brinewick.json', import.meta.url), 'utf8')) as Record<string, unknown>;

/** The demo on wide ground with this many placed things: pickups, zones, crates, characters and spawners by turns. */
function crowded(things: number): Rules {
  const kinds = [
    ...['copperToken', 'airCanister', 'manifestPage', 'slipstreamPod', 'copperToken', 'airCanister'].map((pickup) => ({ pickup })),
    { zone: 'coldCurrent', radius: 60 },
    { actor: 'supplyCrate' },
    { actor: 'quartermaster' },
    { spawner: 'kelpBed' },
  ];
  const placed = Array.from({ length: things }, (_, i) => ({
    ...kinds[i % kinds.length],
    x: 40 + (i % 25) * 76,
    y: 40 + Math.floor(i / 25) * 76,
  }));
  return compileRuleset({ ...DEMO, arena: { width: 2000, height: 1600, starts: [], walls: [], placed }, situations: [] });
}

/** What the overlaps of each tick took while eight divers cross the ground, asking of what is near, in microseconds. */
function overlaps(rules: Rules): readonly number[] {
  const { systems } = rules.registry;
  const own = [...systems.overlaps];
  let spent = 0;
  systems.overlaps = own.map((system) => (world: World) => {
    const began = performance.now();
    system(world);
    spent += performance.now() - began;
  });
  try {
    const world = World.start(rules, 3);
    const names = Array.from({ length: SEATS }, (_, i) => `diver${i}`);
    world.step(names.map((seat) => ({ kind: 'join', args: { seat } })));
    return Array.from({ length: TICKS }, (_, tick) => {
      const commands = names.flatMap((seat, i): Command[] => {
        const turn = tick + i * 37;
        if (turn % 60 === 0)
          return [{ kind: 'input', args: { seat, input: { do: 'moveTo', x: (turn * 131) % 2000, y: (turn * 197 + i * 400) % 1600 } } }];
        return turn % 25 === 0 ? [{ kind: 'input', args: { seat, input: { do: 'interact' } } }] : [];
      });
      spent = 0;
      world.step(commands);
      return spent * 1000;
    });
  } finally {
    systems.overlaps = own;
  }
}

/** The overlap phase of a room with 500 placed things and eight seats. */
function phase(): Row {
  overlaps(crowded(500));
  const times = overlaps(crowded(500));
  const alone = median([...overlaps(crowded(10))]);
  const [one, worst] = [median([...times]), [...times].sort((a, b) => a - b)[Math.floor(times.length * 0.99)]];
  return {
    what: 'the overlap phase of a room with 500 placed things and 8 seats',
    value: rounded(one),
    reference: rounded(alone),
    unit: 'µs',
    referenceIs: 'the same seats among 10 placed things',
    ratio: `${((one / TICK_US) * 100).toFixed(1)} % of a tick of 20 a second; 99 of 100 within ${((worst / TICK_US) * 100).toFixed(1)} %`,
    reach: 'within 10 %',
  };
}

/** Who emits and who listens in the demo. */
function wiring(): Row {
  const timed = (work: () => unknown) =>
    median(
      Array.from({ length: 15 }, () => {
        const began = performance.now();
        work();
        return performance.now() - began;
      }),
    );
  const rules = compileRuleset(DEMO);
  const [one, other] = [timed(() => wiringOf(rules)), timed(() => compileRuleset(DEMO))];
  return {
    what: 'the wiring of the demo',
    value: rounded(one),
    reference: rounded(other),
    unit: 'ms',
    referenceIs: 'compiling it',
    ratio: `${(one / other).toFixed(2)}x of compiling`,
    reach: 'under 50 ms',
  };
}

export const around = (): readonly Row[] => [phase(), wiring()];
