import { readJson } from '../../ruleset/json-text.js';
import { stringify } from 'csv-stringify/browser/esm/sync';
import { readRuleset } from '../../ruleset/compile.js';
import type { PatchOperation } from '../../ruleset/problem.js';
import { didYouMean } from '../../ruleset/suggest.js';
import { cellsOf, type TableProblem, type TableReading } from '../../workbench/table.js';

export const ARENA_FORMAT = 'eager-ember/arena';

const KINDS = ['pickup', 'actor', 'zone', 'spawner'] as const;
/** Numbers of a placed thing, and those of its fields that are written as JSON. */
const NUMBERS = ['x', 'y', 'radius', 'width', 'height'] as const;
const PARTS = ['points', 'along', 'with'] as const;
const COLUMNS = ['kind', 'entry', 'id', 'team', ...NUMBERS, ...PARTS] as const;
type Column = (typeof COLUMNS)[number];

type Document = { readonly [section: string]: unknown };
interface Arena {
  readonly placed?: readonly Readonly<Record<string, unknown>>[];
}
const arenaOf = (document: Document) => (document['arena'] ?? {}) as Arena;

/** A document's arena as JSON: its size, walls, start points and placed things. */
export function arenaToJson(document: Document): string {
  return `${JSON.stringify({ format: ARENA_FORMAT, version: 1, arena: arenaOf(document) }, null, 2)}\n`;
}

/** Reads an arena from JSON into an edit that puts it in the place of the document's. Nothing is taken unless all of it is sound. */
export function arenaFromJson(text: string, document: Document): TableReading {
  const { value: read, wrong } = { value: undefined, ...readJson(text) };
  if (wrong) return { problems: [{ ...wrong, name: '', message: `This is not JSON: ${wrong.message}.` }] };
  const { format, version, arena } = (typeof read === 'object' && read !== null ? read : {}) as Record<string, unknown>;
  if (format !== ARENA_FORMAT || version !== 1)
    return { problems: [{ line: 1, column: 1, name: 'format', message: `An arena says "format": "${ARENA_FORMAT}", "version": 1.` }] };
  return sound(document, arena, (path) => ({ line: 1, name: path || '/' }));
}

/** The placed things of a document as CSV (RFC 4180): a line for each. */
export function placedToCsv(document: Document): string {
  const lines = (arenaOf(document).placed ?? []).map((thing) => {
    const kind = KINDS.find((one) => one in thing)!;
    const parts = PARTS.map((part) => (thing[part] === undefined ? '' : JSON.stringify(thing[part])));
    return [kind, thing[kind], thing['id'], thing['team'], ...NUMBERS.map((name) => thing[name]), ...parts].map((cell) => cell ?? '');
  });
  return stringify([[...COLUMNS], ...lines], { record_delimiter: '\r\n' });
}

/**
 * Reads placed things from CSV into an edit that puts them in the place of the document's; walls and start points stay.
 * Nothing is taken unless all of it is sound.
 */
export function placedFromCsv(text: string, document: Document): TableReading {
  const { rows, problems } = cellsOf(text);
  if (problems.length > 0) return { problems };
  const header = rows[0].map((name) => name.trim());
  const wrong = header.flatMap((name, i): TableProblem[] => {
    if (!(COLUMNS as readonly string[]).includes(name))
      return [{ line: 1, column: i + 1, name, message: `No column is called ${name || '""'}.${didYouMean(name, COLUMNS)}` }];
    return header.indexOf(name) < i ? [{ line: 1, column: i + 1, name, message: `${name} stands here a second time.` }] : [];
  });
  for (const needed of ['kind', 'entry', 'x', 'y'] as const)
    if (!header.includes(needed)) wrong.push({ line: 1, column: 1, name: '', message: `There is no column ${needed}.` });
  if (wrong.length > 0) return { problems: wrong };
  const found: TableProblem[] = [];
  const placed = rows.slice(1).map((cells, i) => thingOf(cells, header, i + 2, found));
  if (found.length > 0) return { problems: found };
  return sound(document, { ...arenaOf(document), placed }, (path) => {
    const [, index, field = ''] = /^\/placed\/(\d+)\/?(.*)$/.exec(path) ?? [];
    return { line: index === undefined ? 1 : Number(index) + 2, name: field };
  });
}

function thingOf(cells: readonly string[], header: readonly string[], line: number, found: TableProblem[]): Record<string, unknown> {
  const cell = (name: Column) => cells[header.indexOf(name)]?.trim() ?? '';
  const say = (name: Column, message: string) => void found.push({ line, column: header.indexOf(name) + 1, name, message });
  const kind = cell('kind');
  if (!(KINDS as readonly string[]).includes(kind)) say('kind', `One of ${KINDS.join(', ')} is expected.`);
  const thing: Record<string, unknown> = { ...(cell('id') !== '' && { id: cell('id') }), [kind]: cell('entry') };
  if (cell('team') !== '') thing['team'] = cell('team');
  for (const name of NUMBERS) {
    if (cell(name) === '') continue;
    const value = Number(cell(name));
    if (Number.isFinite(value)) thing[name] = value;
    else say(name, `A number is expected. This is ${cell(name)}.`);
  }
  for (const name of PARTS) {
    if (cell(name) === '') continue;
    try {
      thing[name] = JSON.parse(cell(name));
    } catch {
      say(name, 'This is not JSON.');
    }
  }
  return thing;
}

/** An edit that puts an arena into a document, or what is wrong with it there. `where` says which line a path belongs to. */
function sound(document: Document, arena: unknown, where: (path: string) => { line: number; name: string }): TableReading {
  const problems = readRuleset({ ...document, arena }).problems.filter(({ path }) => path.startsWith('/arena'));
  if (problems.length > 0)
    return { problems: problems.map(({ path, message }) => ({ column: 1, message, ...where(path.slice('/arena'.length)) })) };
  const operation: PatchOperation = { op: 'arena' in document ? 'replace' : 'add', path: '/arena', value: arena };
  const before = arenaOf(document).placed?.length ?? 0;
  const after = (arena as Arena).placed?.length ?? 0;
  return { problems: [], patch: [operation], changed: Math.min(before, after), added: Math.max(0, after - before) };
}
