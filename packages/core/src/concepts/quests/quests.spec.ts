import { compileRuleset, serverNow, wireSchemaOf } from '../../index.js';
import { HURT, goal, step, quest, pay, parts, crew, fell, ask, offer, begin, told, cell, rows, saved } from '../../testing/quests.js';
import { input, join, rulesetWith, Trial } from '../../testing/rulesets.js';

describe('A quest', () => {
  it('is told to nobody before they are offered it, not even that it is there', () => {
    const rules = compileRuleset(rulesetWith(parts(quest('hushed', { label: 'Not a word' }))));
    expect(JSON.stringify(wireSchemaOf(rules, false))).not.toMatch(/hushed|Not a word/);
    expect(JSON.stringify(wireSchemaOf(rules, true))).toContain('hushed');
  });

  it('that is offered from the start stands before the first thing that its player does', () => {
    const goals = [{ id: 'g', line: 'Take it', on: { on: 'pickupTaken' } }];
    const first = { id: 'first', label: 'First', offered: [{ by: 'start' }], begins: 'atOnce', steps: [{ id: 's', label: 'S', goals }] };
    const trial = Trial.of({
      quests: [first],
      pickups: [{ id: 'pearl', label: 'Pearl', then: [] }],
      arena: { starts: [{ x: 100, y: 100 }], placed: [{ pickup: 'pearl', x: 100, y: 100 }] },
    });
    expect(trial.named('pickupTaken').map(({ tick }) => tick)).toEqual([1]);
    expect(trial.named('questStarted').map(({ who, tick }) => [who, tick])).toEqual([['north', 1]]);
    expect(trial.named('questDone').length).toBe(1);
    // Each who comes later has it at once as well.
    trial.run(0.35);
    trial.step(join('south'));
    expect(trial.named('questStarted').map(({ who, tick }) => [who, tick])).toContain(['south', trial.world.tick]);
  });

  it('is offered, accepted, counted step by step, and done once', () => {
    const steps = [step('first', goal('two', { count: 2 })), step('second', goal('one'))];
    const trial = Trial.of(parts(quest('hunt', { steps, then: pay })));
    fell(trial);
    offer(trial, 'hunt');
    expect(rows(trial, 'questLog', 'actor', 'label', 'standing', 'rewards')).toEqual([['north', 'hunt', 7, '10 scrip']]);
    expect(rows(trial, 'questLines', 'line')).toEqual([]);
    ask(trial, 'accept', 'hunt');
    expect(rows(trial, 'questLines', 'line', 'have', 'need')).toEqual([['two {have}/{need}', 0, 2]]);
    fell(trial);
    expect(rows(trial, 'questLines', 'have')).toEqual([[1]]);
    trial.restore();
    fell(trial);
    expect(rows(trial, 'questLines', 'line', 'have')).toEqual([['one {have}/{need}', 0]]);
    expect(rows(trial, 'questLog', 'step', 'standing')).toEqual([['second', 1]]);
    fell(trial);
    fell(trial);
    expect([cell(trial, 'hunt'), cell(trial, 'hunt.times'), trial.value('scrip')]).toEqual([3, 1, 10]);
    expect(rows(trial, 'questLines', 'line')).toEqual([]);
    offer(trial, 'hunt');
    ask(trial, 'accept', 'hunt');
    expect(told(trial)).toEqual([
      'north questOffered hunt',
      'north questStarted hunt',
      'north goalCounted hunt 1',
      'north goalCounted hunt 2',
      'north stepDone hunt',
      'north goalCounted hunt 1',
      'north stepDone hunt',
      'north questDone hunt',
      'north questRefused hunt done',
    ]);
  });

  it('has goals side by side, of which some may be left out', () => {
    const goals = [goal('fell'), goal('whole', { on: undefined, if: 'suit > 90' }), goal('more', { count: 3, optional: true, then: pay })];
    const trial = Trial.of(parts(quest('hunt', { steps: [step('all', ...goals)] })));
    trial.poke({ do: 'hurt', attribute: 'suit', amount: 50 });
    begin(trial, 'hunt');
    fell(trial);
    expect(cell(trial, 'hunt')).toBe(1);
    fell(trial);
    trial.poke({ do: 'heal', attribute: 'suit', amount: 50 });
    expect([cell(trial, 'hunt'), trial.value('scrip')]).toEqual([3, 0]);
    trial.poke({ do: 'forgetQuests' });
    begin(trial, 'hunt');
    trial.poke({ do: 'hurt', attribute: 'suit', amount: 100 });
    expect(cell(trial, 'hunt')).toBe(1);
  });

  it('meets a condition once for good', () => {
    const trial = Trial.of(parts(quest('hunt', { steps: [step('all', goal('rich', { on: undefined, if: 'scrip >= 5' }), goal('fell'))] })));
    begin(trial, 'hunt');
    trial.poke({ do: 'give', attribute: 'scrip', amount: 5 });
    trial.poke({ do: 'take', attribute: 'scrip', amount: 5 });
    fell(trial);
    expect(cell(trial, 'hunt')).toBe(3);
  });

  it('counts what the crew does, for all of the crew who share it', () => {
    const shared = quest('clear', { takenBy: 'crew', then: pay, steps: [step('all', goal('six', { count: 3, counts: 'crew' }))] });
    const trial = new Trial(compileRuleset(rulesetWith(parts(shared))), crew);
    offer(trial, 'clear', 'south');
    ask(trial, 'accept', 'clear', 'south');
    expect([cell(trial, 'clear'), cell(trial, 'clear', 'south'), cell(trial, 'clear', 'east')]).toEqual([1, 1, 0]);
    fell(trial);
    fell(trial, 'east');
    fell(trial, 'south');
    expect(rows(trial, 'questLines', 'actor', 'have')).toEqual([
      ['south', 2],
      ['north', 2],
    ]);
    // Who comes to it late shares what has been counted.
    trial.step(join('west', { team: 'petrel' }));
    begin(trial, 'clear', 'west');
    expect(cell(trial, 'clear.goal.six', 'west')).toBe(2);
    fell(trial, 'west');
    expect(['north', 'south', 'west', 'east'].map((seat) => trial.value('scrip', seat))).toEqual([10, 10, 10, 0]);
  });

  it('counts for everybody where it says so', () => {
    const shared = quest('clear', { takenBy: 'everyone', steps: [step('all', goal('two', { count: 2, counts: 'everyone' }))] });
    const trial = new Trial(compileRuleset(rulesetWith(parts(shared))), crew);
    begin(trial, 'clear', 'north');
    fell(trial, 'south');
    fell(trial, 'east');
    expect(['north', 'south', 'east'].map((seat) => cell(trial, 'clear', seat))).toEqual([3, 3, 3]);
  });

  it('fails when its time is over, and by what it says; nothing counts any more', () => {
    const timed = quest('quiet', { limit: '2s', fails: [HURT], onFail: [{ do: 'give', attribute: 'scrip', amount: 1 }] });
    const trial = Trial.of(parts(timed));
    begin(trial, 'quiet');
    expect(rows(trial, 'questLog', 'until')).toEqual([[trial.world.tick + 40]]);
    trial.run(1.95);
    expect(cell(trial, 'quiet')).toBe(1);
    trial.run(0.05);
    fell(trial);
    expect([cell(trial, 'quiet'), trial.value('scrip')]).toEqual([4, 1]);
    begin(trial, 'quiet');
    trial.poke({ do: 'hurt', attribute: 'suit', amount: 1 });
    expect(told(trial).filter((line) => line.includes('Failed'))).toEqual([
      'north questFailed quiet time',
      'north questFailed quiet event',
    ]);
    begin(trial, 'quiet');
    fell(trial);
    expect(cell(trial, 'quiet')).toBe(3);
  });

  it('is taken back by a character, who then offers the first that one may have', () => {
    const keeper = (id: string, more: Record<string, unknown> = {}) =>
      quest(id, { offered: [{ by: 'character', actor: 'keeper' }], ...more });
    const rules = {
      ...parts(
        keeper('first', { handIn: 'keeper', then: pay, if: 'suit > 10' }),
        keeper('second', { if: 'done(first)', repeats: 'daily' }),
        keeper('third', { if: 'felled > 100' }),
      ),
      actors: [
        { id: 'diver', label: 'Diver', kind: 'player', attributes: ['suit', 'felled', 'scrip'].map((attribute) => ({ attribute })) },
        { id: 'keeper', label: 'Keeper', kind: 'character', interactions: ['work'] },
      ],
      interactions: [{ id: 'work', label: 'Work', prompt: 'Ask for work', reach: 500, serves: 'each', then: [{ do: 'offerQuests' }] }],
      arena: { width: 400, height: 400, starts: [{ x: 100, y: 100 }], placed: [{ actor: 'keeper', x: 150, y: 100 }] },
    };
    const trial = Trial.of(rules);
    const talk = () => {
      trial.step(input('north', { do: 'interact' }));
      trial.run(0.2);
    };
    talk();
    talk();
    expect(told(trial)).toEqual(['north questOffered first']);
    ask(trial, 'accept', 'first');
    fell(trial);
    expect([cell(trial, 'first'), trial.value('scrip'), rows(trial, 'questLines', 'line', 'have', 'need')]).toEqual([
      2,
      0,
      [['Return to: Keeper', 0, 1]],
    ]);
    // What is only to be handed in is not undone by what follows.
    talk();
    expect([cell(trial, 'first'), trial.value('scrip')]).toEqual([3, 10]);
    talk();
    ask(trial, 'accept', 'second');
    fell(trial);
    talk();
    const [refused] = trial.named('nothingOffered').slice(-1);
    expect(refused.data['from']).toBe('Keeper');
    expect(Number(refused.data['seconds'])).toBeGreaterThan(86_000);
    trial.poke({ do: 'passTime', time: '86400s' });
    talk();
    expect(told(trial).at(-1)).toBe('north questOffered second');
  });

  it('comes by itself from the start, by a zone, a pickup, an event, or after another', () => {
    const trial = Trial.of(
      parts(
        quest('start', { offered: [{ by: 'start' }], begins: 'atOnce', next: 'chained' }),
        quest('later', { offered: [{ by: 'start' }], if: 'felled >= 2' }),
        quest('event', { offered: [{ by: 'event', event: { ...HURT, where: 'suit < 50' } }] }),
        quest('chained'),
      ),
    );
    trial.run(1);
    fell(trial);
    trial.poke({ do: 'hurt', attribute: 'suit', amount: 20 });
    trial.poke({ do: 'hurt', attribute: 'suit', amount: 40 });
    trial.poke({ do: 'hurt', attribute: 'suit', amount: 10 });
    fell(trial);
    trial.run(3);
    expect(told(trial).filter((line) => /Offered|Started/.test(line))).toEqual([
      'north questStarted start',
      'north questOffered chained',
      'north questOffered event',
      'north questOffered later',
    ]);
  });

  it('that was declined comes no second time by itself, and can be taken up all the same', () => {
    const trial = Trial.of(
      parts(quest('start', { offered: [{ by: 'start' }] }), quest('daily', { offered: [{ by: 'start' }], repeats: 'daily' })),
    );
    trial.run(1);
    ask(trial, 'decline', 'start');
    ask(trial, 'decline', 'daily');
    trial.run(3);
    expect(trial.named('questOffered').length).toBe(2);
    trial.poke({ do: 'passTime', time: '86400s' });
    trial.run(1);
    expect(trial.named('questOffered').map(({ data }) => data['quest'])).toEqual(['start', 'daily', 'daily']);
    ask(trial, 'accept', 'start');
    expect(cell(trial, 'start')).toBe(1);
  });

  it('is given up and begun anew, with nothing left of what was counted', () => {
    const trial = Trial.of(
      parts(
        quest('hunt', { steps: [step('all', goal('two', { count: 2 }))] }),
        quest('bound', { abandon: false, steps: [step('all', goal('nine', { count: 9 }))] }),
      ),
    );
    begin(trial, 'hunt');
    begin(trial, 'bound');
    fell(trial);
    ask(trial, 'abandon', 'hunt');
    expect([cell(trial, 'hunt'), cell(trial, 'hunt.goal.two')]).toEqual([6, 0]);
    ask(trial, 'abandon', 'bound');
    ask(trial, 'abandon', 'hunt');
    offer(trial, 'hunt');
    ask(trial, 'accept', 'hunt');
    fell(trial);
    expect(cell(trial, 'hunt')).toBe(1);
    expect(told(trial).filter((line) => line.includes('Refused'))).toEqual([
      'north questRefused bound notGivenUp',
      'north questRefused hunt notActive',
    ]);
  });

  it('repeats by the time of the server, which comes in from outside', () => {
    const trial = Trial.of(
      parts(quest('day', { repeats: 'daily' }), quest('hour', { repeats: 'after', after: '3600s' }), quest('any', { repeats: 'always' })),
    );
    const clock = (now: number) => trial.step({ kind: 'clock', args: { now } });
    const once = (id: string) => {
      offer(trial, id);
      ask(trial, 'accept', id);
      fell(trial);
    };
    const times = () => ['day', 'hour', 'any'].map((id) => cell(trial, `${id}.times`));
    clock(86_400 * 100 + 86_000);
    for (const id of ['day', 'day', 'hour', 'hour', 'any', 'any']) once(id);
    expect(times()).toEqual([1, 1, 2]);
    clock(86_400 * 101 + 10);
    for (const id of ['day', 'hour']) once(id);
    expect(times()).toEqual([2, 1, 2]);
    clock(86_400 * 101 + 3700);
    for (const id of ['day', 'hour']) once(id);
    expect(times()).toEqual([2, 2, 2]);
  });

  it('waits by a clock that was set back for as long as it would have had to, and no quest comes twice', () => {
    const trial = Trial.of(parts(quest('day', { repeats: 'daily' }), quest('hour', { repeats: 'after', after: '3600s' })));
    const clock = (now: number) => trial.step({ kind: 'clock', args: { now } });
    const times = () =>
      ['day', 'hour'].map((id) => {
        offer(trial, id);
        ask(trial, 'accept', id);
        fell(trial);
        return cell(trial, `${id}.times`);
      });
    const [wrong, right] = [86_400 * 500 + 60_000, 86_400 * 100 + 60_000];
    clock(wrong);
    expect(times()).toEqual([1, 1]);
    clock(right);
    expect(serverNow(trial.world)).toBe(right);
    expect(trial.named('clockSetBack').map(({ data }) => data['seconds'])).toEqual([wrong - right]);
    expect(times()).toEqual([1, 1]);
    clock(right + 3000);
    expect(times()).toEqual([1, 1]);
    clock(right + 3700);
    expect(times()).toEqual([1, 2]);
    clock(86_400 * 101 + 1);
    expect(times()).toEqual([2, 3]);
    // Clocks differ by a little; that is nothing set back.
    clock(86_400 * 101 - 2);
    expect(trial.named('clockSetBack').length).toBe(1);
  });

  it('of a player who was away while the clock was wrong waits no longer than the quest says', () => {
    const rules = parts(quest('day', { repeats: 'daily' }));
    const saved = { quests: { day: 3, 'day.times': 1, 'day.again': 86_400 * 501 } };
    const world = (now?: number) =>
      new Trial(compileRuleset(rulesetWith(rules)), [
        ...(now === undefined ? [] : [{ kind: 'clock', args: { now } }]),
        join('north', { saved }),
      ]);
    expect(cell(world(86_400 * 100 + 5), 'day.again')).toBe(86_400 * 101);
    // Where nobody has said what time it is, it stays as it was kept.
    expect(cell(world(), 'day.again')).toBe(86_400 * 501);
  });

  it('is kept with its player: where they stand, what was counted, how much time is left', () => {
    const rules = parts(
      quest('hunt', { limit: '10s', steps: [step('first', goal('one')), step('second', goal('two', { count: 2 }))], then: pay }),
    );
    const trial = Trial.of(rules);
    begin(trial, 'hunt');
    fell(trial);
    fell(trial);
    trial.run(4);
    const again = Trial.of(rules, [join('north', { saved: saved(trial) })]);
    expect(rows(again, 'questLines', 'line', 'have')).toEqual([['two {have}/{need}', 1]]);
    again.run(5);
    expect(cell(again, 'hunt')).toBe(1);
    fell(again);
    const third = Trial.of(rules, [join('north', { saved: saved(again) })]);
    third.run(1);
    offer(third, 'hunt');
    begin(third, 'hunt');
    fell(third);
    expect([cell(third, 'hunt'), third.value('scrip')]).toEqual([3, 10]);
  });

  it('stays whole when its steps are edited, and follows its renaming', () => {
    const first = step('first', goal('one'));
    const second = step('second', goal('two', { count: 3 }));
    const trial = Trial.of(parts(quest('hunt', { steps: [first, second], then: pay })));
    begin(trial, 'hunt');
    for (let n = 0; n < 3; n++) fell(trial);
    const edited = (id: string, steps: unknown[], more = {}) => {
      trial.world = trial.world.adopt(compileRuleset(rulesetWith(parts(quest(id, { steps, then: pay, ...more })))));
      trial.run(0.1);
    };
    edited('chase', [step('before', goal('zero')), first, second], { formerly: ['hunt'] });
    expect(rows(trial, 'questLines', 'line')).toEqual([['zero {have}/{need}']]);
    fell(trial);
    expect(rows(trial, 'questLines', 'line')).toEqual([['two {have}/{need}']]);
    expect(rows(trial, 'questLog', 'step')).toEqual([['second']]);
    edited('chase', [step('second', goal('two', { count: 1 }))], { formerly: ['hunt'] });
    fell(trial);
    expect([cell(trial, 'chase'), trial.value('scrip')]).toEqual([3, 10]);
    edited('chase', [step('other', goal('new'))]);
    expect(cell(trial, 'chase')).toBe(3);
  });

  it('says in formulas whether it is done, or being done', () => {
    const then = [
      { do: 'when', if: 'done(first)', then: pay },
      { do: 'when', if: 'onQuest(second)', then: pay },
    ];
    const trial = Trial.of(parts(quest('first', { then }), quest('second', { then })));
    begin(trial, 'first');
    begin(trial, 'second');
    fell(trial);
    // The first is done, and the second still going on; then both are done.
    expect(trial.value('scrip')).toBe(30);
  });
});
