import { compileRuleset, Copy, Publisher, seatsTable, wireSchemaOf, World } from '@eager-ember/core';
import brinewick from '../../../../core/src/testing/recorded/brinewick.json';
import { documentNow, openBench, Seen } from '../testing/bench';
import { bare, choose, spec } from '../testing/specs';
import { AchievementSentences } from '../rulebook/achievements/achievement-sentences';
import { LevelLine } from './level-line';
import { AchievementWindow } from './achievement-window';
import { achievementsOf } from './achievements';

/** What the seat north is told of its achievements, after some pokes. */
function told(...actions: Record<string, unknown>[]) {
  const rules = compileRuleset(brinewick);
  const world = World.start(rules, 1);
  world.step(['north', 'south'].map((seat) => ({ kind: 'join', args: { seat } })));
  for (const action of actions) world.step([{ kind: 'poke', args: { seat: 'north', action } }]);
  const publisher = new Publisher(world);
  publisher.capture();
  const actor = seatsTable.in(world).cells.actor[0];
  const copy = new Copy(wireSchemaOf(rules, false));
  copy.apply(publisher.frameFor({ actor, team: 0 }, 0));
  return { copy, row: world.actors.rowOf(actor) };
}

describe('What a seat knows of its achievements', () => {
  it('is which it has, how far the others are, and how many are secret', () => {
    const { copy, row } = told({ do: 'unlock', achievement: 'firstBlood' }, { do: 'give', attribute: 'podsTaken', amount: 1 });
    const achievements = achievementsOf(copy, row)!;
    expect([achievements.done, achievements.all, achievements.hidden, achievements.list.length]).toEqual([1, 9, 1, 8]);
    expect(achievements.list.find(({ key }) => key === 'podRunner')).toEqual(jasmine.objectContaining({ have: 1, need: 20, done: false }));
    const other = copy.rows('actors').find((one) => one !== row && copy.value('actors', one, 'name') === 'south')!;
    expect(achievementsOf(copy, other)).toBeUndefined();
  });

  it('is the secret one in words, once it is found', () => {
    const { copy, row } = told({ do: 'unlock', achievement: 'lastBreath' });
    const achievements = achievementsOf(copy, row)!;
    expect([achievements.done, achievements.hidden]).toEqual([1, 0]);
    expect(achievements.list.at(-1)).toEqual(jasmine.objectContaining({ label: 'On the last breath', done: true, points: 40 }));
    expect(JSON.stringify(copy.contents())).not.toContain('lastBreath');
  });

  it('is listed, and followed on the display where its author says so', async () => {
    const { copy, row } = told({ do: 'unlock', achievement: 'firstBlood' });
    openBench();
    const achievements = achievementsOf(copy, row);
    const window = await Seen.of(AchievementWindow, { view: achievements });
    expect(window.text('[data-achievement="firstBlood"]')).toContain('unlocked: First fall');
    expect(window.text('[data-achievement="podRunner"]')).toContain('0/20');
    expect(window.text('ul')).toContain('One more is secret.');
    const line = await Seen.of(LevelLine, { view: { levels: [], trees: [] }, achievements });
    expect(line.text('[data-following="lampreyBane"]')).toContain('0/10');
    expect(line.text('[data-achievements]')).toBe('Achievements, 1 of 9');
  });
});

describe('The sentences of an achievement', () => {
  it('read as prose, for an event and for a condition', async () => {
    const seen = await spec(AchievementSentences, 'achievements', 'allPages');
    const [first] = seen.texts('ee-sentence').map(bare);
    expect(first).toContain('It is unlocked when this has happened 3 times: a pickup is taken');
    const now = () => documentNow()['achievements'].find(({ id }) => id === 'allPages')!;
    await seen.edit('count', '5');
    expect(now()['count']).toBe(5);
    await choose(seen, 'when this has happened', 'when this is so');
    expect([now()['on'], now()['count'], now()['if']]).toEqual([undefined, undefined, 'oxygen >= 10']);
    await seen.click('for a time', '.chip');
    expect(now()['holds']).toBe('10s');
    await seen.edit('secret', 'Nobody reads of it before they have it');
    expect(now()['secret']).toBeTrue();
  });
});
