import brinewick from '../../../../core/src/testing/recorded/brinewick.json';
import { TestBed } from '@angular/core/testing';
import type { RulesetJson } from '../shared/api';
import { documentNow, type Seen, until } from '../testing/bench';
import { bare, spec } from '../testing/specs';
import { amount } from '../rulebook/spec/formats';
import { orRow } from './check-formats';
import { CheckResults } from './check-results';
import { CheckSentences } from './check-sentences';
import { CheckStoryPage } from './check-story';
import { Covered } from './covered';
import { RunBy } from './run-by';

const CHECKS = [
  {
    id: 'torch',
    label: 'The torch',
    group: 'Abilities',
    changes: [{ abilities: 'cuttingTorch', at: 'cooldown', value: '1s' }],
    given: [
      { name: 'north', team: 'petrel', x: 100, y: 120, with: [{ attribute: 'stamina', value: 50, atMost: 100 }], effects: ['marked'] },
      { name: 'eel', actor: 'lamprey', still: true, statuses: ['winded'] },
    ],
    stages: [
      {
        when: [
          { seat: 'north', input: { do: 'use', ability: 'cuttingTorch', x: 900, y: 120 } },
          { pass: '1s' },
          { on: 'north', from: 'eel', action: { do: 'hurt', attribute: 'suit', amount: 5 } },
          { until: 'stamina > 40', of: 'north', within: '2s' },
          { untilEvent: { on: 'castBroken', ability: 'cuttingTorch' }, within: '3s' },
          { restarts: true },
          { leaves: 'north' },
        ],
        then: [
          { of: 'north', value: 'stamina', how: 'between', amount: 40, and: 60, tolerance: 1 },
          { of: { every: 'lamprey' }, that: 'suit > 0', within: '2s' },
          { event: { on: 'castBroken', ability: 'cuttingTorch' }, of: { crew: 'petrel' }, times: 2, before: { on: 'actorDefeated' } },
          { of: 'north', refused: 'cooling down' },
          { seat: 'north', reads: 'A bell', times: 2 },
          { seat: 'eel', knows: 'oxygen', of: 'north', not: true },
          { event: { on: 'castBroken' }, toldTo: 'north', count: 'atMost' },
          { ruleset: 'refused', saying: 'above' },
        ],
      },
    ],
    always: [
      { value: 'oxygen', how: 'atLeast', amount: 0 },
      { that: 'suit > 200', never: true },
    ],
  },
  {
    id: 'hurting',
    label: 'Hurting',
    given: [{ name: 'north', with: [{ attribute: 'suit', value: 'row.suit' }] }],
    stages: [
      {
        when: [{ on: 'north', action: { do: 'hurt', attribute: 'suit', amount: 10 } }],
        then: [{ of: 'north', value: 'suit', how: 'is', amount: 'row.left' }],
      },
    ],
    each: {
      columns: ['suit', 'left'],
      rows: [
        [50, 40],
        [60, 51],
      ],
    },
  },
  {
    id: 'timing',
    label: 'Timing',
    given: [{ name: 'north', x: 'row.x', y: 100 }],
    stages: [
      {
        when: [{ seat: 'north', input: { do: 'use', ability: 'sonarPing', x: 'row.x' } }, { pass: 1.5 }],
        then: [
          { event: { on: 'abilityUsed' }, at: '50ms', giveOrTake: 'row.off', times: 'row.times' },
          { that: 'stamina > 10', within: '3s', notBefore: 'row.off' },
        ],
      },
    ],
    each: {
      columns: ['x', 'off', 'times'],
      rows: [
        [100, '200ms', 1],
        [100, 'soon', 1],
      ],
    },
  },
];
const ruleset = () => ({ ...structuredClone(brinewick), checks: structuredClone(CHECKS) }) as unknown as RulesetJson;
const checkNow = (id: string) => documentNow()['checks'].find((entry) => entry['id'] === id)!;
const haveRun = (seen: Seen<unknown>) => {
  const results = TestBed.inject(CheckResults);
  return until(
    'the checks have run',
    () => !results.running() && results.result('hurting') !== undefined,
    () => seen.settle(),
  );
};

describe('The sentences of a check', () => {
  it('read as prose: what is given, what is done, what is expected', async () => {
    const seen = await spec(CheckSentences, 'checks', 'torch', {}, ruleset());
    // What became of each stands behind it once the checks have run.
    for (const verdict of seen.element.querySelectorAll('ee-verdict')) verdict.remove();
    expect(
      seen.texts('ee-sentence').map((text) =>
        bare(text)
          .replace(/×/g, '')
          .replace(/ ?\+ (more|condition)/g, '')
          .trim(),
      ),
    ).toEqual([
      'About Abilities.',
      'Tried on bare ground, with seed 1.',
      'With cooldown of cutting torch (ability) being 1s,',
      'Given a player called , of petrel, at 100, 120 with 50 stamina of at most 100, under marked',
      'and a lamprey called , winded, that stands still',
      'When north uses cutting torch, at 900, 120,',
      'and 1 s pass,',
      'and lower suit by 5 for north, from eel,',
      'and it comes to stamina > 40 for north, within 2 s,',
      'and a cast or a channel breaks cutting torch any reason any phase happens, to anyone, within 3 s,',
      'and the game is restarted, and all come back with what is kept of them,',
      'and north leaves,',
      'then stamina of north is between 40 and 60, give or take 1.',
      'and for every lamprey: suit > 0, within 2 s.',
      'and a cast or a channel breaks cutting torch any reason any phase happens exactly twice, to the crew of Petrel, before an actor falls any type.',
      'and north is refused with “cooling down”.',
      'and north reads “A bell” at least twice.',
      'and eel is not told oxygen of north.',
      'and a cast or a channel breaks any ability any reason any phase happens at most once, to anyone, told to north.',
      'and the ruleset is refused, saying “above”.',
      'Always oxygen of everyone is at least 0.',
      'Never for everyone: suit > 200.',
    ]);
  });

  it('are edited in place; what is named may be still to be made', async () => {
    const seen = await spec(CheckSentences, 'checks', 'hurting', {}, ruleset());
    await seen.edit('starting value', '80');
    await seen.edit('given attribute', 'max health');
    await seen.edit('of whom', 'every lamprey');
    const { given, stages } = checkNow('hurting') as { given: unknown; stages: { then: unknown }[] };
    expect(given).toEqual([{ name: 'north', with: [{ attribute: 'maxHealth', value: 80 }] }]);
    expect(stages[0].then).toEqual([{ of: { every: 'lamprey' }, value: 'suit', how: 'is', amount: 'row.left' }]);
  });

  it('say when it happens, and what a row has in the place of anything', async () => {
    const seen = await spec(CheckSentences, 'checks', 'timing', {}, ruleset());
    for (const verdict of seen.element.querySelectorAll('ee-verdict')) verdict.remove();
    const said = () =>
      seen.texts('ee-step-line, ee-test-line').map((text) =>
        bare(text)
          .replace(/×| ?\+ (more|condition)/g, '')
          .trim(),
      );
    expect(said()).toEqual([
      'When north uses sonar ping, at row.x,',
      'and 1.5 s pass,',
      'then an ability is used any ability happens exactly row.times, to anyone, at 50 ms, give or take row.off.',
      'and for everyone: stamina > 10, within 3 s, not before row.off.',
    ]);
    await seen.edit('how long', 'row.off');
    await seen.edit('x', 'row.times');
    await seen.edit('times', 'twice');
    await seen.edit('time that it may be off', '3');
    seen.element.querySelector<HTMLElement>('button[aria-label="Take out the time"]')!.click();
    await seen.settle();
    const { given, stages } = checkNow('timing') as { given: unknown; stages: { when: unknown[]; then: unknown[] }[] };
    expect(given).toEqual([{ name: 'north', x: 'row.times', y: 100 }]);
    expect(stages[0].when[1]).toEqual({ pass: 'row.off' });
    expect(stages[0].then).toEqual([{ event: { on: 'abilityUsed' }, at: '50ms', giveOrTake: '3s', times: 2 }, { that: 'stamina > 10' }]);
  });

  it('have somebody come in later', async () => {
    const seen = await spec(CheckSentences, 'checks', 'hurting', {}, ruleset());
    const sentences = seen.fixture.componentInstance as unknown as { comeIn(): void };
    sentences.comeIn();
    await seen.settle();
    expect(seen.texts('ee-given-line').at(-1)).toContain(', that comes later');
    expect(seen.texts('ee-step-line').at(-1)).toContain('When south comes in,');
    const { given, stages } = checkNow('hurting') as { given: unknown[]; stages: unknown[] };
    expect([given.at(-1), stages.at(-1)]).toEqual([{ name: 'south', later: true }, { when: [{ joins: 'south' }] }]);
  });

  it('offer the columns of the table where something is typed', () => {
    const format = orRow(amount, () => ['left', 'suit']);
    const offered = (typed: string) => format.choices(typed, ruleset()).map(({ text }) => text);
    expect(offered('oxygen + le')).toContain('oxygen + row.left');
    expect(offered('row.s')).toEqual(['row.suit']);
    expect(offered('12')).toEqual([]);
    expect([format.read('row.left', undefined), format.read('12', undefined)]).toEqual([{ value: 'row.left' }, { value: 12 }]);
  });

  it('say which cells of the table make no sense where they stand', async () => {
    const seen = await spec(CheckSentences, 'checks', 'timing', {}, ruleset());
    await haveRun(seen);
    expect(seen.texts('ee-check-table .wrong')).toEqual([jasmine.stringContaining('“soon” does not fit where row.off stands')]);
    expect(seen.element.querySelector('input[aria-invalid="true"]')!.getAttribute('aria-label')).toBe('off of row 2');
  });

  it('follow the name of somebody, and of a column', async () => {
    const seen = await spec(CheckSentences, 'checks', 'hurting', {}, ruleset());
    const write = async (label: string, text: string) => {
      const box = seen.element.querySelector<HTMLInputElement>(`input[aria-label="${label}"]`)!;
      box.value = text;
      box.dispatchEvent(new Event('change'));
      await seen.settle();
    };
    await write('Name', 'ada');
    await write('Name of column 2', 'rest');
    const { given, stages, each } = checkNow('hurting') as Record<string, unknown>;
    expect([given, stages, (each as { columns: unknown }).columns]).toEqual([
      [{ name: 'ada', with: [{ attribute: 'suit', value: 'row.suit' }] }],
      [
        {
          when: [{ on: 'ada', action: { do: 'hurt', attribute: 'suit', amount: 10 } }],
          then: [{ of: 'ada', value: 'suit', how: 'is', amount: 'row.rest' }],
        },
      ],
      ['suit', 'rest'],
    ]);
    await write('rest of row 1', '41');
    await write('Name of column 1', 'no name');
    expect(seen.text('.refusal')).toContain('A column is named in letters and digits');
  });

  it('say what became of each, and which row of a table fails', async () => {
    const seen = await spec(CheckSentences, 'checks', 'hurting', {}, ruleset());
    await haveRun(seen);
    expect(seen.text('ee-test-line ee-verdict')).toBe('north: suit is 50, not 51.');
    expect(seen.element.querySelector('ee-test-line .line')!.classList).toContain('broken');
    expect(seen.texts('tbody th')).toEqual(['holds: 1', 'fails: 2']);
    const results = TestBed.inject(CheckResults);
    expect(results.states()['checks/hurting']).toEqual({ is: 'fails', hint: '2 rows' });
    expect([results.nextFailing(''), results.nextFailing('torch'), results.nextFailing('timing')]).toEqual(['torch', 'hurting', 'torch']);
  });
});

describe('What happened in a check', () => {
  it('is shown for the row that fails, with why, and can be taken as right', async () => {
    const seen = await spec(CheckStoryPage, 'checks', 'hurting', { id: 'hurting' }, ruleset());
    await haveRun(seen);
    await until(
      'it is told',
      () => seen.text('.wrong') !== '',
      () => seen.settle(),
    );
    expect(seen.text('.rows')).toContain('suit 60, left 51');
    expect(seen.texts('.chain li')).toEqual(['0.05 s north’s suit 60 → 50', 'because 0.05 s poke: hurt suit 10 on north']);
    await seen.click('Take this as right: 50');
    await haveRun(seen);
    await until(
      'it holds',
      () => seen.text('.says') === 'All of it holds.',
      () => seen.settle(),
    );
    expect((checkNow('hurting')['each'] as { rows: unknown }).rows).toEqual([
      [50, 40],
      [60, 50],
    ]);
    await seen.click('row 1 , holds', '.row');
    expect(seen.text('.rows')).toContain('suit 50, left 40');
  });
});

describe('What checks have run', () => {
  it('is told chapter by chapter, with the entries that none has', async () => {
    const seen = await spec(Covered, 'checks', 'hurting', {}, ruleset());
    await haveRun(seen);
    const line = (title: string) => seen.texts('li').find((text) => text.startsWith(title))!;
    await until(
      'it is told',
      () => seen.texts('li').length > 0,
      () => seen.settle(),
    );
    expect(line('Stats')).toMatch(/^Stats \d+ of 17$/);
    await seen.click(line('Pickups'), 'li button');
    expect(seen.text('li p')).toContain('No check has run Slipstream pod');
  });

  it('is told of an entry, with those of its actions that none has', async () => {
    const seen = await spec(RunBy, 'attributes', 'suit', { chapter: 'attributes', id: 'suit' }, ruleset());
    await haveRun(seen);
    await until(
      'it is told',
      () => seen.text('p') !== '',
      () => seen.settle(),
    );
    expect(seen.texts('a')).toEqual(['The torch', 'Hurting']);
    seen.fixture.componentRef.setInput('chapter', 'zones');
    seen.fixture.componentRef.setInput('id', 'wreck');
    await until(
      'it is another',
      () => seen.text('p') === 'No check has run it.',
      () => seen.settle(),
    );
  });
});
