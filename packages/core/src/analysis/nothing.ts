import { type Finding, pointer } from '../ruleset/problem.js';
import { isDuration, toMilliseconds } from '../ruleset/fields.js';
import { labelOf, type Rules } from '../ruleset/rules.js';
import { numbersIn } from './amounts.js';
import { brought, collect } from './collect.js';
import { entriesOf, textsIn } from './entries.js';

interface Modifier {
  readonly attribute: string;
  readonly operation: string;
  readonly amount: unknown;
}

const isEmpty = (list: unknown): boolean => !Array.isArray(list) || list.length === 0;

/** What does nothing, is over as it begins, or lies nowhere. */
export function nothingFindings(rules: Rules): readonly Finding[] {
  return [
    ...inAbilities(rules),
    ...inEffects(rules),
    ...inZones(rules),
    ...inInteractions(rules),
    ...inActions(rules),
    ...inAttributes(rules),
    ...fallingAtOnce(rules),
    ...overAtOnce(rules),
  ];
}

/** Whether anything hears of an event about an entry: then that is what it does. */
function isHeard(rules: Rules, names: readonly string[], field: string, id: string): boolean {
  return collect(rules).patterns.some(
    ({ pattern }) => names.includes(pattern.on) && (pattern[field as 'on'] === undefined || pattern[field as 'on'] === id),
  );
}

function inAbilities(rules: Rules): readonly Finding[] {
  return entriesOf(rules, 'abilities').flatMap((entry, i): readonly Finding[] => {
    const path = pointer(['abilities', i]);
    const found: Finding[] = [];
    const channel = entry['channel'] as { readonly then: unknown; readonly onEnd?: unknown } | undefined;
    const lists = ['onStart', 'then', 'onHit', 'onMiss', 'onBreak'];
    const heard = isHeard(
      rules,
      ['abilityUsed', 'castStarted', 'abilityHit', 'abilityMissed', 'areaLanded', 'channelPulsed', 'channelEnded'],
      'ability',
      entry.id,
    );
    const does = lists.some((list) => !isEmpty(entry[list])) || !isEmpty(channel?.then) || !isEmpty(channel?.onEnd);
    if (!does && !heard)
      found.push({ kind: 'doesNothing', path, message: `${entry.label} does nothing: say what follows from it, in then or in onHit.` });
    else if (channel && isEmpty(channel.then) && isEmpty(channel.onEnd) && !heard)
      found.push({
        kind: 'doesNothing',
        path: `${path}/channel`,
        message: `Nothing follows from a pulse of ${entry.label}: say what does.`,
      });
    else if (entry['deliver'] !== undefined && isEmpty(entry['onHit']) && isEmpty(entry['onMiss']) && !heard)
      found.push({
        kind: 'doesNothing',
        path: `${path}/deliver`,
        message: `What ${entry.label} sends does nothing to whom it meets: say what, in onHit.`,
      });
    const { by, lasts, every } = (entry['deliver'] ?? {}) as Readonly<Record<string, unknown>>;
    if (by === 'area' && lasts !== undefined && every === undefined)
      found.push({
        kind: 'doesNothing',
        path: `${path}/deliver/lasts`,
        message: `The area of ${entry.label} stays for ${String(lasts)} and does nothing meanwhile: it hits as it lands. Say how often it hits, or have it not stay.`,
        fix: { label: 'Have it hit every second', patch: [{ op: 'add', path: `${path}/deliver/every`, value: '1s' }] },
      });
    return found;
  });
}

const changesNothing = ({ operation, amount }: Modifier) =>
  ['add', 'percent'].includes(operation) ? amount === 0 : operation === 'times' && amount === 1;

function inEffects(rules: Rules): readonly Finding[] {
  const carried = new Set(
    entriesOf(rules, 'actors').flatMap(({ attributes }) =>
      (attributes as readonly { attribute: string }[]).map(({ attribute }) => attribute),
    ),
  );
  const asked = new Set(
    collect(rules)
      .references.filter(({ chapter }) => chapter === 'effects')
      .map(({ id }) => id),
  );
  const text = JSON.stringify(rules.document);
  return entriesOf(rules, 'effects').flatMap((entry, i): readonly Finding[] => {
    const path = pointer(['effects', i]);
    const modifiers = (entry['modifiers'] ?? []) as readonly Modifier[];
    const periodic = entry['periodic'] as { readonly then: unknown } | undefined;
    const lists = ['grants', 'onStart', 'onStack', 'onEnd', 'reactions', 'ends'];
    const found: Finding[] = [];
    const counts =
      isHeard(rules, ['effectStarted', 'effectEnded', 'effectStacked'], 'effect', entry.id) ||
      new RegExp(`count\\(\\s*${entry.id}\\b`).test(text);
    const does =
      modifiers.length > 0 ||
      lists.some((list) => (Array.isArray(entry[list]) ? !isEmpty(entry[list]) : entry[list] !== undefined)) ||
      periodic !== undefined ||
      entry['lifetime'] === 'untilUsed';
    if (!does && !counts && asked.has(entry.id))
      found.push({
        kind: 'doesNothing',
        path,
        message: `${entry.label} does nothing to whoever has it: say what it changes, grants or does.`,
      });
    if (periodic && isEmpty(periodic.then))
      found.push({
        kind: 'doesNothing',
        path: `${path}/periodic/then`,
        message: `${entry.label} is to do something again and again, and nothing is said: say what.`,
      });
    modifiers.forEach((modifier, k) => {
      const at = `${path}/modifiers/${k}`;
      const name = labelOf(rules, 'attributes', modifier.attribute);
      if (changesNothing(modifier))
        found.push({
          kind: 'changesNothing',
          path: `${at}/amount`,
          message: `This changes nothing of ${name.toLowerCase()}: say how much.`,
        });
      if (!carried.has(modifier.attribute))
        found.push({
          kind: 'nobodyCarries',
          path: `${at}/attribute`,
          message: `${name} is changed, and no kind of actor has it. Have one carry it.`,
        });
    });
    return found;
  });
}

function inZones(rules: Rules): readonly Finding[] {
  const lying = brought(rules, 'zones');
  const spoken = new Set(
    collect(rules)
      .references.filter(({ chapter }) => chapter === 'zones')
      .map(({ id }) => id),
  );
  return entriesOf(rules, 'zones').flatMap((entry, i): readonly Finding[] => {
    const path = pointer(['zones', i]);
    const heard =
      isHeard(rules, ['zoneEntered', 'zoneLeft'], 'zone', entry.id) ||
      entriesOf(rules, 'quests').some(({ offered }) => JSON.stringify(offered ?? []).includes(`"zone":"${entry.id}"`));
    const every = entry['every'] as { readonly then: unknown } | undefined;
    const does = !isEmpty(entry['onEnter']) || !isEmpty(entry['onLeave']) || !isEmpty(every?.then);
    if (!does && !heard) return [{ kind: 'doesNothing', path, message: `Nothing happens to who is in ${entry.label}: say what it does.` }];
    if (!lying.has(entry.id) && spoken.has(entry.id))
      return [{ kind: 'liesNowhere', path, message: `${entry.label} lies nowhere: place it in the arena.` }];
    return [];
  });
}

function inInteractions(rules: Rules): readonly Finding[] {
  return entriesOf(rules, 'interactions').flatMap((entry, i): readonly Finding[] =>
    !isEmpty(entry['then']) || isHeard(rules, ['visitBegan', 'visitEnded'], 'interaction', entry.id)
      ? []
      : [
          {
            kind: 'doesNothing',
            path: pointer(['interactions', i, 'then']),
            message: `Nothing happens to who asks for ${entry.label}: say what does.`,
          },
        ],
  );
}

/** Actions that come to nothing. */
function inActions(rules: Rules): readonly Finding[] {
  return collect(rules).actions.flatMap(({ action, place }): readonly Finding[] => {
    const { do: name, to: _to, once: _once, ...args } = action;
    const found = (message: string): readonly Finding[] => [{ kind: 'doesNothing', path: place.path, message }];
    if (name === 'flourish' && Object.keys(args).length === 0)
      return found('This shows nothing and sounds like nothing: say a text, a sound, a shake or a fade.');
    if (name === 'trade' && isEmpty(args['gets']) && isEmpty(args['then']))
      return found('This takes what is paid and gives nothing for it: say what one gets.');
    if (name === 'trade') return gained(rules, args, place.path);
    const among = args['among'] as readonly { readonly weight: unknown }[] | undefined;
    if (name === 'pick' && among?.every(({ weight }) => typeof weight === 'number' && weight <= 0))
      return found('Of these none is ever picked: give one a weight above 0.');
    return [];
  });
}

interface Amount {
  readonly attribute: string;
  readonly amount: unknown;
}

/** Trades that give more of something than they take of it, for nothing else. */
function gained(rules: Rules, { pays, gets }: Readonly<Record<string, unknown>>, path: string): readonly Finding[] {
  const [paid, got] = [pays, gets].map((list) => (list ?? []) as readonly Amount[]);
  if (paid.length !== 1) return [];
  const [{ attribute, amount }] = paid;
  const [least] = numbersIn(amount);
  return got.flatMap((one, k): readonly Finding[] =>
    one.attribute === attribute && least > 0 && numbersIn(one.amount).some((given) => given > least)
      ? [
          {
            kind: 'gainEachTime',
            path: `${path}/gets/${k}/amount`,
            message: `This takes ${String(amount)} ${labelOf(rules, 'attributes', attribute).toLowerCase()} and gives ${String(one.amount)} of it: a gain each time, without end. Say other amounts, or another attribute.`,
          },
        ]
      : [],
  );
}

/** Kinds of actor that begin with nothing of their life. */
function fallingAtOnce(rules: Rules): readonly Finding[] {
  return entriesOf(rules, 'actors').flatMap(({ label, life, attributes }, i) =>
    (attributes as readonly { readonly attribute: string; readonly start?: unknown }[]).flatMap(
      ({ attribute, start }, k): readonly Finding[] =>
        start === 0 && attribute === life
          ? [
              {
                kind: 'startsEmpty',
                path: pointer(['actors', i, 'attributes', k, 'start']),
                message: `${label} begins with none of its life: it falls as it comes.`,
              },
            ]
          : [],
    ),
  );
}

function inAttributes(rules: Rules): readonly Finding[] {
  const lives = new Set(entriesOf(rules, 'actors').flatMap(({ life }) => (life === undefined ? [] : [String(life)])));
  return entriesOf(rules, 'attributes').flatMap((entry, i): readonly Finding[] => {
    const path = pointer(['attributes', i]);
    const { kind, max, start, refill } = entry as Readonly<Record<string, unknown>>;
    if (kind === 'pool' && max === 0)
      return [{ kind: 'alwaysEmpty', path: `${path}/max`, message: `${entry.label} is never more than 0: say how much it can be.` }];
    if (kind === 'pool' && start === 0 && lives.has(entry.id))
      return [
        {
          kind: 'startsEmpty',
          path: `${path}/start`,
          message: `${entry.label} is a life and starts at its end: whoever has it falls as they come.`,
        },
      ];
    if ((refill as { readonly rate?: unknown } | undefined)?.rate === 0)
      return [
        {
          kind: 'changesNothing',
          path: `${path}/refill/rate`,
          message: `${entry.label} refills by 0 a second: it does not. Say how much.`,
        },
      ];
    return [];
  });
}

/** Times of 0 where something lasts. */
const TIMES: readonly (readonly [string, RegExp, string])[] = [
  ['effects', /^\/lasts$/, 'is over as it begins'],
  ['quests', /^\/limit$/, 'has failed as it begins'],
  ['dialogues', /^\/lines\/\d+\/for$/, 'is gone before anybody has read it'],
  ['spawners', /^\/when\/time$/, 'makes something in each tick'],
  ['pickups', /^\/lasts$/, 'is gone before anybody can take it'],
  ['zones', /^\/every\/time$/, 'acts in each tick'],
  ['abilities', /^\/channel\/every$/, 'pulses in each tick'],
  ['abilities', /^\/deliver\/every$/, 'hits in each tick'],
  ['containers', /^\/refills$/, 'is full again as soon as it is closed'],
];

function overAtOnce(rules: Rules): readonly Finding[] {
  return TIMES.flatMap(([chapter, fields, says]) =>
    entriesOf(rules, chapter).flatMap((entry, i) =>
      textsIn(entry).flatMap(([at, time]): readonly Finding[] =>
        fields.test(at) && isDuration(time) && toMilliseconds(time) === 0
          ? [
              {
                kind: 'overAtOnce',
                path: `${pointer([chapter, i])}${at}`,
                message: `A time of 0: ${at.startsWith('/lines') ? 'the line' : entry.label} ${says}. Say how long.`,
              },
            ]
          : [],
      ),
    ),
  );
}
