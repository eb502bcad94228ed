import { z } from 'zod';
import { condition, duration, entryFields, finite, word } from '../../ruleset/fields.js';
import { described } from '../../ruleset/described.js';
import { actionList } from '../../ruleset/registry.js';
import { defineChapter } from '../../ruleset/chapter.js';

export const SHAPES = ['circle', 'diamond', 'capsule', 'square', 'triangle'] as const;
/** Whom a pickup is gone for once it is taken. */
export const GONE = ['forAll', 'perPlayer'] as const;
/** When what luck decides of it is drawn: as it appears, the same for whoever takes it; or as it is taken, by its taker's luck. */
export const DRAWN = ['appearing', 'taking'] as const;

const radius = () => finite().min(1, 'A radius is 1 to 200.').max(200, 'A radius is 1 to 200.');

/** What a placed pickup may say otherwise than its entry. */
export const pickupFields = () => ({
  radius: radius(),
  /** Who may take it; anyone where nothing is said. Bare names belong to the one who touches it. */
  who: described(condition(), { absent: 'nothing is asked' }),
  /** What one is told who may not. */
  refusal: z.string().min(1).max(160),
  then: actionList(),
  /** Whether it is gone for everybody once it is taken, or only for the player who took it. */
  gone: word(GONE, { forAll: 'for everybody', perPlayer: 'for its taker alone' }),
  /** When the random amounts and picks in its list are drawn. */
  drawn: word(DRAWN, {
    appearing: 'as it appears, the same for whoever takes it',
    taking: 'as it is taken, by the luck of its taker',
  }),
  /** How long it lies before it is gone unclaimed. */
  lasts: described(duration(), { atOnce: '{entry} is gone before anybody can take it' }),
  /** How long after it was taken, or was gone, another lies in its place. */
  returns: duration(),
});

const fields = pickupFields();
export const schema = z.strictObject({
  ...entryFields(),
  radius: fields.radius.default(10),
  /** How it is drawn. */
  shape: word(SHAPES, {
    circle: 'a circle',
    diamond: 'a diamond',
    capsule: 'a capsule',
    square: 'a square',
    triangle: 'a triangle',
  }).default('circle'),
  who: fields.who.optional(),
  refusal: fields.refusal.optional(),
  then: fields.then.default([]),
  gone: fields.gone.default('forAll'),
  drawn: fields.drawn.default('appearing'),
  lasts: fields.lasts.optional(),
  returns: fields.returns.optional(),
});
export type PickupEntry = z.infer<typeof schema>;
export const pickupChapter = defineChapter('pickups', schema);
