import { readJson } from '../../ruleset/json-text.js';
import { stringify } from 'csv-stringify/browser/esm/sync';
import { z } from 'zod';
import { readRuleset } from '../../ruleset/compile.js';
import type { PatchOperation } from '../../ruleset/problem.js';
import { didYouMean } from '../../ruleset/suggest.js';
import { cellsOf, type TableProblem, type TableReading } from '../../workbench/table.js';

const COLUMNS = ['clip', 'label', 'length', 'mark', 'at'] as const;
type Column = (typeof COLUMNS)[number];

interface Clip {
  readonly id: string;
  readonly label: string;
  readonly length: string;
  readonly marks: readonly { readonly mark: string; readonly at: string }[];
  readonly [field: string]: unknown;
}

type Document = { readonly [section: string]: unknown };
const clipsOf = (document: Document) => (document['clips'] as readonly Clip[] | undefined) ?? [];

/** A document's clips as CSV (RFC 4180): a line for each mark, and one for a clip that has none. */
export function clipsToCsv(document: Document): string {
  const lines = clipsOf(document).flatMap(({ id, label, length, marks = [] }) =>
    marks.length === 0 ? [[id, label, length, '', '']] : marks.map(({ mark, at }) => [id, label, length, mark, at]),
  );
  return stringify([[...COLUMNS], ...lines], { record_delimiter: '\r\n' });
}

/** A time as tools write it: with its unit, or a plain number of seconds. */
function timeOf(text: string): string | undefined {
  if (/^\d{1,7}(\.\d{1,3})?(ms|s)$/.test(text)) return text;
  return /^\d{1,7}(\.\d+)?$/.test(text) ? `${Number(Number(text).toFixed(3))}s` : undefined;
}

/**
 * Reads clips from CSV into an edit of a document: a clip that is named takes the length and the marks that its lines say,
 * others are added, those that are not named stay. Nothing is taken unless all of it is sound.
 */
export function clipsFromCsv(text: string, document: Document): TableReading {
  const { rows, problems } = cellsOf(text);
  if (problems.length > 0) return { problems };
  const header = rows[0].map((name) => name.trim());
  const wrong = header.flatMap((name, i): TableProblem[] =>
    (COLUMNS as readonly string[]).includes(name) && header.indexOf(name) === i
      ? []
      : [
          {
            line: 1,
            column: i + 1,
            name,
            message:
              header.indexOf(name) < i
                ? `${name} stands here a second time.`
                : `No column is called ${name || '""'}.${didYouMean(name, COLUMNS)}`,
          },
        ],
  );
  for (const needed of ['clip', 'length'] as const)
    if (!header.includes(needed)) wrong.push({ line: 1, column: 1, name: '', message: `There is no column ${needed}.` });
  if (wrong.length > 0) return { problems: wrong };
  const found: TableProblem[] = [];
  const clips = new Map<string, { line: number; label: string; length: string; marks: { mark: string; at: string }[] }>();
  rows.slice(1).forEach((cells, i) => {
    const line = i + 2;
    const cell = (name: Column) => cells[header.indexOf(name)]?.trim() ?? '';
    const say = (name: Column, message: string) => void found.push({ line, column: header.indexOf(name) + 1, name, message });
    const time = (name: Column) => timeOf(cell(name)) ?? (say(name, 'A time is expected, such as 1.5s, 250ms, or 1.5 for seconds.'), '0s');
    const id = cell('clip');
    if (id === '') return say('clip', 'This is empty: every line names the clip that it is about.');
    const known = clips.get(id);
    const length = cell('length') === '' && known ? known.length : time('length');
    if (known && length !== known.length) say('length', `${id} is ${known.length} long in line ${known.line}.`);
    const clip = known ?? { line, label: cell('label'), length, marks: [] };
    clips.set(id, clip);
    if (cell('mark') !== '') clip.marks.push({ mark: cell('mark'), at: time('at') });
    else if (cell('at') !== '') say('mark', 'A time without a mark: say what happens then.');
  });
  if (found.length > 0) return { problems: found };
  const lines = new Map([...clips].map(([id, { line }]) => [id, line]));
  return editOf(
    document,
    [...clips].map(([id, { label, length, marks }]) => ({ id, ...(label !== '' && { label }), length, marks })),
    (id) => lines.get(id) ?? 1,
  );
}

const json = z.array(
  z.strictObject({
    id: z.string(),
    label: z.string().optional(),
    length: z.union([z.string(), z.number().transform((seconds) => `${seconds}s`)]),
    marks: z
      .array(z.strictObject({ mark: z.string(), at: z.union([z.string(), z.number().transform((seconds) => `${seconds}s`)]) }))
      .default([]),
  }),
  'A list of clips is expected: [{ "id", "length", "marks": [{ "mark", "at" }] }].',
);

/** Reads clips from JSON: a list of them, each with an id, a length and marks; a plain number is seconds. As {@link clipsFromCsv}. */
export function clipsFromJson(text: string, document: Document): TableReading {
  const { value, wrong } = { value: undefined, ...readJson(text) };
  if (wrong) return { problems: [{ ...wrong, name: '', message: `This is not JSON: ${wrong.message}.` }] };
  const parsed = json.safeParse(value);
  if (!parsed.success)
    return {
      problems: parsed.error.issues.map((issue) => ({
        line: Number(issue.path[0] ?? 0) + 1,
        column: 1,
        name: issue.path.slice(1).join('.'),
        message: issue.message,
      })),
    };
  const order = parsed.data.map(({ id }) => id);
  const twice = order.findIndex((id, i) => order.indexOf(id) < i);
  if (twice >= 0) return { problems: [{ line: twice + 1, column: 1, name: 'id', message: `${order[twice]} stands in the list already.` }] };
  return editOf(document, parsed.data, (id) => order.indexOf(id) + 1);
}

/** One step that puts clips into a document, if the ruleset is sound with them. */
function editOf(
  document: Document,
  clips: readonly { readonly id: string; readonly label?: string | undefined }[],
  lineOf: (id: string) => number,
): TableReading {
  const before = clipsOf(document);
  const after: { readonly id: string }[] = before.map((clip) => ({ ...clip, ...clips.find(({ id }) => id === clip.id) }));
  for (const clip of clips)
    if (!before.some(({ id }) => id === clip.id)) after.push({ ...clip, ...(clip.label === undefined && { label: clip.id }) });
  const { problems } = readRuleset({ ...document, clips: after });
  if (problems.length > 0)
    return {
      problems: problems.map(({ path, message }) => {
        const [, chapter, position, ...rest] = path.split('/');
        const clip = chapter === 'clips' ? after[Number(position)] : undefined;
        return {
          line: clip ? lineOf(clip.id) : 1,
          column: 1,
          name: clip ? rest.join('/') : path,
          message: clip ? `${clip.id}: ${message}` : message,
        };
      }),
    };
  const added = after.length - before.length;
  const changed = before.filter((clip, i) => JSON.stringify(clip) !== JSON.stringify(after[i])).length;
  const patch: PatchOperation[] = added + changed === 0 ? [] : [{ op: 'add', path: '/clips', value: after }];
  return { patch, changed, added, problems: [] };
}
