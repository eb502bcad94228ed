import { type Command, compileRuleset, type Rules, World } from '@eager-ember/core';
import { median, rounded, type Row } from './measure.js';

const [QUESTS, SEATS, TICKS] = [200, 64, 400];
/** A tick of 20 a second has this long. */
const TICK_US = 50_000;

/** How many kinds of things there are to count: each quest waits for one of them, and what happens is one of them. */
const KINDS = 20;
const felled = (kind: number) => `felled${kind % KINDS}`;

/** Quests of which three quarters wait for an event, every eighth for the whole crew, and a quarter for a condition. */
function rulesWith(quests: number, kinds: number): Rules {
  const counters = [...Array.from({ length: KINDS }, (_, kind) => felled(kind)), 'scrip'];
  return compileRuleset({
    format: 'eager-ember/ruleset',
    version: 2,
    name: 'Listening',
    tickRate: 20,
    teams: ['petrel', 'gannet'].map((id) => ({ id, label: id })),
    attributes: counters.map((id) => ({ id, label: id, kind: 'counter' })),
    actors: [{ id: 'diver', label: 'Diver', kind: 'player', attributes: counters.map((attribute) => ({ attribute })) }],
    quests: Array.from({ length: quests }, (_, i) => ({
      id: `quest${i}`,
      label: `Quest ${i}`,
      offered: [{ by: 'start' }],
      begins: 'atOnce',
      steps: [
        {
          id: 'only',
          label: 'Only',
          goals: [
            i % 4 === 3
              ? { id: 'rich', line: 'Rich', if: `scrip > ${1_000_000 + i}` }
              : {
                  id: 'many',
                  line: 'Felled {have}/{need}',
                  on: { on: 'attributeChanged', attribute: felled(Math.floor(i / 8) % kinds), how: 'give' },
                  count: 100_000,
                  counts: i % 8 === 0 ? 'crew' : 'player',
                },
          ],
        },
      ],
    })),
  });
}

/** Microseconds of each tick in which two of the divers fell something. */
function ticks(rules: Rules, kinds: number): readonly number[] {
  const world = World.start(rules, 5);
  const names = Array.from({ length: SEATS }, (_, i) => `diver${i}`);
  world.step(names.map((seat) => ({ kind: 'join', args: { seat } })));
  for (let n = 0; n < 30; n++) world.step();
  return Array.from({ length: TICKS }, (_, tick) => {
    const commands = [tick, tick + 31].map((n): Command => ({
      kind: 'poke',
      args: { seat: names[n % SEATS], action: { do: 'give', attribute: felled(kinds === 1 ? 0 : n), amount: 1 } },
    }));
    const began = performance.now();
    world.step(commands);
    return (performance.now() - began) * 1000;
  });
}

/** Two hundred quests that 64 seats are all on, all of them listening. */
export function quests(): readonly Row[] {
  const alone = median([...ticks(rulesWith(0, 1), 1)]);
  const row = (what: string, kinds: number, reach: string): Row => {
    const rules = rulesWith(QUESTS, kinds);
    ticks(rules, kinds);
    const times = ticks(rules, kinds);
    const [one, worst] = [median([...times]), [...times].sort((a, b) => a - b)[Math.floor(times.length * 0.99)]];
    return {
      what: `a tick of ${SEATS} seats, each on ${QUESTS} quests, two things happening: ${what}`,
      value: rounded(one),
      reference: rounded(alone),
      unit: 'µs',
      referenceIs: 'the same seats without any quest',
      ratio: `${((one / TICK_US) * 100).toFixed(1)} % of a tick of 20 a second; 99 of 100 within ${((worst / TICK_US) * 100).toFixed(1)} %`,
      reach,
    };
  };
  return [
    row('each for one quest in twenty', KINDS, 'within 10 %'),
    row('each for all quests, 1,850 goals counted', 1, 'none set: the worst that can be asked'),
  ];
}
