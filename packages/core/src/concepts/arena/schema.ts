import { z } from 'zod';
import { finite, id, reference } from '../../ruleset/fields.js';
import { containerFields } from '../containers/schema.js';
import { interactionFields } from '../interactions/schema.js';
import { pickupFields } from '../pickups/schema.js';
import { spawnerFields } from '../spawners/schema.js';
import { zoneFields } from '../zones/schema.js';
import { start } from '../../ruleset/fields.js';
import { described } from '../../ruleset/described.js';

const SMALLEST = 100;
const LARGEST = 10000;
const side = () =>
  finite().min(SMALLEST, `A side is ${SMALLEST} to ${LARGEST} long.`).max(LARGEST, `A side is ${SMALLEST} to ${LARGEST} long.`);
const point = () => ({ x: finite(), y: finite() });
const length = () => finite().min(1).max(LARGEST);
/** Some of an entry's own fields, said anew for one placed thing. */
const instead = (fields: z.ZodRawShape) => z.strictObject(fields).partial().optional();
const named = () => ({
  /** What this one is called: what remembers it follows it by this. Without one it goes by its number among its like. */
  id: described(id(), { absent: 'its number among its like' }).optional(),
});

export const placed = z.union(
  [
    z.strictObject({ ...named(), pickup: reference('pickups'), ...point(), with: instead(pickupFields()) }),
    z.strictObject({
      ...named(),
      actor: reference('actors'),
      team: described(reference('teams'), { absent: 'no team' }).optional(),
      ...point(),
      with: z
        .strictObject({
          label: z.string().min(1).max(80).optional(),
          /** Attributes that this one begins with otherwise. */
          starts: z
            .array(z.strictObject({ attribute: reference('attributes'), start: start() }))
            .max(50)
            .optional(),
          /** Interactions that are other with this one. */
          asks: z
            .array(z.strictObject({ interaction: reference('interactions'), ...z.strictObject(interactionFields()).partial().shape }))
            .max(20)
            .optional(),
          /** What is other about the container that this one is. */
          holds: instead(containerFields()),
        })
        .optional(),
    }),
    z.strictObject({
      ...named(),
      zone: reference('zones'),
      /** Its middle. */
      ...point(),
      /** A circle has a radius; a rectangle a width and a height. */
      radius: length().optional(),
      width: length().optional(),
      height: length().optional(),
      with: instead(zoneFields()),
    }),
    z.strictObject({
      ...named(),
      spawner: reference('spawners'),
      ...point(),
      /** Where it puts what it makes, in turn; its own place where nothing is said. */
      points: z.array(z.strictObject(point())).max(50).optional(),
      /** The points along which those go that it brings in and that follow points. */
      along: z.array(z.strictObject(point())).max(100).optional(),
      with: instead(spawnerFields()),
    }),
  ],
  'A placed thing is { "pickup", "actor", "zone" or "spawner", "x", "y" }.',
);

export const schema = z.strictObject({
  width: side().default(960),
  height: side().default(540),
  /** Rectangles that nothing passes: the corner nearest to 0, 0, then the size. */
  walls: z
    .array(z.strictObject({ x: finite(), y: finite(), width: finite().min(1), height: finite().min(1) }))
    .max(500, 'An arena has at most 500 walls.')
    .default([]),
  /** Where actors appear; those without a team are for everybody. */
  starts: z
    .array(z.strictObject({ ...point(), team: described(reference('teams'), { absent: 'everybody' }).optional() }))
    .max(200)
    .default([]),
  /** What is in the arena when a world starts. */
  placed: z.array(placed).max(2000, 'An arena holds at most 2000 placed things.').default([]),
});
export type Arena = z.infer<typeof schema>;
export type Wall = Arena['walls'][number];
export type Placed = Arena['placed'][number];

/** What a placed thing can be: the chapter that its entry stands in, by the field that names it. */
export const PLACEABLE = { pickup: 'pickups', actor: 'actors', zone: 'zones', spawner: 'spawners' } as const;
export type Placeable = keyof typeof PLACEABLE;
export type PlacedAs<K extends Placeable> = Extract<Placed, Record<K, string>>;
