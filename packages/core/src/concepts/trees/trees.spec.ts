import * as fc from 'fast-check';
import jsonPatch from 'fast-json-patch';
import { compileRuleset, findingsOf, isLegal, ranksOf, readRuleset, renameEntry, renameNode, savePlayer, trees } from '../../index.js';
import { counter, input, join, rulesetWith, stat, Trial } from '../../testing/rulesets.js';
import { meansOf } from './index.js';
import { treesTable } from './tables.js';
import { abilitiesTable } from '../abilities/tables.js';

const track = { id: 'standing', label: 'Standing', needs: 10, points: [{ tree: 'trade', each: 1 }] };
const node = (id: string, more: Record<string, unknown> = {}) => ({ id, label: id, ...more });
const NODES = [
  node('breath', { ranks: 3 }),
  node('lungs', { needs: { all: [{ node: 'breath', rank: 2 }] } }),
  node('torch'),
  node('line'),
  node('master', { cost: 2, needs: { any: [{ node: 'torch' }, { node: 'line' }], spent: 3 } }),
];
const tree = (more: Record<string, unknown> = {}) => ({
  id: 'trade',
  label: 'Trade',
  points: 6,
  nodes: NODES,
  exclusive: [['torch', 'line']],
  ...more,
});
const parts = (more: Record<string, unknown> = {}, others: Record<string, unknown> = {}) => ({
  tracks: [track],
  trees: [tree(more)],
  ...others,
});
const row = (trial: Trial) => trial.world.actors.rowOf(trial.actor());
const ranks = (trial: Trial) => ranksOf(trial.world, row(trial), 0);
const cell = (trial: Trial, name: string) => treesTable.in(trial.world).cells[name][row(trial)];
const learn = (trial: Trial, ...nodes: string[]) =>
  nodes.forEach((id) => trial.step(input('north', { do: 'learn', tree: 'trade', node: id })));
const unlearn = (trial: Trial, id: string) => trial.step(input('north', { do: 'unlearn', tree: 'trade', node: id }));
const refused = (trial: Trial) => trial.named('learnRefused').map(({ data }) => data['says']);
const edit = (trial: Trial, more: Record<string, unknown>, others: Record<string, unknown> = {}) => {
  trial.world = trial.world.adopt(compileRuleset(rulesetWith(parts(more, others))));
  return trial;
};

describe('A skill tree', () => {
  it('is learned rank by rank, for points', () => {
    const trial = Trial.of(parts());
    learn(trial, 'breath', 'breath', 'lungs');
    expect(ranks(trial)).toEqual([2, 1, 0, 0, 0]);
    expect([cell(trial, 'trade'), cell(trial, 'trade.spent')]).toEqual([6, 3]);
    expect(trial.named('nodeLearned').map(({ data }) => data['rank'])).toEqual([1, 2, 1]);
  });

  it('refuses what is not open, in words, and changes nothing', () => {
    const trial = Trial.of(parts({ points: 2 }));
    const trees = () => structuredClone(trial.world.table('trees').content());
    const before = trees();
    learn(trial, 'lungs', 'master', 'nothing');
    trial.step(input('north', { do: 'learn', tree: 'nowhere', node: 'x' }));
    unlearn(trial, 'breath');
    trial.step(input('north', { do: 'respec', tree: 'trade' }));
    expect(refused(trial)).toEqual([
      'lungs needs breath at rank 2 first.',
      'master needs torch or line first.',
      'Trade has no node nothing.',
      'There is no skill tree nowhere.',
      'breath is not learned.',
      'Nothing of Trade is learned.',
    ]);
    expect(trees()).toEqual(before);
    learn(trial, 'torch', 'line', 'torch', 'breath', 'breath');
    expect(refused(trial).slice(6)).toEqual([
      'line can’t be learned along with torch.',
      'torch is learned to its last rank.',
      'breath takes 1 point, and none is free.',
    ]);
  });

  it('asks for points spent, and for a level that has been reached', () => {
    const nodes = [...NODES, node('old', { needs: { level: { track: 'standing', at: 3 } } })];
    const trial = Trial.of(parts({ nodes }));
    learn(trial, 'torch', 'master', 'old');
    expect(refused(trial)).toEqual(['master needs 3 points spent here before.', 'old needs standing 3.']);
    trial.poke({ do: 'award', track: 'standing', amount: 25 });
    learn(trial, 'old', 'breath', 'master');
    expect(ranks(trial)).toEqual([1, 0, 1, 0, 1, 1]);
    expect(cell(trial, 'trade')).toBe(8);
  });

  it('gives a rank back, unless others rest on it', () => {
    const trial = Trial.of(parts());
    learn(trial, 'breath', 'breath', 'lungs', 'torch', 'master');
    unlearn(trial, 'breath');
    unlearn(trial, 'torch');
    expect(refused(trial)).toEqual([
      'lungs and master rest on breath: give those back first.',
      'master rests on torch: give that back first.',
    ]);
    unlearn(trial, 'lungs');
    expect(refused(trial)[2]).toBeUndefined();
    unlearn(trial, 'breath');
    expect(refused(trial)[2]).toContain('master rests on breath');
  });

  it('gives all points back, for its price or not at all', () => {
    const paid = parts({ respec: { how: 'paid', price: { attribute: 'scrip', amount: 30 } } }, { attributes: [counter('scrip')] });
    const trial = Trial.of(paid);
    learn(trial, 'breath', 'torch');
    unlearn(trial, 'torch');
    const respec = () => trial.step(input('north', { do: 'respec', tree: 'trade' }));
    respec();
    expect(refused(trial)).toEqual(['Points of Trade come back all at once, for their price.', 'This takes 30 scrip, and you have 0.']);
    trial.poke({ do: 'give', attribute: 'scrip', amount: 50 });
    respec();
    expect([ranks(trial), cell(trial, 'trade.spent'), trial.value('scrip')]).toEqual([[0, 0, 0, 0, 0], 0, 20]);
    const never = Trial.of(parts({ respec: { how: 'never' } }));
    learn(never, 'torch');
    unlearn(never, 'torch');
    never.step(input('north', { do: 'respec', tree: 'trade' }));
    expect(ranks(never)[2]).toBe(1);
    expect(refused(never).length).toBe(2);
  });

  it('is seen by who may', () => {
    const trial = Trial.of(parts(), [join('north'), join('south')]);
    const { columns } = treesTable.in(trial.world);
    expect(columns.filter(({ spec }) => /\.(on|back)$/.test(spec.name)).every(({ spec }) => spec.see === 'server')).toBeTrue();
    expect(columns.filter(({ spec }) => !/\.(on|back)$/.test(spec.name)).every(({ spec }) => spec.see === 'owner')).toBeTrue();
  });
});

describe('What a node gives', () => {
  const attributes = [stat('lung', 90), counter('scrip')];
  const effects = [
    {
      id: 'deep',
      label: 'Deep breath',
      lifetime: 'lasting',
      stacking: 'refresh',
      most: 5,
      modifiers: [{ attribute: 'lung', operation: 'add', amount: 10 }],
    },
  ];
  const abilities = [
    { id: 'ping', label: 'Ping', cooldown: '8s', target: { at: 'self' } },
    { id: 'flare', label: 'Flare', target: { at: 'self' } },
  ];
  const actors = [
    { id: 'diver', label: 'Diver', kind: 'player', attributes: [{ attribute: 'lung' }, { attribute: 'scrip' }], abilities: ['ping'] },
  ];
  const nodes = [
    node('breath', { ranks: 3, gives: { effect: 'deep' } }),
    node('flare', { gives: { ability: 'flare' } }),
    node('ear', { ranks: 2, gives: { numbers: [{ ability: 'ping', number: 'cooldown', change: 'percent', amount: -25 }] } }),
  ];
  const of = (seats = [join('north')]) => Trial.of(parts({ nodes, exclusive: [] }, { attributes, effects, abilities, actors }), seats);

  it('is on for as long as it is learned: an effect for each rank, an ability, a number', () => {
    const trial = of();
    learn(trial, 'breath', 'breath', 'flare', 'ear');
    expect(trial.value('lung')).toBe(110);
    trial.use('flare');
    expect(trial.named('abilityRefused')).toEqual([]);
    trial.use('ping');
    const wait = () => Math.max(...abilitiesTable.in(trial.world).cells.cooldown);
    expect(wait()).toBe(120);
    unlearn(trial, 'breath');
    unlearn(trial, 'flare');
    expect(trial.value('lung')).toBe(100);
    trial.use('flare');
    expect(trial.named('useRefused').length + trial.named('abilityRefused').length).toBe(1);
  });

  it('comes back with its player, and after a fall', () => {
    const trial = of();
    learn(trial, 'breath', 'flare');
    const saved = savePlayer(trial.world, row(trial));
    const again = of([join('north', { saved })]);
    expect([again.value('lung'), ranks(again)]).toEqual([100, [1, 1, 0]]);
    again.use('flare');
    expect(again.named('abilityRefused')).toEqual([]);
    again.poke({ do: 'fell' });
    expect(again.value('lung')).toBe(90);
    again.poke({ do: 'revive' });
    expect(again.value('lung')).toBe(100);
  });

  it('that two nodes give is one less where one of them is given back', () => {
    const two = [node('breath', { ranks: 2, gives: { effect: 'deep' } }), node('more', { gives: { effect: 'deep' } })];
    const trial = Trial.of(parts({ nodes: two, exclusive: [] }, { attributes, effects, abilities, actors }));
    learn(trial, 'breath', 'breath', 'more');
    expect(trial.value('lung')).toBe(120);
    unlearn(trial, 'breath');
    expect(trial.value('lung')).toBe(110);
  });

  it('follows an edit', () => {
    const trial = of();
    learn(trial, 'breath', 'flare');
    const others = { attributes, effects, abilities, actors };
    edit(trial, { nodes: [node('breath', { ranks: 3 }), nodes[1]], exclusive: [] }, others);
    expect(trial.value('lung')).toBe(90);
    edit(trial, { nodes: [nodes[0], node('flare')], exclusive: [] }, others);
    trial.step();
    expect(trial.value('lung')).toBe(100);
    trial.use('flare');
    expect(trial.named('abilityRefused').length + trial.named('useRefused').length).toBe(1);
  });
});

describe('An edit of a tree', () => {
  it('gives the points of a node back that is gone, and of what rested on it, and says so', () => {
    const trial = Trial.of(parts());
    learn(trial, 'breath', 'breath', 'lungs');
    const next = trial.world.adopt(
      compileRuleset(
        rulesetWith(
          parts({ nodes: NODES.slice(1).map((one) => (one.id === 'lungs' ? { ...one, needs: { all: [{ node: 'torch' }] } } : one)) }),
        ),
      ),
    );
    expect(ranksOf(next, 0, 0)).toEqual([0, 0, 0, 0]);
    expect(treesTable.in(next).cells['trade.spent'][0]).toBe(0);
    const saved = savePlayer(trial.world, row(trial));
    const again = Trial.of(parts({ nodes: NODES.slice(2), exclusive: [['torch', 'line']] }), [join('north', { saved })]);
    again.step();
    const [told] = again.named('pointsReturned');
    expect(told.data).toEqual(jasmine.objectContaining({ points: 3, why: 'edit' }));
    expect([cell(again, 'trade'), cell(again, 'trade.spent')]).toEqual([6, 0]);
  });

  it('that is undone has what was learned again, as far as there are points', () => {
    const trial = Trial.of(parts());
    learn(trial, 'breath', 'breath', 'lungs', 'torch');
    edit(trial, { points: 0, nodes: NODES.map((one) => ({ ...one, cost: 2 })) });
    expect(isLegal(trees.of(trial.world.rules).list[0], ranks(trial), meansOf(trial.world, row(trial), 0))).toBeTrue();
    expect(ranks(trial)).toEqual([2, 1, 0, 0, 0]);
  });
});

describe('Renaming a node', () => {
  const renamed = (from: string, to: string, document: object = rulesetWith(parts())) => {
    const { patch, problem } = renameNode(compileRuleset(document), 'trade', from, to);
    if (!patch) return problem;
    return jsonPatch.applyPatch(structuredClone(document), structuredClone(patch) as never, true).newDocument as Record<string, unknown>;
  };

  it('follows in what needs it and in choices, and nobody loses a rank by it, in a room or at home', () => {
    const trial = Trial.of(parts());
    learn(trial, 'breath', 'breath', 'lungs', 'torch');
    const saved = savePlayer(trial.world, row(trial));
    const once = renamed('breath', 'deepBreath') as object;
    const twice = renamed('torch', 'hotFlame', once) as { trees: ReturnType<typeof tree>[] };
    expect(twice.trees[0].nodes.map(({ id }) => id)).toEqual(['deepBreath', 'lungs', 'hotFlame', 'line', 'master']);
    expect(twice.trees[0].exclusive).toEqual([['hotFlame', 'line']]);
    trial.world = trial.world.adopt(compileRuleset(twice));
    trial.step();
    expect(trial.named('pointsReturned')).toEqual([]);
    expect(ranks(trial)).toEqual([2, 1, 1, 0, 0]);
    const again = Trial.of({ tracks: [track], trees: twice.trees }, [join('north', { saved })]);
    expect([ranks(again), cell(again, 'trade.spent')]).toEqual([[2, 1, 1, 0, 0], 4]);
  });

  it('and its tree loses none either', () => {
    const trial = Trial.of(parts());
    learn(trial, 'breath');
    const node = renamed('breath', 'deepBreath') as object;
    const { patch } = renameEntry(compileRuleset(node), 'trees', 'trade', 'craft');
    const both = jsonPatch.applyPatch(structuredClone(node), structuredClone(patch!) as never, true).newDocument;
    trial.world = trial.world.adopt(compileRuleset(both));
    expect(ranks(trial)[0]).toBe(1);
  });

  it('back leaves no trace that would claim the id twice', () => {
    const back = renamed('deepBreath', 'breath', renamed('breath', 'deepBreath') as object) as { trees: { nodes: object[] }[] };
    expect(back.trees[0].nodes[0]).toEqual(jasmine.objectContaining({ id: 'breath', formerly: ['deepBreath'] }));
    expect(readRuleset(back).problems).toEqual([]);
  });

  it('is refused where the id is no id, or another node’s, now or before', () => {
    const once = renamed('breath', 'deepBreath') as object;
    expect(renamed('torch', 'Hot flame')).toContain('camelCase');
    expect(renamed('torch', 'line')).toBe('line is taken by another node of this tree.');
    expect(renamed('torch', 'breath', once)).toBe('breath was the id of deepBreath before: ranks that were kept under it belong there.');
    expect(renamed('gone', 'line')).toBe('There is no node gone to rename.');
    const nodes = [node('a', { formerly: ['b', 'x'] }), node('b'), node('c', { formerly: ['x'] })];
    expect(readRuleset(rulesetWith(parts({ nodes, exclusive: [] }))).problems.map(({ path, message }) => `${path}: ${message}`)).toEqual([
      '/trees/0/nodes/0/formerly/0: b is a node: ranks that were kept under it belong there.',
      '/trees/0/nodes/2/formerly/0: x was the id of a: ranks that were kept under it belong there.',
    ]);
  });
});

describe('A spending', () => {
  const command = fc.oneof(
    fc.record({ do: fc.constantFrom('learn', 'unlearn'), node: fc.constantFrom('breath', 'lungs', 'torch', 'line', 'master', 'deep') }),
    fc.record({ do: fc.constant('award'), amount: fc.integer({ min: 1, max: 60 }) }),
    fc.record({ do: fc.constant('respec') }),
    fc.record({
      do: fc.constant('edit'),
      drop: fc.constantFrom('', 'breath', 'torch', 'lungs'),
      cost: fc.integer({ min: 0, max: 3 }),
      at: fc.integer({ min: 1, max: 6 }),
      spent: fc.integer({ min: 1, max: 5 }),
    }),
    fc.record({ do: fc.constant('again') }),
  );

  it('stays legal whatever is learned, given back, edited, levelled or kept; spent and free are what was earned', () => {
    fc.assert(
      fc.property(fc.array(command, { maxLength: 30 }), (commands) => {
        const trial = Trial.of(parts({ points: 2 }));
        let rules: Record<string, unknown> = parts({ points: 2 });
        for (const one of commands) {
          if (one.do === 'award') trial.poke({ ...one, track: 'standing' });
          else if (one.do === 'edit') {
            const { drop, cost, at, spent } = one as { drop: string; cost: number; at: number; spent: number };
            const nodes = [...NODES, node('deep', { needs: { level: { track: 'standing', at }, spent } })]
              .filter(({ id }) => id !== drop)
              .map((each) => ({ cost, ...each, needs: dropped((each as { needs?: Needs }).needs, drop) }));
            rules = parts({ points: 2, nodes, exclusive: drop === 'torch' ? [] : [['torch', 'line']] });
            trial.world = trial.world.adopt(compileRuleset(rulesetWith(rules)));
          } else if (one.do === 'again') {
            const saved = savePlayer(trial.world, row(trial));
            trial.world = Trial.of(rules, [join('north', { saved })]).world;
          } else trial.step(input('north', { tree: 'trade', ...one }));
          const compiled = trees.of(trial.world.rules).list[0];
          expect(isLegal(compiled, ranks(trial), meansOf(trial.world, row(trial), 0))).toBeTrue();
          const spent = compiled.nodes.reduce((sum, { costs }, i) => sum + costs.slice(0, ranks(trial)[i]).reduce((a, b) => a + b, 0), 0);
          expect(cell(trial, 'trade.spent')).toBe(spent);
          expect(cell(trial, 'trade') - spent).toBeGreaterThanOrEqual(0);
        }
      }),
      { numRuns: 60 },
    );
  });
});

interface Needs {
  readonly all?: { node: string }[];
  readonly any?: { node: string }[];
}

const dropped = (needs: Needs | undefined, id: string) =>
  needs && {
    ...needs,
    ...(needs.all && { all: needs.all.filter(({ node: of }) => of !== id) }),
    ...(needs.any && { any: needs.any.filter(({ node: of }) => of !== id) }),
  };

describe('What does not fit a tree', () => {
  const at = (more: Record<string, unknown>, others = {}) => readRuleset(rulesetWith(parts(more, others))).problems.map(({ path }) => path);
  const kinds = (nodes: unknown[], more: Record<string, unknown> = {}) =>
    findingsOf(compileRuleset(rulesetWith(parts({ nodes, exclusive: [], ...more }))))
      .filter(({ path }) => path.startsWith('/trees'))
      .map(({ kind }) => kind)
      .filter((kind) => kind !== 'givesNothing');

  it('is refused where it stands', () => {
    expect(at({ nodes: [node('a'), node('a')], exclusive: [] })).toEqual(['/trees/0/nodes/1/id']);
    expect(at({ nodes: [node('a', { needs: { all: [{ node: 'b' }] } })], exclusive: [] })).toEqual(['/trees/0/nodes/0/needs/all/0/node']);
    expect(at({ nodes: [node('a'), node('b', { needs: { any: [{ node: 'a', rank: 2 }] } })], exclusive: [] })).toEqual([
      '/trees/0/nodes/1/needs/any/0/rank',
    ]);
    expect(at({ exclusive: [['torch', 'lime']] })).toEqual(['/trees/0/exclusive/0/1']);
    expect(at({ respec: { how: 'paid' } })).toEqual(['/trees/0/respec/price']);
    const effects = [{ id: 'burst', label: 'Burst', lifetime: 'timed', lasts: '3s' }];
    expect(at({ nodes: [node('a', { gives: { effect: 'burst' } })], exclusive: [] }, { effects })).toEqual([
      '/trees/0/nodes/0/gives/effect',
    ]);
  });

  it('is found where nobody can ever learn it', () => {
    const needs = (id: string) => ({ needs: { all: [{ node: id }] } });
    expect(kinds([node('a', needs('b')), node('b', needs('a'))])).toEqual(['neverOpen', 'neverOpen']);
    expect(kinds([node('a', { needs: { level: { track: 'standing', at: 40 } } })])).toEqual(['neverOpen']);
    expect(kinds([node('a', { needs: { spent: 5 } }), node('b')])).toEqual(['neverOpen']);
    const both = [node('a'), node('b'), node('c', { needs: { all: [{ node: 'a' }, { node: 'b' }] } })];
    expect(kinds(both, { exclusive: [['a', 'b']] })).toEqual(['lockedByChoice']);
    expect(kinds([node('a'), node('b', needs('a'))])).toEqual([]);
  });

  it('is found where it changes a number that an ability has not', () => {
    const abilities = [
      { id: 'spear', label: 'Spear', stored: { most: 2, refill: '4s' } },
      { id: 'dash', label: 'Dash', cooldown: '2s' },
    ];
    const found = (ability: string, number: string) => {
      const nodes = [node('a', { gives: { numbers: [{ ability, number, amount: 5 }] } })];
      const all = findingsOf(compileRuleset(rulesetWith(parts({ nodes, exclusive: [] }, { abilities }))));
      return all.flatMap(({ kind, path, message }) => (kind === 'changesNothing' ? [`${path}: ${message}`] : [])).join();
    };
    expect(found('spear', 'cooldown')).toContain('numbers/0: a changes the cooldown of Spear, which has none: its store refills');
    expect(found('dash', 'costs')).toContain('which has none. Have it change another number');
    expect([found('dash', 'cooldown'), found('dash', 'range')]).toEqual(['', '']);
  });

  it('is found where nobody has a point', () => {
    const found = findingsOf(compileRuleset(rulesetWith({ trees: [tree({ points: 0 })] }))).map(({ kind }) => kind);
    expect(found).toContain('noPoints');
  });
});
