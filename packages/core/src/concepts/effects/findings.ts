import { atEach } from '../../analysis/each.js';
import { numbersIn } from '../../analysis/numbers.js';
import { actionsNamed, collect } from '../../analysis/collect.js';
import { placedActions } from '../../ruleset/actions.js';
import { circlesIn } from '../../ruleset/circles.js';
import { isDuration, toMilliseconds } from '../../ruleset/fields.js';
import { type Finding, type Path, pointer } from '../../ruleset/problem.js';
import type { Then } from '../../ruleset/registry.js';
import { labelOf, type Rules } from '../../ruleset/rules.js';
import type { Look } from '../../world/concept.js';
import type { CompiledEffects } from './compile.js';
import { effectChapter, type EffectEntry } from './schema.js';
import { doesNothing } from './does-nothing.js';

const CHAPTER = 'effects';

export const findings: readonly Look<CompiledEffects>[] = [
  (_, rules) => ofEach(rules),
  loops,
  neverEnding,
  liveCircles,
  (_, rules) => doesNothing(rules),
];

const ofEach = atEach(effectChapter, ofOne);

function ofOne(entry: EffectEntry, i: number, rules: Rules): readonly Finding[] {
  const found: Finding[] = [];
  entry.modifiers.forEach(({ attribute, operation, amount: written }, k) => {
    const amount = numbersIn(written).at(0);
    const path = pointer([CHAPTER, i, 'modifiers', k]);
    const stat = labelOf(rules, 'attributes', attribute).toLowerCase();
    if (operation === 'percent' && amount !== undefined && amount < -100)
      found.push({
        kind: 'percentBelow',
        path: `${path}/amount`,
        message: `${amount} % takes more than all of ${stat} away and turns it round. -100 % is nothing left.`,
        fix: { label: 'Make it -100 %', patch: [{ op: 'replace', path: `${path}/amount`, value: -100 }] },
      });
    if (operation === 'percent' && amount !== undefined && Math.abs(amount) < 2 && !Number.isInteger(amount)) {
      const meant = Math.round((amount > 1 ? amount - 1 : amount) * 1000) / 10;
      found.push({
        kind: 'percentAsPart',
        path: `${path}/amount`,
        message: `${amount} % is next to nothing of ${stat}: for times ${amount > 1 ? amount : 1 + amount} write ${meant}.`,
        fix: { label: `Make it ${meant} %`, patch: [{ op: 'replace', path: `${path}/amount`, value: meant }] },
      });
    }
    if (operation === 'times' && amount !== undefined && amount < 0)
      found.push({
        kind: 'timesNegative',
        path: `${path}/amount`,
        message: `Times ${amount} turns ${stat} round, to below 0. For less of it multiply by less than 1, or take a percentage off.`,
        fix: { label: `Make it times ${-amount}`, patch: [{ op: 'replace', path: `${path}/amount`, value: -amount }] },
      });
    if (operation === 'times' && amount !== undefined && amount >= 20)
      found.push({
        kind: 'timesAsPercent',
        path: `${path}/amount`,
        message: `Times ${amount} is ${amount} times as much ${stat}: for ${amount} % of it write ${amount / 100}.`,
        fix: { label: `Make it times ${amount / 100}`, patch: [{ op: 'replace', path: `${path}/amount`, value: amount / 100 }] },
      });
    if (operation === 'times' && amount === 0)
      found.push({
        kind: 'timesZero',
        path: `${path}/amount`,
        message: `Times 0 makes ${stat} 0 whatever else is on: adding to it shows nothing. If that is meant, set it to 0.`,
        fix: {
          label: 'Set it to 0 instead',
          patch: [{ op: 'replace', path: `${path}/operation`, value: 'set' }],
        },
      });
  });
  const { periodic } = entry;
  const tick = 1000 / rules.tickRate;
  if (periodic && toMilliseconds(periodic.every) < tick - 1e-9)
    found.push({
      kind: 'fasterThanTick',
      path: pointer([CHAPTER, i, 'periodic', 'every']),
      message: `${entry.label} is to act every ${periodic.every}, and a tick takes ${tick} ms: it acts once a tick. Say so, or have it do more at once.`,
      fix: {
        label: `Every ${Math.ceil(tick)} ms`,
        patch: [{ op: 'replace', path: pointer([CHAPTER, i, 'periodic', 'every']), value: `${Math.ceil(tick)}ms` }],
      },
    });
  const lasts = isDuration(entry.lasts) ? toMilliseconds(entry.lasts) : undefined;
  if (periodic && !periodic.atOnce && lasts !== undefined && toMilliseconds(periodic.every) > lasts)
    found.push({
      kind: 'neverActs',
      path: pointer([CHAPTER, i, 'periodic', 'every']),
      message: `${entry.label} is to act every ${periodic.every} and lasts ${String(entry.lasts)}: it never does. Have it act more often, or at once as well.`,
      fix: { label: 'Let it act at once as well', patch: [{ op: 'add', path: pointer([CHAPTER, i, 'periodic', 'atOnce']), value: true }] },
    });
  const itself = placedActions(entry.onStart as Then | undefined, [CHAPTER, i, 'onStart']).find(
    ({ action, later }) => !later && action.do === 'end' && action['effect'] === entry.id && (action.to ?? 'self') === 'self',
  );
  if (itself)
    found.push({
      kind: 'endsItself',
      path: pointer(itself.path),
      message: `${entry.label} ends itself in its own start: it is never on. Make it instant, or end it later.`,
    });
  return found;
}

/** Effects that put each other on in the same breath: such a loop is cut while a game runs. */
function loops({ entries }: CompiledEffects): readonly Finding[] {
  const starts = entries.map((entry, i) => {
    const lists: readonly (readonly [Then | undefined, Path])[] = [
      [entry.onStart as Then | undefined, [CHAPTER, i, 'onStart']],
      [entry.onStack as Then | undefined, [CHAPTER, i, 'onStack']],
      ...entry.onEnd.map((end, k) => [end.then as Then, [CHAPTER, i, 'onEnd', k, 'then']] as const),
    ];
    return lists.flatMap(([list, path], n) =>
      placedActions(list, path).filter(
        ({ action, later }) =>
          !later &&
          action.do === 'apply' &&
          typeof action['effect'] === 'string' &&
          (n < 2 || endsAtOnce(entries, String(action['effect']), entry.id)),
      ),
    );
  });
  const edges = new Map(entries.map((entry, i) => [entry.id, new Set(starts[i].map(({ action }) => String(action['effect'])))]));
  return circlesIn(edges).map((circle) => {
    const i = entries.findIndex((entry) => entry.id === circle[0]);
    const next = circle[1] ?? circle[0];
    const place = starts[i].find(({ action }) => action['effect'] === next)!;
    const words = circle.map((id) => entries.find((entry) => entry.id === id)!.label);
    return {
      kind: 'loop',
      path: pointer(place.path),
      message: `This goes round without end: ${[...words, words[0]].join(' applies ')}. While a game runs it is cut after a number of rounds. Let one wait, or leave one out.`,
    };
  });
}

/** Whether an effect ends another the moment it starts: then what follows that end follows at once. */
function endsAtOnce(entries: readonly EffectEntry[], id: string, other: string): boolean {
  const effect = entries.find((entry) => entry.id === id);
  return effect?.ends?.effects.includes(other) === true || effect?.lifetime === 'instant';
}

/** Where something puts an effect on somebody, by its id. */
function applied(rules: Rules): ReadonlyMap<string, readonly string[]> {
  const places = new Map<string, string[]>();
  for (const { chapter, id, place } of collect(rules).references)
    if (chapter === CHAPTER && place.path.endsWith('/effect')) places.set(id, [...(places.get(id) ?? []), place.path]);
  return places;
}

/** What a skill tree gives is taken away with its rank. */
const isLearned = (places: readonly string[]): boolean =>
  places.some((path) => path.startsWith('/trees/') && path.endsWith('/gives/effect'));

/** What every actor of a kind has from when it appears is meant to last, and so is what is bought. */
const isMeantToLast = (places: readonly string[]): boolean =>
  places.length > 0 && places.every((path) => /^\/(actors\/\d+\/onSpawn|offers\/\d+\/then)\//.test(path));

/** Effects without an end of their own that nothing takes away, or that keep off whatever would. */
function neverEnding({ entries }: CompiledEffects, rules: Rules): readonly Finding[] {
  const put = applied(rules);
  const isEnded = endedByActions(rules);
  return entries.flatMap((entry, i): readonly Finding[] => {
    if (entry.lifetime !== 'lasting') return [];
    const removers = entries.filter(
      (other) =>
        other.id !== entry.id && (other.ends?.effects.includes(entry.id) || other.ends?.statuses.some((s) => entry.grants.includes(s))),
    );
    const places = put.get(entry.id) ?? [];
    if (isEnded(entry) || isLearned(places) || isMeantToLast(places)) return [];
    const path = pointer([CHAPTER, i, 'lifetime']);
    if (removers.length === 0)
      return [
        {
          kind: 'neverEnds',
          path,
          message: `${entry.label} lasts, and nothing ends it: no action, and no effect. Make it timed, or end it somewhere.`,
          fix: {
            label: 'Let it last 10 s',
            patch: [
              { op: 'add', path, value: 'timed' },
              { op: 'add', path: pointer([CHAPTER, i, 'lasts']), value: '10s' },
            ],
          },
        },
      ];
    const kept = removers.filter(
      (other) => other.blocked?.effects.includes(entry.id) || other.blocked?.statuses.some((s) => entry.grants.includes(s)),
    );
    if (kept.length < removers.length) return [];
    const names = kept.map((other) => other.label).join(' and ');
    return [
      {
        kind: 'blocksRemoval',
        path: pointer([CHAPTER, i, 'grants']),
        message: `${entry.label} never ends: ${names} would end it, and what ${entry.label} grants keeps ${kept.length > 1 ? 'them' : 'it'} off. Take the block out of one of them.`,
      },
    ];
  });
}

/** Whether some list of actions, anywhere, ends an effect or what grants one of its statuses. */
function endedByActions(rules: Rules): (entry: EffectEntry) => boolean {
  const ended = new Set<unknown>();
  const dispelled = new Set<unknown>();
  for (const action of actionsNamed(rules, 'end')) ended.add(action['effect']);
  for (const action of actionsNamed(rules, 'dispel')) dispelled.add(action['status']);
  return ({ id, grants }) => ended.has(id) || grants.some((status) => dispelled.has(status));
}

/** Live amounts that wait for each other when several effects are on: they are asked a few times and then left as they are. */
function liveCircles({ entries, list }: CompiledEffects, rules: Rules): readonly Finding[] {
  const edges = new Map<string, Set<string>>();
  const ids = rules.chapters.get('attributes')!.ids;
  list.forEach((effect) =>
    effect.modifiers.forEach(({ attribute, amount, live }) => {
      if (live === 0) return;
      const reads = amount.references.filter((r) => r.chapter === 'attributes' && r.party === null).map((r) => r.id);
      const known = edges.get(ids[attribute]) ?? new Set<string>();
      edges.set(ids[attribute], known);
      for (const id of reads) known.add(id);
    }),
  );
  return circlesIn(edges).map((circle) => {
    const i = list.findIndex((effect) => effect.modifiers.some((m) => m.live !== 0 && ids[m.attribute] === circle[0]));
    const k = list[i].modifiers.findIndex((m) => m.live !== 0 && ids[m.attribute] === circle[0]);
    const words = [...circle, circle[0]].map((id) => labelOf(rules, 'attributes', id).toLowerCase());
    return {
      kind: 'circle',
      path: pointer([CHAPTER, i, 'modifiers', k, 'amount']),
      message: `With ${entries[i].label} on, live amounts go in a circle: ${words.join(' needs ')}. What comes out depends on what was there. Take one of the amounts at start.`,
      fix: { label: 'Take this one at start', patch: [{ op: 'remove', path: pointer([CHAPTER, i, 'modifiers', k, 'live']) }] },
    };
  });
}
