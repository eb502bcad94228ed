import type { CompileContext } from '../../ruleset/context.js';
import type { Path } from '../../ruleset/problem.js';
import type { Pattern } from '../../ruleset/registry.js';
import { type SpawnerEntry } from './schema.js';
import { type Spawner } from './state.js';

export function compileSpawner(
  context: CompileContext,
  entry: SpawnerEntry,
  own: Partial<SpawnerEntry>,
  at: Path,
  placed: Path,
): Omit<Spawner, 'index' | 'thing'> {
  const all = { ...entry, ...own };
  const path = (field: keyof SpawnerEntry) => [...(field in own ? placed : at), field];
  const { when } = all;
  const position = (chapter: string, id: string | undefined) => (id === undefined ? -1 : context.index(chapter, id));
  return {
    id: entry.id,
    what: all.what.map((one, i) => ({
      weight: context.amount(one.weight, [...path('what'), i, 'weight']),
      actor: position('actors', one.actor),
      team: position('teams', one.team),
      pickup: position('pickups', one.pickup),
    })),
    is: when.is,
    ticks: when.is === 'on' ? 0 : context.ticks(when.is === 'every' ? when.time : when.pause),
    event: when.is === 'on' ? context.pattern({ ...(when.event as Pattern), who: 'anyone' }) : undefined,
    count: context.amount(all.count, path('count')),
    most: all.most ?? Infinity,
    near: all.near ?? 0,
    spread: all.spread,
    luck: { what: context.purpose(path('what')), x: context.purpose([...at, 'x']), y: context.purpose([...at, 'y']) },
    rule: context.ruleAt(at),
  };
}
