import { defineChapter } from '../../ruleset/chapter.js';
import { z } from 'zod';
import { amountOver, entryFields, finite, id, label, reference, steadyAmount, visibility, word } from '../../ruleset/fields.js';
import { CHANGEABLE, CHANGES } from '../abilities/index.js';
import { described } from '../../ruleset/described.js';

/** What the formulas of a node read of their own: the rank that they are asked for. */
export const LOCALS = ['rank'] as const;
/** How points come back: at will, for a price and all at once, or never. */
export const RESPECS = ['free', 'paid', 'never'] as const;
export const MOST_NODES = 200;
export const MOST_RANKS = 20;

const rank = () => finite().int('Ranks are whole numbers.').min(1, 'A rank is at least 1.').max(MOST_RANKS, `At most ${MOST_RANKS} ranks.`);
const wanted = () =>
  z.array(z.strictObject({ node: id(), rank: described(rank(), { absent: '1' }).optional() })).max(20, 'At most 20 nodes.');

/** What has to be so before a node's first rank can be learned. */
const needs = () =>
  z.strictObject({
    /** Each of these nodes, with so many ranks. */
    all: wanted().optional(),
    /** One of these nodes. */
    any: wanted().optional(),
    /** A level that has been reached at some time. */
    level: z.strictObject({ track: reference('tracks'), at: finite().int('A level is a whole number.').min(1).max(500) }).optional(),
    /** Points spent in the tree before. */
    spent: finite().int('Points are whole numbers.').min(1, 'At least one point.').max(1000).optional(),
  });
export type Needs = z.infer<ReturnType<typeof needs>>;

/** What a node gives for as long as it is learned. */
const gives = () =>
  z.strictObject({
    /** A lasting effect, applied once for each rank. */
    effect: reference('effects', { lifetime: ['lasting'] }).optional(),
    ability: reference('abilities').optional(),
    /** Numbers of abilities that are other: a formula over rank is asked for the rank learned, a number counts for each rank. */
    numbers: z
      .array(
        z.strictObject({
          ability: reference('abilities'),
          number: word(CHANGEABLE, {
            cooldown: 'cooldown',
            cast: 'cast time',
            recovery: 'recovery',
            channel: 'channel time',
            range: 'range',
            costs: 'costs',
          }),
          change: word(CHANGES, { add: 'more', percent: '% more' }).default('percent'),
          amount: amountOver(LOCALS),
        }),
      )
      .max(10, 'At most 10 numbers.')
      .optional(),
  });

export const node = z.strictObject({
  id: id(),
  label: label(),
  /** Ids that it had: ranks that are kept under them are its own. */
  formerly: z.array(id()).max(50).optional(),
  note: z.string().max(400).optional(),
  /** Where it is drawn, in places of a grid. */
  x: finite().min(0, 'A place is 0 to 40.').max(40, 'A place is 0 to 40.').default(0),
  y: finite().min(0, 'A place is 0 to 40.').max(40, 'A place is 0 to 40.').default(0),
  ranks: described(rank(), { absent: 'one rank' }).default(1),
  /** Points for each rank: a number, or a formula over rank. */
  cost: amountOver(LOCALS).default(1),
  needs: needs().optional(),
  gives: gives().optional(),
});
export type NodeEntry = z.infer<typeof node>;

export const schema = z.strictObject({
  ...entryFields(),
  /** Points that everybody begins with. */
  points: described(finite().int('Points are whole numbers.').min(0, 'Points are 0 or more.').max(1000), { unit: 'points' }).default(0),
  see: visibility().default('owner'),
  nodes: z.array(node, 'The nodes are a list.').max(MOST_NODES, `At most ${MOST_NODES} nodes.`).default([]),
  /** Groups of nodes of which one alone can be learned. */
  exclusive: z.array(z.array(id()).min(2, 'A choice is between two nodes at least.').max(20)).max(40).default([]),
  respec: z
    .strictObject({
      how: word(
        RESPECS,
        { free: 'come back at will', paid: 'come back for a price', never: 'never come back' },
        { free: 'one by one, or all', paid: 'all at once', never: 'what is learned stays' },
      ),
      price: z.strictObject({ attribute: reference('attributes', ['pool', 'counter']), amount: steadyAmount() }).optional(),
    })
    .default({ how: 'free' }),
});
export type TreeEntry = z.infer<typeof schema>;
export const treeChapter = defineChapter('trees', schema);
