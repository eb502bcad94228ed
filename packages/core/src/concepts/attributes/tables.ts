import type { ColumnSpec, PerEntry, TableSpec } from '../../world/table.js';
import type { Attribute, CompiledAttributes } from './compile.js';

const DECIMALS_OF_MODIFIERS = 4;

/** Names of an attribute's own book-keeping columns. A dot is no part of an id, so they never meet an attribute's. */
export const columnsOf = {
  base: (id: string) => `${id}.base`,
  max: (id: string) => `${id}.max`,
  part: (id: string) => `${id}.part`,
  rests: (id: string) => `${id}.rests`,
};

function ofAttribute(attribute: Attribute): ColumnSpec[] {
  const { id, see, decimals, saved } = attribute;
  const present: PerEntry<boolean> = { column: 'type', of: attribute.present };
  const columns: ColumnSpec[] = [{ name: id, kind: 'number', see, decimals, saved: saved && attribute.kind !== 'stat', present }];
  if (attribute.kind === 'stat') columns.push({ name: columnsOf.base(id), kind: 'number', see: 'server', decimals, present });
  // A bar needs the end it fills towards: whoever sees a value sees the maximum it is measured against.
  if (attribute.max && attribute.max.constant === undefined)
    columns.push({ name: columnsOf.max(id), kind: 'number', see, decimals, present });
  if (attribute.refill && attribute.whole) columns.push({ name: columnsOf.part(id), kind: 'number', see: 'server', decimals: 3, present });
  if (attribute.refill && attribute.refill.pause > 0) columns.push({ name: columnsOf.rests(id), kind: 'tick', see: 'server', present });
  return columns;
}

export function attributeTables({ list }: CompiledAttributes): TableSpec[] {
  return [
    { name: 'attributes', extends: 'actors', columns: list.flatMap(ofAttribute) },
    { name: 'modifierHeads', extends: 'actors', hidden: true, columns: [{ name: 'first', kind: 'int', see: 'server' }] },
    {
      name: 'modifiers',
      owner: 'actor',
      columns: [
        { name: 'actor', kind: 'actor', see: 'server' },
        { name: 'attribute', kind: 'entry', chapter: 'attributes', see: 'server' },
        { name: 'operation', kind: 'int', see: 'server' },
        { name: 'amount', kind: 'number', see: 'server', decimals: DECIMALS_OF_MODIFIERS },
        { name: 'holder', kind: 'int', see: 'server' },
        // One more than the row of the actor's next modifier; 0 ends the list.
        { name: 'next', kind: 'int', see: 'server' },
      ],
    },
  ];
}
