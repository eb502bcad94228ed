import { type Finding, pointer } from '../../ruleset/problem.js';
import type { Rules } from '../../ruleset/rules.js';
import type { SpawnerEntry } from './schema.js';

const CHAPTER = 'spawners';

/** Spawners that go on without end, and those that make nothing. */
export function findings(_: unknown, rules: Rules): readonly Finding[] {
  const pickups = new Map((rules.document['pickups'] as readonly { id: string; lasts?: string }[]).map((entry) => [entry.id, entry]));
  return (rules.document[CHAPTER] as readonly SpawnerEntry[]).flatMap((entry, i): readonly Finding[] => {
    const { what, when, most, label } = entry;
    const made = what.filter(({ actor, pickup }) => actor !== undefined || pickup !== undefined);
    if (made.length === 0 || made.every(({ weight }) => weight === 0))
      return [{ kind: 'makesNothing', path: pointer([CHAPTER, i, 'what']), message: `${label} makes nothing: say what it makes.` }];
    const { count } = entry;
    if (most !== undefined && typeof count === 'number' && count > most)
      return [
        {
          kind: 'moreThanMost',
          path: pointer([CHAPTER, i, 'count']),
          message: `${label} makes ${count} at once, and at most ${most} are there at one time: the others are not made. Make fewer, or allow more.`,
        },
      ];
    const stays = made.some(({ actor, pickup }) => actor !== undefined || pickups.get(pickup!)?.lasts === undefined);
    if (when.is === 'wave' || most !== undefined || !stays) return [];
    return [
      {
        kind: 'neverStops',
        path: pointer([CHAPTER, i]),
        message: `${label} never stops: what it makes stays, and it makes more until the arena is full. Say how many at most.`,
        fix: { label: 'At most 5 at once', patch: [{ op: 'add', path: pointer([CHAPTER, i, 'most']), value: 5 }] },
      },
    ];
  });
}
