import { stringify } from 'csv-stringify/browser/esm/sync';
import { ROLLED } from './schema.js';
import { readRuleset } from '../../ruleset/compile.js';
import { ID_PATTERN } from '../../ruleset/fields.js';
import { pointer } from '../../ruleset/problem.js';
import { didYouMean } from '../../ruleset/suggest.js';
import { amountCell, amountOf, type Line as TableLine, linesOf, replaced } from '../../workbench/lines.js';
import type { TableProblem, TableReading } from '../../workbench/table.js';

type Document = { readonly [section: string]: unknown };
type Json = { readonly id: string; readonly [field: string]: unknown };
interface TableJson extends Json {
  readonly label: string;
  readonly always?: readonly Json[];
  readonly entries?: readonly Json[];
}

const COLUMNS = ['table', 'title', 'rolled', 'rolls', 'putBack', 'entry', 'name', 'weight', 'kind', 'what', 'quantity', 'if'] as const;
type Name = (typeof COLUMNS)[number];
type Line = TableLine<Name>;
/** What a line can give, as its kind says; nothing where the kind is empty. */
const KINDS = ['pickup', 'gives', 'effect', 'ability', 'table'] as const;
const ALWAYS = 'always';

/** The loot tables of a document as CSV (RFC 4180): a line for each entry; what is always there has `always` for a weight. */
export function lootToCsv(document: Document): string {
  const list = (document['loot'] as readonly TableJson[] | undefined) ?? [];
  const lines = list.flatMap((table) =>
    [
      ...(table.always ?? []).map((one) => ({ one, weight: ALWAYS })),
      ...(table.entries ?? []).map((one) => ({ one, weight: String(one['weight']) })),
    ].map(({ one, weight }, i) => {
      const kind = KINDS.find((name) => one[name] !== undefined) ?? '';
      const first = i === 0;
      return [
        table.id,
        first ? table.label : '',
        first ? String(table['rolled'] ?? '') : '',
        first ? amountCell(table['rolls']) : '',
        first && table['withoutReplacement'] === true ? 'no' : '',
        one.id,
        String(one['label'] ?? ''),
        weight,
        kind,
        kind === '' ? '' : String(one[kind]),
        amountCell(one['quantity']),
        String(one['if'] ?? ''),
      ];
    }),
  );
  return stringify([[...COLUMNS], ...lines], { record_delimiter: '\r\n' });
}

/**
 * Reads loot tables from CSV into an edit of a document. A table that is there keeps what the file has no column for: its
 * streak breaker, and what happens besides. Nothing is taken unless all of it is sound.
 */
export function lootFromCsv(text: string, document: Document): TableReading {
  const { lines, found, say } = linesOf(text, COLUMNS, ['table', 'entry', 'weight'], 'an entry');
  for (const line of lines) checkLine(line, say);
  if (found.length > 0) return { problems: found };
  const list = (document['loot'] as readonly TableJson[] | undefined) ?? [];
  const ids = [...new Set(lines.map(({ cells }) => cells.table))];
  const read = ids.map((id) =>
    tableOf(
      id,
      lines.filter(({ cells }) => cells.table === id),
      list.find((table) => table.id === id),
    ),
  );
  const { after, changed, added } = replaced(list, read);
  const unsound = readRuleset({ ...document, loot: after }).problems;
  if (unsound.length > 0) return { problems: unsound.map(({ path, message }) => placed(path, message, after, lines)) };
  const had = Array.isArray(document['loot']);
  const patch = changed + added === 0 ? [] : [{ op: had ? ('replace' as const) : ('add' as const), path: pointer(['loot']), value: after }];
  return { patch, changed, added, problems: [] };
}

function checkLine(line: Line, say: (line: Line, name: Name, message: string) => void): void {
  const { cells } = line;
  for (const name of ['table', 'entry'] as const)
    if (!ID_PATTERN.test(cells[name]))
      say(line, name, `An id is expected: a small letter, then letters and digits. This is ${cells[name] || 'empty'}.`);
  if (cells.weight === '') say(line, 'weight', `A weight is expected, or the word ${ALWAYS}.`);
  if (cells.rolled !== '' && !(ROLLED as readonly string[]).includes(cells.rolled))
    say(line, 'rolled', `One of ${ROLLED.join(', ')} is expected.${didYouMean(cells.rolled, ROLLED)}`);
  if (cells.kind !== '' && !(KINDS as readonly string[]).includes(cells.kind))
    say(line, 'kind', `One of ${KINDS.join(', ')}, or nothing, is expected.${didYouMean(cells.kind, KINDS)}`);
  if ((cells.kind === '') !== (cells.what === ''))
    say(line, 'what', cells.kind === '' ? 'Say under kind what this is.' : 'Say what it gives.');
  if (!['', 'yes', 'no'].includes(cells.putBack.toLowerCase())) say(line, 'putBack', `yes or no is expected. This is ${cells.putBack}.`);
}

function entryOf({ cells }: Line, before: Json | undefined): Json {
  const kept = Object.fromEntries(Object.entries(before ?? {}).filter(([field]) => field === 'then'));
  const [weight, quantity] = [amountOf(cells.weight), amountOf(cells.quantity)];
  return {
    id: cells.entry,
    ...(cells.name !== '' && { label: cells.name }),
    ...(cells.weight !== ALWAYS && { weight }),
    ...(cells.kind !== '' && { [cells.kind]: cells.what }),
    ...(quantity !== undefined && { quantity }),
    ...(cells.if !== '' && { if: cells.if }),
    ...kept,
  };
}

function tableOf(id: string, own: readonly Line[], before: TableJson | undefined): TableJson {
  const said = (name: Name) => own.map(({ cells }) => cells[name]).find((cell) => cell !== '');
  const old = [...(before?.always ?? []), ...(before?.entries ?? [])];
  const entries = (always: boolean) =>
    own
      .filter(({ cells }) => (cells.weight === ALWAYS) === always)
      .map((line) =>
        entryOf(
          line,
          old.find((one) => one.id === line.cells.entry),
        ),
      );
  const [always, drawn, rolls, rolled] = [entries(true), entries(false), amountOf(said('rolls') ?? ''), said('rolled')];
  const {
    rolls: _rolls,
    rolled: _rolled,
    withoutReplacement: _without,
    always: _always,
    entries: _entries,
    ...rest
  } = (before ?? {}) as TableJson;
  return {
    ...rest,
    id,
    label: said('title') ?? before?.label ?? id,
    ...(rolled !== undefined && { rolled }),
    ...(rolls !== undefined && { rolls }),
    ...(said('putBack')?.toLowerCase() === 'no' && { withoutReplacement: true }),
    ...(always.length > 0 && { always }),
    ...(drawn.length > 0 && { entries: drawn }),
  };
}

/** A problem of the document as one of the file: at the line of its entry, where it has one. */
function placed(path: string, message: string, tables: readonly TableJson[], lines: readonly Line[]): TableProblem {
  const [, chapter, t, list, k] = path.split('/');
  const table = chapter === 'loot' ? tables[Number(t)] : undefined;
  const entry = (list === 'always' || list === 'entries') && table ? table[list]?.[Number(k)] : undefined;
  const line = lines.find(({ cells }) => table && cells.table === table.id && (!entry || cells.entry === entry.id));
  return { line: line?.number ?? 1, column: 1, name: path, message };
}
