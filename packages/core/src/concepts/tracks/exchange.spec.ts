import { compileRuleset, levelsFromCsv, levelsToCsv, tableOf, trackEvidence, tracks, walkTree } from '../../index.js';
import brinewick from '../../testing/recorded/brinewick.json' with { type: 'json' };
import { counter, rulesetWith } from '../../testing/rulesets.js';

const document = rulesetWith({ tracks: [{ id: 'standing', label: 'Standing', levels: 4, needs: '10 * level' }] });

describe('The table of a track', () => {
  it('goes out as CSV, and comes back as the same levels', () => {
    const rules = compileRuleset(document);
    const csv = levelsToCsv(tableOf(rules, tracks.of(rules).list[0]));
    expect(csv).toBe('level,needs,total\r\n1,10,10\r\n2,20,30\r\n3,30,60\r\n');
    const { patch } = levelsFromCsv(csv, document, 'standing');
    expect(patch![0]).toEqual(jasmine.objectContaining({ op: 'replace', path: '/tracks/0' }));
    expect((patch![0] as { value: unknown }).value).toEqual(jasmine.objectContaining({ levels: 4, needs: [10, 20, 30] }));
  });

  it('is taken as a whole or not at all: every problem has its line', () => {
    const at = (text: string) => levelsFromCsv(text, document, 'standing').problems.map(({ line, name }) => `${line} ${name}`);
    expect(at('level,needs\n1,10\n3,20\n3,x')).toEqual(['3 level', '4 needs']);
    expect(at('level\n1')).toEqual(['1 needs']);
    expect(at('level,needs\n')).toEqual(['2 ']);
    expect(levelsFromCsv('level,needs\n1,10', document, 'rank').problems[0].message).toBe('There is no track rank.');
  });
});

describe('Evidence of a track', () => {
  it('is its table, and a grant with all that follows from each level', () => {
    const then = [{ do: 'give', attribute: 'scrip', amount: 5 }];
    const parts = {
      attributes: [counter('scrip')],
      tracks: [{ id: 'standing', label: 'Standing', levels: 4, needs: '10 * level', onLevel: [{ then }] }],
    };
    const evidence = trackEvidence(compileRuleset(rulesetWith(parts)), 'standing', 35)!;
    expect(evidence.rows.map(({ total }) => total)).toEqual([0, 10, 30, 60]);
    expect(evidence.grant).toEqual(jasmine.objectContaining({ level: 3, left: 5, lost: 0 }));
    expect(evidence.grant.reached.map(({ level, follows }) => [level, follows.length])).toEqual([
      [2, 1],
      [3, 1],
    ]);
    expect(trackEvidence(compileRuleset(rulesetWith(parts)), 'rank', 1)).toBeUndefined();
  });
});

describe('Walking a tree', () => {
  const rules = compileRuleset(brinewick);
  const walk = (ranks: Record<string, number>, points = 20, level = 1) => walkTree(rules, 'diversTrade', ranks, points, level)!;
  const node = (of: ReturnType<typeof walk>, id: string) => of.nodes.find((one) => one.id === id)!;

  it('says of every node what is open, and why not what is not', () => {
    const start = walk({});
    expect(node(start, 'deepBreath').locked).toBeUndefined();
    expect(node(start, 'calm').locked).toBe('Calm needs Deep breath at rank 2 first.');
    expect(node(start, 'whiteHeat').locked).toBe('White heat needs Steady hand or Thrifty valve first.');
    const one = walk({ hotFlame: 2, steadyHand: 1, thriftyValve: 1, whiteHeat: 1 });
    expect(node(one, 'wideFan').locked).toBe('Wide fan can’t be learned along with White heat.');
    expect(node(one, 'steadyHand').held).toBe('White heat rests on Steady hand: give that back first.');
    expect([one.spent, one.free]).toEqual([6, 14]);
    expect(node(walk({ quickFill: 1, deepBreath: 3, calm: 1 }), 'lungsOfBrine').locked).toBe('Lungs of brine needs standing 6.');
    expect(node(walk({ quickFill: 1, deepBreath: 3, calm: 1 }, 20, 6), 'lungsOfBrine').locked).toBeUndefined();
  });

  it('leaves out what the rules do not allow', () => {
    expect(walk({ calm: 1, wideFan: 1, nothing: 4 }).spent).toBe(0);
    expect(walk({ deepBreath: 3 }, 2).spent).toBe(2);
  });
});
