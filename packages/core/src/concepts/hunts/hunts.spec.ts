import { CheckSession, findingsOf, type Found, type HuntGo, huntsOf, readRuleset, type Rules, Search } from '../../index.js';
import { counter, pool, rulesetWith } from '../../testing/rulesets.js';

const COINS = counter('coins', { start: 10 });
const SEATS = [{ name: 'north' }, { name: 'south' }, { name: 'east' }];
const hunt = (more: Record<string, unknown> = {}) => ({ id: 'one', label: 'One', given: SEATS, may: [{ input: 'anything' }], ...more });
const giving = (id: string, on: Record<string, unknown>, amount: number | string = 5) => ({
  id,
  label: id,
  on,
  then: [{ do: 'give', attribute: 'coins', amount }],
});
const conserved = (more: Record<string, unknown> = {}) => ({ conserved: 'coins', ...more });

function rulesOf(more: Record<string, unknown>, parts: Record<string, unknown> = {}): Rules {
  const { rules, problems } = readRuleset(rulesetWith({ attributes: [COINS, pool('suit')], ...parts, hunts: [hunt(more)] }));
  expect(problems).toEqual([]);
  return rules!;
}

/** Searches so many stories, and to the end of what is found. */
function searched(rules: Rules, stories = 60): HuntGo {
  const search = new Search(rules, huntsOf(rules)[0]);
  expect(search.mistakes).toEqual([]);
  let go = search.go(0, stories);
  while (go.shrinking !== undefined) go = search.go(stories, 1000);
  return go;
}
const foundIn = (rules: Rules): Found | undefined => searched(rules).found;
const mistakesOf = (more: Record<string, unknown>, parts: Record<string, unknown> = {}) => {
  const rules = rulesOf(more, parts);
  return new Search(rules, huntsOf(rules)[0]).mistakes.map(({ path, message }) => `${path}: ${message}`);
};

describe('A hunt', () => {
  const leaves = { may: [{ input: 'anything', weight: 3 }, { leaves: 'everyone', weight: 2 }, { pass: '2s' }] };
  const doubled = { reactions: [giving('backPay', { on: 'seatTaken' }, 'coins')] };

  it('finds a hole and makes its story as short as it can be', () => {
    const found = foundIn(rulesOf({ ...leaves, always: [conserved()] }, doubled))!;
    const [leaving, coming] = found.words.filter((words) => !words.endsWith('pass'));
    const who = leaving.replace(/ leaves$/, '');
    expect(coming).toBe(`${who} comes back`);
    expect(found.says).toBe(`${who}’s coins 20 → 40: 20 coins in by backpay, which is no source of it.`);
    expect(found.after).toBe(2);
    expect(found.before).toBeGreaterThan(2);
    expect(found.broken).toEqual(conserved() as never);
  });

  it('finds nothing where the rule is named as a source', () => {
    const { found, stories, ticks } = searched(
      rulesOf({ ...leaves, always: [conserved({ sources: [{ reactions: 'backPay' }] })] }, doubled),
      20,
    );
    expect(found).toBeUndefined();
    expect(stories).toBe(20);
    expect(ticks).toBeGreaterThan(20);
    expect(foundIn(rulesOf({ ...leaves, always: [conserved({ sources: [{ anyOf: 'reactions' }] })] }, doubled))).toBeUndefined();
  });

  it('finds the same again, whoever searches', () => {
    const rules = rulesOf({ ...leaves, always: [conserved()] }, doubled);
    expect(foundIn(rules)).toEqual(foundIn(rules));
  });

  it('gives a check that fails for the same reason, and holds once the rule is mended', () => {
    const rules = rulesOf({ ...leaves, always: [conserved()] }, doubled);
    const found = foundIn(rules)!;
    const check = { id: 'found', label: 'Found', ...found.check };
    const failing = new CheckSession(rules).runNow(check);
    expect(failing.outcomes.map(({ failure }) => failure?.says)).toEqual([found.says]);
    const { rules: whole, problems } = readRuleset(rulesetWith({ attributes: [COINS, pool('suit')], checks: [check] }));
    expect(problems).toEqual([]);
    expect(new CheckSession(whole!).runNow(check).ok).toBeTrue();
  });

  it('tries the stories first that it was told to keep', () => {
    const parts = { ...leaves, always: [conserved()] };
    const { story } = foundIn(rulesOf(parts, doubled))!;
    const rules = rulesOf({ ...parts, seeds: [story] }, doubled);
    const search = new Search(rules, huntsOf(rules)[0]);
    expect(search.go(0, 1).shrinking).toBeGreaterThan(0);
  });

  it('knows what is moved from what is made', () => {
    const sale = {
      economy: { currency: 'coins' },
      attributes: [COINS, counter('shells', { start: 3 }), pool('suit')],
      markets: [{ id: 'quay', label: 'Quay', goods: [{ good: 'shells', price: { range: [4, 4] } }] }],
    };
    const sells = { may: [{ input: 'sell', weight: 3 }, { input: 'endDay' }] };
    expect(foundIn(rulesOf({ ...sells, always: [conserved()] }, sale))?.says).toMatch(/ coins in by quay, which is no source of it/);
    const named = conserved({ sources: [{ markets: 'quay' }] });
    expect(foundIn(rulesOf({ ...sells, always: [named] }, sale))).toBeUndefined();
    // The market is named; what else happens at a sale is not.
    const found = foundIn(rulesOf({ ...sells, always: [named] }, { ...sale, reactions: [giving('tip', { on: 'goodSold' }, 1)] }));
    expect(found?.says).toContain('1 coins in by tip');
    expect(found?.words).toEqual([jasmine.stringMatching(/^\w+ sells shells/)]);
  });

  it('finds who is stuck, by what nothing leads out of and by what lasts too long', () => {
    const parts = {
      statuses: [{ id: 'caught', label: 'Caught' }],
      effects: [{ id: 'net', label: 'Net', lifetime: 'lasting', grants: ['caught'] }],
      states: [
        { id: 'snagged', label: 'Snagged' },
        { id: 'netted', label: 'Netted', while: 'caught' },
      ],
    };
    const enters = [{ poke: 'enter', on: 'south', weight: 2 }, { input: 'anything' }];
    expect(foundIn(rulesOf({ may: enters }, parts))?.says).toBe('south is in Snagged, and nothing leads out of it.');
    const held = foundIn(rulesOf({ may: [{ action: { do: 'apply', effect: 'net' }, on: 'south' }] }, parts))!;
    expect(held.says).toBe('south has been in Netted for 30 s, can do nothing in it, and does not come out of it.');
    expect(foundIn(rulesOf({ may: enters, without: ['leavableStates'] }, parts))).toBeUndefined();
  });

  it('finds what comes about a second time', () => {
    const quest = {
      id: 'errand',
      label: 'Errand',
      steps: [{ id: 'go', label: 'Go', goals: [{ id: 'ask', line: 'Ask', on: { on: 'dayEndAsked' } }] }],
    };
    const parts = { economy: { currency: 'coins' }, quests: [quest] };
    const may = [{ poke: 'startQuest' }, { poke: 'finishQuest' }, { leaves: 'everyone' }, { restarts: true }];
    expect(foundIn(rulesOf({ may }, parts))).toBeUndefined();
    const again = {
      ...parts,
      quests: [quest],
      reactions: [{ id: 'r', label: 'R', on: { on: 'questDone' }, then: [{ do: 'forgetQuests' }] }],
    };
    expect(foundIn(rulesOf({ may }, again))).toBeUndefined();
  });

  it('finds what a seat is told and should not be', () => {
    const told = { may: [{ input: 'move' }], always: [{ seat: 'north', knows: 'suit', of: 'south', not: true }] };
    const see = (who: string) => ({ attributes: [COINS, pool('suit', { see: who })] });
    expect(foundIn(rulesOf(told, see('everyone')))?.says).toBe('north is told suit of south: 100.');
    expect(foundIn(rulesOf(told, see('owner')))).toBeUndefined();
  });

  it('says what keeps it from being run, at its place', () => {
    expect(mistakesOf({ may: [] })).toEqual(['may: Nothing may happen in this hunt: say what seats may do.']);
    expect(mistakesOf({ given: [] })).toEqual(['may/0/by: Nobody is given who could do this: give somebody a seat.']);
    expect(mistakesOf({ may: [{ input: 'move', by: 'nort' }] })).toEqual(['may/0/by: Nobody who is given is meant by this.']);
    expect(mistakesOf({ may: [{ input: 'buy' }] })).toEqual(['may/0/input: There is nothing in this ruleset that this could be asked of.']);
    expect(mistakesOf({ may: [{ action: { do: 'give', attribute: 'pearls', amount: 1 } }] })[0]).toContain('no entry pearls');
    expect(mistakesOf({ always: [conserved({ conserved: 'pearls' })] })).toEqual([
      'always/0/conserved: The attributes have no entry pearls.',
    ]);
    const { rules } = readRuleset(rulesetWith({ hunts: [hunt({ may: [] }), hunt({ id: 'two', label: 'Two', given: [] })] }));
    expect(findingsOf(rules!).flatMap(({ kind, message }) => (kind === 'huntsNothing' ? [message] : []))).toEqual([
      'One finds nothing: nothing may happen in it. Say what seats may do.',
      'Two finds nothing: nobody is given. Give somebody a seat.',
    ]);
    const { problems } = readRuleset(
      rulesetWith({ hunts: [hunt({ may: [{ input: 'fly' }] }), hunt({ id: 'two', without: ['gravity'] })] }),
    );
    expect(problems.map(({ path }) => path)).toEqual(['/hunts/0/may/0', '/hunts/1/without/0']);
  });
});
