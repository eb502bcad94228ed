/** The table of a check, as it is written. */
export interface TableJson {
  readonly columns: readonly string[];
  readonly rows: readonly (readonly (number | string)[])[];
}

const NUMBER = /^-?\d+(?:[.,]\d+)?$/;
const NAME = /^[A-Za-z][A-Za-z0-9 _-]*$/;

/** A cell as a number where it is one, written with a comma in some places. */
function cellOf(text: string): number | string {
  const plain = text.trim();
  return NUMBER.test(plain) ? Number(plain.replace(',', '.')) : plain;
}

/** A name for a column: what stands above it, in letters and digits. */
const columnOf = (text: string): string =>
  text
    .trim()
    .split(/[^A-Za-z0-9]+/)
    .filter(Boolean)
    .map((word, i) => (i === 0 ? word.charAt(0).toLowerCase() + word.slice(1) : word.charAt(0).toUpperCase() + word.slice(1)))
    .join('')
    .slice(0, 32);

/**
 * A table with cells put in at a place, as spreadsheets copy them: lines of cells with tabs between. It grows as far as they
 * need. A first line of names is that of the columns; from the first column on, it is a table that takes the place of the old one.
 * @param at the first cell that they are put in; row -1 is the line of names
 */
export function pastedInto(table: TableJson, at: { readonly row: number; readonly column: number }, text: string): TableJson {
  const lines = text
    .replace(/\r\n?/g, '\n')
    .replace(/\n+$/, '')
    .split('\n')
    .map((line) => line.split('\t'));
  const named = (lines.length > 1 || at.row < 0) && lines[0].every((cell) => NAME.test(cell.trim()));
  const cells = named ? lines.slice(1) : lines;
  // With names above them they are a table of their own.
  const whole = named && at.column === 0;
  const columns = whole ? [] : [...table.columns];
  const width = Math.max(...lines.map((line) => line.length)) + at.column;
  while (columns.length < width) columns.push(`column${columns.length + 1}`);
  if (named)
    lines[0].forEach((name, i) => {
      const column = columnOf(name);
      if (column !== '' && !columns.some((other, k) => k !== at.column + i && other === column)) columns[at.column + i] = column;
    });
  const first = Math.max(0, at.row);
  const rows = whole ? [] : table.rows.map((row) => [...row]);
  while (rows.length < first + cells.length) rows.push(columns.map(() => 0));
  cells.forEach((line, i) => line.forEach((cell, k) => (rows[first + i][at.column + k] = cellOf(cell))));
  return { columns, rows: rows.map((row) => columns.map((_, k) => row[k] ?? 0)) };
}
