import * as fc from 'fast-check';
import jsonPatch from 'fast-json-patch';
import brinewick from '../testing/recorded/brinewick.json' with { type: 'json' };
import session from '../testing/recorded/session.json' with { type: 'json' };
import {
  type Command,
  findingsOf,
  followSaved,
  keepsNames,
  readRuleset,
  renameEntry,
  type Rules,
  RulesetCompiler,
  savePlayer,
  sharing,
  sharingInParts,
  wireSchemaOf,
  wiringOf,
  World,
} from '../index.js';
import { decode } from '@msgpack/msgpack';
import { packedSchema } from '../replication/schema.js';
import { packed } from '../world/packed.js';
import { atOnce } from './parts.js';
import { attributes as attributesState } from '../concepts/attributes/state.js';
import { drawn, mutated } from '../testing/mutations.js';
import { pool, rulesetWith, stat, Trial } from '../testing/rulesets.js';

type Json = Readonly<Record<string, unknown>>;
type Entries = readonly (Json & { readonly id: string })[];

const chaptersIn = (document: Json) =>
  Object.keys(document).filter((key) => Array.isArray(document[key]) && (document[key] as Entries)[0]?.id !== undefined);

/** The commands of the session that was recorded, as far as an edit leaves their names alone. */
const commandsAt = (tick: number) =>
  (session.commands as readonly unknown[] as readonly (readonly [number, Command])[])
    .filter(([at]) => at === tick)
    .map(([, command]) => command);

/** What worlds under these rules come to in so many ticks. */
function hashesOf(rules: Rules, ticks: number): readonly string[] {
  const world = World.start(rules, 5);
  return Array.from({ length: ticks }, (_, tick) => {
    world.step(commandsAt(tick));
    return world.hash();
  });
}

/** A document after one of the edits that an author makes, all of which it does not touch being the same objects. */
function edited(document: Json, rules: Rules, seed: number): Json {
  const draw = drawn(seed);
  const below = (count: number) => Math.floor(draw() * count);
  const chapters = chaptersIn(document);
  const chapter = chapters[below(chapters.length)];
  const list = document[chapter] as Entries;
  const at = below(list.length);
  const having = (next: readonly unknown[]): Json => ({ ...document, [chapter]: next });
  const numbers = (entry: Json): Json =>
    JSON.parse(JSON.stringify(entry).replace(/:(\d+)([,}])/, (_, n, end) => `:${Number(n) + 1}${end}`)) as Json;
  switch (below(7)) {
    case 0:
      return having(list.map((entry, i) => (i === at ? numbers(entry) : entry)));
    case 1:
      return having(list.map((entry, i) => (i === at ? { ...entry, label: `Other ${String(entry['label'])}` } : entry)));
    case 2: {
      const { patch = [] } = renameEntry(rules, chapter, list[at].id, `${list[at].id}Anew`);
      return sharing(document, jsonPatch.applyPatch(structuredClone(document), structuredClone(patch) as never).newDocument);
    }
    case 3:
      return having([...list.slice(0, at), { ...list[at], id: `${list[at].id}Twin`, formerly: undefined }, ...list.slice(at)]);
    case 4:
      return having(list.filter((_, i) => i !== at));
    case 5:
      return having([list[at], ...list.filter((_, i) => i !== at)]);
    default:
      return having(list.map((entry, i) => (i === at ? mutated(entry, seed) : entry)));
  }
}

describe('A compiler of one ruleset', () => {
  const statuses = Array.from({ length: 40 }, (_, i) => ({ id: `wet${i}`, label: `Wet ${i}` }));
  const attributes = [stat('pull', 3), pool('suit', { refill: { rate: 'pull' } }), pool('air', { refill: { rate: 2 } })];
  const many: Json = {
    ...rulesetWith({ attributes, statuses }),
    effects: statuses.map(({ id }, i) => ({
      id: `soak${i}`,
      label: 'Soak',
      lasts: '2s',
      grants: [id],
      modifiers: [{ attribute: 'pull', operation: 'add', amount: i }],
    })),
  };
  const withAir = (document: Json, change: Json) => ({
    ...document,
    attributes: (document['attributes'] as Entries).map((entry) => (entry.id === 'air' ? { ...entry, ...change } : entry)),
  });

  it('looks at what an edit has changed, and at nothing else, however much there is', () => {
    const compiler = new RulesetCompiler();
    expect(compiler.read(many).problems).toEqual([]);
    const whole = compiler.last;
    expect(whole.parsed).toBeGreaterThan(80);
    expect(whole.compiled).toBeGreaterThan(80);
    const once = withAir(many, { refill: { rate: 5 } });
    const { rules } = compiler.read(once);
    expect(rules!.document['attributes']).toContain(jasmine.objectContaining({ id: 'air', refill: { rate: 5 } }));
    const edit = compiler.last;
    // The entry itself, and the few parts of a document that are no entries.
    expect([edit.parsed, edit.checked, edit.compiled].every((count) => count < 6))
      .withContext(JSON.stringify(edit))
      .toBeTrue();
    compiler.read(once);
    expect(compiler.last.compiled).toBe(0);
  });

  it('compiles what follows from an edit elsewhere', () => {
    const compiler = new RulesetCompiler();
    compiler.read(many);
    const kinds = { ...many, attributes: [pool('pull'), ...attributes.slice(1)] };
    // Each effect changes what is a pool by now.
    expect(compiler.read(kinds).problems).toEqual(readRuleset(kinds).problems);
    expect(compiler.read(kinds).problems.length).toBe(40);
    expect(compiler.read(many).problems).toEqual([]);
    const shifted = { ...many, statuses: [{ id: 'dry', label: 'Dry' }, ...statuses] };
    expect(hashesOf(compiler.read(shifted).rules!, 3)).toEqual(hashesOf(readRuleset(shifted).rules!, 3));
  });

  it('looks names up again that stand somewhere else', () => {
    const token = { id: 'token', label: 'Token', who: 'pull == 3', then: [] };
    const document = { ...many, pickups: [token], arena: { placed: [{ pickup: 'token', x: 50, y: 50 }], starts: [{ x: 50, y: 50 }] } };
    const compiler = new RulesetCompiler();
    const shifted = { ...document, attributes: [stat('fresh', 1), ...attributes] };
    const taken = (rules: Rules) => new Trial(rules).run(0.2).named('pickupTaken').length;
    expect([taken(compiler.read(document).rules!), taken(compiler.read(shifted).rules!)]).toEqual([1, 1]);
  });

  it('compiles anew whatever takes time where ticks are others, and takes one object in two chapters for two entries', () => {
    const compiler = new RulesetCompiler();
    const slow = withAir(many, { refill: { rate: 2, every: '1s' } });
    const every = (document: Json) => attributesState.of(compiler.read(document).rules!).list[2].refill!.every;
    expect([every(slow), every({ ...slow, tickRate: 40 }), every(slow)]).toEqual([20, 40, 20]);
    const both = { id: 'both', label: 'Both' };
    const twice = { ...many, statuses: [...statuses, both], curves: [], zones: [both] };
    expect(compiler.read(twice).problems).toEqual(readRuleset(structuredClone(twice)).problems);
    expect(compiler.read(twice).rules!.document).toEqual(readRuleset(structuredClone(twice)).rules!.document);
  });

  it('comes after any edits to what a compiler comes to that has seen nothing before', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(), { minLength: 8, maxLength: 14 }), (seeds) => {
        const compiler = new RulesetCompiler();
        let document: Json = brinewick;
        let rules = compiler.read(document).rules!;
        const sound = [document];
        for (const [n, seed] of seeds.entries()) {
          // Every fifth goes back to what was before.
          const next = n % 5 === 4 ? sound[seed % sound.length] : edited(document, rules, seed);
          const reading = compiler.read(next);
          const anew = readRuleset(next);
          expect(reading.problems).toEqual(anew.problems);
          if (!reading.rules || !anew.rules) continue;
          [document, rules] = [next, reading.rules];
          sound.push(next);
          expect(rules.document).toEqual(anew.rules.document);
          expect(rules.tables).toEqual(anew.rules.tables);
          expect([...rules.pieces.keys()].sort()).toEqual([...anew.rules.pieces.keys()].sort());
          expect(findingsOf(rules)).toEqual(findingsOf(anew.rules));
          expect(wiringOf(rules)).toEqual(wiringOf(anew.rules));
          expect(decode(packedSchema(rules, false))).toEqual(decode(packed(wireSchemaOf(anew.rules))));
          const ticks = n % 2 === 0 ? 25 : 2;
          expect(hashesOf(rules, ticks)).toEqual(hashesOf(anew.rules, ticks));
        }
      }),
      { numRuns: 8 },
    );
  });
});

describe('What is kept of players', () => {
  it('is called the same after an edit that renames and moves nothing of it, and then follows without being looked at', () => {
    const compiler = new RulesetCompiler();
    const before = compiler.read(brinewick).rules!;
    const trial = new Trial(before);
    const saved = savePlayer(trial.world, trial.world.actors.rowOf(trial.actor()));
    const attributes = brinewick.attributes as unknown as Entries;
    const amount = (entries: Entries) => entries.map((entry) => (entry.id === 'oxygen' ? { ...entry, refill: { rate: -2 } } : entry));
    const after = (change: Json) => compiler.read({ ...brinewick, ...change }).rules!;
    for (const same of [after({ attributes: amount(attributes) }), after({ name: 'Another' })]) {
      expect(keepsNames(before, same)).toBeTrue();
      expect(followSaved(before, same, saved)).toEqual(saved);
    }
    const { patch = [] } = renameEntry(before, 'attributes', 'scrip', 'coin');
    const renamed = compiler.read(jsonPatch.applyPatch(structuredClone(brinewick) as Json, structuredClone(patch) as never).newDocument);
    expect(keepsNames(before, renamed.rules!)).toBeFalse();
    expect(keepsNames(before, after({ attributes: [...attributes, pool('fresh')] }))).toBeFalse();
  });
});

describe('A document that shares what it has in common with another', () => {
  it('says what it said, and has the objects of the other where they are the same', () => {
    const before = {
      a: [
        { id: 'x', n: { deep: 1 } },
        { id: 'y', n: { deep: 2 } },
      ],
      b: { c: [1, 2] },
    };
    const after = { b: { c: [1, 2] }, a: [{ id: 'new' }, { id: 'x', n: { deep: 1 } }, { id: 'y', n: { deep: 3 } }] };
    const shared = sharing(before, after);
    for (const one of [shared, atOnce(sharingInParts(before, after))]) {
      expect(one as unknown).toEqual(after);
      expect(one.b).toBe(before.b);
      expect(one.a[1] as unknown).toBe(before.a[0]);
      expect(one.a[2] as unknown).not.toBe(before.a[1]);
    }
    expect(atOnce(sharingInParts(before, structuredClone(before)))).toBe(before);
    expect(sharing(before, structuredClone(before))).toBe(before);
    const table = { rows: [[1, 'a'], [2, 'b'], 3] };
    expect(sharing(table, structuredClone(table))).toBe(table);
    expect(atOnce(sharingInParts({ table: [table.rows] }, { table: [[[1, 'a'], [2, 'c'], 3]] })).table[0][0]).toBe(table.rows[0]);
    expect(sharing(null, { a: 1 })).toEqual({ a: 1 });
    expect(sharing({ a: 1 }, { a: 1, b: 2 }) as unknown).toEqual({ a: 1, b: 2 });
  });
});
