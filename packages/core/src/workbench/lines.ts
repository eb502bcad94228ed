import { didYouMean } from '../ruleset/suggest.js';
import { cellsOf, type TableProblem } from './table.js';

/** A line of a table: its number in the file, the first being the one with the names, and its cells by column. */
export interface Line<Name extends string> {
  readonly number: number;
  readonly cells: Readonly<Record<Name, string>>;
}

export interface Lines<Name extends string> {
  readonly lines: readonly Line<Name>[];
  /** What is wrong so far; more is added by {@link Lines.say}. */
  readonly found: TableProblem[];
  readonly say: (line: Line<Name>, name: Name, message: string) => void;
}

/** Reads the lines of a CSV table whose first names its columns, in any order. Cells of columns that are left out are empty. */
export function linesOf<Name extends string>(text: string, columns: readonly Name[], needed: readonly Name[], what: string): Lines<Name> {
  const { rows, problems } = cellsOf(text);
  const found: TableProblem[] = [...problems];
  if (problems.length > 0) return { lines: [], found, say: () => undefined };
  const header = rows[0].map((name) => name.trim());
  const column = (name: string) => header.indexOf(name) + 1;
  for (const name of needed) if (column(name) === 0) found.push({ line: 1, column: 1, name, message: `There is no column ${name}.` });
  header.forEach((name, i) => {
    if (!(columns as readonly string[]).includes(name))
      found.push({ line: 1, column: i + 1, name, message: `No column is called ${name}.${didYouMean(name, columns)}` });
  });
  const lines = rows.slice(1).map((cells, i): Line<Name> => ({
    number: i + 2,
    cells: Object.fromEntries(columns.map((name) => [name, cells[header.indexOf(name)]?.trim() ?? ''])) as Record<Name, string>,
  }));
  if (lines.length === 0) found.push({ line: 2, column: 1, name: '', message: `There is no line with ${what}.` });
  const say = (line: Line<Name>, name: Name, message: string) =>
    void found.push({ line: line.number, column: Math.max(1, column(name)), name, message });
  return { lines, found, say };
}

const NUMBER = /^-?\d+(\.\d+)?$/;
const RANGE = /^(-?\d+(?:\.\d+)?)\s+to\s+(-?\d+(?:\.\d+)?)$/;

/** An amount as one cell: `3`, `60 * tier`, `1 to 5`. */
export function amountCell(value: unknown): string {
  const range = (value as { random?: readonly [number, number] } | undefined)?.random;
  return range ? `${range[0]} to ${range[1]}` : value === undefined ? '' : String(value);
}

/** Reads such a cell; undefined where it is empty. */
export function amountOf(cell: string): number | string | { readonly random: readonly number[]; readonly whole?: true } | undefined {
  if (cell === '') return undefined;
  if (NUMBER.test(cell)) return Number(cell);
  const range = RANGE.exec(cell);
  if (!range) return cell;
  const random = [Number(range[1]), Number(range[2])];
  return random.every(Number.isInteger) ? { random, whole: true } : { random };
}

/** A whole chapter as a table reads it, as an edit: entries that the table does not name stay, others are replaced or added. */
export function replaced<T extends { readonly id: string }>(
  list: readonly T[],
  read: readonly T[],
): { readonly after: readonly T[]; readonly changed: number; readonly added: number } {
  // What says the same stays as it was written, whatever the order of its fields.
  const now = (one: T) => {
    const said = read.find(({ id }) => id === one.id);
    return said && canonical(said) !== canonical(one) ? said : one;
  };
  const after = [...list.map(now), ...read.filter(({ id }) => !list.some((one) => one.id === id))];
  return { after, changed: list.filter((one) => now(one) !== one).length, added: after.length - list.length };
}

/** A value as text that does not depend on the order of fields. */
function canonical(value: unknown): string {
  return JSON.stringify(value, (_, one: unknown) =>
    typeof one === 'object' && one !== null && !Array.isArray(one)
      ? Object.fromEntries(Object.entries(one).sort(([a], [b]) => (a < b ? -1 : 1)))
      : one,
  );
}
