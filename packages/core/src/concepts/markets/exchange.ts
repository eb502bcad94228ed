import { stringify } from 'csv-stringify/browser/esm/sync';
import { readRuleset } from '../../ruleset/compile.js';
import { ID_PATTERN } from '../../ruleset/fields.js';
import { type PatchOperation, pointer } from '../../ruleset/problem.js';
import { didYouMean } from '../../ruleset/suggest.js';
import { amountCell, amountOf, type Line as TableLine, linesOf, replaced } from '../../workbench/lines.js';
import type { TableProblem, TableReading } from '../../workbench/table.js';

type Document = { readonly [section: string]: unknown };
interface Json {
  readonly id: string;
  readonly label: string;
  readonly [field: string]: unknown;
}

const COLUMNS = ['list', 'id', 'title', 'good', 'price', 'least', 'most', 'start', 'step', 'tiers', 'stock', 'upkeep'] as const;
type Name = (typeof COLUMNS)[number];
type Line = TableLine<Name>;
const LISTS = ['market', 'offer'] as const;
const CHAPTER = { market: 'markets', offer: 'offers' } as const;
const NUMBER = /^-?\d+(\.\d+)?$/;

interface GoodJson {
  readonly good: string;
  readonly price: { readonly range?: readonly number[]; readonly walk?: Readonly<Record<'start' | 'step' | 'least' | 'most', number>> };
  readonly [field: string]: unknown;
}

/** The price list of a document as CSV (RFC 4180): a line for each good of a market, and for each thing that an offer costs. */
export function pricesToCsv(document: Document): string {
  const entries = (chapter: string) => (document[chapter] as readonly Json[] | undefined) ?? [];
  const row = (cells: Partial<Record<Name, unknown>>) => COLUMNS.map((name) => amountCell(cells[name]));
  const goods = entries('markets').flatMap(({ id, label, goods: list }) =>
    ((list as readonly GoodJson[] | undefined) ?? []).map(({ good, price: { range, walk } }, i) =>
      row({
        list: 'market',
        id,
        title: i === 0 ? label : '',
        good,
        least: range?.[0] ?? walk?.least,
        most: range?.[1] ?? walk?.most,
        start: walk?.start,
        step: walk?.step,
      }),
    ),
  );
  const offers = entries('offers').flatMap(({ id, label, costs, tiers, stock, upkeep }) => {
    const list = (costs as readonly { attribute: string; amount: unknown }[] | undefined) ?? [];
    const first = { title: label, tiers, stock, upkeep };
    return (list.length > 0 ? list : [undefined]).map((cost, i) =>
      row({ list: 'offer', id, ...(i === 0 && first), good: cost?.attribute, price: cost?.amount }),
    );
  });
  return stringify([[...COLUMNS], ...goods, ...offers], { record_delimiter: '\r\n' });
}

/**
 * Reads a price list from CSV into an edit of a document. Markets and offers that are there keep what it has no column for.
 * Nothing is taken unless all of it is sound.
 */
export function pricesFromCsv(text: string, document: Document): TableReading {
  const { lines, found, say } = linesOf(text, COLUMNS, ['list', 'id'], 'a price');
  for (const line of lines) checkLine(line, say);
  if (found.length > 0) return { problems: found };
  const parts = LISTS.map((kind) => {
    const list = (document[CHAPTER[kind]] as readonly Json[] | undefined) ?? [];
    const own = lines.filter(({ cells }) => cells.list === kind);
    const read = [...new Set(own.map(({ cells }) => cells.id))].map((id) =>
      (kind === 'market' ? marketOf : offerOf)(
        id,
        own.filter(({ cells }) => cells.id === id),
        list.find((one) => one.id === id),
      ),
    );
    return { chapter: CHAPTER[kind], ...replaced(list, read) };
  });
  const edited = {
    ...document,
    ...Object.fromEntries(parts.filter(({ after }) => after.length > 0).map(({ chapter, after }) => [chapter, after])),
  };
  const unsound = readRuleset(edited).problems;
  if (unsound.length > 0) return { problems: unsound.map(({ path, message }) => placed(path, message, edited, lines)) };
  const patch = parts.flatMap(({ chapter, after, changed, added }): PatchOperation[] =>
    changed + added === 0 ? [] : [{ op: Array.isArray(document[chapter]) ? 'replace' : 'add', path: pointer([chapter]), value: after }],
  );
  const sum = (of: 'changed' | 'added') => parts.reduce((all, part) => all + part[of], 0);
  return { patch, changed: sum('changed'), added: sum('added'), problems: [] };
}

function checkLine(line: Line, say: (line: Line, name: Name, message: string) => void): void {
  const { cells } = line;
  if (!(LISTS as readonly string[]).includes(cells.list)) say(line, 'list', `market or offer is expected.${didYouMean(cells.list, LISTS)}`);
  if (!ID_PATTERN.test(cells.id))
    say(line, 'id', `An id is expected: a small letter, then letters and digits. This is ${cells.id || 'empty'}.`);
  const number = (name: Name, needed: boolean) => {
    if (cells[name] === '' && !needed) return;
    if (!NUMBER.test(cells[name])) say(line, name, `A number is expected. This is ${cells[name] || 'empty'}.`);
  };
  if (cells.list === 'market') {
    if (cells.good === '') say(line, 'good', 'Say which good has this price.');
    for (const name of ['least', 'most'] as const) number(name, true);
    const walks = cells.start !== '' || cells.step !== '';
    for (const name of ['start', 'step'] as const) number(name, walks);
  } else if (cells.list === 'offer') {
    for (const name of ['tiers', 'stock'] as const) number(name, false);
    if ((cells.good === '') !== (cells.price === '')) say(line, 'price', 'Say both what is paid and how much of it.');
  }
}

function marketOf(id: string, own: readonly Line[], before: Json | undefined): Json {
  const old = (before?.['goods'] as readonly GoodJson[] | undefined) ?? [];
  return {
    ...before,
    id,
    label: own.map(({ cells }) => cells.title).find(Boolean) ?? before?.label ?? id,
    goods: own.map(({ cells }) => {
      const [least, most, start, step] = [cells.least, cells.most, cells.start, cells.step].map(Number);
      const price = cells.start === '' ? { range: [least, most] } : { walk: { start, step, least, most } };
      return { ...old.find(({ good }) => good === cells.good), good: cells.good, price };
    }),
  };
}

function offerOf(id: string, own: readonly Line[], before: Json | undefined): Json {
  const said = (name: Name) => own.map(({ cells }) => cells[name]).find(Boolean);
  const { tiers: _tiers, stock: _stock, upkeep: _upkeep, costs: _costs, ...rest } = (before ?? {}) as Json;
  const costs = own.filter(({ cells }) => cells.good !== '').map(({ cells }) => ({ attribute: cells.good, amount: amountOf(cells.price) }));
  const [tiers, stock, upkeep] = (['tiers', 'stock', 'upkeep'] as const).map((name) => amountOf(said(name) ?? ''));
  return {
    ...rest,
    id,
    label: said('title') ?? before?.label ?? id,
    ...(tiers !== undefined && { tiers }),
    ...(costs.length > 0 && { costs }),
    ...(stock !== undefined && { stock }),
    ...(upkeep !== undefined && { upkeep }),
  };
}

/** A problem of the document as one of the file: at the line of its good or cost, where it has one. */
function placed(path: string, message: string, edited: Document, lines: readonly Line[]): TableProblem {
  const [, chapter, n, list, k] = path.split('/');
  const kind = LISTS.find((one) => CHAPTER[one] === chapter);
  const entry = kind && (edited[chapter] as readonly Json[])[Number(n)];
  const own = lines.filter(({ cells }) => cells.list === kind && cells.id === entry?.id);
  const at = list === 'goods' || list === 'costs' ? own.filter(({ cells }) => cells.good !== '')[Number(k)] : own[0];
  return { line: (at ?? own[0])?.number ?? 1, column: 1, name: path, message };
}
