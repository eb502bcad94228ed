import { stringify } from 'csv-stringify/browser/esm/sync';
import { z } from 'zod';
import { readRuleset } from '../../ruleset/compile.js';
import { pointer, type PatchOperation } from '../../ruleset/problem.js';
import { didYouMean } from '../../ruleset/suggest.js';
import { cellsOf, type TableProblem, type TableReading } from '../../workbench/table.js';

type Entry = Record<string, unknown>;

/** How a cell is written and read. */
interface Field {
  readonly column: string;
  /** Where it stands below an entry. */
  readonly path: readonly string[];
  readonly kind: 'text' | 'amount' | 'number' | 'flag';
}

const field = (column: string, kind: Field['kind'], ...path: string[]): Field => ({
  column,
  kind,
  path: path.length > 0 ? path : [column],
});

/** The columns of an attribute table, in the order in which they are written. */
export const ATTRIBUTE_COLUMNS: readonly Field[] = [
  field('id', 'text'),
  field('label', 'text'),
  field('kind', 'text'),
  field('start', 'amount'),
  field('min', 'amount'),
  field('max', 'amount'),
  field('follow', 'text'),
  field('whole', 'flag'),
  field('refill', 'amount', 'refill', 'rate'),
  field('every', 'text', 'refill', 'every'),
  field('pause', 'text', 'refill', 'pause'),
  field('while', 'text', 'refill', 'while'),
  field('taken', 'amount'),
  field('see', 'text'),
  field('decimals', 'number'),
  field('unit', 'text'),
  field('colour', 'text'),
  field('icon', 'text'),
  field('group', 'text'),
  field('saved', 'flag'),
  field('note', 'text'),
];

const NUMBER = /^-?\d+(\.\d+)?$/;

function written(value: unknown): string {
  if (value === undefined) return '';
  if (typeof value === 'object' && value !== null) return JSON.stringify(value);
  return String(value);
}

const at = (entry: Entry, path: readonly string[]) => path.reduce<unknown>((v, key) => (v as Entry | undefined)?.[key], entry);

/** A document's attributes as CSV (RFC 4180), a line each. What a table has no column for, such as thresholds, stays in the document. */
export function attributesToCsv(document: { readonly [section: string]: unknown }): string {
  const entries = (document['attributes'] as readonly Entry[] | undefined) ?? [];
  const lines = entries.map((entry) => ATTRIBUTE_COLUMNS.map(({ path }) => written(at(entry, path))));
  return stringify([ATTRIBUTE_COLUMNS.map(({ column }) => column), ...lines], { record_delimiter: '\r\n' });
}

/**
 * Reads a table of attributes into an edit of a document: lines with a known id change that entry, others add one, entries
 * that the table does not name stay. Columns may come in any order and be left out; an empty cell takes the field out.
 * Nothing is taken unless all of it is sound.
 */
export function attributesFromCsv(text: string, document: { readonly [section: string]: unknown }): TableReading {
  const { rows, problems } = cellsOf(text);
  if (problems.length > 0) return { problems };
  const header = rows[0] ?? [];
  const fields = header.map((name) => ATTRIBUTE_COLUMNS.find(({ column }) => column === name.trim()));
  const wrong = headerProblems(header, fields);
  if (wrong.length > 0) return { problems: wrong };
  const before = (document['attributes'] as readonly Entry[] | undefined) ?? [];
  const after: Entry[] = structuredClone([...before]);
  const lineOf = new Map<number, number>();
  const found: TableProblem[] = [];
  const idColumn = fields.findIndex((f) => f?.column === 'id');
  rows.slice(1).forEach((cells, i) => {
    const line = i + 2;
    const id = cells[idColumn].trim();
    const say = (column: number, message: string) => found.push({ line, column: column + 1, name: header[column], message });
    if (id === '') return void say(idColumn, 'This is empty: every line names the attribute that it is about.');
    let index = after.findIndex((entry) => entry['id'] === id);
    if (index >= 0 && lineOf.has(index)) return void say(idColumn, `${id} stands in line ${lineOf.get(index)} already.`);
    if (index < 0) index = after.push({ id }) - 1;
    lineOf.set(index, line);
    cells.forEach((cell, column) => {
      const { value, error } = read(cell, fields[column]!);
      if (error === undefined) put(after[index], fields[column]!.path, value);
      else say(column, error);
    });
  });
  // What could be read is looked at as well: all mistakes are told at once.
  const checked = readRuleset({ ...document, attributes: after });
  const others = checked.problems.map((problem) => placed(problem, header, fields, lineOf));
  const known = new Set(found.map((problem) => `${problem.line}:${problem.column}`));
  const all = [...found, ...others.filter((problem) => !known.has(`${problem.line}:${problem.column}`))];
  if (all.length > 0) return { problems: all.sort((a, b) => a.line - b.line || a.column - b.column) };
  const patch = after.flatMap((entry, i): PatchOperation[] =>
    i >= before.length
      ? [{ op: 'add', path: '/attributes/-', value: entry }]
      : JSON.stringify(entry) === JSON.stringify(before[i])
        ? []
        : [{ op: 'replace', path: pointer(['attributes', i]), value: entry }],
  );
  const added = after.length - before.length;
  const begins: PatchOperation[] = document['attributes'] === undefined ? [{ op: 'add', path: '/attributes', value: [] }] : [];
  return { patch: patch.length > 0 ? [...begins, ...patch] : [], changed: patch.length - added, added, problems: [] };
}

function headerProblems(header: readonly string[], fields: readonly (Field | undefined)[]): readonly TableProblem[] {
  const known = ATTRIBUTE_COLUMNS.map(({ column }) => column);
  const problems = header.flatMap((name, i): TableProblem[] => {
    const say = (message: string) => [{ line: 1, column: i + 1, name, message }];
    if (!fields[i]) return say(`No column is called ${name.trim() || '""'}.${didYouMean(name.trim(), known)}`);
    return header.findIndex((other) => other.trim() === name.trim()) < i ? say(`${name} stands here a second time.`) : [];
  });
  if (!fields.some((f) => f?.column === 'id'))
    problems.push({ line: 1, column: 1, name: '', message: 'There is no column id: it says which attribute a line is about.' });
  return problems;
}

function read(cell: string, { kind }: Field): { value?: unknown; error?: string } {
  const plain = cell.trim();
  if (plain === '') return {};
  if (kind === 'flag') {
    if (plain === 'true' || plain === 'yes') return { value: true };
    return plain === 'false' || plain === 'no' ? { value: false } : { error: 'true or false is expected.' };
  }
  if (kind === 'number') return NUMBER.test(plain) ? { value: Number(plain) } : { error: 'A number is expected, such as 2.' };
  if (kind === 'text') return { value: plain };
  if (NUMBER.test(plain)) return { value: Number(plain) };
  if (/^-?\d+,\d+$/.test(plain)) return { error: `Write decimals with a point: ${plain.replace(',', '.')}.` };
  if (!plain.startsWith('{')) return { value: plain };
  try {
    return { value: z.record(z.string(), z.unknown()).parse(JSON.parse(plain)) };
  } catch {
    return { error: 'What begins with { is JSON, such as {"share":0.5}; this is not.' };
  }
}

function put(entry: Entry, path: readonly string[], value: unknown): void {
  const [key, ...rest] = path;
  if (rest.length === 0) {
    if (value === undefined) Reflect.deleteProperty(entry, key);
    else entry[key] = value;
    return;
  }
  if (value === undefined && entry[key] === undefined) return;
  const inner = (entry[key] ??= {}) as Entry;
  put(inner, rest, value);
  if (Object.keys(inner).length === 0) Reflect.deleteProperty(entry, key);
}

/** Where in the table a problem of the document lies. */
function placed(
  { path, message }: { path: string; message: string },
  header: readonly string[],
  fields: readonly (Field | undefined)[],
  lineOf: ReadonlyMap<number, number>,
): TableProblem {
  const [, chapter, position, ...rest] = path.split('/');
  const line = chapter === 'attributes' ? lineOf.get(Number(position)) : undefined;
  if (line === undefined) return { line: 1, column: 1, name: '', message: `${path}: ${message}` };
  const column = fields.findIndex((f) => f !== undefined && f.path.join('/') === rest.join('/'));
  const near = column >= 0 ? column : fields.findIndex((f) => f?.path[0] === rest[0]);
  const missing = near < 0 && rest.length > 0;
  return {
    line,
    column: Math.max(0, near) + 1,
    name: header[Math.max(0, near)],
    message: missing ? `${rest.join(' ')}: ${message}` : message,
  };
}
