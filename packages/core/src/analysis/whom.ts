import type { ActorEntry } from '../concepts/actors/index.js';
import { ANY, type Range } from '../formula/index.js';
import { placedActions } from '../ruleset/actions.js';
import { type Finding, pointer } from '../ruleset/problem.js';
import type { Then } from '../ruleset/registry.js';
import { labelOf, type Rules } from '../ruleset/rules.js';
import { brought, collect } from './collect.js';
import { entriesOf, type Entry } from './entries.js';
import { Possible } from './possible.js';

/** What counts for another than was meant, waits for what never is, or befalls whoever does it. */
export function whomFindings(rules: Rules): readonly Finding[] {
  return [
    ...forTheFallen(rules),
    ...neverSo(rules),
    ...hurtingOneself(rules),
    ...onOneSide(rules),
    ...standingNowhere(rules),
    ...withoutPlayer(rules),
  ];
}

/** Chapters in which what a pattern waits for counts for players. */
const FOR_PLAYERS = new Set(['quests', 'achievements', 'tracks']);

/** A fall that is to count for whoever brought it about, and counts for the fallen. */
function forTheFallen(rules: Rules): readonly Finding[] {
  const kinds = new Map(entriesOf(rules, 'actors').map(({ id, kind }) => [id, String(kind)]));
  return collect(rules).patterns.flatMap(({ pattern, place }): readonly Finding[] => {
    const { on, who = 'subject', type } = pattern as typeof pattern & { readonly type?: string };
    if (on !== 'actorDefeated' || who !== 'subject' || type === undefined || !FOR_PLAYERS.has(place.chapter)) return [];
    if (kinds.get(type) === 'player') return [];
    return [
      {
        kind: 'forTheFallen',
        path: place.path,
        message: `This counts for who fell, and ${labelOf(rules, 'actors', type).toLowerCase()} is no player: it never counts for anybody. Have it count for its source, whoever did it.`,
        fix: { label: 'Count it for whoever did it', patch: [{ op: 'add', path: `${place.path}/who`, value: 'source' }] },
      },
    ];
  });
}

const UPWARDS = new Set(['heal', 'give', 'refund', 'receive']);
const DOWNWARDS = new Set(['hurt', 'take', 'cost', 'pay']);
/** Amounts of a change that are signed as the change is. */
const SIGNED = new Set(['asked', 'given', 'lost']);

/** Events whose condition holds for none of them. */
function neverSo(rules: Rules): readonly Finding[] {
  const possible = new Possible(rules);
  return collect(rules).patterns.flatMap(({ pattern, place }): readonly Finding[] => {
    const { where, how } = pattern as typeof pattern & { readonly how?: string };
    if (where === undefined) return [];
    const amounts = (name: string): Range => {
      if (how === undefined || !SIGNED.has(name)) return ANY;
      return UPWARDS.has(how) ? { low: 0, high: Infinity } : DOWNWARDS.has(how) ? { low: -Infinity, high: 0 } : ANY;
    };
    if (possible.mayFollow(where, amounts)) return [];
    const signed = how !== undefined && DOWNWARDS.has(how) && /event\./.test(where);
    return [
      {
        kind: 'neverSo',
        path: `${place.path}/where`,
        message: `“${where}” never holds here: what waits for it never comes.${signed ? ` What is lost is below 0, as in event.asked < -5.` : ''} Say another condition.`,
      },
    ];
  });
}

/** Lists of what an ability does to others that hurt its user instead, and nobody else. */
function hurtingOneself(rules: Rules): readonly Finding[] {
  return entriesOf(rules, 'abilities').flatMap((entry, i): readonly Finding[] => {
    const target = (entry['target'] as { readonly at: string } | undefined)?.at ?? 'self';
    const deliver = entry['deliver'];
    const hurtsIn = (list: 'then' | 'onHit') =>
      placedActions(entry[list] as Then | undefined, ['abilities', i, list]).filter(({ action }) => action.do === 'hurt');
    const toSelf = ({ action }: { readonly action: Then[number] }, otherwise: string) => (action.to ?? otherwise) === 'self';
    const hits = hurtsIn('onHit');
    const own = hurtsIn('then');
    const others = [...hits.filter((one) => !toSelf(one, 'target')), ...own.filter((one) => !toSelf(one, 'self'))];
    if (target === 'self' && deliver === undefined)
      return hits.slice(0, 1).map(({ path }): Finding => ({
        kind: 'hurtsItself',
        path: pointer(path),
        message: `${entry.label} is aimed at whoever uses it, where nothing else is said, and hurts them. Say at whom: { "at": "actor", "range": 60, "who": "foes" }.`,
      }));
    const side = sideOf(entry);
    if (side !== undefined && hits.length > 0 && others.length > 0)
      return [
        {
          kind: 'hurtsItsSide',
          path: pointer(['abilities', i, side, 'who']),
          message: `${entry.label} hurts its user’s own side. For the others say foes.`,
          fix: { label: 'Have it be for foes', patch: [{ op: 'replace', path: pointer(['abilities', i, side, 'who']), value: 'foes' }] },
        },
      ];
    if (others.length > 0) return [];
    const wrong = [
      ...hits.filter((one) => toSelf(one, 'target')),
      ...(hits.length === 0 && !hasHits(entry) ? own.filter((one) => toSelf(one, 'self')) : []),
    ];
    return wrong.map(({ action, path }): Finding => {
      const inHits = path[2] === 'onHit';
      const place = pointer(path);
      return {
        kind: 'hurtsItself',
        path: place,
        message: inHits
          ? `This hurts whoever uses ${entry.label}, once for each that is hit, and none of those. Leave out for whom it is, and it is for whom was hit.`
          : `This hurts whoever uses ${entry.label}, and nothing is done to whom it hits: that stands in onHit.`,
        ...(inHits &&
          action.to !== undefined && { fix: { label: 'Have it be for whom was hit', patch: [{ op: 'remove', path: `${place}/to` }] } }),
      };
    });
  });
}

/** Where an ability says that it is for its user's own side; undefined where it does not. */
function sideOf(entry: Entry): 'target' | 'deliver' | undefined {
  return (['target', 'deliver'] as const).find((part) =>
    ['crew', 'allies'].includes(String((entry[part] as { readonly who?: unknown } | undefined)?.who)),
  );
}

const hasHits = ({ onHit }: Entry): boolean => ((onHit ?? []) as readonly unknown[]).length > 0;

interface Placed {
  readonly actor?: string;
  readonly team?: string;
  readonly x: number;
  readonly y: number;
}

const placedIn = (rules: Rules) => (rules.document['arena'] as { readonly placed?: readonly Placed[] } | undefined)?.placed ?? [];

/** Foes in the one team that all players are in. */
function onOneSide(rules: Rules): readonly Finding[] {
  const open = entriesOf(rules, 'teams').filter((team) => team['open'] !== false);
  if (open.length !== 1 || entriesOf(rules, 'teams').length !== 1) return [];
  const foes = new Set(entriesOf(rules, 'actors').flatMap(({ id, kind }) => (kind === 'foe' ? [id] : [])));
  return placedIn(rules).flatMap(({ actor, team, x, y }, i): readonly Finding[] =>
    actor === undefined || team !== open[0].id || !foes.has(actor)
      ? []
      : [
          {
            kind: 'onOneSide',
            path: pointer(['arena', 'placed', i, 'team']),
            message: `The ${labelOf(rules, 'actors', actor).toLowerCase()} at ${x}, ${y} is in the same team as all players, ${open[0].label}: they are no foes of each other. Take its team out, or write a second one.`,
            fix: { label: 'Take its team out', patch: [{ op: 'remove', path: pointer(['arena', 'placed', i, 'team']) }] },
          },
        ],
  );
}

/** Kinds of actor, of which none is a player's. */
function withoutPlayer(rules: Rules): readonly Finding[] {
  const types = entriesOf(rules, 'actors');
  if (types.length === 0 || types.some(({ kind }) => kind === 'player')) return [];
  return [
    {
      kind: 'noPlayer',
      path: '/actors',
      message: 'There is no player: nobody can take a seat. Make a kind of actor whose kind is player.',
    },
  ];
}

/** Characters and foes that stand nowhere and that nothing brings. */
function standingNowhere(rules: Rules): readonly Finding[] {
  const there = brought(rules, 'actors');
  if (rules.document['arena'] === undefined) return [];
  return entriesOf<ActorEntry>(rules, 'actors').flatMap(({ id, label, kind }, i): readonly Finding[] =>
    !['character', 'foe'].includes(kind) || there.has(id)
      ? []
      : [
          {
            kind: 'standsNowhere',
            path: pointer(['actors', i]),
            message: `${label} stands nowhere: the arena does not place it, no spawner makes it and no action brings it. Place one, or delete it.`,
          },
        ],
  );
}
