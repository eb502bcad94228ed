import { applyEffect, bodiesTable, compileRuleset, placeActor, spawnActor, World } from '@eager-ember/core';
import { compare, rounded, type Row } from './measure.js';

const ACTORS = 1000;
const POOLS = 12;

function ruleset() {
  const pools = Array.from({ length: POOLS }, (_, i) => ({
    id: `pool${i}`,
    label: `Pool ${i}`,
    kind: 'pool',
    max: i % 3 === 0 ? 'capacity' : 1000,
    start: 1,
    // Every third refills by a formula over a status and a stat; each has a threshold, some with edges that move.
    refill: { rate: i % 3 === 1 ? 'has(slowed) ? 0.2 : haste * 0.5' : 0.5 + i * 0.01 },
    thresholds: [{ id: 'low', ...(i % 2 === 0 ? { to: 'capacity * 0.0001' } : { end: 'empty', margin: 2 }) }],
  }));
  const stats = [
    { id: 'capacity', label: 'Capacity', kind: 'stat', start: 1000 },
    { id: 'haste', label: 'Haste', kind: 'stat', start: 1 },
    { id: 'finSpeed', label: 'Fin speed', kind: 'stat', start: 40 },
  ];
  return compileRuleset({
    format: 'eager-ember/ruleset',
    version: 2,
    name: 'Bench',
    tickRate: 20,
    statuses: [{ id: 'slowed', label: 'Slowed' }],
    attributes: [...pools, ...stats],
    effects: Array.from({ length: 4 }, (_, i) => ({
      id: `effect${i}`,
      label: `Effect ${i}`,
      lasts: '7200s',
      modifiers: [{ attribute: 'finSpeed', operation: 'percent', amount: 5 }],
    })),
    actors: [
      {
        id: 'diver',
        label: 'Diver',
        kind: 'player',
        speed: 'finSpeed',
        attributes: [...pools, ...stats].map(({ id }) => ({ attribute: id })),
      },
    ],
    arena: { width: 4000, height: 4000, walls: [{ x: 1000, y: 1000, width: 200, height: 20 }] },
  });
}

/** A tick of 1,000 actors with 12 refilling pools and 4 timed effects each, all moving. */
export function worldTick(): Row {
  const rules = ruleset();
  const world = World.start(rules, 1);
  for (let i = 0; i < ACTORS; i++) {
    const actor = spawnActor(world, 0, -1, `d${i % 10}`);
    const row = world.actors.rowOf(actor);
    placeActor(world, row, 100 + (i % 38) * 100, 100 + Math.floor(i / 38) * 100);
    for (let effect = 0; effect < 4; effect++) applyEffect(world, actor, effect, actor);
    bodiesTable.in(world).cells.headingX[row] = i % 2 === 0 ? 0.01 : -0.01;
    bodiesTable.in(world).cells.headingY[row] = 0.01;
  }
  world.step();
  const values = new Float64Array(ACTORS * POOLS).fill(1);
  const rates = new Float64Array(ACTORS * POOLS).fill(0.025);
  const most = new Float64Array(ACTORS * POOLS).fill(1000);
  const bare = () => {
    for (let i = 0; i < values.length; i++) {
      const next = values[i] + rates[i];
      values[i] = next > most[i] ? most[i] : next;
    }
  };
  const { one, other } = compare(() => world.step(), bare, 60, 40);
  return {
    what: 'world tick: 1,000 actors, 12 pools with thresholds and formulas, 4 effects each, moving',
    value: rounded(one),
    reference: rounded(other),
    unit: 'µs',
    referenceIs: 'bare refill-and-clamp pass over 12,000 doubles',
    ratio: `${(one / other).toFixed(1)}x`,
    reach: 'at most 15x, then 6x, then 4x',
  };
}
