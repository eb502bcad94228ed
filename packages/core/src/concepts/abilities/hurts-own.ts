import { atEach } from '../../analysis/each.js';
import { placedActions, type PlacedAction } from '../../ruleset/actions.js';
import { type Finding, pointer } from '../../ruleset/problem.js';
import { abilityChapter, type AbilityEntry } from './schema.js';

/** Lists of what an ability does to others that hurt its user instead, or its user's side. */
export const hurtsOwn = atEach(abilityChapter, ofOne);

const isForSelf = ({ action }: PlacedAction, otherwise: string) => (action.to ?? otherwise) === 'self';

function ofOne(entry: AbilityEntry, i: number): readonly Finding[] {
  const hurtsIn = (list: 'then' | 'onHit') =>
    placedActions(entry[list], ['abilities', i, list]).filter(({ action }) => action.do === 'hurt');
  const hits = hurtsIn('onHit');
  const own = hurtsIn('then');
  const others = [...hits.filter((one) => !isForSelf(one, 'target')), ...own.filter((one) => !isForSelf(one, 'self'))];
  if ((entry.target?.at ?? 'self') === 'self' && entry.deliver === undefined)
    return hits.slice(0, 1).map(({ path }): Finding => ({
      kind: 'hurtsItself',
      path: pointer(path),
      message: `${entry.label} is aimed at whoever uses it, where nothing else is said, and hurts them. Say at whom: { "at": "actor", "range": 60, "who": "foes" }.`,
    }));
  const side = sideOf(entry);
  if (side !== undefined && hits.length > 0 && others.length > 0) {
    const path = pointer(['abilities', i, side, 'who']);
    return [
      {
        kind: 'hurtsItsSide',
        path,
        message: `${entry.label} hurts its user’s own side. For the others say foes.`,
        fix: { label: 'Have it be for foes', patch: [{ op: 'replace', path, value: 'foes' }] },
      },
    ];
  }
  if (others.length > 0) return [];
  const hasHits = (entry.onHit ?? []).length > 0;
  return [
    ...hits.filter((one) => isForSelf(one, 'target')),
    ...(hits.length === 0 && !hasHits ? own.filter((one) => isForSelf(one, 'self')) : []),
  ].map((one) => hurtingUser(entry, one));
}

function hurtingUser({ label }: AbilityEntry, { action, path }: PlacedAction): Finding {
  const place = pointer(path);
  if (path[2] !== 'onHit')
    return {
      kind: 'hurtsItself',
      path: place,
      message: `This hurts whoever uses ${label}, and nothing is done to whom it hits: that stands in onHit.`,
    };
  return {
    kind: 'hurtsItself',
    path: place,
    message: `This hurts whoever uses ${label}, once for each that is hit, and none of those. Leave out for whom it is, and it is for whom was hit.`,
    ...(action.to !== undefined && {
      fix: { label: 'Have it be for whom was hit', patch: [{ op: 'remove' as const, path: `${place}/to` }] },
    }),
  };
}

/** Where an ability says that it is for its user's own side; undefined where it does not. */
function sideOf({ target, deliver }: AbilityEntry): 'target' | 'deliver' | undefined {
  const isOwn = (part: object | undefined) => part !== undefined && 'who' in part && ['crew', 'allies'].includes(String(part.who));
  return isOwn(target) ? 'target' : isOwn(deliver) ? 'deliver' : undefined;
}
