import brinewick from '../testing/recorded/brinewick.json' with { type: 'json' };
import jsonPatch from 'fast-json-patch';
import {
  compileRuleset,
  followSaved,
  loadPlayer,
  readRuleset,
  renameEntry,
  type Rules,
  savePlayer,
  typescriptOf,
  World,
} from '../index.js';
import { join, rulesetWith, stat, Trial } from '../testing/rulesets.js';
import { attributesTable } from '../concepts/attributes/tables.js';

const rules = compileRuleset(brinewick);
const after = (of: Rules, document: object, chapter: string, from: string, to: string, note = true) => {
  const { patch, problem } = renameEntry(of, chapter, from, to, note);
  expect(problem).toBeUndefined();
  return jsonPatch.applyPatch(structuredClone(document), structuredClone(patch) as never, true).newDocument as Record<string, never>;
};

describe('Renaming an entry', () => {
  it('follows in every reference, formula and pin, in one step, and changes nothing else', () => {
    const renamed = after(rules, brinewick, 'attributes', 'suit', 'hullOfMine');
    const text = JSON.stringify(renamed);
    expect(readRuleset(renamed).problems).toEqual([]);
    // The label, the group and other ids that begin alike stay.
    expect(text.replace(/"formerly":\["suit"\]/, '').match(/"suit"/g)).toBeNull();
    expect(text).toContain('"suitRating"');
    expect(text.match(/hullOfMine/g)!.length).toBe(JSON.stringify(brinewick).match(/"suit"/g)!.length);
  });

  it('replaces a name in a formula where it stands for that entry, and only there', () => {
    const document = rulesetWith({
      attributes: [stat('a', 1), stat('aa', 'a + 2*a - clamp(a,0 , a)'), stat('marked', 2)],
      statuses: [{ id: 'marked', label: 'M' }],
      effects: [
        {
          id: 'e',
          label: 'E',
          lasts: '1s',
          modifiers: [{ attribute: 'aa', operation: 'add', amount: 'source . a + (has(marked) ? marked : source.a)' }],
        },
      ],
    });
    const renamed = after(compileRuleset(document), document, 'attributes', 'a', 'somethingLonger') as unknown as {
      attributes: { start: string }[];
      effects: { modifiers: { amount: string }[] }[];
    };
    expect(renamed.attributes[1].start).toBe('somethingLonger + 2*somethingLonger - clamp(somethingLonger,0 , somethingLonger)');
    expect(renamed.effects[0].modifiers[0].amount).toBe('source . somethingLonger + (has(marked) ? marked : source.somethingLonger)');
    const status = after(compileRuleset(document), document, 'statuses', 'marked', 'm') as unknown as typeof renamed;
    expect(status.effects[0].modifiers[0].amount).toBe('source . a + (has(m) ? marked : source.a)');
  });

  it('notes the id it had, and forgets it where it comes back to it', () => {
    const once = after(rules, brinewick, 'attributes', 'scrip', 'coins') as unknown as {
      attributes: { id: string; formerly?: string[] }[];
    };
    expect(once.attributes.find((a) => a.id === 'coins')!.formerly).toEqual(['scrip']);
    const back = after(compileRuleset(once), once, 'attributes', 'coins', 'scrip', false) as unknown as typeof once;
    expect(back.attributes.find((a) => a.id === 'scrip')!.formerly).toBeUndefined();
  });

  it('is refused for an id that is taken, was another’s, or is none', () => {
    const problem = (to: string, of = rules) => renameEntry(of, 'attributes', 'oxygen', to).problem;
    expect(problem('suit')).toBe('suit is taken by another entry of this chapter.');
    expect(problem('Suit 2')).toContain('camelCase');
    const renamed = compileRuleset(after(rules, brinewick, 'attributes', 'suit', 'hull'));
    expect(problem('suit', renamed)).toContain('suit was the id of hull before');
    expect(renameEntry(rules, 'attributes', 'nothing', 'a').problem).toBe('There is no nothing to rename.');
  });

  it('can be followed by saved players, running rooms and exported constants', () => {
    const document = rulesetWith({
      attributes: [{ id: 'scrip', label: 'Scrip', kind: 'counter' }, stat('finSpeed', 120)],
      effects: [{ id: 'e', label: 'E', lifetime: 'lasting', modifiers: [{ attribute: 'finSpeed', operation: 'add', amount: 5 }] }],
    });
    const before = compileRuleset(document);
    const trial = new Trial(before);
    trial.poke({ do: 'give', attribute: 'scrip', amount: 7 });
    trial.poke({ do: 'apply', effect: 'e' });
    const saved = savePlayer(trial.world, 0);
    const step = after(before, document, 'attributes', 'scrip', 'coins');
    const twice = compileRuleset(after(compileRuleset(step), step, 'attributes', 'coins', 'money'));
    const loaded = World.start(twice, 1);
    loaded.step([join('north')]);
    loadPlayer(loaded, 0, saved);
    expect(attributesTable.in(loaded).cells.money[0]).toBe(7);
    const fast = compileRuleset(after(twice, twice.document, 'attributes', 'finSpeed', 'speed'));
    trial.world = trial.world.adopt(fast);
    trial.step();
    expect([trial.value('money'), trial.value('speed')]).toEqual([7, 125]);
    expect(typescriptOf(fast)).toContain('get speed(): number');
    expect(typescriptOf(fast)).not.toContain("'finSpeed'");
  });

  it('can be undone: rooms and saved players follow back', () => {
    const document = rulesetWith({ attributes: [{ id: 'scrip', label: 'Scrip', kind: 'counter' }] });
    const before = compileRuleset(document);
    const renamed = compileRuleset(after(before, document, 'attributes', 'scrip', 'coins'));
    const trial = new Trial(before);
    trial.poke({ do: 'give', attribute: 'scrip', amount: 7 });
    trial.world = trial.world.adopt(renamed).adopt(before);
    expect(trial.value('scrip')).toBe(7);
    const saved = savePlayer(trial.world, 0);
    const there = followSaved(before, renamed, saved);
    expect(there['attributes']).toEqual({ coins: 7 });
    expect(followSaved(renamed, before, there)).toEqual(saved);
    expect(followSaved(before, compileRuleset(rulesetWith()), saved)).toEqual(saved);
  });

  it('refuses a document in which two entries claim the same former id', () => {
    const attributes = [stat('a', 1, { formerly: ['x'] }), stat('b', 1, { formerly: ['x', 'a'] })];
    expect(readRuleset(rulesetWith({ attributes })).problems.map((p) => p.path)).toEqual([
      '/attributes/1/formerly/0',
      '/attributes/1/formerly/1',
    ]);
  });
});
