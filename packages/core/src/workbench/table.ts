import { parse } from 'csv-parse/browser/esm/sync';
import type { PatchOperation } from '../ruleset/problem.js';

/** What is wrong in a table. Lines and columns count from 1; the first line holds the names of the columns. */
export interface TableProblem {
  readonly line: number;
  readonly column: number;
  readonly name: string;
  readonly message: string;
}

export type TableReading =
  | { readonly patch: readonly PatchOperation[]; readonly changed: number; readonly added: number; readonly problems: readonly [] }
  | { readonly patch?: undefined; readonly problems: readonly TableProblem[] };

/** Largest table that is read. */
const MOST_LINES = 2001;

/** The cells of a CSV text, all lines as long as the first, or what is wrong with it. */
export function cellsOf(text: string): { rows: readonly (readonly string[])[]; problems: readonly TableProblem[] } {
  const problem = (line: number, message: string, column = 1) => ({ rows: [], problems: [{ line, column, name: '', message }] });
  try {
    const rows = parse(text, { bom: true, skip_empty_lines: true, relax_column_count: true }) as string[][];
    if (rows.length === 0) return problem(1, 'The table is empty: its first line names the columns.');
    if (rows.length > MOST_LINES) return problem(MOST_LINES + 1, `A table has at most ${MOST_LINES} lines.`);
    const odd = rows.findIndex((row) => row.length !== rows[0].length);
    if (odd >= 0)
      return problem(
        odd + 1,
        `This line has ${rows[odd].length} cells; the first has ${rows[0].length}.`,
        Math.min(rows[odd].length, rows[0].length) + 1,
      );
    return { rows, problems: [] };
  } catch (error) {
    const { lines, column, code } = error as { lines?: number; column?: number; code?: string };
    const words =
      code === 'CSV_QUOTE_NOT_CLOSED' ? 'A quote is opened and not closed.' : 'This is not CSV (RFC 4180): a quote stands where none may.';
    return problem(lines ?? 1, words, typeof column === 'number' ? column + 1 : 1);
  }
}
