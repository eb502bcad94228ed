import { type Path, pointer, type Problem } from '../ruleset/problem.js';
import type { Rules } from '../ruleset/rules.js';
import { ACTORS } from './actors.js';
import { savedPlayer, type SavedPlayer } from './saved.js';
import { columnCalled, type ColumnSpec, type TableSpec } from './columns.js';

/** One value of what is kept of a player. */
export interface SavedValue {
  readonly table: string;
  readonly column: string;
  readonly label: string;
  readonly value: number | string;
  /** What the number means, where it stands for a word. */
  readonly words?: readonly string[];
  readonly range?: readonly [number, number];
  readonly whole: boolean;
}

/** What is kept of a player, to be read: a part for each table, and one for what the rules have no place for. */
export interface SavedSheet {
  readonly parts: readonly { readonly table: string; readonly title: string; readonly values: readonly SavedValue[] }[];
  readonly unplaced: readonly { readonly table: string; readonly column: string; readonly value: number | string }[];
}

export const savingTables = (rules: Rules): readonly TableSpec[] =>
  rules.tables.filter(({ columns }) => columns.some(({ saved }) => saved));
export const titleOf = ({ title, name }: TableSpec) => title ?? name;
export const columnLabelOf = ({ label, name }: ColumnSpec) => label ?? name;

/** What is kept of a player, in words, in the order of the rules. */
export function sheetOf(rules: Rules, saved: SavedPlayer): SavedSheet {
  const tables = savingTables(rules);
  const parts = tables.map((table) => ({
    table: table.name,
    title: titleOf(table),
    values: table.columns
      .filter((column) => column.saved)
      .flatMap((column): SavedValue[] => {
        const cells = saved[table.name] ?? {};
        const names = [column.name, ...[...(column.formerly ?? [])].reverse()];
        const value = names.map((name) => cells[name]).find((cell) => cell !== undefined);
        if (value === undefined) return [];
        return [
          {
            table: table.name,
            column: column.name,
            label: columnLabelOf(column),
            value,
            whole: column.kind !== 'number',
            ...(column.words && { words: column.words }),
            ...(column.range && { range: column.range }),
          },
        ];
      }),
  }));
  const unplaced = Object.entries(saved).flatMap(([name, cells]) => {
    const columns = tables.find((table) => table.name === name)?.columns ?? [];
    return Object.entries(cells)
      .filter(([column]) => columnCalled(columns, column)?.saved !== true)
      .map(([column, value]) => ({ table: name, column, value }));
  });
  return { parts: parts.filter(({ values }) => values.length > 0), unplaced };
}

/**
 * What is wrong with something that is said to be kept of a player. What was kept in earnest has values of the right kind;
 * what comes from elsewhere has to be within what the rules give as well.
 * @param strict whether amounts, ranks and the like are looked at too: an edit of the rules may put them out of range by right
 */
export function savedProblems(rules: Rules, value: unknown, strict = false): readonly Problem[] {
  const read = savedPlayer.safeParse(value);
  if (!read.success) return read.error.issues.map(({ path, message }) => ({ path: pointer(path as Path), message }));
  const saved = read.data;
  const problems = savingTables(rules).flatMap((table) =>
    Object.entries(saved[table.name] ?? {}).flatMap(([name, cell]): Problem[] => {
      const column = columnCalled(table.columns, name);
      const says = column?.saved ? wrongWith(column, cell, strict) : undefined;
      return says === undefined ? [] : [{ path: pointer([table.name, name]), message: `${columnLabelOf(column!)}: ${says}` }];
    }),
  );
  if (!strict || problems.length > 0) return problems;
  return rules.registry.concepts.flatMap((concept) => concept.checkSaved?.(rules.compiled.get(concept.id) as never, saved, rules) ?? []);
}

function wrongWith({ kind, range, words }: ColumnSpec, cell: number | string, strict: boolean): string | undefined {
  if (kind === 'entry') return typeof cell === 'string' ? undefined : 'an id is expected.';
  if (typeof cell !== 'number' || !Number.isFinite(cell)) return `a number is expected, and this is ${JSON.stringify(cell)}.`;
  if (kind !== 'number' && !Number.isInteger(cell)) return `a whole number is expected, and this is ${cell}.`;
  if (kind === 'flag' && cell !== 0 && cell !== 1) return `0 or 1 is expected, and this is ${cell}.`;
  if (!strict) return undefined;
  if (words && (cell < 0 || cell >= words.length))
    return `one of ${words.join(', ')} is expected: 0 to ${words.length - 1}, and this is ${cell}.`;
  if (range && (cell < range[0] || cell > range[1])) return `${range[0]} to ${range[1]} is expected, and this is ${cell}.`;
  return undefined;
}

/** The sections of a ruleset that what is kept of players depends on. */
export function savedSections(rules: Rules): ReadonlySet<string> {
  const keeps = rules.registry.concepts.filter((concept) => {
    const tables = concept.tables?.(rules.compiled.get(concept.id) as never, rules) ?? [];
    return tables.some(({ columns }) => columns.some(({ saved }) => saved));
  });
  return new Set([ACTORS, ...keeps.flatMap((concept) => Object.keys(concept.sections ?? {}))]);
}
