import { type Finding, pointer } from '../../ruleset/problem.js';
import { entryOf, labelOf, type Rules } from '../../ruleset/rules.js';
import { distanceOf } from '../../math/distance.js';
import { idOfPlaced, kindOfPlaced } from './system.js';
import { PLACEABLE, type Placed } from './schema.js';
import { type Arena } from './schema.js';

/** The space that a placed thing needs: none for a zone or a spawner, which lie over anything. */
function radiusOf(rules: Rules, thing: Placed): number {
  const kind = kindOfPlaced(thing);
  if (kind !== 'pickup' && kind !== 'actor') return 0;
  const entry = entryOf<{ readonly radius?: unknown }>(rules, PLACEABLE[kind], idOfPlaced(thing));
  return typeof entry?.radius === 'number' ? entry.radius : 12;
}

/** What placed things are called in a sentence. */
function nameOfPlaced(rules: Rules, thing: Placed): string {
  const kind = kindOfPlaced(thing);
  return thing.id ?? labelOf(rules, PLACEABLE[kind], idOfPlaced(thing)).toLowerCase();
}

/** Things that stand in walls or in each other, and start points within walls. */
export function findings({ placed, walls, starts }: Arena, rules: Rules): readonly Finding[] {
  const found: Finding[] = [];
  const bodies = placed.map((thing, index) => ({ thing, index, radius: radiusOf(rules, thing) })).filter(({ radius }) => radius > 0);
  const inWall = ({ x, y }: { x: number; y: number }) =>
    walls.some((wall) => x > wall.x && x < wall.x + wall.width && y > wall.y && y < wall.y + wall.height);
  bodies.forEach(({ thing, index, radius }, i) => {
    const path = pointer(['arena', 'placed', index]);
    if (inWall(thing))
      found.push({ kind: 'inWall', path, message: `The ${nameOfPlaced(rules, thing)} at ${thing.x}, ${thing.y} stands in a wall.` });
    const other = bodies.slice(0, i).find((one) => distanceOf(one.thing, thing) < (one.radius + radius) / 2);
    if (other)
      found.push({
        kind: 'overlaps',
        path,
        message: `The ${nameOfPlaced(rules, thing)} at ${thing.x}, ${thing.y} lies over the ${nameOfPlaced(rules, other.thing)} at ${other.thing.x}, ${other.thing.y}.`,
      });
  });
  starts.forEach((start, i) => {
    if (inWall(start))
      found.push({
        kind: 'inWall',
        path: pointer(['arena', 'starts', i]),
        message: `The start point ${start.x}, ${start.y} is in a wall.`,
      });
  });
  return found;
}
