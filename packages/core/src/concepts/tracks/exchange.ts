import { stringify } from 'csv-stringify/browser/esm/sync';
import { readRuleset } from '../../ruleset/compile.js';
import { cellsOf, type TableProblem, type TableReading } from '../../workbench/table.js';

type Document = { readonly [section: string]: unknown };
type Track = { readonly id: string; readonly levels?: number; readonly [field: string]: unknown };

/** A track's table as CSV (RFC 4180): a line for each level but the last, with what it takes to get to the next. */
export function levelsToCsv(rows: readonly { readonly level: number; readonly need: number; readonly total: number }[]): string {
  const lines = rows.slice(0, -1).map(({ level, need, total }) => [String(level), String(need), String(total + need)]);
  return stringify([['level', 'needs', 'total'], ...lines], { record_delimiter: '\r\n' });
}

/**
 * Reads the table of a track from CSV into an edit of a document: the columns are level and needs, the levels 1, 2, 3 … in
 * order. The track then has one level more than the table has lines. Nothing is taken unless all of it is sound.
 */
export function levelsFromCsv(text: string, document: Document, id: string): TableReading {
  const { rows, problems } = cellsOf(text);
  if (problems.length > 0) return { problems };
  const header = rows[0].map((name) => name.trim().toLowerCase());
  const missing = ['level', 'needs'].filter((name) => !header.includes(name));
  if (missing.length > 0)
    return { problems: missing.map((name) => ({ line: 1, column: 1, name, message: `There is no column ${name}.` })) };
  const found: TableProblem[] = [];
  const needs = rows.slice(1).map((cells, i) => {
    const cell = (name: string) => cells[header.indexOf(name)]?.trim() ?? '';
    const say = (name: string, message: string) => void found.push({ line: i + 2, column: header.indexOf(name) + 1, name, message });
    if (Number(cell('level')) !== i + 1)
      say('level', `Level ${i + 1} is expected here: the lines go from 1 upwards. This is ${cell('level') || 'empty'}.`);
    const need = Number(cell('needs'));
    if (cell('needs') === '' || !Number.isFinite(need) || need <= 0) say('needs', 'A number above 0 is expected.');
    return need;
  });
  if (needs.length === 0) found.push({ line: 2, column: 1, name: '', message: 'There is no line with a level.' });
  if (found.length > 0) return { problems: found };
  const list = (document['tracks'] as readonly Track[] | undefined) ?? [];
  const index = list.findIndex((track) => track.id === id);
  if (index < 0) return { problems: [{ line: 1, column: 1, name: '', message: `There is no track ${id}.` }] };
  const track = { ...list[index], levels: needs.length + 1, needs };
  const after = list.map((one, i) => (i === index ? track : one));
  const unsound = readRuleset({ ...document, tracks: after }).problems;
  if (unsound.length > 0) return { problems: unsound.map(({ path, message }) => ({ line: 1, column: 1, name: path, message })) };
  const same = JSON.stringify(list[index]) === JSON.stringify(track);
  return { patch: same ? [] : [{ op: 'replace', path: `/tracks/${index}`, value: track }], changed: same ? 0 : 1, added: 0, problems: [] };
}
