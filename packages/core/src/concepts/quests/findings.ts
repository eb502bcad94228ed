import { actionsNamed, collect } from '../../analysis/collect.js';
import { type Possible, possibleUnder } from '../attributes/possible.js';
import { everyAction } from '../../ruleset/actions.js';
import type { Finding } from '../../ruleset/problem.js';
import type { Then } from '../../ruleset/registry.js';
import { question, type Question } from '../../ruleset/questions.js';
import { entryOf, labelOf, type Rules } from '../../ruleset/rules.js';
import type { Look } from '../../world/concept.js';
import { placements } from '../arena/index.js';
import type { CompiledQuests } from './compile.js';
import { type GoalEntry, HAVE, NEED, questChapter, type QuestEntry } from './schema.js';
import { atEach } from '../../analysis/each.js';
import { sameMembers } from '../../ruleset/recording.js';
import { entriesIn } from '../../ruleset/chapter.js';
import { lackedByPlayers } from '../attributes/lacking.js';

/** Quests that no one offers, that nobody can have or be done with, and lines that do not fit the display. */
export const findings: readonly Look<CompiledQuests>[] = [
  (_, rules) => ofEach(rules),
  (_, rules) => circles(rules),
  (_, rules) => lackedByPlayers(rules, 'quests', ['onStart', 'then', 'onFail', 'steps']),
];

const ofEach = atEach(questChapter, (entry, i, rules) => [
  ...offers(rules, entry, i),
  ...sharing(rules, entry, `/quests/${i}`),
  ...entry.steps.flatMap((step, s) => step.goals.flatMap((goal, g) => goals(rules, entry, goal, `/quests/${i}/steps/${s}/goals/${g}`))),
]);

/** Quests that an action somewhere brings about, or another quest. */
const broughtQuests: Question<ReadonlySet<string>> = question((rules) => {
  const actions = actionsNamed(rules, 'offerQuest', 'startQuest');
  const next = questChapter.of(rules).flatMap((entry) => (entry.next === undefined ? [] : [entry.next]));
  return new Set([...actions.map(({ quest }) => String(quest)), ...next]);
}, sameMembers);

/** Kinds of actor that can be asked for quests. */
const askedIn: Question<ReadonlySet<string>> = question((rules) => {
  const entries = (chapter: string) => entriesIn<Record<string, unknown>>(rules, chapter);
  const offering = new Set(
    entries('interactions')
      .filter(({ then }) => [...everyAction(then)].some(({ do: name }) => name === 'offerQuests'))
      .map(({ id }) => id),
  );
  const types = entries('actors').filter(({ interactions = [] }) => (interactions as readonly string[]).some((id) => offering.has(id)));
  return new Set(types.map(({ id }) => String(id)));
}, sameMembers);

function offers(rules: Rules, { id, label, offered, handIn }: QuestEntry, i: number): readonly Finding[] {
  const asked = askedIn(rules);
  const path = `/quests/${i}`;
  const found: Finding[] = [];
  if (offered.length === 0 && !broughtQuests(rules).has(id))
    found.push({
      kind: 'neverOffered',
      path,
      message: `No one offers ${label}. Say who does, or have another quest or an action lead to it.`,
      fix: { label: 'Offer it from the start', patch: [{ op: 'add', path: `${path}/offered`, value: [{ by: 'start' }] }] },
    });
  const placed = new Set(placements(rules, 'actor').map(({ thing }) => thing.actor));
  const spawned = JSON.stringify(rules.document['spawners'] ?? []);
  const character = (actor: string, at: string, does: string) => {
    const name = labelOf(rules, 'actors', actor);
    if (!asked.has(actor))
      found.push({
        kind: 'neverAsked',
        path: at,
        message: `${name} ${does} ${label}, and cannot be asked: none of its interactions takes quests back and offers the next. Add one that does.`,
      });
    else if (!placed.has(actor) && !spawned.includes(`"actor":"${actor}"`))
      found.push({ kind: 'neverAsked', path: at, message: `${name} ${does} ${label}, and stands nowhere: place one in the arena.` });
  };
  offered.forEach((offer, k) => offer.by === 'character' && character(offer.actor, `${path}/offered/${k}/actor`, 'offers'));
  if (handIn !== undefined) character(handIn, `${path}/handIn`, 'takes back');
  return found;
}

/** What is shared with nobody, and what is said once for each of those who all hear it. */
function sharing(rules: Rules, quest: QuestEntry, path: string): readonly Finding[] {
  const { label, takenBy, record, steps } = quest;
  const found: Finding[] = [];
  if (takenBy === 'crew' && (rules.chapters.get('teams')?.ids.length ?? 0) === 0)
    found.push({
      kind: 'noCrew',
      path: `${path}/takenBy`,
      message: `${label} is taken by the crew, and there are no teams: a crew is one player alone. Have everyone take it, or write the teams.`,
      fix: { label: 'Have everyone take it', patch: [{ op: 'replace', path: `${path}/takenBy`, value: 'everyone' }] },
    });
  if ((rules.chapters.get('teams')?.ids.length ?? 0) === 0)
    steps.forEach((step, s) =>
      step.goals.forEach(({ counts }, g) => {
        if (counts === 'crew')
          found.push({
            kind: 'noCrew',
            path: `${path}/steps/${s}/goals/${g}/counts`,
            message: `This is counted for the crew, and there are no teams: a crew is one player alone. Count it for everyone, or write the teams.`,
          });
      }),
    );
  quest.fails.forEach((pattern, k) => {
    if (steps.some((step) => step.goals.some(({ on }) => on !== undefined && JSON.stringify(on) === JSON.stringify(pattern))))
      found.push({
        kind: 'failsByItself',
        path: `${path}/fails/${k}`,
        message: `${label} fails by the very thing that it counts: it is never done. Have it fail by something else.`,
      });
  });
  if (takenBy === 'player' || record === 'own') return found;
  const lists: readonly (readonly [string, Then])[] = [
    ...(['onStart', 'then', 'onFail'] as const).map((field) => [`/${field}`, quest[field] as Then] as const),
    ...steps.flatMap((step, s) => [
      [`/steps/${s}/then`, step.then as Then] as const,
      ...step.goals.map((goal, g) => [`/steps/${s}/goals/${g}/then`, goal.then as Then] as const),
    ]),
  ];
  for (const [at, list] of lists)
    list.forEach(({ do: name, dialogue, once }, k) => {
      const heard = name === 'talk' && !once && (entryOf(rules, 'dialogues', String(dialogue)) as { heard?: string } | undefined)?.heard;
      if (heard && heard !== 'owner')
        found.push({
          kind: 'saidForEach',
          path: `${path}${at}/${k}`,
          message: `${labelOf(rules, 'dialogues', String(dialogue))} begins for each who shares ${label}, and they hear each other’s: it is said several times. Have it follow once.`,
          fix: { label: 'Have it follow once', patch: [{ op: 'add', path: `${path}${at}/${k}/once`, value: true }] },
        });
    });
  return found;
}

/** Quests that can be had and done, each because others can be before it. */
function doableOf(entries: readonly QuestEntry[], possible: Possible): ReadonlySet<string> {
  const doable = new Set<string>();
  for (let before = -1; before !== doable.size;) {
    before = doable.size;
    for (const { id, if: wanted } of entries) if (wanted === undefined || mayHold(possible, wanted, doable)) doable.add(id);
  }
  return doable;
}

const mayHold = (possible: Possible, condition: string, doable: ReadonlySet<string>) =>
  possible.whoCan(condition, ['player'], (name, entry) =>
    (name === 'done' || name === 'onQuest') && !doable.has(entry) ? { low: 0, high: 0 } : undefined,
  ).length > 0;

/** Quests that wait for each other, or for what no player can meet. */
function circles(rules: Rules): readonly Finding[] {
  const possible = possibleUnder(rules);
  const entries = questChapter.of(rules);
  const doable = doableOf(entries, possible);
  return entries.flatMap(({ id, label, if: wanted }, i): readonly Finding[] => {
    if (wanted === undefined || doable.has(id)) return [];
    const path = `/quests/${i}/if`;
    if (!mayHold(possible, wanted, new Set(entries.map((entry) => entry.id))))
      return [{ kind: 'neverTaken', path, message: `Nobody can ever have ${label}: no player can meet “${wanted}”.` }];
    const blocked = entries.filter((entry) => !doable.has(entry.id) && new RegExp(`\\b(done|onQuest)\\(\\s*${entry.id}\\b`).test(wanted));
    const names = blocked.map((entry) => (entry.id === id ? 'itself' : entry.label)).join(' and ');
    return [
      {
        kind: 'questCircle',
        path,
        message: `Nobody can ever have ${label}: it waits for ${names}, and so in a circle. Take one of the conditions out.`,
      },
    ];
  });
}

function goals(rules: Rules, quest: QuestEntry, goal: GoalEntry, path: string): readonly Finding[] {
  const found: Finding[] = [];
  const longest = goal.line.replaceAll(HAVE, String(goal.count)).replaceAll(NEED, String(goal.count));
  if (longest.length > quest.lineRoom)
    found.push({
      kind: 'lineTooLong',
      path: `${path}/line`,
      message: `“${longest}” has ${longest.length} characters, and a line of the display has room for ${quest.lineRoom}. Shorten it.`,
    });
  if (goal.count > 1 && !goal.line.includes(HAVE))
    found.push({
      kind: 'lineWithoutCount',
      path: `${path}/line`,
      message: `The line does not say how many of ${goal.count} there are: put ${HAVE}/${NEED} into it.`,
      fix: { label: `Add ${HAVE}/${NEED}`, patch: [{ op: 'replace', path: `${path}/line`, value: `${goal.line} ${HAVE}/${NEED}` }] },
    });
  if (goal.if !== undefined && possibleUnder(rules).whoCan(goal.if, ['player']).length === 0)
    found.push({ kind: 'neverMet', path: `${path}/if`, message: `This goal is never met: no player can meet “${goal.if}”.` });
  const most = mostOf(rules, goal);
  if (most && most.count < goal.count)
    found.push({
      kind: 'countTooHigh',
      path: `${path}/count`,
      message: `${goal.count} are asked for, and there are ${most.count}: ${most.why}. Lower the count, or place more.`,
      ...(most.count > 0 && {
        fix: { label: `Ask for ${most.count}`, patch: [{ op: 'replace', path: `${path}/count`, value: most.count }] },
      }),
    });
  return found;
}

interface Bringing {
  readonly spawners: string;
  /** Pickups that an action lays down. */
  readonly laid: ReadonlySet<unknown>;
  /** Whatever an action has for an argument. */
  readonly named: ReadonlySet<unknown>;
}

/** What may bring things into the arena, worked out once for all goals. */
const bringing: Question<Bringing> = question(
  (rules) => {
    const { actions } = collect(rules);
    return {
      spawners: JSON.stringify(rules.document['spawners'] ?? []),
      laid: new Set(actions.flatMap(({ action }) => (action.do === 'spawn' ? [action['pickup']] : []))),
      named: new Set(actions.flatMap(({ action }) => Object.values(action).filter((value) => typeof value === 'string'))),
    };
  },
  (one, other) => one.spawners === other.spawners && sameMembers(one.laid, other.laid) && sameMembers(one.named, other.named),
);

/** How often at most a goal's event can happen for one player, where that has an end; nothing where it has none, or who knows. */
function mostOf(rules: Rules, { on, counts }: GoalEntry): { readonly count: number; readonly why: string } | undefined {
  const { on: event, pickup, type } = (on ?? {}) as Readonly<Record<string, string | undefined>>;
  const { spawners, laid: byActions, named } = bringing(rules);
  if (event === 'pickupTaken' && pickup !== undefined && (counts === 'player' || isForAll(rules, pickup))) {
    const entry = entryOf(rules, 'pickups', pickup) as { returns?: string } | undefined;
    const placed = placements(rules, 'pickup').filter(({ thing }) => thing.pickup === pickup);
    const returns = entry?.returns !== undefined || placed.some(({ thing }) => thing.with?.['returns'] !== undefined);
    const laid = spawners.includes(`"pickup":"${pickup}"`) || byActions.has(pickup);
    if (returns || laid) return undefined;
    return { count: placed.length, why: `${labelOf(rules, 'pickups', pickup)} lies in ${placed.length} places and does not come back` };
  }
  if (event === 'actorDefeated' && type !== undefined) {
    const entry = entryOf(rules, 'actors', type) as { respawn?: unknown; kind: string } | undefined;
    const placed = placements(rules, 'actor').filter(({ thing }) => thing.actor === type);
    const brought = spawners.includes(`"actor":"${type}"`) || named.has(type);
    if (!entry || entry.kind === 'player' || entry.respawn !== undefined || brought) return undefined;
    return { count: placed.length, why: `${labelOf(rules, 'actors', type)} stands in ${placed.length} places and does not come back` };
  }
  return undefined;
}

const isForAll = (rules: Rules, pickup: string) =>
  (entryOf(rules, 'pickups', pickup) as { gone?: string } | undefined)?.gone !== 'perPlayer';
