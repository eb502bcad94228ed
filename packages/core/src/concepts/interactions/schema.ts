import { z } from 'zod';
import { condition, duration, entryFields, finite, reference, share, steadyAmount, word, yesOrNo } from '../../ruleset/fields.js';
import { described } from '../../ruleset/described.js';
import { actionList } from '../../ruleset/registry.js';
import { defineChapter } from '../../ruleset/chapter.js';

/** The character is the target of whatever an interaction asks or does; bare names belong to its visitor. */
export const PARTIES = ['target'] as const;
/** Whom it serves at a time: one visitor of the same character, or each that comes. */
export const SERVES = ['one', 'each'] as const;
export const REMEMBERS = ['player', 'all'] as const;

export const words = () => z.string('Words are expected.').min(1, 'Words are expected.').max(160, 'At most 160 characters.');
/** Words that players read as they stand. */
export const asWritten = () => described(words(), { shown: true });
export const reach = () => finite().min(1, 'A reach is 1 to 1000.').max(1000, 'A reach is 1 to 1000.');
/** Whether a wall between them is in the way. */
export const sight = () => yesOrNo('not through walls', 'also through walls');
/** To whom it is offered at all; to anyone where nothing is said. */
export const offeredTo = () => described(condition(PARTIES), { absent: 'nothing is asked' });
/** What has to be so, and the words for whom it is not. */
export const needs = () => z.array(z.strictObject({ if: condition(PARTIES), say: asWritten() })).max(10, 'At most 10 needs.');

/** What a placed character may say otherwise than the interaction. */
export const interactionFields = () => ({
  prompt: asWritten(),
  /** How far it reaches, from body to body. */
  reach: reach(),
  sight: sight(),
  who: offeredTo(),
  needs: needs(),
  /** What is paid before anything happens, in one step or not at all, and the words for whom it is too much. */
  price: z.strictObject({
    attribute: reference('attributes', ['pool', 'counter']),
    amount: described(steadyAmount(PARTIES), { amount: '{entry} asks {value}', of: 'attribute', zero: true }),
    say: asWritten().optional(),
  }),
  /** How long a visit takes. */
  busy: duration(),
  serves: word(SERVES, { one: 'busy for others meanwhile', each: 'free for others meanwhile' }),
  then: actionList(),
  /** When a visit ends before its time: the visitor walked off, fell or went. */
  onBreak: actionList(),
  /** The share of the price that is given back when a visit ends before its time. */
  refund: share(),
  /** It is given back only where the visit ends earlier than this after it began; at any time where nothing is said. */
  refundUntil: described(duration(), { absent: 'its end' }),
  /** Not again after a visit, for its player or for everybody, for this long or ever. */
  remembers: z.strictObject({
    whom: word(REMEMBERS, { player: 'for its visitor', all: 'for everybody' }).default('player'),
    for: described(duration(), { absent: 'ever' }).optional(),
    say: words().optional(),
  }),
});

const fields = interactionFields();
export const schema = z.strictObject({
  ...entryFields(),
  prompt: fields.prompt,
  reach: fields.reach.default(60),
  sight: fields.sight.default(true),
  who: fields.who.optional(),
  needs: fields.needs.default([]),
  price: fields.price.optional(),
  busy: fields.busy.optional(),
  serves: fields.serves.default('one'),
  then: fields.then.default([]),
  onBreak: fields.onBreak.optional(),
  refund: fields.refund.optional(),
  refundUntil: fields.refundUntil.optional(),
  remembers: fields.remembers.optional(),
});
export type InteractionEntry = z.infer<typeof schema>;
export const interactionChapter = defineChapter('interactions', schema);
