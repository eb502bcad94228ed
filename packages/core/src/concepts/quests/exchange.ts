import { stringify } from 'csv-stringify/browser/esm/sync';
import { readRuleset } from '../../ruleset/compile.js';
import { ID_PATTERN } from '../../ruleset/fields.js';
import { pointer } from '../../ruleset/problem.js';
import { registry } from '../../ruleset/registry.js';
import { didYouMean } from '../../ruleset/suggest.js';
import { type Line as TableLine, linesOf, replaced } from '../../workbench/lines.js';
import type { TableProblem, TableReading } from '../../workbench/table.js';

type Document = { readonly [section: string]: unknown };
type Json = { readonly [field: string]: unknown };
interface QuestJson {
  readonly id: string;
  readonly label: string;
  readonly steps: readonly StepJson[];
  readonly [field: string]: unknown;
}
interface StepJson {
  readonly id: string;
  readonly label: string;
  readonly goals: readonly (Json & { readonly id: string })[];
  readonly [field: string]: unknown;
}

const COLUMNS = [
  'quest',
  'title',
  'text',
  'step',
  'stepTitle',
  'goal',
  'line',
  'event',
  'where',
  'count',
  'if',
  'counts',
  'optional',
] as const;
type Name = (typeof COLUMNS)[number];
/** Columns without which a line says nothing. */
const NEEDED: readonly Name[] = ['quest', 'step', 'goal', 'line'];

/** An event as one cell: `pickupTaken pickup=manifestPage`. */
function eventCell(on: Json | undefined): string {
  if (!on) return '';
  const { on: event, where: _where, ...fields } = on;
  return [String(event), ...Object.entries(fields).map(([name, value]) => `${name}=${String(value)}`)].join(' ');
}

/** The quests of a document as CSV (RFC 4180): a line for each goal, under its step and quest. */
export function questsToCsv(document: Document): string {
  const list = (document['quests'] as readonly QuestJson[] | undefined) ?? [];
  const lines = list.flatMap((quest) =>
    quest.steps.flatMap((step, s) =>
      step.goals.map((goal, g) => {
        const on = goal['on'] as Json | undefined;
        return [
          quest.id,
          s === 0 && g === 0 ? quest.label : '',
          s === 0 && g === 0 ? String(quest['text'] ?? '') : '',
          step.id,
          g === 0 ? step.label : '',
          goal.id,
          String(goal['line']),
          eventCell(on),
          String(on?.['where'] ?? ''),
          on ? String(goal['count'] ?? 1) : '',
          String(goal['if'] ?? ''),
          String(goal['counts'] ?? ''),
          goal['optional'] === true ? 'yes' : '',
        ];
      }),
    ),
  );
  return stringify([[...COLUMNS], ...lines], { record_delimiter: '\r\n' });
}

type Line = TableLine<Name>;

/**
 * Reads quests from CSV into an edit of a document. Lines of one quest, and in it of one step, stand together; a quest that
 * is there keeps what a table has no column for, such as what it gives. Nothing is taken unless all of it is sound.
 */
export function questsFromCsv(text: string, document: Document): TableReading {
  const { lines, found, say } = linesOf(text, COLUMNS, NEEDED, 'a goal');
  for (const line of lines) checkLine(line, say);
  if (found.length > 0) return { problems: found };
  return edit(document, lines);
}

function checkLine(line: Line, say: (line: Line, name: Name, message: string) => void): void {
  const { cells } = line;
  for (const name of ['quest', 'step', 'goal'] as const)
    if (!ID_PATTERN.test(cells[name]))
      say(line, name, `An id is expected: a small letter, then letters and digits. This is ${cells[name] || 'empty'}.`);
  const [event] = cells.event.split(/\s+/);
  const known = [...registry().events].filter(([, spec]) => spec.carries).map(([name]) => name);
  if (event !== '' && !known.includes(event)) say(line, 'event', `No event is called ${event}.${didYouMean(event, known)}`);
  for (const part of cells.event.split(/\s+/).slice(1))
    if (!/^[A-Za-z]+=[^=]+$/.test(part)) say(line, 'event', `What is asked of an event is written as field=value. This is ${part}.`);
  if (cells.count !== '' && !/^\d{1,6}$/.test(cells.count)) say(line, 'count', `A whole number is expected. This is ${cells.count}.`);
  if (!['', 'yes', 'no'].includes(cells.optional.toLowerCase())) say(line, 'optional', `yes or no is expected. This is ${cells.optional}.`);
}

function goalOf({ cells }: Line, before: Json | undefined): Json & { readonly id: string } {
  const [event, ...fields] = cells.event.split(/\s+/);
  const on = event !== '' && {
    on: event,
    ...Object.fromEntries(fields.map((part) => part.split('=') as [string, string])),
    ...(cells.where !== '' && { where: cells.where }),
  };
  return {
    id: cells.goal,
    line: cells.line,
    ...(on && { on }),
    ...(on && cells.count !== '' && cells.count !== '1' && { count: Number(cells.count) }),
    ...(cells.if !== '' && { if: cells.if }),
    ...(cells.counts !== '' && { counts: cells.counts }),
    ...(cells.optional.toLowerCase() === 'yes' && { optional: true }),
    ...(before?.['then'] !== undefined && { then: before['then'] }),
  };
}

function edit(document: Document, lines: readonly Line[]): TableReading {
  const list = (document['quests'] as readonly QuestJson[] | undefined) ?? [];
  const ids = [...new Set(lines.map(({ cells }) => cells.quest))];
  const read = ids.map((id): QuestJson => {
    const own = lines.filter(({ cells }) => cells.quest === id);
    const before = list.find((quest) => quest.id === id);
    const said = (name: Name) => own.map(({ cells }) => cells[name]).find((cell) => cell !== '');
    const words = said('text');
    const steps = [...new Set(own.map(({ cells }) => cells.step))].map((step): StepJson => {
      const goals = own.filter(({ cells }) => cells.step === step);
      const old = before?.steps.find((one) => one.id === step);
      const title = goals.map(({ cells }) => cells.stepTitle).find((cell) => cell !== '');
      return {
        ...old,
        id: step,
        label: title ?? old?.label ?? step,
        goals: goals.map((line) =>
          goalOf(
            line,
            old?.goals.find((goal) => goal.id === line.cells.goal),
          ),
        ),
      };
    });
    return { ...before, id, label: said('title') ?? before?.label ?? id, ...(words !== undefined && { text: words }), steps };
  });
  const { after, changed, added } = replaced(list, read);
  const unsound = readRuleset({ ...document, quests: after }).problems;
  if (unsound.length > 0) return { problems: unsound.map(({ path, message }) => placed(path, message, after, lines)) };
  const had = Array.isArray(document['quests']);
  return {
    patch: changed + added === 0 ? [] : [{ op: had ? 'replace' : 'add', path: pointer(['quests']), value: after }],
    changed,
    added,
    problems: [],
  };
}

/** A problem of the document as one of the table: at the line of its goal, where it has one. */
function placed(path: string, message: string, quests: readonly QuestJson[], lines: readonly Line[]): TableProblem {
  const [, , q, , s, , g] = path.split('/');
  const quest = quests[Number(q)];
  const step = quest?.steps[Number(s)];
  const goal = step?.goals[Number(g)];
  const of = (line: Line) =>
    (!quest || line.cells.quest === quest.id) && (!step || line.cells.step === step.id) && (!goal || line.cells.goal === goal.id);
  return { line: lines.find(of)?.number ?? 1, column: 1, name: path, message };
}
