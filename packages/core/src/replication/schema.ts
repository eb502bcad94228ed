import { z } from 'zod';
import { question } from '../ruleset/questions.js';
import type { Rules } from '../ruleset/rules.js';
import { isUnknown } from '../ruleset/visible.js';
import type { ColumnSpec, TableSpec } from '../world/columns.js';
import { packed, packedList, packedMap } from '../world/packed.js';

const VISIBILITIES = ['owner', 'team', 'everyone', 'server'] as const;

/** What a copy is told of the tables it will hear about. Columns keep their numbers; those it may never see are left out. */
export const wireSchema = z.strictObject({
  tickRate: z.int(),
  tables: z.array(
    z.strictObject({
      table: z.int(),
      name: z.string(),
      extends: z.string().optional(),
      owner: z.string().optional(),
      columns: z.array(
        z.strictObject({
          column: z.int(),
          name: z.string(),
          kind: z.enum(['number', 'int', 'tick', 'flag', 'serial', 'entry', 'actor', 'text']),
          decimals: z.int().optional(),
          chapter: z.string().optional(),
        }),
      ),
    }),
  ),
  /** Ids by chapter, for cells that hold entries. Entries that only the server knows are empty texts. */
  entries: z.record(z.string(), z.array(z.string())),
  /** What a display may know of the rules, by concept. */
  display: z.record(z.string(), z.unknown()),
});
export type WireSchema = z.infer<typeof wireSchema>;
export { VISIBILITIES };

/** Whether any row of a column may be told to a seat at all. */
export function mayBeSeen(see: ColumnSpec['see']): boolean {
  return typeof see === 'string' ? see !== 'server' : see.of.some((v) => v !== 'server');
}

/** The tables that are told to somebody, with the numbers they go by. One without columns has nothing to tell. */
export function toldTables(rules: Rules): readonly { readonly index: number; readonly spec: TableSpec }[] {
  return rules.tables.map((spec, index) => ({ index, spec })).filter(({ spec }) => !spec.hidden && spec.columns.length > 0);
}

/** A table as it is told. */
function wireTable({ index, spec }: ReturnType<typeof toldTables>[number], truth: boolean): WireSchema['tables'][number] {
  return {
    table: index,
    name: spec.name,
    ...(spec.extends === undefined ? {} : { extends: spec.extends }),
    ...(spec.owner === undefined ? {} : { owner: spec.owner }),
    columns: spec.columns
      .map((column, i) => ({ column: i, spec: column }))
      .filter(({ spec: c }) => truth || mayBeSeen(c.see))
      .map(({ column, spec: c }) => ({
        column,
        name: c.name,
        kind: c.kind,
        ...(c.kind === 'number' ? { decimals: c.decimals ?? 1 } : {}),
        ...(c.chapter === undefined ? {} : { chapter: c.chapter }),
      })),
  };
}

/** The chapters whose entries stand in columns that are told. */
const chaptersIn = (specs: readonly TableSpec[], truth: boolean): readonly string[] => [
  ...new Set(
    specs.flatMap(({ columns }) =>
      columns.flatMap(({ chapter, see }) => (chapter === undefined || !(truth || mayBeSeen(see)) ? [] : [chapter])),
    ),
  ),
];

const wireEntries = (rules: Rules, chapter: string, truth: boolean): readonly string[] =>
  (rules.chapters.get(chapter)?.entries ?? []).map((entry) => (!truth && isUnknown(rules, chapter, entry) ? '' : entry.id));

const displaying = (rules: Rules) => rules.registry.concepts.filter(({ display }) => display);

function displayOf(rules: Rules, id: string): unknown {
  const concept = rules.registry.concepts.find((one) => one.id === id);
  return concept?.display?.(rules.compiled.get(id) as never, rules);
}

/**
 * What a seat's copy is told at the door, or, with `truth`, what somebody who may see everything is told.
 * @public
 */
export function wireSchemaOf(rules: Rules, truth = false): WireSchema {
  const told = toldTables(rules);
  const chapters = chaptersIn(
    told.map(({ spec }) => spec),
    truth,
  );
  return {
    tickRate: rules.tickRate,
    tables: told.map((table) => wireTable(table, truth)).filter(({ columns }) => columns.length > 0),
    entries: Object.fromEntries(chapters.map((chapter) => [chapter, [...wireEntries(rules, chapter, truth)]])),
    display: Object.fromEntries(displaying(rules).map(({ id }) => [id, displayOf(rules, id)])),
  };
}

/** A table as it is told, and the chapters whose entries stand in it. */
interface PackedTable {
  readonly bytes: Uint8Array | undefined;
  readonly chapters: readonly string[];
}

/** By their number and by whether all of them is told: an edit leaves most of them as they are. */
const tables = new WeakMap<TableSpec, Map<number, PackedTable>>();

function packedTable(table: ReturnType<typeof toldTables>[number], truth: boolean): PackedTable {
  const known = tables.get(table.spec) ?? new Map<number, PackedTable>();
  tables.set(table.spec, known);
  const key = table.index * 2 + Number(truth);
  let one = known.get(key);
  if (!one) {
    const wire = wireTable(table, truth);
    one = { bytes: wire.columns.length > 0 ? packed(wire) : undefined, chapters: chaptersIn([table.spec], truth) };
    known.set(key, one);
  }
  return one;
}

function sameBytes(one: Uint8Array, other: Uint8Array): boolean {
  if (one.length !== other.length) return false;
  for (let i = 0; i < one.length; i++) if (one[i] !== other[i]) return false;
  return true;
}
const displayBytes = question((rules, id) => packed(displayOf(rules, id)), sameBytes);
const entryBytes = question((rules, chapter) => packed(wireEntries(rules, chapter, false)), sameBytes);

/** The same as bytes (MessagePack): what is told of the tables, entries and concepts that an edit has left as they were is not put together again. */
export function packedSchema(rules: Rules, truth: boolean): Uint8Array {
  const told = toldTables(rules).map((table) => packedTable(table, truth));
  const chapters = [...new Set(told.flatMap((table) => table.chapters))];
  return packedMap([
    ['tickRate', packed(rules.tickRate)],
    ['tables', packedList(told.flatMap(({ bytes }) => bytes ?? []))],
    [
      'entries',
      packedMap(chapters.map((chapter) => [chapter, truth ? packed(wireEntries(rules, chapter, true)) : entryBytes(rules, chapter)])),
    ],
    ['display', packedMap(displaying(rules).map(({ id }) => [id, displayBytes(rules, id)]))],
  ]);
}
