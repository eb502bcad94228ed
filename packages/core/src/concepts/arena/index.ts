import { z } from 'zod';
import { finite, reference } from '../../ruleset/fields.js';
import { defineConcept } from '../../world/concept.js';

const SMALLEST = 100;
const LARGEST = 10000;
const side = () =>
  finite().min(SMALLEST, `A side is ${SMALLEST} to ${LARGEST} long.`).max(LARGEST, `A side is ${SMALLEST} to ${LARGEST} long.`);

const schema = z.strictObject({
  width: side().default(960),
  height: side().default(540),
  /** Rectangles that nothing passes: the corner nearest to 0, 0, then the size. */
  walls: z
    .array(z.strictObject({ x: finite(), y: finite(), width: finite().min(1), height: finite().min(1) }))
    .max(500, 'An arena has at most 500 walls.')
    .default([]),
  /** Where actors appear; those without a team are for everybody. */
  starts: z
    .array(z.strictObject({ x: finite(), y: finite(), team: reference('teams').optional() }))
    .max(200)
    .default([]),
  /** What lies in the arena when a world starts. */
  placed: z
    .array(z.strictObject({ pickup: reference('pickups'), x: finite(), y: finite() }))
    .max(2000)
    .default([]),
});
export type Arena = z.infer<typeof schema>;
export type Wall = Arena['walls'][number];

/** The arena: the flat ground that actors move on. */
export const arena = defineConcept<Arena>({
  id: 'arena',
  sections: { arena: { kind: 'value', title: 'Arena', schema: schema.prefault({}) } },
  compile: (context) => {
    const value = context.section<Arena>('arena');
    const outside = ({ x, y }: { x: number; y: number }) => x < 0 || y < 0 || x > value.width || y > value.height;
    for (const list of ['starts', 'placed'] as const)
      value[list].forEach((point, i) => {
        if (outside(point))
          context.problem(['arena', list, i], `${point.x}, ${point.y} lies outside the arena, which is ${value.width} by ${value.height}.`);
      });
    return value;
  },
  display: ({ width, height, walls }) => ({ width, height, walls }),
});
