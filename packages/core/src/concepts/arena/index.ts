import { defineConcept } from '../../world/concept.js';
import { findings } from './findings.js';
import { type Arena, PLACEABLE, type Placeable, schema } from './schema.js';
import { arena } from './state.js';
import { placements } from './system.js';

export { arena } from './state.js';
export { type Arena, PLACEABLE, type Placeable, type Placed, type PlacedAs, type Wall } from './schema.js';
export { type Placement, kindOfPlaced, idOfPlaced, placements, spotsOf, followPlaced, isInSight, sees, crossing } from './system.js';

/** The arena: the flat ground that actors move on. */
export const arenaConcept = defineConcept(arena, {
  sections: {
    arena: { kind: 'value', title: 'Arena', schema: schema.prefault({}), called: 'The arena', places: true, ownConditions: true },
  },
  compile: (context) => {
    const value = context.section<Arena>('arena');
    const outside = ({ x, y }: { x: number; y: number }) => x < 0 || y < 0 || x > value.width || y > value.height;
    for (const list of ['starts', 'placed'] as const)
      value[list].forEach((point, i) => {
        if (outside(point))
          context.problem(['arena', list, i], `${point.x}, ${point.y} lies outside the arena, which is ${value.width} by ${value.height}.`);
      });
    value.placed.forEach((thing, i) => {
      if ('zone' in thing && (thing.radius === undefined) === (thing.width === undefined || thing.height === undefined))
        context.problem(['arena', 'placed', i], 'A zone is a circle with a radius, or a rectangle with a width and a height.');
    });
    for (const kind of Object.keys(PLACEABLE) as Placeable[])
      for (const { index, key } of placements(context, kind)) context.alias(['arena', 'placed', index], key);
    const ids = value.placed.map((thing) => thing.id);
    ids.forEach((id, i) => {
      if (id !== undefined && ids.indexOf(id) < i)
        context.problem(['arena', 'placed', i, 'id'], `${id} is taken by placed thing ${ids.indexOf(id)}: ids are unique.`);
    });
    return value;
  },
  findings,
  workbench: async () => (await import('../workbenches.js')).arena,
  display: ({ width, height, walls }) => ({ width, height, walls }),
});
