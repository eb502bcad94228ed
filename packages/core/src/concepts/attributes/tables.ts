import { LARGEST_AMOUNT } from '../../math/grid.js';
import type { ColumnSpec, PerEntry, TableSpec } from '../../world/columns.js';
import type { Attribute, CompiledAttributes } from './compile.js';

const DECIMALS_OF_MODIFIERS = 4;

/** Names of an attribute's own book-keeping columns. A dot is no part of an id, so they never meet an attribute's. */
export const columnsOf = {
  base: (id: string) => `${id}.base`,
  min: (id: string) => `${id}.min`,
  max: (id: string) => `${id}.max`,
  part: (id: string) => `${id}.part`,
  rests: (id: string) => `${id}.rests`,
  /** The share of its maximum that a pool keeps, and the value that the share was taken from. */
  share: (id: string) => `${id}.share`,
  shared: (id: string) => `${id}.shared`,
  inside: (id: string, threshold: string) => `${id}.in.${threshold}`,
};

/** Whether a bound has to be remembered: one that is always the same is in the rules. */
export const moves = (bound: Attribute['max']): boolean => bound !== undefined && bound.constant === undefined;

/** Between what it is whatever happens: bounds that follow something else are open here. */
const rangeOf = ({ min, max }: Attribute): readonly [number, number] => [min?.constant ?? -LARGEST_AMOUNT, max?.constant ?? LARGEST_AMOUNT];

function ofAttribute(attribute: Attribute): ColumnSpec[] {
  const { id, see, decimals, saved, kind, refill, whole } = attribute;
  const present: PerEntry<boolean> = { column: 'type', of: attribute.present };
  const column = (name: (id: string) => string, more: Omit<ColumnSpec, 'name' | 'present' | 'formerly'>): ColumnSpec => ({
    name: name(id),
    present,
    ...(attribute.formerly.length > 0 && { formerly: attribute.formerly.map(name) }),
    ...more,
  });
  const columns = [
    column((name) => name, {
      kind: 'number',
      see,
      decimals,
      saved: saved && kind !== 'stat',
      label: attribute.label,
      range: rangeOf(attribute),
    }),
  ];
  if (kind === 'stat') columns.push(column(columnsOf.base, { kind: 'number', see: 'server', decimals }));
  // A bar needs the ends it is drawn between: whoever sees a value sees the bounds it is measured against.
  if (moves(attribute.min)) columns.push(column(columnsOf.min, { kind: 'number', see, decimals }));
  if (moves(attribute.max)) columns.push(column(columnsOf.max, { kind: 'number', see, decimals }));
  if (attribute.follow === 'share' && moves(attribute.max))
    for (const name of [columnsOf.share, columnsOf.shared]) columns.push(column(name, { kind: 'number', see: 'server', decimals: 4 }));
  if (refill && whole) columns.push(column(columnsOf.part, { kind: 'number', see: 'server', decimals: 3 }));
  if (refill && refill.pause > 0) columns.push(column(columnsOf.rests, { kind: 'tick', see: 'server' }));
  for (const threshold of attribute.thresholds)
    columns.push(column((name) => columnsOf.inside(name, threshold.id), { kind: 'flag', see: 'server' }));
  return columns;
}

export function attributeTables({ list }: CompiledAttributes): TableSpec[] {
  return [
    { name: 'attributes', title: 'Stats', extends: 'actors', columns: list.flatMap(ofAttribute) },
    { name: 'modifierHeads', extends: 'actors', hidden: true, columns: [{ name: 'first', kind: 'int', see: 'server' }] },
    // It is about to fall: what it has neither refills nor drains.
    { name: 'rests', extends: 'actors', hidden: true, columns: [{ name: 'rests', kind: 'flag', see: 'server' }] },
    {
      // What was crossed and is to be answered at the thresholds' next turn.
      name: 'crossings',
      owner: 'actor',
      hidden: true,
      columns: [
        { name: 'actor', kind: 'actor', see: 'server' },
        { name: 'attribute', kind: 'entry', chapter: 'attributes', see: 'server' },
        // Which of its attribute's thresholds.
        { name: 'threshold', kind: 'int', see: 'server' },
        { name: 'entered', kind: 'flag', see: 'server' },
        { name: 'value', kind: 'number', see: 'server', decimals: 3 },
        { name: 'turn', kind: 'int', see: 'server' },
        { name: 'cause', kind: 'serial', see: 'server' },
      ],
    },
    {
      name: 'modifiers',
      owner: 'actor',
      columns: [
        { name: 'actor', kind: 'actor', see: 'server' },
        { name: 'source', kind: 'actor', see: 'server' },
        { name: 'attribute', kind: 'entry', chapter: 'attributes', see: 'server' },
        { name: 'operation', kind: 'int', see: 'server' },
        { name: 'amount', kind: 'number', see: 'server', decimals: DECIMALS_OF_MODIFIERS },
        { name: 'stacks', kind: 'int', see: 'server' },
        // The number under which the rules keep an amount that is asked again and again; 0 for one taken once.
        { name: 'live', kind: 'int', see: 'server' },
        // It is there and does not count: a stronger one of its kind does.
        { name: 'muted', kind: 'flag', see: 'server' },
        { name: 'holder', kind: 'int', see: 'server' },
        // Which of its holder's modifiers it is.
        { name: 'part', kind: 'int', see: 'server' },
        // One more than the row of the actor's next modifier; 0 ends the list.
        { name: 'next', kind: 'int', see: 'server' },
      ],
    },
  ];
}
