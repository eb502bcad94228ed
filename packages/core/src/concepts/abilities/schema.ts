import { z } from 'zod';
import {
  condition,
  duration,
  entryFields,
  finite,
  mention,
  reference,
  seenBySome,
  share,
  steadyAmount,
  textWithFormulas,
  timeAmount,
  word,
  yesOrNo,
} from '../../ruleset/fields.js';
import { described } from '../../ruleset/described.js';
import { inForm } from '../../ruleset/marks.js';
import { actionList } from '../../ruleset/registry.js';
import { counted } from '../actors/relations.js';
import { clipSpan } from '../clips/index.js';
import { deliverySchema } from '../deliveries/schema.js';
import { defineChapter } from '../../ruleset/chapter.js';

/** Today's numbers of an ability, as its tooltip can speak of them: `{ability.cast}`. Times are in seconds. */
export const NUMBERS = ['cast', 'cooldown', 'recovery', 'channel', 'range', 'stored'] as const;

/** When an ability is paid for: as its use begins, or once its cast is over. */
export const CHARGES = ['onStart', 'onFinish'] as const;
export const TARGETS = ['self', 'actor', 'point', 'direction', 'cone', 'nearest'] as const;

const throughout = () => yesOrNo('all the while', 'as it begins');
const saysOr = () => described(says(), { absent: 'a sentence about the status' });
const says = () => z.string('Say what the player reads.').min(1, 'Say what the player reads.').max(160);
/** A time, a formula of seconds, or a stretch of a clip. */
const length = () =>
  inForm(
    'length',
    z.union([clipSpan(), ...timeAmount().def.options], 'A time such as "1.8s", a formula of seconds, or { "clip", "mark" } is expected.'),
  );
const sight = () => yesOrNo('in sight only', 'also behind walls');
const move = () => yesOrNo('free to move', 'standing still');
const rate = () => described(steadyAmount(), { absent: 'its own' });
/** The stat by which a time is divided. */
const haste = () => described(reference('attributes', ['stat']), { absent: 'nothing' });
const range = () => described(steadyAmount(), { amount: '{entry} reaches {value} far' });

const target = described(
  z.discriminatedUnion(
    'at',
    [
      z.strictObject({ at: z.literal('self') }),
      z.strictObject({ at: z.literal('actor'), range: range(), who: counted().optional(), sight: sight().optional() }),
      z.strictObject({ at: z.literal('point'), range: range(), sight: sight().optional() }),
      z.strictObject({ at: z.literal('direction'), range: described(range(), { absent: 'it gets' }).optional() }),
      z.strictObject({
        at: z.literal('cone'),
        range: range(),
        /** The whole opening, in degrees. */
        angle: described(finite().min(1, 'An angle is 1 to 360 degrees.').max(360, 'An angle is 1 to 360 degrees.'), { unit: 'degrees' }),
        who: counted().optional(),
        sight: sight().optional(),
      }),
      z.strictObject({
        at: z.literal('nearest'),
        count: finite().int('How many is a whole number.').min(1, 'At least one.').max(100).default(1),
        range: range(),
        who: counted().optional(),
        sight: sight().optional(),
      }),
    ],
    `Whom or what is it aimed at? { "at": one of ${TARGETS.join(', ')} }.`,
  ),
  {
    words: {
      self: 'at oneself',
      actor: 'at one',
      point: 'at a point',
      direction: 'in a direction',
      cone: 'into a cone',
      nearest: 'at the nearest',
    },
    hints: {
      self: 'nobody else is asked for',
      actor: 'somebody in range',
      point: 'on the ground',
      direction: 'for what flies',
      cone: 'all that stand in it',
      nearest: 'so many of them',
    },
  },
);
export type TargetEntry = z.infer<typeof target>;

const state = (absent: string) => described(reference('states'), { absent }).optional();

export const schema = z.strictObject({
  ...entryFields(),
  costs: z
    .array(
      z.strictObject({
        attribute: reference('attributes', ['pool', 'counter']),
        amount: described(steadyAmount(), { amount: '{entry} costs {value}', of: 'attribute', zero: true }),
      }),
    )
    .max(10, 'An ability has at most 10 costs.')
    .default([]),
  /** When its costs are paid and its cooldown begins. */
  charge: word(CHARGES, { onStart: 'as it begins', onFinish: 'when the cast is over' }).default('onStart'),
  /** A time such as "8s", or a formula that yields seconds. */
  cooldown: described(timeAmount(), { absent: 'no time' }).optional(),
  /** Cooldown groups that it is in: using one ability of a group keeps the others waiting. */
  groups: z.array(reference('groups')).max(10).default([]),
  /** Uses that are kept in store. */
  stored: z
    .strictObject({ most: finite().int('How many is a whole number.').min(1, 'At least one.').max(100), refill: timeAmount() })
    .optional(),
  /** What has to be so for it to be used, each with what the player reads where it is not. */
  requires: z
    .array(
      z.union(
        [
          z.strictObject({ if: condition(), says: says(), throughout: throughout().optional() }),
          z.strictObject({ has: mention('statuses'), says: saysOr().optional(), throughout: throughout().optional() }),
          z.strictObject({ hasNot: mention('statuses'), says: saysOr().optional(), throughout: throughout().optional() }),
        ],
        'A requirement is { "if": condition, "says" }, { "has": status } or { "hasNot": status }.',
      ),
    )
    .max(10, 'An ability has at most 10 requirements.')
    .default([]),
  cast: z
    .strictObject({
      time: length(),
      /** How fast the clip is played: 2 halves the time. */
      rate: rate().optional(),
      haste: haste().optional(),
      /** The user may move meanwhile. */
      move: move().optional(),
      state: state('casting'),
    })
    .optional(),
  channel: z
    .strictObject({
      every: described(timeAmount(), { atOnce: '{entry} pulses in each tick' }),
      lasts: timeAmount(),
      then: actionList().default([]),
      onEnd: actionList().optional(),
      move: move().optional(),
      state: state('channelling'),
    })
    .optional(),
  recovery: z.strictObject({ time: length(), rate: rate().optional(), haste: haste().optional(), state: state('recovering') }).optional(),
  /** What breaks its cast or channel. */
  brokenBy: z
    .strictObject({
      /** A single loss of at least this much. */
      damage: described(finite().min(0, 'Damage is not negative.'), {
        says: 'by a loss of {value} or more',
        absent: 'by no loss',
      }).optional(),
      movement: yesOrNo('by moving', 'not by moving').optional(),
      statuses: z.array(reference('statuses')).max(20).optional(),
      player: yesOrNo('by the player', 'not by the player').optional(),
    })
    .optional(),
  /** What a broken cast costs, as shares. Where nothing is said: what was charged is gone, what was not is not asked for. */
  broken: z.strictObject({ costs: share().optional(), cooldown: share().optional() }).optional(),
  target: target.default({ at: 'self' }),
  deliver: deliverySchema.optional(),
  onStart: actionList().optional(),
  /** What its user does when the cast is over. */
  then: actionList().default([]),
  /** For each that it hits. An action that says nothing else is for whom was hit; where it missed there is only its user. */
  onHit: actionList().optional(),
  onMiss: actionList().optional(),
  onBreak: actionList().optional(),
  /** Who sees its casts, projectiles, areas and hits, counted from its user. */
  see: seenBySome().default('everyone'),
  tooltip: z
    .strictObject({
      /** With formulas in braces. */
      text: described(textWithFormulas('ability', NUMBERS), {
        hint: `Words with formulas in braces, such as {torchPower * 5} or {ability.cast}; also ${NUMBERS.slice(1).join(', ')}.`,
      }),
      /** The box that it has to fit: characters in a line, and lines. */
      width: described(
        finite()
          .int('A width is whole characters.')
          .min(10, 'A box is 10 to 100 characters wide.')
          .max(100, 'A box is 10 to 100 characters wide.'),
        { unit: 'characters' },
      ).default(32),
      lines: described(finite().int('Lines are whole.').min(1, 'A box has 1 to 20 lines.').max(20, 'A box has 1 to 20 lines.'), {
        unit: 'lines',
      }).default(4),
    })
    .optional(),
});
export type AbilityEntry = z.infer<typeof schema>;
export const abilityChapter = defineChapter('abilities', schema);

export const groupSchema = z.strictObject({
  ...entryFields(),
  /** How long a use of one keeps the others of the group waiting. */
  lasts: duration(),
});
export type GroupEntry = z.infer<typeof groupSchema>;
