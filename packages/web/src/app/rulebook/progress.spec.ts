import { documentNow, type Seen } from '../testing/bench';
import { bare, choose, spec } from '../testing/specs';
import { TrackSentences } from './levels/track-sentences';
import { ChosenNode, type NodeJson } from './skills/chosen-node';
import { layOut, withoutNode } from './skills/layout';
import { TreeSentences } from './skills/tree-sentences';
import { TeamRulesPart } from './teams/team-rules';
import { TeamSentences } from './teams/team-sentences';
import { TestBed } from '@angular/core/testing';

type Json = Readonly<Record<string, unknown>>;
const entryNow = (chapter: string, id: string) => documentNow()[chapter].find((entry) => entry['id'] === id) as Json;
const nodes = () => entryNow('trees', 'diversTrade')['nodes'] as readonly NodeJson[];
const treeOf = async (node: string) => {
  TestBed.configureTestingModule({ providers: [ChosenNode] });
  const seen = await spec(TreeSentences, 'trees', 'diversTrade');
  TestBed.inject(ChosenNode).id.set(node);
  await seen.settle();
  return seen;
};

describe('The sentences of a level track', () => {
  it('read as prose, and are edited in place', async () => {
    const seen = await spec(TrackSentences, 'tracks', 'standing');
    const texts = seen.texts('ee-sentence').map(bare);
    expect(texts[0]).toBe('Standing goes from level 1 to 20. From a level to the next it takes 60 * level ^ 1.5. table from a file …');
    expect(texts).toContain('Each level gives 1 for diver’s Trade.');
    expect(texts).toContain('suit rating has 2 * (level - 1) more.');
    await seen.edit('what a level takes', '50 * level');
    expect(entryNow('tracks', 'standing')['needs']).toBe('50 * level');
    await seen.click('a fall costs', '.chip');
    await seen.edit('what a fall costs', '25');
    expect(entryNow('tracks', 'standing')['loss']).toEqual({ share: 0.25 });
    await seen.edit('levels', '1');
    expect(seen.text('[role="alert"]')).toContain('2 to 500');
  });

  it('take sources, shares and growth in and out', async () => {
    const seen = await spec(TrackSentences, 'tracks', 'standing');
    await seen.click('+ source', '.chip');
    await seen.click('+ share', '.more');
    const sources = entryNow('tracks', 'standing')['sources'] as readonly Json[];
    expect(sources[2]).toEqual({ on: { on: 'actorDefeated', who: 'source' }, amount: 10, share: { how: 'help' } });
    await seen.click('growth', '.chip');
    expect((entryNow('tracks', 'standing')['growth'] as readonly Json[]).length).toBe(2);
  });
});

describe('The sentences of a skill tree', () => {
  it('say what holds for all of it, and for the node that is chosen', async () => {
    const seen = await treeOf('calm');
    const texts = seen.texts('ee-sentence').map(bare);
    expect(texts[0]).toBe('Everybody begins with 1 points. Points that are spent come back at will.');
    expect(texts[1]).toBe('Only one of White heat, Wide fan can be learned.');
    expect(texts).toContain('It needs Deep breath at rank 2.');
    expect(texts).toContain('Each rank gives the cooldown of second wind -20 % more.');
    await seen.edit('needed rank', '3');
    expect(nodes().find(({ id }) => id === 'calm')?.needs).toEqual({ all: [{ node: 'deepBreath', rank: 3 }] });
    await seen.click('level', '.chip');
    expect(nodes().find(({ id }) => id === 'calm')?.needs?.level).toEqual({ track: 'standing', at: 5 });
    await choose(seen, 'come back at will', 'come back for a price');
    expect(entryNow('trees', 'diversTrade')['respec']).toEqual({ how: 'paid', price: { attribute: 'scrip', amount: 50 } });
  });

  it('take a node in below the chosen one, and out with all that needs it', async () => {
    const seen = await treeOf('quickFill');
    await seen.click('+ node', '.chip');
    expect(nodes().at(-1)).toEqual(jasmine.objectContaining({ label: 'New node', y: 2, needs: { all: [{ node: 'quickFill' }] } }));
    TestBed.inject(ChosenNode).id.set('quickFill');
    await seen.settle();
    await seen.click('delete Quick fill', '.chip');
    expect(nodes().some(({ id }) => id === 'quickFill')).toBeFalse();
    expect(nodes().find(({ id }) => id === 'lungsOfBrine')?.needs?.all).toEqual([{ node: 'calm' }]);
    expect(nodes().at(-1)?.needs).toBeUndefined();
  });
});

describe('The id of a node', () => {
  const rename = async (seen: Seen<unknown>, to: string) => {
    const box = seen.element.querySelector<HTMLInputElement>('input[aria-label="Node id"]')!;
    box.value = to;
    box.dispatchEvent(new Event('change'));
    await seen.settle();
    return seen.element.querySelector<HTMLInputElement>('input[aria-label="Node id"]')!.value;
  };

  it('is changed where it is read; what needs it follows, and what it was is told', async () => {
    const seen = await treeOf('hotFlame');
    expect(await rename(seen, 'whiteFlame')).toBe('whiteFlame');
    expect(seen.text('.node ee-id')).toBe('formerly hotFlame');
    expect(nodes().find(({ id }) => id === 'thriftyValve')!.needs).toEqual({ all: [{ node: 'whiteFlame' }] });
    expect(JSON.stringify(nodes())).not.toContain('"node":"hotFlame"');
  });

  it('stays where the new one is none, and says why', async () => {
    const seen = await treeOf('hotFlame');
    const before = nodes();
    expect(await rename(seen, 'deepBreath')).toBe('hotFlame');
    expect(seen.text('[role="alert"]')).toBe('deepBreath is taken by another node of this tree.');
    expect(nodes()).toEqual(before);
  });
});

describe('A tree that lays itself out', () => {
  const node = (id: string, ...all: string[]): NodeJson => ({
    id,
    label: id,
    ...(all.length > 0 && { needs: { all: all.map((one) => ({ node: one })) } }),
  });

  it('has every node below what it needs, and over the middle of what hangs on it', () => {
    expect(layOut([node('a'), node('b', 'a'), node('c', 'a'), node('d', 'b', 'c')])).toEqual([
      { x: 1, y: 0 },
      { x: 0, y: 1 },
      { x: 2, y: 1 },
      { x: 0, y: 2 },
    ]);
  });

  it('comes to an end where nodes need each other', () => {
    const places = layOut([node('a', 'b'), node('b', 'a'), node('c', 'c')]);
    expect(places.length).toBe(3);
    expect(places.every(({ x, y }) => Number.isFinite(x) && Number.isFinite(y))).toBeTrue();
  });

  it('loses a node with every need and choice that speaks of it', () => {
    const { nodes: left, exclusive } = withoutNode(
      [node('a'), node('b', 'a'), node('c', 'a', 'b')],
      [
        ['a', 'b'],
        ['a', 'b', 'c'],
      ],
      'a',
    );
    expect(left).toEqual([node('b'), node('c', 'b')]);
    expect(exclusive).toEqual([['b', 'c']]);
  });
});

describe('The sentences of teams', () => {
  it('say how one sees a team, and how many it takes', async () => {
    const seen = await spec(TeamSentences, 'teams', 'petrel');
    expect(bare(seen.texts('ee-sentence')[1])).toBe('It takes 4 players. Players are assigned to it.');
    await seen.edit('most players', '');
    expect(entryNow('teams', 'petrel')['capacity']).toBeUndefined();
  });

  it('say what holds for all of them', async () => {
    const seen = await spec(TeamRulesPart, 'teams', 'petrel');
    await choose(seen, 'unless that would unbalance the teams', 'again after');
    const rules = () => (documentNow() as unknown as { teamRules: Json }).teamRules;
    expect(rules()).toEqual({ switching: 'after', after: '30s' });
    await choose(seen, 'the team with the fewest players', 'the team that has the least of');
    expect(rules()['assign']).toBe('lowest');
    await seen.edit('no team', 'who asks is in no team');
    expect(rules()['neutral']).toBeTrue();
  });
});
