import { compileRuleset, huntsOf, Search, World } from '@eager-ember/core';
import { demo, type RulesetJson } from '../../e2e/src/trial.js';
import { rounded, type Row } from './measure.js';

const SECONDS = 15;

/** A demo with a hole in it: somebody who comes back has their money twice. */
function holed(): RulesetJson {
  const document = demo();
  const then = [{ do: 'give', attribute: 'scrip', amount: 'scrip' }];
  document['reactions'].push({ id: 'backPay', label: 'Back pay', on: { on: 'seatTaken' }, then });
  return document;
}

/** Ticks a second of the demo's hunts, everything looked at that has to hold, beside a bare world that runs as many with as many seats. */
export function hunts(): readonly Row[] {
  const rules = compileRuleset(demo());
  const rows = huntsOf(rules).map((hunt): Row => {
    const search = new Search(rules, hunt);
    // What the engine compiles comes first.
    search.go(0, 20);
    const began = performance.now();
    let [stories, ticks] = [0, 0];
    while (performance.now() - began < SECONDS * 1000) {
      const go = search.go(20 + stories, 10);
      stories += go.stories;
      ticks += go.ticks;
    }
    const ms = performance.now() - began;
    const world = World.start(rules, 1);
    world.step(hunt.given.map(({ name }) => ({ kind: 'join', args: { seat: name } })));
    const bareFrom = performance.now();
    for (let tick = 0; tick < ticks; tick++) world.step();
    const bare = performance.now() - bareFrom;
    const value = rounded(ticks / (ms / 1000));
    const reference = rounded(ticks / (bare / 1000));
    return {
      what: `the hunt “${hunt.label}” of the demo: ticks a second in one thread, ${rounded(stories / (ms / 1000))} stories`,
      value,
      reference,
      unit: 'a second',
      referenceIs: 'a bare world of the demo with as many seats that do nothing',
      ratio: `${rounded(ms / bare)}x as long`,
      reach: 'none set',
    };
  });
  const holedRules = compileRuleset(holed());
  const [money] = huntsOf(holedRules);
  const began = performance.now();
  const search = new Search(holedRules, money);
  let go = search.go(0, 10_000);
  while (!go.found) go = search.go(0, 1000);
  return [
    ...rows,
    {
      what: 'money that doubles as somebody comes back: until it is found and its story is as short as it gets',
      value: rounded((performance.now() - began) / 1000),
      reference: 60,
      unit: 's',
      referenceIs: 'what is asked for, on two cores',
      ratio: `${go.found.before} steps made into ${go.found.after}`,
      reach: 'under 60 s, at most 5 steps',
    },
  ];
}
