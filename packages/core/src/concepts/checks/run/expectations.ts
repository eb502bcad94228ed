import { CompileContext } from '../../../ruleset/context.js';
import type { Pattern } from '../../../ruleset/registry.js';
import type { Rules } from '../../../ruleset/rules.js';
import { roundTo } from '../../../math/grid.js';
import { sentenceOf } from '../../../replication/announcements.js';
import { partyIn, type GameEvent } from '../../../world/events.js';
import type {
  AmountTest,
  ConditionTest,
  EventTest,
  Expectation,
  KnowsTest,
  Lasting,
  ReadsTest,
  RefusedTest,
  RulesetTest,
  Who,
} from '../schema.js';
import type { Member } from './cast.js';
import { type Asked, askedOf, lackingIn, readingsOf } from './formulas.js';
import { Mistake } from './mistake.js';
import type { Failure } from './result.js';
import { lower, momentsOf, type Story } from './story.js';
import {
  countWords,
  nobodyMeant,
  NOTHING_WATCHED,
  oftenEnough,
  sentence,
  type Test,
  timesWords,
  type Verdict,
  watching,
} from './verdicts.js';
import { conservedTest } from './conserved.js';
import { invariantTest } from './invariants.js';
import { ticksIn } from './time-words.js';
import { momentOf, timed } from './timed.js';
import { isToldOf, knowsAlways, knowsTest, readsTest } from './told.js';

/** How far off a number may be and still be the same. */
const SLACK = 1e-9;

const isAmount = (test: Expectation): test is AmountTest => 'value' in test;
const isCondition = (test: Expectation): test is ConditionTest => 'that' in test;
const isReads = (test: Expectation): test is ReadsTest => 'reads' in test;
const isKnows = (test: Expectation): test is KnowsTest => 'knows' in test;
const isEvent = (test: Expectation): test is EventTest => 'event' in test;
export const isOfRuleset = (test: Expectation): test is RulesetTest => 'ruleset' in test;

/** @throws Mistake where it makes no sense */
export function testOf(rules: Rules, test: Exclude<Expectation, RulesetTest>, path: string): Test {
  if (isAmount(test)) return timed(rules, amountTest(rules, test, path), test);
  if (isCondition(test)) return timed(rules, conditionTest(rules, test, path), test);
  if (isReads(test)) return readsTest(test, path);
  if (isKnows(test)) return knowsTest(test, path);
  return isEvent(test) ? eventTest(rules, test, path) : refusedTest(test, path);
}

/** @throws Mistake where it makes no sense */
export function lastingTest(rules: Rules, test: Lasting, path: string, ruleOf: (event: GameEvent) => string | undefined): Test {
  if ('invariant' in test) return invariantTest(rules, test, path);
  if ('conserved' in test) return conservedTest(rules, test, path, ruleOf);
  if ('knows' in test) return whileThere(knowsAlways(test, path), test.of, test.seat);
  const own = 'value' in test ? amountTest(rules, test, path) : conditionTest(rules, test, path);
  if (!test.never) return whileThere(own, test.of);
  const look = (story: Story): Verdict => {
    const { holds, says } = own.look(story);
    const failure = { says: `It does hold: ${says}.`, expected: 'never', found: says, who: '', cause: 0 };
    return holds ? { holds: false, says, failure } : { holds: true, says };
  };
  return whileThere({ ...own, look }, test.of);
}

/** Of who has gone, or is still to come, nothing is asked; who was never there is another matter. */
function whileThere(test: Test, ...whom: readonly (Who | undefined)[]): Test {
  const look = (story: Story): Verdict => {
    const absent = whom.filter((who) => story.of(who).length === 0);
    if (absent.some((who) => story.awaits(who))) return { holds: true, says: 'nobody there yet' };
    return absent.some((who) => story.everOf(who).length > 0) ? { holds: true, says: 'nobody there any more' } : test.look(story);
  };
  return { ...test, look };
}

/** Looks at each who is meant: the first for whom it does not hold decides. */
function atEach(who: Who | undefined, look: (story: Story, member: Member) => Verdict) {
  return (story: Story): Verdict => {
    const members = story.of(who);
    if (members.length === 0) return nobodyMeant(story, who, 'somebody');
    let last: Verdict | undefined;
    for (const member of members) {
      last = look(story, member);
      if (!last.holds) return last;
    }
    return last!;
  };
}

/** What somebody lacks to be asked, as a verdict. */
function lacking({ world }: Story, { actor, name }: Member, asked: Asked): Verdict | undefined {
  const id = lackingIn(world, actor, asked);
  if (id === undefined) return undefined;
  const says = `${name} has no ${lower(world.rules, 'attributes', id)}.`;
  return { holds: false, says, failure: { says, expected: `${name} has it`, found: 'none', who: name, cause: 0 } };
}

const HOW_WORDS: Readonly<Record<AmountTest['how'], string>> = {
  is: '',
  isNot: 'not ',
  atLeast: 'at least ',
  atMost: 'at most ',
  between: 'between ',
};

function amountTest(rules: Rules, test: Omit<AmountTest, 'within' | 'notBefore'>, path: string): Test {
  const { how, tolerance = 0 } = test;
  const value = askedOf(rules, test.value, 'amount', `${path}/value`);
  const low = askedOf(rules, test.amount, 'amount', `${path}/amount`);
  if (how === 'between' && test.and === undefined) throw new Mistake(path, 'What is between needs two ends: say the upper one as well.');
  const high = askedOf(rules, test.and ?? test.amount, 'amount', `${path}/and`);
  const { bare } = value.formula;
  const called = bare ? lower(rules, bare.chapter, bare.id) : value.formula.text;
  const shown = (number: number) => String(roundTo(number, value.decimals));
  const near = (a: number, b: number) => a === b || Math.abs(a - b) <= tolerance + SLACK || (tolerance === 0 && shown(a) === shown(b));
  const holds: Readonly<Record<AmountTest['how'], (found: number, least: number, most: number) => boolean>> = {
    is: (found, least) => near(found, least),
    isNot: (found, least) => !near(found, least),
    atLeast: (found, least) => found >= least - tolerance - SLACK,
    atMost: (found, most) => found <= most + tolerance + SLACK,
    between: (found, least, most) => found >= least - tolerance - SLACK && found <= most + tolerance + SLACK,
  };
  const look = atEach(test.of, (story, member): Verdict => {
    const lack = lacking(story, member, value) ?? lacking(story, member, low) ?? lacking(story, member, high);
    if (lack) return lack;
    const { actor, name } = member;
    const { world } = story;
    const [found, least, most] = [value, low, high].map((one) => one.run(world, actor));
    // A hair beyond an end is told as what it is.
    const says = [least, most].some((end) => end !== found && shown(end) === shown(found)) ? String(roundTo(found, 6)) : shown(found);
    if (holds[how](found, least, most)) return { holds: true, says };
    const ends = how === 'between' ? `${shown(least)} and ${shown(most)}` : shown(least);
    const off = tolerance > 0 ? `, give or take ${tolerance}` : '';
    const place = how === 'between' && found > most ? 'and' : 'amount';
    return {
      holds: false,
      says,
      failure: {
        says: `${name}: ${called} is ${says}, not ${HOW_WORDS[how]}${ends}${off}.`.replace('not not ', 'and should not be '),
        expected: `${HOW_WORDS[how]}${ends}${off}`,
        found: says,
        who: name,
        cause: 0,
        ...(value.reads.length > 0 && { about: { actor, attribute: value.reads[0].id } }),
        ...(how !== 'isNot' && { right: { path: `${path}/${place}`, value: roundTo(found, value.decimals) } }),
      },
    };
  });
  return { path, within: 0, waits: false, watches: watching(test.of, value), look };
}

function conditionTest(rules: Rules, test: Omit<ConditionTest, 'within' | 'notBefore'>, path: string): Test {
  const asked = askedOf(rules, test.that, 'condition', `${path}/that`);
  const look = atEach(test.of, (story, member): Verdict => {
    const lack = lacking(story, member, asked);
    if (lack) return lack;
    const { actor, name } = member;
    const readings = readingsOf(story.world, actor, asked);
    if (asked.run(story.world, actor) !== 0) return { holds: true, says: readings };
    return {
      holds: false,
      says: readings,
      failure: {
        says: readings === '' ? `${name}: this is not so.` : `${name}: this is not so: ${readings}.`,
        expected: test.that,
        found: readings === '' ? 'not so' : readings,
        who: name,
        cause: 0,
        ...(asked.reads.length > 0 && { about: { actor, attribute: asked.reads[0].id } }),
      },
    };
  });
  return { path, within: 0, waits: false, watches: watching(test.of, asked), look };
}

/** Tells of an event whether it is one that is waited for, of somebody who is meant. */
export function hearing(rules: Rules, source: Pattern, of: Who | undefined): (story: Story, event: GameEvent) => boolean {
  const anyone = of === undefined;
  const context = new CompileContext(rules.registry, rules, new Map(rules.compiled));
  const pattern = context.pattern(anyone ? { ...source, who: 'anyone' } : source);
  const party = source.who ?? 'subject';
  return (story, event) => {
    if (event.name !== pattern.event) return false;
    const actor = partyIn(event, party);
    if (!anyone && !story.isMeant(actor, of)) return false;
    return pattern.matches(story.world, event, actor);
  };
}

function eventTest(rules: Rules, test: EventTest, path: string): Test {
  const { of, count, times } = test;
  const isMeant = hearing(rules, test.event, of);
  const isOther = test.before && hearing(rules, test.before, undefined);
  const party = test.event.who ?? 'subject';
  const hits: GameEvent[] = [];
  let other: GameEvent | undefined;
  const moment = momentOf(rules, test, path);
  const expected = `${countWords(test)}${moment ? ` ${moment.words}` : ''}`;
  /** What would have it expect what there was: at another time, where it happened once at one; or so often. */
  const rightOf = (story: Story, found: readonly GameEvent[], isElsewhen: boolean): Pick<Failure, 'right'> => {
    if (isElsewhen) return times === 1 && found.length === 1 ? { right: { path: `${path}/at`, value: story.when(found[0]) } } : {};
    return count === 'exactly' ? { right: { path: `${path}/times`, value: found.length } } : {};
  };
  const judge = (story: Story, ever: readonly GameEvent[], name: string): Verdict => {
    const found = moment ? ever.filter((event) => moment.isIn(story, event)) : ever;
    const isElsewhen = ever.length > 0 && found.length === 0;
    const told = isElsewhen ? ever : found;
    const says = told.length === 0 ? 'never' : momentsOf(story, told);
    const who = name === '' ? '' : `${name}: `;
    if (!oftenEnough(test, found.length)) {
      const it = isElsewhen
        ? `it happened ${says}, not ${moment?.words}`
        : found.length === 0
          ? 'it did not happen'
          : `it happened ${timesWords(found.length)}: ${says}`;
      return {
        holds: false,
        says,
        failure: {
          says: `${who}${name === '' ? sentence(it) : it}.`,
          expected,
          found: isElsewhen ? says : found.length === 0 ? 'never' : timesWords(found.length),
          who: name,
          cause: told[Math.min(told.length - 1, times)]?.serial ?? 0,
          ...rightOf(story, told, isElsewhen),
        },
      };
    }
    if (isOther && found.length > 0 && other && story.order(other) < story.order(found[0]))
      return {
        holds: false,
        says,
        failure: {
          says: `${who}${name === '' ? 'It' : 'it'} came after, at ${story.when(found[0])} s: the other came at ${story.when(other)} s.`,
          expected: 'before',
          found: 'after',
          who: name,
          cause: found[0].serial,
        },
      };
    return { holds: true, says };
  };
  return {
    path,
    within: test.within === undefined ? 0 : ticksIn(rules, test.within),
    ...(moment && { until: moment.until, isLate: () => times > 0 && hits.length === 0 }),
    waits: count !== 'atLeast',
    watches: NOTHING_WATCHED,
    hear: (story, event) => {
      if (isMeant(story, event) && (test.toldTo === undefined || isToldOf(story, test.toldTo, event))) hits.push(event);
      if (!other && isOther?.(story, event)) other = event;
    },
    look: (story) => {
      if (of === undefined) return judge(story, hits, '');
      const members = story.everOf(of);
      if (members.length === 0) return nobodyMeant(story, of, expected);
      const verdicts = members.map(({ actor, name }) =>
        judge(
          story,
          hits.filter((event) => partyIn(event, party) === actor),
          name,
        ),
      );
      return verdicts.find(({ holds }) => !holds) ?? verdicts[0];
    },
  };
}

function refusedTest({ of, refused }: RefusedTest, path: string): Test {
  const heard: { readonly event: GameEvent; readonly text: string }[] = [];
  const words = refused.toLowerCase();
  return {
    path,
    within: 0,
    waits: false,
    watches: NOTHING_WATCHED,
    hear: (story, event) => {
      const { rules } = story.world;
      if (rules.registry.events.get(event.name)?.refusal !== true) return;
      if (of === undefined || story.isMeant(event.subject, of)) heard.push({ event, text: sentenceOf(rules, event) });
    },
    look: (story) => {
      const hit = heard.find(({ text }) => text.toLowerCase().includes(words));
      if (hit) return { holds: true, says: `at ${story.when(hit.event)} s: “${hit.text}”` };
      const last = heard.at(-1);
      const says = last ? `It was refused with other words: “${last.text}”` : 'Nothing was refused.';
      const expected = refused === '' ? 'a refusal' : `a refusal that says “${refused}”`;
      return { holds: false, says, failure: { says, expected, found: last?.text ?? 'none', who: '', cause: last?.event.serial ?? 0 } };
    },
  };
}
