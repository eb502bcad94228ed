import brinewick from '../../../../core/src/testing/recorded/brinewick.json';
import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import type { RulesetJson } from '../shared/api';
import { BackgroundTasks, type Task } from '../shared/background-tasks';
import { backgroundTasksApi } from '../shared/background-tasks-api';
import { documentNow, Seen, until } from '../testing/bench';
import { bare, spec } from '../testing/specs';
import { HuntResult } from './hunt-result';
import { HuntRuns } from './hunt-runs';
import { HuntSentences } from './hunt-sentences';

/** Long work without workers: as if there were two, each in its turn. */
class TasksAtHand {
  async until<R>(task: Task, next: (worker: number) => readonly unknown[] | undefined, told: (answer: R, worker: number) => void) {
    const begun = await Promise.all([0, 1].map(() => backgroundTasksApi.begin(task.document, task.concept, task.name, task.args)));
    const open = new Set([0, 1]);
    while (open.size > 0)
      for (const worker of open) {
        const args = next(worker);
        if (args) told(backgroundTasksApi.go(begun[worker], args) as R, worker);
        else open.delete(worker);
        await new Promise((done) => setTimeout(done));
      }
  }
}

const HUNT = {
  id: 'scrip',
  label: 'Scrip',
  group: 'Money',
  ground: 'bare',
  given: [
    { name: 'north', with: [{ attribute: 'scrip', value: 5 }] },
    { name: 'south', team: 'gannet' },
  ],
  may: [
    { input: 'endDay', by: 'north', weight: 3 },
    { poke: 'hurt', on: { every: 'diver' } },
    { action: { do: 'give', attribute: 'scrip', amount: 2 }, on: 'south' },
    { leaves: 'north' },
    { restarts: true },
    { pass: '2s' },
  ],
  always: [
    { conserved: 'scrip', sources: [{ quests: 'firstDescent' }, { anyOf: 'loot' }], sinks: [{ anyOf: 'economy' }] },
    { seat: 'north', knows: 'scrip', of: 'south', not: true },
    { invariant: 'bounds' },
  ],
  without: ['copies'],
};
const hole = { id: 'gift', label: 'Gift', on: { on: 'seatTaken' }, then: [{ do: 'give', attribute: 'scrip', amount: 1 }] };
const ruleset = (...reactions: unknown[]) =>
  ({ ...structuredClone(brinewick), reactions, hunts: structuredClone([HUNT]) }) as unknown as RulesetJson;
const huntNow = () => documentNow()['hunts'][0];

async function opened(...reactions: unknown[]) {
  localStorage.clear();
  return reopened(...reactions);
}

/** As after a reload. */
async function reopened(...reactions: unknown[]) {
  TestBed.configureTestingModule({ providers: [{ provide: BackgroundTasks, useClass: TasksAtHand }] });
  const sentences = await spec(HuntSentences, 'hunts', 'scrip', {}, ruleset(...reactions));
  const result = await Seen.of(HuntResult, { id: 'scrip' });
  await result.settle();
  return { sentences, result, runs: TestBed.inject(HuntRuns) };
}

/** The same, run until it has found what there is to be found. */
async function openedAndRun(...reactions: unknown[]) {
  const all = await opened(...reactions);
  await all.result.click('Run for 60 s');
  await until(
    'something is found',
    () => all.runs.run('scrip')?.running === false,
    () => all.result.settle(),
  );
  return all;
}

describe('The sentences of a hunt', () => {
  it('read as prose: who is there, what may happen, what always has to hold', async () => {
    const { sentences } = await opened();
    expect(
      sentences.texts('ee-sentence').map((text) =>
        bare(text)
          .replace(/×/g, '')
          .replace(/ ?\+( more often| more)?/g, '')
          .replace(/ +([,.])/g, '$1')
          .trim(),
      ),
    ).toEqual([
      'About Money.',
      'Searched on bare ground, with seed 1: stories of up to 30 steps, at most 2 s apart.',
      'Given a player called with 5 scrip',
      'and a player called, of gannet',
      'It may happen that north does this: end the day, 3 times as often.',
      'and that every diver has this done from outside: lower a pool.',
      'and that give 2 scrip to south.',
      'and that north leaves, and comes back with what is kept.',
      'and that the game is restarted.',
      'and that 2 s pass.',
      'Always scrip of everyone comes only from first Descent (quest), anything of loot, and goes only to anything of economy.',
      'Always north is not told scrip of south.',
      'Always every value is within its bounds.',
    ]);
    expect(sentences.texts('.built .out')).toEqual(['each seat is told what it may see, and no more']);
  });

  it('are edited in place; what holds of any ruleset is left out and looked at again', async () => {
    const { sentences } = await opened();
    await sentences.edit('most steps', '12');
    await sentences.edit('source', 'anything of quests');
    await sentences.click('saving and loading change nothing');
    await sentences.click('each seat is told what it may see, and no more');
    await sentences.settle();
    const { steps, without, always } = huntNow() as { steps: number; without: string[]; always: { sources: unknown }[] };
    expect([steps, without]).toEqual([12, ['saves']]);
    expect(always[0].sources).toEqual([{ anyOf: 'quests' }, { anyOf: 'loot' }]);
  });
});

describe('A hunt', () => {
  it('tells what it found in a few steps, keeps the story and makes it a check', async () => {
    const { result, runs } = await openedAndRun(hole);
    await result.settle();
    expect(result.text('.found')).toContain('1 scrip in by gift, which is no source of it.');
    expect(runs.states()['hunts/scrip'].is).toBe('fails');
    await until(
      'the story is told',
      () => result.element.querySelector('ee-story-view') !== null,
      () => result.settle(),
    );
    await result.click('Try this story first from now on');
    await result.settle();
    expect(result.text('.found')).toContain('This story is tried first.');
    const opens = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    await result.click('Make it a check');
    await result.settle();
    expect(opens).toHaveBeenCalledTimes(1);
    const check = documentNow()['checks'].at(-1) as { id: string; always: unknown[] };
    expect(check.id).toMatch(/^scripStory\d+$/);
    expect(check.always.length).toBe(1);
    expect((huntNow()['seeds'] as number[]).length).toBe(1);
  });

  it('is there after a reload, with what it came to, as long as nothing was edited', async () => {
    const { runs } = await openedAndRun(hole);
    const { found, stories } = runs.run('scrip')!;
    TestBed.resetTestingModule();
    const after = await reopened(hole);
    expect([after.runs.run('scrip')!.found, after.runs.run('scrip')!.stories]).toEqual([found, stories]);
    expect(after.result.text('.found')).toContain('1 scrip in by gift');
    TestBed.resetTestingModule();
    expect((await reopened({ ...hole, label: 'Present' })).runs.run('scrip')).toBeUndefined();
  });

  it('is stopped, goes on from there, and is of no use once the ruleset is edited', async () => {
    const { sentences, result, runs } = await opened();
    await result.click('Run for 60 s');
    await until(
      'it runs',
      () => (runs.run('scrip')?.stories ?? 0) > 0,
      () => result.settle(),
    );
    await result.click('Stop');
    await result.settle();
    const { stories } = runs.run('scrip')!;
    expect(result.text('.acts')).toContain('Nothing was found: all of it held.');
    await result.click('Go on for 60 s');
    await until(
      'it goes on',
      () => (runs.run('scrip')?.stories ?? 0) > stories,
      () => result.settle(),
    );
    await result.click('Stop');
    await sentences.edit('most steps', '7');
    await result.settle();
    expect(runs.run('scrip')).toBeUndefined();
    expect(result.text('.acts')).toContain('The ruleset has been edited since it was run.');
  });
});
