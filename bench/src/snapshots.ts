import { readFileSync } from 'node:fs';
import { deflateRawSync } from 'node:zlib';
import { compileRuleset, RulesetCompiler, sharing, storeChanges, storeSnapshot, World } from '@eager-ember/core';
import { largeRuleset } from './large-ruleset.js';
import { compare, rounded, type Row } from './measure.js';

const demo = () => JSON.parse(readFileSync(new URL('../../examples/brinewick.json', import.meta.url), 'utf8')) as object;
const SEATS = Array.from({ length: 8 }, (_, i) => `seat${i}`);

/** A world with eight seats, ten seconds old. */
function played(world: World): World {
  world.step(SEATS.map((seat, i) => ({ kind: 'join', args: { seat, team: i % 2 === 0 ? 'petrel' : 'gannet' } })));
  for (let tick = 0; tick < 200; tick++) world.step();
  return world;
}

function rowsOf(document: object, named: string): readonly Row[] {
  const world = played(World.start(compileRuleset(document), 1));
  const snapshot = world.snapshot();
  const { bytes } = snapshot;
  const into = bytes.slice();
  const size = `${Math.round(bytes.length / 1024)} kB`;
  const row = (what: string, work: () => void, reference: () => void, referenceIs: string, reach: string): Row => {
    const { one, other } = compare(work, reference, 40, 50);
    return {
      what: `${what} ${named}, ${size}`,
      value: rounded(one),
      reference: rounded(other),
      unit: 'µs',
      referenceIs,
      ratio: `${(one / other).toFixed(2)}x`,
      reach,
    };
  };
  const made = () => void bytes.slice();
  const reach = 'at most 3x';
  // What happens in a second of a room, stored beside the world as it was.
  for (let tick = 0; tick < 20; tick++) world.step();
  const later = world.snapshot();
  world.rewind(snapshot);
  return [
    row('a snapshot of the world of', () => void world.snapshot(), made, 'a copy of as many bytes', reach),
    row(
      'going back to one, in place, in',
      () => world.rewind(snapshot),
      () => into.set(bytes),
      'as many bytes copied into others',
      reach,
    ),
    row('the hash of the world of', () => void world.hash(), made, 'a copy of as many bytes', reach),
    row(
      'storing what a second has changed in',
      () => void storeChanges(snapshot, later),
      () => void deflateRawSync(storeSnapshot(later)),
      'the snapshot as bytes, deflated, as all of it is stored',
      'costs what changed',
    ),
  ];
}

/** A world that goes on under edited rules, beside beginning one. */
function adopted(document: object, named: string): Row {
  const compiler = new RulesetCompiler();
  const edited = structuredClone(document) as { attributes: Record<string, unknown>[] };
  edited.attributes[0]['refill'] = { rate: 1 };
  const both = [document, sharing(document, edited)].map((one) => compiler.read(one).rules!);
  let world = played(World.start(both[0], 1));
  let turn = 0;
  const { one, other } = compare(
    () => (world = world.adopt(both[++turn % 2])),
    () => void World.start(both[0], 1),
    20,
    10,
  );
  return {
    what: `a running world taken over by rules of which one entry was edited, ${named}`,
    value: rounded(one / 1000),
    reference: rounded(other / 1000),
    unit: 'ms',
    referenceIs: 'a new world under the same rules',
    ratio: `${(one / other).toFixed(2)}x`,
    reach: 'under 10 ms',
  };
}

/** The block of a world: copied, put back, hashed, stored as what has changed; and taken over by edited rules. */
export function snapshots(): readonly Row[] {
  const large = largeRuleset(demo(), 2000, 7);
  return [
    ...rowsOf(demo(), 'the demo'),
    ...rowsOf(large, 'a ruleset of 2,000 entries'),
    adopted(demo(), 'the demo'),
    adopted(large, 'of 2,000 entries'),
  ];
}
