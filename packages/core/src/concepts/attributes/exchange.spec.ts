import brinewick from '../../testing/recorded/brinewick.json' with { type: 'json' };
import jsonPatch from 'fast-json-patch';
import { attributesFromCsv, attributesToCsv, compileRuleset, readRuleset, typescriptOf } from '../../index.js';
import { pool, rulesetWith, stat } from '../../testing/rulesets.js';

const taken = (text: string, document: Record<string, unknown>) => {
  const reading = attributesFromCsv(text, document);
  expect(reading.problems).toEqual([]);
  return jsonPatch.applyPatch(structuredClone(document), structuredClone(reading.patch) as never, true).newDocument as {
    attributes: Record<string, unknown>[];
  };
};
const problems = (text: string, document = rulesetWith({ attributes: [pool('suit')] })) =>
  attributesFromCsv(text, document).problems.map((p) => `${p.line}:${p.column} ${p.message}`);

describe('Attributes as a table', () => {
  it('come back as they went, also with quotes, commas and line ends', () => {
    const document = structuredClone(brinewick) as unknown as Record<string, unknown> & { attributes: Record<string, unknown>[] };
    document.attributes[0]['note'] = 'Air, "of sorts"\r\nfor the diver';
    document.attributes[5]['start'] = { random: [10, 20] };
    const csv = attributesToCsv(document);
    expect(csv.split('\r\n')[0]).toBe(
      'id,label,kind,start,min,max,follow,whole,refill,every,pause,while,taken,see,decimals,unit,colour,icon,group,saved,note',
    );
    expect(attributesFromCsv(csv, document)).toEqual({ patch: [], changed: 0, added: 0, problems: [] });
  });

  it('change, add and leave out, whatever the order of the columns', () => {
    const document = rulesetWith({ attributes: [pool('suit', { refill: { rate: 4, pause: '3s' } }), pool('oxygen')] });
    const after = taken('max,id,kind,label,refill,pause\n50,suit,pool,Suit,,\n,depth,stat,Depth,,\n', document);
    expect(after.attributes.map((a) => a['id'])).toEqual(['suit', 'oxygen', 'depth']);
    expect(after.attributes[0]).toEqual({ id: 'suit', label: 'Suit', kind: 'pool', max: 50 });
    expect(after.attributes[2]).toEqual({ id: 'depth', kind: 'stat', label: 'Depth' });
  });

  it('are read into a ruleset that has none yet', () => {
    const empty = { format: 'eager-ember/ruleset', version: 2, name: 'New' };
    expect(taken('\ufeffid,label,kind\r\nsuit,Suit,pool\r\n', empty).attributes).toEqual([{ id: 'suit', label: 'Suit', kind: 'pool' }]);
  });

  it('say the line and column of every mistake, and nothing is taken', () => {
    expect(problems('')).toEqual(['1:1 The table is empty: its first line names the columns.']);
    expect(problems('label,maxx\nSuit,3')).toEqual([
      '1:2 No column is called maxx. Did you mean max?',
      '1:1 There is no column id: it says which attribute a line is about.',
    ]);
    expect(problems('id,max\nsuit,"3\n')).toEqual([jasmine.stringContaining('A quote is opened and not closed.')]);
    expect(problems('id,max\nsuit,1,5\n')).toEqual(['2:3 This line has 3 cells; the first has 2.']);
    expect(problems('id,max,whole\nsuit,"1,5",perhaps\n')).toEqual([
      '2:2 Write decimals with a point: 1.5.',
      '2:3 true or false is expected.',
    ]);
    expect(problems('id,max\nsuit,1e999\n')[0]).toContain('2:2 ');
    expect(
      problems(
        'id,max,whole,refill\nsuit,"1,5",,\nnew,3,perhaps,"breth + 1"\n',
        rulesetWith({ attributes: [pool('suit'), stat('breath', 1)] }),
      ),
    ).toEqual([
      '2:2 Write decimals with a point: 1.5.',
      '3:1 label: This is missing. A label is expected.',
      '3:1 kind: One of pool, stat, counter is expected.',
      '3:3 true or false is expected.',
      '3:4 Nothing is called breth here. Did you mean breath?',
    ]);
    expect(problems('id,max,start\nsuit,50,90\n')).toEqual(['2:3 The start 90 is above the maximum 50.']);
    expect(problems('id,max\nsuit,depht\n', rulesetWith({ attributes: [pool('suit'), stat('depth', 1)] }))).toEqual([
      '2:2 Nothing is called depht here. Did you mean depth?',
    ]);
    expect(problems('id,max\nsuit,4\nsuit,5\n,6\n')).toEqual([
      '3:1 suit stands in line 2 already.',
      '4:1 This is empty: every line names the attribute that it is about.',
    ]);
    expect(problems('id,label\nnew,New\n')).toEqual(['2:1 kind: One of pool, stat, counter is expected.']);
  });
});

describe('TypeScript of a ruleset', () => {
  const text = typescriptOf(compileRuleset(brinewick));

  it('has ids as unions and an accessor for each attribute a seat may see, with visibility and range', () => {
    expect(text).toContain('export type AttributeId = keyof typeof ATTRIBUTES;');
    expect(text).toContain('export type StatusId = keyof typeof STATUSES;');
    expect(text).toContain('export type AbilityId = keyof typeof ABILITIES;');
    expect(text).toContain(
      '   * Oxygen: a pool, 0 to lungCapacity, in seconds of air.\n   * Seen by its crew, to 1 decimal.\n   */\n  get oxygen(): number | undefined',
    );
  });

  it('keeps what only the server sees to itself, and comments closed', () => {
    const document = rulesetWith({
      attributes: [stat('secret', 1, { see: 'server' }), stat('on', 1, { label: 'On */ off', note: '*/ }' })],
    });
    expect(readRuleset(document).problems).toEqual([]);
    const other = typescriptOf(compileRuleset(document));
    expect(other).not.toContain('get secret');
    expect(other).toContain('get onValue');
    expect(other.split('*/').length).toBe(other.split('/**').length);
  });
});
