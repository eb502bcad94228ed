import { compileRuleset, Copy, Publisher, seatsTable, wireSchemaOf, World } from '@eager-ember/core';
import brinewick from '../../../../core/src/testing/recorded/brinewick.json';
import { QuestSentences } from '../rulebook/quests/quest-sentences';
import { documentNow, openBench, Seen } from '../testing/bench';
import { bare, choose, spec } from '../testing/specs';
import { QuestLines } from './quest-lines';
import { QuestWindow } from './quest-window';
import { questsOf } from './quests';

interface QuestJson {
  readonly offered: readonly Record<string, unknown>[];
  readonly steps: readonly { readonly goals: readonly Record<string, unknown>[] }[];
}

/** What the seat north is told of its quests, after some pokes and what it asked. */
function told(...steps: Record<string, unknown>[]) {
  const rules = compileRuleset(brinewick);
  const world = World.start(rules, 1);
  world.step(['north', 'south'].map((seat) => ({ kind: 'join', args: { seat } })));
  for (const step of steps)
    world.step([
      ['declineQuest', 'abandonQuest'].includes(String(step['do']))
        ? { kind: 'input', args: { seat: 'north', input: step } }
        : { kind: 'poke', args: { seat: 'north', action: step } },
    ]);
  const publisher = new Publisher(world);
  publisher.capture();
  const actor = seatsTable.in(world).cells.actor[0];
  const copy = new Copy(wireSchemaOf(rules, false));
  copy.apply(publisher.frameFor({ actor, team: 0 }, 0));
  return { copy, row: world.actors.rowOf(actor) };
}

const view = (...steps: Record<string, unknown>[]) => {
  const { copy, row } = told(...steps);
  return questsOf(copy, row);
};

describe('What a seat knows of its quests', () => {
  it('is what it is offered from the start, and not the name of any other', () => {
    const { copy, row } = told();
    expect(questsOf(copy, row)!.offered.map(({ id }) => id)).toEqual(['firstDescent']);
    expect(JSON.stringify([copy.schema, copy.contents()])).not.toMatch(/theManifest|Manifest”|Quiet Hull/);
  });

  it('is what it is offered, with what is given for it; then its lines, filled in', () => {
    const offered = view({ do: 'offerQuest', quest: 'theManifest' })!.offered;
    expect(offered.map(({ id, rewards, standing }) => [id, rewards, standing])).toEqual([
      ['firstDescent', '40 Standing, 10 Scrip', 'offered'],
      ['theManifest', '120 Standing, 30 Scrip', 'offered'],
    ]);
    const { active } = view(
      { do: 'startQuest', quest: 'clearTheSlipway' },
      { do: 'countGoal', quest: 'clearTheSlipway', amount: 2 },
      { do: 'startQuest', quest: 'quietHull' },
    )!;
    expect(active.map(({ id, left, mayAbandon }) => [id, left, mayAbandon])).toEqual([
      ['clearTheSlipway', '', true],
      ['quietHull', '90 s', true],
    ]);
    expect(active[0].lines).toEqual([{ text: 'Lampreys felled by the crew 2/6', done: false, optional: false }]);
  });

  it('is what was: how often, when it is there again, and what can be taken up', () => {
    const past = view(
      { do: 'startQuest', quest: 'dailyKelp' },
      { do: 'finishQuest', quest: 'dailyKelp' },
      { do: 'offerQuest', quest: 'firstDescent' },
      { do: 'declineQuest', quest: 'firstDescent' },
      { do: 'startQuest', quest: 'theManifest' },
      { do: 'abandonQuest', quest: 'theManifest' },
    )!.past;
    const of = (id: string) => past.find((quest) => quest.id === id)!;
    expect(of('dailyKelp').besides).toMatch(/^done, again in 2[34] h/);
    expect([of('firstDescent').standing, of('firstDescent').mayTakeUp]).toEqual(['declined', true]);
    expect([of('theManifest').standing, of('theManifest').mayTakeUp]).toEqual(['abandoned', false]);
  });
});

describe('Quests on a seat', () => {
  const steps = [
    { do: 'offerQuest', quest: 'theManifest' },
    { do: 'startQuest', quest: 'firstDescent' },
  ];

  it('show the one that is offered with its answers, and the lines of those one is on', async () => {
    openBench();
    const asked: unknown[] = [];
    const seen = await Seen.of(QuestLines, { view: view(...steps) });
    seen.fixture.componentInstance.ask.subscribe((ask) => asked.push(ask));
    expect(seen.text('.offer')).toContain('The Manifest');
    expect(seen.text('[data-quest="firstDescent"]')).toContain('Pods taken 0/2 (if you like)');
    for (const button of seen.element.querySelectorAll<HTMLButtonElement>('.answers button')) button.click();
    expect(asked).toEqual([
      { do: 'acceptQuest', quest: 'theManifest' },
      { do: 'declineQuest', quest: 'theManifest' },
    ]);
  });

  it('are listed in a window, accepted and given up there', async () => {
    openBench();
    const asked: unknown[] = [];
    const seen = await Seen.of(QuestWindow, { view: view(...steps) });
    seen.fixture.componentInstance.ask.subscribe((ask) => asked.push(ask));
    for (const label of ['Give up First Descent', 'Accept The Manifest'])
      seen.element.querySelector<HTMLButtonElement>(`[aria-label="${label}"]`)!.click();
    expect(asked).toEqual([
      { do: 'abandonQuest', quest: 'firstDescent' },
      { do: 'acceptQuest', quest: 'theManifest' },
    ]);
  });
});

describe('The sentences of a quest', () => {
  const now = () => documentNow()['quests'].find(({ id }) => id === 'theManifest')! as unknown as QuestJson;

  it('read as prose, and take another offer, step and goal', async () => {
    const seen = await spec(QuestSentences, 'quests', 'theManifest');
    const words = seen.texts('ee-sentence').map(bare).join(' ');
    expect(words).toContain('is accepted or declined, and can be done once. It is for the player alone');
    expect(words).toContain('by chart-keeper, when asked');
    expect(words).toContain('It is done when it is taken back by chart-keeper');
    await choose(seen, '+ offer', 'on entering a zone');
    expect(now().offered.at(-1)!['by']).toBe('zone');
    await seen.click('+ goal', '[data-step="find"] button');
    expect(now().steps[1].goals.length).toBe(2);
    await seen.click('+ step', '.chip');
    expect(now().steps.length).toBe(3);
    await seen.click('a condition instead', '[data-step="find"] button');
    expect(now().steps[1].goals[0]['on']).toBeUndefined();
    await seen.edit('count of wreck', '4');
    expect(now().steps[0].goals[0]['count']).toBe(4);
  });

  it('keep a step and a goal at least', async () => {
    const seen = await spec(QuestSentences, 'quests', 'quietHull');
    seen.element
      .querySelector<HTMLButtonElement>(
        '[data-step="quiet"] [aria-label^="Remove"], [data-step="quiet"] .out, [data-step="quiet"] button.remove',
      )
      ?.click();
    await seen.settle();
    expect(documentNow()['quests'].find(({ id }) => id === 'quietHull')!['steps']).toEqual(brinewick.quests[3].steps);
  });
});
