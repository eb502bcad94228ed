import { didYouMean } from '../../../ruleset/suggest.js';
import { problemsOf } from '../../../ruleset/mismatch.js';
import { columnsIn, wholeColumn, withRow } from '../in-row.js';
import { type CheckEntry, schema } from '../schema.js';
import { Mistake } from './mistake.js';

type Row = Readonly<Record<string, number | string>>;

/** The parts of a check that can speak of what a row has. */
const PARTS = ['changes', 'given', 'stages', 'always'] as const;

/** A row by its columns. @throws Mistake where it has another number of cells */
function rowOf({ each }: CheckEntry, index: number): Row {
  const { columns, rows } = each!;
  const cells = rows[index];
  if (cells.length !== columns.length)
    throw new Mistake(
      `each/rows/${index}`,
      `Row ${index + 1} has ${cells.length} ${cells.length === 1 ? 'cell' : 'cells'}, and the table ${columns.length} ${columns.length === 1 ? 'column' : 'columns'}.`,
    );
  const asking = cells.findIndex((cell) => wholeColumn(cell) !== undefined);
  if (asking >= 0) throw new Mistake(`each/rows/${index}/${asking}`, 'A cell can’t ask for what another has: say it here.');
  return Object.fromEntries(columns.map((name, k) => [name, cells[k]]));
}

/** What came of checks and their rows: they are the same objects as long as no edit touches them. */
const known = new WeakMap<CheckEntry, Map<number, CheckEntry>>();
const NO_ROW: Row = {};

/**
 * A check with what a row has in the place of what it asks of it.
 * @param row which of its rows; none where it has no table
 * @throws Mistake where it asks for a column that there is not
 */
export function filled(entry: CheckEntry, row: number | undefined): CheckEntry {
  const of = known.get(entry) ?? new Map<number, CheckEntry>();
  known.set(entry, of);
  const before = of.get(row ?? 0);
  if (before) return before;
  const now = row === undefined ? filledWith(entry, NO_ROW) : readAgain(filledWith(entry, rowOf(entry, row)), entry, row);
  of.set(row ?? 0, now);
  return now;
}

/** What stands in the places of what a row was asked for has to make sense there. @throws Mistake with the cell that does not */
function readAgain(now: CheckEntry, entry: CheckEntry, row: number): CheckEntry {
  const { data, error } = schema.safeParse(now);
  if (data) return data;
  const [{ path, message }] = problemsOf(error.issues[0], now, schema);
  const at = path.slice(1);
  const cell = placeInTable(entry, at, row);
  if (cell === undefined || cell === at) throw new Mistake(at, `Row ${row + 1} does not fit here: ${message}`);
  const [, , , column] = cell.split('/');
  const { columns, rows } = entry.each!;
  throw new Mistake(cell, `“${rows[row][Number(column)]}” does not fit where row.${columns[Number(column)]} stands: ${message}`);
}

function filledWith(entry: CheckEntry, row: Row): CheckEntry {
  const fill = (value: unknown, path: string): unknown => {
    if (typeof value === 'string') {
      const missing = columnsIn(value).find((name) => !Object.hasOwn(row, name));
      if (missing !== undefined) {
        const columns = Object.keys(row);
        throw new Mistake(
          path,
          columns.length === 0
            ? `There is no table that has a column ${missing}.`
            : `The table has no column ${missing}.${didYouMean(missing, columns)}`,
        );
      }
      return withRow(value, row);
    }
    if (Array.isArray(value)) return value.map((item, i) => fill(item, `${path}/${i}`));
    if (typeof value !== 'object' || value === null) return value;
    return Object.fromEntries(Object.entries(value).map(([key, part]) => [key, fill(part, `${path}/${key}`)]));
  };
  const parts = PARTS.map((key) => [key, entry[key] && fill(entry[key], key)] as const);
  return { ...entry, ...(Object.fromEntries(parts) as Pick<CheckEntry, (typeof PARTS)[number]>) };
}

/** Where what a failure would put right stands: in the table, where the check asks the table for it. */
export function placeInTable(entry: CheckEntry, path: string, row: number): string | undefined {
  const written = path.split('/').reduce<unknown>((value, key) => (value as Readonly<Record<string, unknown>> | undefined)?.[key], entry);
  if (typeof written === 'number' || written === undefined) return path;
  const name = wholeColumn(written);
  const column = name === undefined ? -1 : (entry.each?.columns.indexOf(name) ?? -1);
  return column < 0 ? undefined : `each/rows/${row}/${column}`;
}
