import { LARGEST_AMOUNT } from '../../math/grid.js';
import type { PerEntry } from '../../world/columns.js';
import { defineTable } from '../../world/define-table.js';
import { columnNames, defineEntryTable, partName } from '../../world/entry-table.js';
import type { Attribute } from './compile.js';
import { OPERATIONS } from './schema.js';

/** Whether a bound has to be remembered: one that is always the same is in the rules. */
export const moves = (bound: Attribute['max']): boolean => bound !== undefined && bound.constant === undefined;

/** Between what it is whatever happens: bounds that follow something else are open here. */
const rangeOf = ({ min, max }: Attribute): readonly [number, number] => [min?.constant ?? -LARGEST_AMOUNT, max?.constant ?? LARGEST_AMOUNT];

/** The values of actors, and what goes with them: those columns that an author's words call for. */
export const attributesTable = defineEntryTable({
  name: 'attributes',
  title: 'Stats',
  extends: 'actors',
  parts: ['min', 'max', 'base'],
  columns: (attribute: Attribute) => {
    const { see, decimals, saved, kind, refill, whole, label } = attribute;
    const present: PerEntry<boolean> = { column: 'type', of: attribute.present };
    const names = (name?: string) => ({ ...columnNames(attribute, name === undefined ? undefined : (id) => partName(id, name)), present });
    const follows = attribute.follow === 'share' && moves(attribute.max);
    return {
      value: { ...names(), kind: 'number', see, decimals, saved: saved && kind !== 'stat', label, range: rangeOf(attribute) },
      base: kind === 'stat' ? { ...names('base'), kind: 'number', see: 'server', decimals } : undefined,
      // A bar needs the ends it is drawn between: whoever sees a value sees the bounds it is measured against.
      min: moves(attribute.min) ? { ...names('min'), kind: 'number', see, decimals } : undefined,
      max: moves(attribute.max) ? { ...names('max'), kind: 'number', see, decimals } : undefined,
      /** The share of its maximum that a pool keeps, and the value that the share was taken from. */
      share: follows ? { ...names('share'), kind: 'number', see: 'server', decimals: 4 } : undefined,
      shared: follows ? { ...names('shared'), kind: 'number', see: 'server', decimals: 4 } : undefined,
      part: refill && whole ? { ...names('part'), kind: 'number', see: 'server', decimals: 3 } : undefined,
      rests: refill && refill.pause > 0 ? { ...names('rests'), kind: 'tick', see: 'server' } : undefined,
      inside: attribute.thresholds.map(({ id }) => ({ ...names(`in.${id}`), kind: 'flag', see: 'server' }) as const),
    };
  },
});

export const modifierHeadsTable = defineTable({
  name: 'modifierHeads',
  extends: 'actors',
  hidden: true,
  columns: { first: { kind: 'int', see: 'server' } },
});

/** It is about to fall: what it has neither refills nor drains. */
export const restsTable = defineTable({
  name: 'rests',
  extends: 'actors',
  hidden: true,
  columns: { rests: { kind: 'flag', see: 'server' } },
});

/** What was crossed and is to be answered at the thresholds' next turn. */
export const crossingsTable = defineTable({
  name: 'crossings',
  owner: 'actor',
  hidden: true,
  columns: {
    actor: { kind: 'actor', see: 'server' },
    attribute: { kind: 'entry', chapter: 'attributes', see: 'server' },
    /** Which of its attribute's thresholds. */
    threshold: { kind: 'int', see: 'server' },
    entered: { kind: 'flag', see: 'server' },
    value: { kind: 'number', see: 'server', decimals: 3 },
    turn: { kind: 'int', see: 'server' },
    cause: { kind: 'serial', see: 'server' },
  },
});

export const modifiersTable = defineTable({
  name: 'modifiers',
  owner: 'actor',
  columns: {
    actor: { kind: 'actor', see: 'server' },
    source: { kind: 'actor', see: 'server' },
    attribute: { kind: 'entry', chapter: 'attributes', see: 'server' },
    operation: { kind: 'int', words: OPERATIONS, see: 'server' },
    amount: { kind: 'number', see: 'server', decimals: 4 },
    stacks: { kind: 'int', see: 'server' },
    /** The number under which the rules keep an amount that is asked again and again; 0 for one taken once. */
    live: { kind: 'int', see: 'server' },
    /** It is there and does not count: a stronger one of its kind does. */
    muted: { kind: 'flag', see: 'server' },
    holder: { kind: 'int', see: 'server' },
    /** Which of its holder's modifiers it is. */
    part: { kind: 'int', see: 'server' },
    /** One more than the row of the actor's next modifier; 0 ends the list. */
    next: { kind: 'int', see: 'server' },
  },
});
