import { z } from 'zod';
import type { Rules } from '../ruleset/rules.js';
import { isUnknown } from '../ruleset/visible.js';
import type { ColumnSpec, TableSpec } from '../world/columns.js';

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

/**
 * What a seat's copy is told at the door, or, with `truth`, what somebody who may see everything is told.
 * @public
 */
export function wireSchemaOf(rules: Rules, truth = false): WireSchema {
  const tables = toldTables(rules)
    .map(({ index, spec }) => ({
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
    }))
    .filter((table) => table.columns.length > 0);
  const chapters = new Set(tables.flatMap((table) => table.columns.flatMap((c) => (c.chapter === undefined ? [] : [c.chapter]))));
  const entries = Object.fromEntries(
    [...chapters].map((chapter) => {
      const { entries: list = [] } = rules.chapters.get(chapter) ?? {};
      return [chapter, list.map((entry) => (!truth && isUnknown(rules, chapter, entry) ? '' : entry.id))];
    }),
  );
  const display = Object.fromEntries(
    rules.registry.concepts.flatMap((c) => (c.display ? [[c.id, c.display(rules.compiled.get(c.id) as never, rules)]] : [])),
  );
  return { tickRate: rules.tickRate, tables, entries, display };
}
