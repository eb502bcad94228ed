import { registry } from '../ruleset/registry.js';
import type { Rules } from '../ruleset/rules.js';
import { complete, type Evidence } from './evidence.js';
import type { TableReading } from './table.js';

/** A document as it is written, without what its defaults fill in. */
export type Document = Readonly<Record<string, unknown>>;

/** A form in which something of a ruleset comes in from a file, and goes out as one where it can. */
export interface FileFormat {
  /** @param of what it is about, where one such file is about one entry */
  write?(document: Document, rules: Rules, of: string): string;
  /** Reads a file into an edit of the document, or says what is wrong where. Nothing is taken unless all of it is sound. */
  read(text: string, document: Document, of: string): TableReading;
}

/** Something that a concept's page asks while its author writes, about the rules as they are. */
export type WorkbenchQuestion = (rules: Rules, ...args: never[]) => unknown;

/** Long work that is done in goes: what begins it gives what does the next go. */
export type WorkbenchTask = (rules: Rules, ...args: never[]) => (...args: never[]) => unknown;

/** What the workbench asks of one concept while its author writes. It is loaded when it is first asked for, and never by a game. */
export interface Workbench {
  /** What follows from an entry, by the chapter that it is of. */
  readonly evidence?: Readonly<Record<string, (rules: Rules, id: string) => Evidence>>;
  readonly questions?: Readonly<Record<string, WorkbenchQuestion>>;
  readonly files?: Readonly<Record<string, FileFormat>>;
  readonly tasks?: Readonly<Record<string, WorkbenchTask>>;
  /** What is worked out behind everything else, in parts: it is left where an edit comes in between, and asked for again. */
  readonly background?: Readonly<Record<string, (rules: Rules, ...args: never[]) => Generator<void, unknown>>>;
}

/** The workbench of a concept. @throws where there is no such concept, or it has none */
export async function workbenchOf(concept: string): Promise<Workbench> {
  const load = registry().concepts.find(({ id }) => id === concept)?.workbench;
  if (!load) throw new RangeError(`The workbench knows no concept ${concept}`);
  return load();
}

/** What follows from an entry; undefined where its chapter has no evidence. */
export async function evidenceOf(rules: Rules, chapter: string, id: string): Promise<Evidence | undefined> {
  const evidence = await courseOf(rules, chapter, id);
  return evidence && complete(evidence);
}

/** The same as soon as its course is known: what takes longer is still to be asked for. */
export async function courseOf(rules: Rules, chapter: string, id: string): Promise<Evidence | undefined> {
  const concept = registry().concepts.find(({ sections }) => sections && Object.hasOwn(sections, chapter));
  const workbench = await concept?.workbench?.();
  return workbench?.evidence?.[chapter]?.(rules, id);
}

/** Asks a question of a concept's page. @throws where there is no such question */
export async function askWorkbench(concept: string, question: string, rules: Rules, args: readonly unknown[]): Promise<unknown> {
  return named(concept, question, (await workbenchOf(concept)).questions)(rules, ...(args as never[]));
}

/** Begins to work something out in parts. @throws where there is no such thing to be worked out */
export async function workInBackground(
  concept: string,
  name: string,
  rules: Rules,
  args: readonly unknown[],
): Promise<Generator<void, unknown>> {
  return named(concept, name, (await workbenchOf(concept)).background)(rules, ...(args as never[]));
}

/** Begins long work of a concept's page; what comes back does the next go. @throws where there is no such work */
export async function beginTask(
  concept: string,
  task: string,
  rules: Rules,
  args: readonly unknown[],
): Promise<(...args: readonly unknown[]) => unknown> {
  const go = named(concept, task, (await workbenchOf(concept)).tasks)(rules, ...(args as never[]));
  return (...more) => go(...(more as never[]));
}

/**
 * Writes a file in a format of a concept.
 * @param of the id of what it is about, where one such file is about one entry
 * @throws where there is no such format, or it only comes in
 */
export async function writeFile(concept: string, format: string, document: Document, rules: Rules, of = ''): Promise<string> {
  const file = named(concept, format, (await workbenchOf(concept)).files);
  if (!file.write) throw new RangeError(`${concept} are not written as ${format}`);
  return file.write(document, rules, of);
}

/** Reads a file in a format of a concept. @throws where there is no such format */
export async function readFile(concept: string, format: string, text: string, document: Document, of = ''): Promise<TableReading> {
  return named(concept, format, (await workbenchOf(concept)).files).read(text, document, of);
}

function named<T>(concept: string, name: string, all: Readonly<Record<string, T>> | undefined): T {
  if (!all || !Object.hasOwn(all, name)) throw new RangeError(`The workbench of ${concept} knows no ${name}`);
  return all[name];
}
