import * as fc from 'fast-check';
import demo from '../../../../examples/brinewick.json' with { type: 'json' };
import brinewick from '../testing/recorded/brinewick.json' with { type: 'json' };
import {
  checkAction,
  checkInput,
  compileRuleset,
  GIVEN,
  readRuleset,
  readRulesetText,
  registry,
  repeatedNames,
  RulesetError,
  usesOf,
} from '../index.js';
import { pool, rulesetWith, stat } from '../testing/rulesets.js';

/** A ruleset with something in each of several chapters. */
const SMALL = {
  ...rulesetWith(),
  teams: [{ id: 'petrel', label: 'Petrel' }],
  curves: [
    {
      id: 'slope',
      label: 'Slope',
      points: [
        [0, 0],
        [10, 5],
      ],
    },
  ],
  statuses: [{ id: 'winded', label: 'Winded' }],
  attributes: [pool('suit', { refill: { rate: 'curve(slope, suit)' } }), stat('finSpeed', 100)],
  effects: [
    {
      id: 'sting',
      label: 'Sting',
      lasts: '2s',
      grants: ['winded'],
      modifiers: [{ attribute: 'finSpeed', operation: 'times', amount: 0.5 }],
    },
  ],
  abilities: [{ id: 'bite', label: 'Bite', cooldown: '1s', requires: [{ hasNot: 'winded' }], then: [{ do: 'apply', effect: 'sting' }] }],
  actors: [
    {
      id: 'diver',
      label: 'Diver',
      kind: 'player',
      life: 'suit',
      attributes: [{ attribute: 'suit' }, { attribute: 'finSpeed' }],
      abilities: ['bite'],
    },
  ],
  pickups: [{ id: 'patch', label: 'Patch', radius: 10, then: [{ do: 'heal', attribute: 'suit', amount: 5 }] }],
  arena: { starts: [{ x: 10, y: 10, team: 'petrel' }], placed: [{ pickup: 'patch', x: 20, y: 20 }] },
};

const at = (value: unknown) => readRuleset(value).problems.map((p) => p.path);

describe('A ruleset', () => {
  it('of the demo is sound', () => {
    expect(readRuleset(demo).problems).toEqual([]);
  });

  it('that is not JSON, or not an object, is one problem at the root', () => {
    const said = (text: string) => readRulesetText(text).problems.map(({ message }) => message);
    expect(said('{ "name": NaN }')).toEqual([jasmine.stringContaining('This is not JSON: in line 1, column 11, this is no value')]);
    expect(said('{\n "name": "A",\n}')).toEqual([jasmine.stringMatching(/in line 3, column 1, .* a comma too many before it\.$/)]);
    expect(said('{\n "teams": []\n "curves": []\n}')).toEqual([jasmine.stringContaining('in line 3, column 2, a comma is expected')]);
    expect(said('{ "teams": [')).toEqual([jasmine.stringContaining('missing here')]);
    expect(said(' ')).toEqual([jasmine.stringContaining('there is nothing')]);
    expect(said('{ "name": "A\n" }')).toEqual([jasmine.stringContaining('a line break is to be written as \\n')]);
    expect(said('{} // a note')).toEqual([jasmine.stringContaining('JSON has no comments')]);
    expect(at(3)).toContain('');
    expect(readRuleset([]).problems[0].message).toBe('A ruleset is a JSON object.');
    expect(readRuleset(null).rules).toBeUndefined();
  });

  it('of which one entry is wrong is not told of others for that', () => {
    const suit = { id: 'suit', label: 'Suit', kind: 'pool', max: 100, colour: 3 };
    const document = rulesetWith({
      attributes: [suit, { id: 'speed', label: 'Speed', kind: 'stat', start: 5 }],
      actors: [{ id: 'diver', label: 'Diver', kind: 'player', attributes: [{ attribute: 'suit' }, { attribute: 'speed' }], life: 'suit' }],
    });
    expect(readRuleset(document).problems.map(({ path }) => path)).toEqual(['/attributes/0/colour']);
  });

  it('says which name stands twice in one object, and where', () => {
    const text =
      '{ "format": "eager-ember/ruleset", "version": 2, "name": "A", "statuses": [{ "id": "a", "label": "\\"{" }, { "id": "b", "label": "B", "label": "C" }], "name": "B" }';
    expect(readRulesetText(text).problems.map(({ path, message }) => `${path} ${message}`)).toEqual([
      '/statuses/1/label "label" stands here twice.',
      '/name "name" stands here twice.',
    ]);
    expect(repeatedNames(JSON.stringify(brinewick))).toEqual([]);
    fc.assert(fc.property(fc.jsonValue(), (value) => expect(repeatedNames(JSON.stringify(value))).toEqual([])));
  });

  it('has no infinities, also not by way of large exponents', () => {
    const text = JSON.stringify(rulesetWith({ attributes: [pool('suit')] })).replace('"max":100', '"max":1e999');
    expect(readRulesetText(text).problems.map((p) => p.path)).toEqual(['/attributes/0/max']);
  });

  it('says which key is not known, and where', () => {
    expect(at(rulesetWith({ attributes: [pool('suit', { colr: 'red' })], extra: 1 })).sort()).toEqual(['/attributes/0/colr', '/extra']);
  });

  it('has unique ids that code can use', () => {
    expect(
      at(
        rulesetWith({
          statuses: [
            { id: 'a', label: 'A' },
            { id: 'a', label: 'B' },
          ],
        }),
      ),
    ).toEqual(['/statuses/1/id']);
    expect(at(rulesetWith({ statuses: [{ id: 'in bell', label: 'A' }] }))).toEqual(['/statuses/0/id']);
    expect(at(rulesetWith({ statuses: [{ id: 'a'.repeat(49), label: 'A' }] }))).toEqual(['/statuses/0/id']);
  });

  it('has no ids that formulas keep for themselves, and words that only begin like them are fine', () => {
    expect(at(rulesetWith({ attributes: [stat('not', 1), stat('source', 1)] }))).toEqual(['/attributes/0/id', '/attributes/1/id']);
    const { rules } = readRuleset(
      rulesetWith({
        attributes: [
          stat('notes', 1),
          stat('order', 2),
          stat('android', 'notes + order'),
          stat('truth', 'android > 2 and not (notes > order) ? 5 : 6'),
        ],
      }),
    );
    expect(rules).toBeDefined();
  });

  it('refers to what exists, or is told what may have been meant', () => {
    const { problems } = readRuleset(
      rulesetWith({
        effects: [{ id: 'e', label: 'E', lasts: '1s', modifiers: [{ attribute: 'finSpede', operation: 'add', amount: 1 }] }],
        attributes: [stat('finSpeed', 1)],
      }),
    );
    expect(problems).toEqual([
      { path: '/effects/0/modifiers/0/attribute', message: 'The attributes have no entry finSpede. Did you mean finSpeed?' },
    ]);
  });

  it('has formulas that can be read, each error with its place in the text', () => {
    const { problems } = readRuleset(rulesetWith({ attributes: [pool('suit', { max: '2 * (ratng + 1)' }), stat('rating', 1)] }));
    expect(problems.map(({ path, at: place }) => [path, place])).toEqual([['/attributes/0/max', 5]]);
  });

  it('that is wrong in many ways is told all of them at once', () => {
    const found = at(
      rulesetWith({
        oops: true,
        statuses: [
          { id: 'a b', label: 'A' },
          { id: 'x', label: 'X' },
          { id: 'x', label: 'X' },
        ],
        attributes: [
          pool('suit', { max: 'nothing', odd: 1 }),
          stat('p', 1, { max: 'q' }),
          stat('q', 1, { max: 'p' }),
          pool('late', { start: 500 }),
          { id: 'bad', label: 'Bad', kind: 'tank' },
        ],
        abilities: [
          { id: 'ping', label: 'Ping', then: [{ do: 'aply', effect: 'x' }] },
          { id: 'pong', label: 'Pong', then: [{ do: 'apply', effect: 'gone' }] },
        ],
      }),
    );
    for (const path of [
      '/oops',
      '/statuses/0/id',
      '/statuses/2/id',
      '/attributes/0/max',
      '/attributes/0/odd',
      '/attributes/1/max',
      '/attributes/3/start',
      '/attributes/4/kind',
      '/abilities/0/then/0/do',
      '/abilities/1/then/0/effect',
    ])
      expect(found).withContext(path).toContain(path);
  });

  it('with several small chapters is sound', () => {
    expect(readRuleset(SMALL).problems).toEqual([]);
  });

  it('never makes the reader throw, whatever stands for a chapter', () => {
    fc.assert(
      fc.property(fc.constantFrom(...Object.keys(SMALL)), fc.jsonValue(), (key, value) => {
        expect(() => readRuleset({ ...SMALL, [key]: value })).not.toThrow();
      }),
      { numRuns: 300 },
    );
  });

  it('never makes the reader throw, also where something can’t be put in words', () => {
    const wordless = { toString: '', valueOf: 0 };
    for (const key of Object.keys(SMALL))
      for (const value of [wordless, [wordless], [[wordless]], [{ id: wordless }], [{ id: 'x', label: wordless }], [{ do: wordless }]])
        expect(() => readRuleset({ ...SMALL, [key]: value })).not.toThrow();
  });

  it('never makes the reader throw, whatever stands in an entry', () => {
    const chapters = ['attributes', 'effects', 'abilities', 'pickups', 'actors'] as const;
    fc.assert(
      fc.property(fc.constantFrom(...chapters), fc.string(), fc.jsonValue(), (chapter, field, value) => {
        const [first, ...others] = SMALL[chapter];
        expect(() => readRuleset({ ...SMALL, [chapter]: [{ ...first, [field]: value }, ...others] })).not.toThrow();
      }),
      { numRuns: 300 },
    );
  });

  it('is no deeper than rulesets are, and has labels that can be shown', () => {
    let deep: unknown = 1;
    for (let i = 0; i < 100_000; i++) deep = [deep];
    expect(readRuleset(rulesetWith({ odd: deep })).problems[0].message).toContain('nested deeper');
    expect(readRulesetText('['.repeat(50_000) + ']'.repeat(50_000)).problems[0].message).toContain('nested deeper');
    expect(at({ ...rulesetWith(), name: 'a\u0000b' })).toEqual(['/name']);
    expect(at({ ...rulesetWith(), name: 'Brinewick – übel 🐟' })).toEqual([]);
  });

  it('compiles or throws all its problems', () => {
    expect(() => compileRuleset(rulesetWith({ attributes: [pool('suit', { start: 200 })] }))).toThrowError(
      RulesetError,
      /\/attributes\/0\/start/,
    );
  });

  it('knows where an entry is spoken of, in references and in formulas', () => {
    const uses = usesOf(compileRuleset(brinewick), 'attributes', 'lungCapacity');
    expect(uses.slice(0, 10).map((use) => use.path)).toEqual([
      '/actors/0/attributes/1/attribute',
      '/attributes/0/max',
      '/attributes/0/thresholds/0/to',
      '/effects/9/modifiers/0/attribute',
      '/abilities/5/then/0/amount',
      '/abilities/5/tooltip/text',
      '/pickups/0/who',
      '/pickups/1/who',
      '/pickups/2/who',
      '/pickups/3/who',
    ]);
    expect(uses[1].id).toBe('oxygen');
    expect(uses.flatMap(({ item }) => item ?? [])).toEqual(['/actors/0/attributes/1']);
  });

  it('says what goes with an entry: its own situations, and its places among what actors have', () => {
    const items = (chapter: string, id: string) => usesOf(compileRuleset(brinewick), chapter, id).flatMap(({ item }) => item ?? []);
    expect(items('abilities', 'harpoon')).toEqual(['/actors/0/abilities/2']);
    expect(items('effects', 'bubble')).toEqual(['/situations/1']);
  });

  it('has entries that no document writes, which are known without the concepts', () => {
    const given = [...registry().sections].flatMap(([key, spec]) => (spec.kind === 'chapter' && spec.given ? [[key, spec.given]] : []));
    expect(Object.fromEntries(given)).toEqual(GIVEN);
  });
});

describe('Requests from outside', () => {
  const rules = compileRuleset(brinewick);

  it('are checked against the rules they are to run under', () => {
    expect(checkAction(rules, { do: 'apply', effect: 'slipstream' }).problems).toEqual([]);
    expect(checkAction(rules, { do: 'apply', effect: 'slipsteam' }).problems[0].message).toContain('Did you mean slipstream?');
    expect(checkAction(rules, { do: 'aply', effect: 'silt' }).problems[0].message).toContain('Did you mean apply?');
    expect(checkAction(rules, { do: 'hurt', attribute: 'suit', amount: 'suti * 2' }).problems[0].path).toBe('/amount');
    expect(checkAction(rules, { do: 'hurt', attribute: 'suit', amount: Number.NaN }).problems.length).toBe(1);
    expect(checkAction(rules, null).problems.length).toBe(1);
  });

  it('of a seat are what seats can ask for', () => {
    expect(checkInput({ do: 'move', x: 1, y: 0 }).problems).toEqual([]);
    expect(checkInput({ do: 'move', x: Number.NaN, y: 0 }).problems.length).toBe(1);
    expect(checkInput({ do: 'move', x: 40, y: 0 }).problems.length).toBe(1);
    expect(checkInput({ do: 'move', x: 1, y: 0, speed: 900 }).problems[0].message).toContain('"speed" is not known here');
    expect(checkInput({ do: 'mov' }).problems[0].message).toContain('Did you mean move?');
    expect(checkInput(undefined).problems.length).toBe(1);
    expect(checkInput({ do: 'toString' }).problems.length).toBe(1);
  });
});

describe('The core as a module', () => {
  it('can be imported when it is needed: nothing in it passes for a promise', async () => {
    const core: object = await import('../index.js');
    expect('then' in core).toBeFalse();
    expect('readRuleset' in core).toBeTrue();
  });
});
