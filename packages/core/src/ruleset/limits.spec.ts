import * as fc from 'fast-check';
import brinewick from '../testing/recorded/brinewick.json' with { type: 'json' };
import { compileRuleset, MOST_VALUES, type Reading, readRuleset, readRulesetInParts, type Rules, World } from '../index.js';
import { mutated } from '../testing/mutations.js';
import { rulesetWith, stat } from '../testing/rulesets.js';
import { nearest, sparingly } from './suggest.js';

/** A stat of which nothing matters but its id. */
const plain = (id: string) => stat(id, 1);

/** The nearest to each word, one word a part. */
function* askedIn(known: readonly string[], words: readonly string[]): Generator<void, readonly (string | undefined)[]> {
  const found: (string | undefined)[] = [];
  for (const word of words) {
    found.push(nearest(word, known));
    yield;
  }
  return found;
}

describe('Reading a ruleset', () => {
  const messages = (value: unknown) => readRuleset(value).problems.map(({ path, message }) => `${path} ${message}`);

  it('never throws, and what it calls sound can be played', () => {
    fc.assert(
      fc.property(fc.nat(), (seed) => {
        const { rules, problems } = readRuleset(mutated(brinewick, seed));
        for (const { message } of problems) expect(message).not.toContain('a mistake of ours');
        expect(rules === undefined).toBe(problems.length > 0);
        if (!rules) return;
        const world = World.start(rules, seed % 1000);
        for (let n = 0; n < 5; n++) world.step([]);
      }),
      { numRuns: 40 },
    );
  });

  it('says what is wrong in a part of which nothing else is right either', () => {
    expect(messages({ ...rulesetWith({}), arena: { width: 'x', zz: 1 } })).toEqual([
      jasmine.stringMatching('^/arena/width '),
      '/arena/zz "zz" is not known here. There are height, walls, starts, placed.',
    ]);
  });

  it('tells of limits first, and works on nothing beyond them', () => {
    const many = Array.from({ length: 2001 }, (_, i) => plain(`stat${i}`));
    expect(messages({ ...rulesetWith({}), attributes: [...many, { id: 7 }] })).toEqual([
      '/attributes A chapter has at most 2000 entries; this one has 2002.',
    ]);
    expect(messages({ ...rulesetWith({}), odd: Array.from({ length: MOST_VALUES }, () => 0) })).toEqual([
      ' This has more than 400000 values, which is more than a ruleset may have.',
    ]);
  });

  it('shows a thousand problems, and says how many more there are', () => {
    const wrong = Array.from({ length: 1200 }, (_, i) => ({ ...plain(`stat${i}`), colour: 'red' }));
    const problems = messages(rulesetWith({ attributes: wrong }));
    expect([problems.length, problems.at(-1)]).toEqual([
      1001,
      jasmine.stringMatching('^ There are 20[0-9] problems more, which are not shown.$'),
    ]);
  });

  it('suggests what may have been meant for the first mistakes of many, and tells of them all', () => {
    const attributes = Array.from({ length: 1000 }, (_, i) => plain(`swimmingSpeed${1000 + i}`));
    const effects = Array.from({ length: 900 }, (_, i) => ({
      id: `effect${i}`,
      label: 'Effect',
      lasts: '1s',
      modifiers: [{ attribute: `swiminggSpeed${1000 + i}`, operation: 'add', amount: 1 }],
    }));
    const problems = messages(rulesetWith({ attributes, effects }));
    const unknown = problems.filter((text) => text.includes('no entry swiminggSpeed'));
    expect(unknown.length).toBe(900);
    expect(unknown[0]).toContain('Did you mean swimmingSpeed1000?');
    expect(unknown.at(-1)).toBe('/effects/899/modifiers/0/attribute The attributes have no entry swiminggSpeed1899.');
  });

  it('compares no more letters than it may, and as many as before afterwards', () => {
    const known = ['harpoon', 'lantern'];
    const parts = sparingly(60, askedIn(known, ['harpon', 'lantren']));
    parts.next();
    expect(nearest('lantren', known)).toBe('lantern');
    parts.next();
    expect(parts.next()).toEqual({ done: true, value: ['harpoon', undefined] });
    expect(nearest('lantren', known)).toBe('lantern');
  });

  it('is the same in parts, between which others may read as well', () => {
    const wrong = { ...rulesetWith({ attributes: [plain('a'), { ...plain('b'), start: 'aa + 1' }] }), odd: 1 };
    const documents = [brinewick, wrong, [], rulesetWith({ attributes: [plain('a'), plain('a')] })];
    const readings = documents.map((document) => readRulesetInParts(document));
    const found = new Map<unknown, Reading>();
    while (found.size < documents.length)
      readings.forEach((parts, i) => {
        const { done, value } = parts.next();
        if (done && value) found.set(documents[i], value);
      });
    expect(documents.map((document) => found.get(document)!.problems)).toEqual(documents.map((document) => readRuleset(document).problems));
    expect(found.get(brinewick)!.rules!.document).toEqual(compileRuleset(brinewick).document);
    const hash = (rules: Rules) => World.start(rules, 1).hash();
    expect(hash(found.get(brinewick)!.rules!)).toBe(hash(compileRuleset(brinewick)));
  });

  it('finds the entry of each name where many have one, the first where it stands twice', () => {
    const attributes = Array.from({ length: 150 }, (_, i) =>
      i === 0 ? plain('stat0') : { ...plain(`stat${i}`), start: `stat${i - 1} + 1` },
    );
    expect(() => compileRuleset(rulesetWith({ attributes }))).not.toThrow();
    const doubled = messages(rulesetWith({ attributes: [plain('a'), plain('b'), plain('a'), plain('a')] }));
    expect(doubled.filter((text) => text.includes('taken'))).toEqual([
      '/attributes/2/id a is taken by entry 0 of this chapter: ids are unique.',
      '/attributes/3/id a is taken by entry 0 of this chapter: ids are unique.',
    ]);
  });
});
