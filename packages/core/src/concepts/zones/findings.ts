import { possibleUnder } from '../attributes/possible.js';
import { type Finding, pointer } from '../../ruleset/problem.js';
import type { Rules } from '../../ruleset/rules.js';
import { arena, placements } from '../arena/index.js';
import { type PlacedZone } from './state.js';
import { brought, isReferredTo } from '../../analysis/collect.js';
import { isEmpty, isHeard } from '../../analysis/entries.js';
import type { Look } from '../../world/concept.js';
import { questChapter } from '../quests/schema.js';
import { zoneChapter } from './schema.js';

/** Zones that nobody can be in: for whom they are not, or because walls and the arena's edge leave no room. */
export const findings: readonly Look<readonly PlacedZone[]>[] = [
  forNobody,
  (_, rules) => doesNothing(rules),
  (list, rules) =>
    placements(rules, 'zone').flatMap(({ index, thing }): readonly Finding[] =>
      hasRoom(
        rules,
        list.find((zone) => zone.index === index)!,
      )
        ? []
        : [
            {
              kind: 'walledIn',
              path: pointer(['arena', 'placed', index]),
              message: `Nobody can get into ${thing.zone} at ${thing.x}, ${thing.y}: walls or the arena’s edge fill it.`,
            },
          ],
    ),
];

function forNobody(_: unknown, rules: Rules): readonly Finding[] {
  const possible = possibleUnder(rules);
  return zoneChapter.of(rules).flatMap(({ who, label }, i): readonly Finding[] =>
    who === undefined || possible.whoCan(who).length > 0
      ? []
      : [
          {
            kind: 'nobodyEnters',
            path: pointer(['zones', i, 'who']),
            message: `${label} is for nobody: “${who}” holds for no kind of actor.`,
            fix: { label: 'Let it be for anyone', patch: [{ op: 'remove', path: pointer(['zones', i, 'who']) }] },
          },
        ],
  );
}

/** Zones in which nothing happens, and those that lie nowhere. */
function doesNothing(rules: Rules): readonly Finding[] {
  const lying = brought(rules, 'zones');
  return zoneChapter.of(rules).flatMap(({ id, label, onEnter, onLeave, every }, i): readonly Finding[] => {
    const path = pointer(['zones', i]);
    const does = !isEmpty(onEnter) || !isEmpty(onLeave) || !isEmpty(every?.then);
    if (!does && !isHeard(rules, ['zoneEntered', 'zoneLeft'], 'zone', id) && !offersQuest(rules, id))
      return [{ kind: 'doesNothing', path, message: `Nothing happens to who is in ${label}: say what it does.` }];
    if (lying.has(id) || !isReferredTo(rules, 'zones', id)) return [];
    return [{ kind: 'liesNowhere', path, message: `${label} lies nowhere: place it in the arena.` }];
  });
}

/** Whether a quest begins in a zone: then that is what happens there. */
const offersQuest = (rules: Rules, zone: string) =>
  questChapter.of(rules).some(({ offered }) => offered.some((offer) => offer.by === 'zone' && offer.zone === zone));

/** Whether any of a grid of points in it is ground. A zone thinner than a step of that is looked at along its middle. */
function hasRoom(rules: Rules, { thing: { x, y, radius, width = 0, height = 0 } }: PlacedZone): boolean {
  const { walls, width: across, height: down } = arena.of(rules);
  const [w, h] = [radius ?? width / 2, radius ?? height / 2];
  for (let i = -4; i <= 4; i++)
    for (let k = -4; k <= 4; k++) {
      const [px, py] = [x + (i / 4) * w, y + (k / 4) * h];
      if (radius !== undefined && (px - x) * (px - x) + (py - y) * (py - y) > radius * radius) continue;
      if (px < 0 || py < 0 || px > across || py > down) continue;
      if (walls.every((wall) => px < wall.x || px > wall.x + wall.width || py < wall.y || py > wall.y + wall.height)) return true;
    }
  return false;
}
