import type { ActionDescription, FieldDescription } from '@eager-ember/core';
import type { RulesetJson } from '../../shared/api';
import { entriesOf } from '../entries';
import { fitsIn, formatOf } from './described';
import type { PartFormat } from './formats';

/** A piece of an action's sentence: words, a part to edit, or a list within the list. */
export interface Piece {
  readonly words?: string;
  readonly at: string;
  readonly label: string;
  readonly format?: PartFormat;
  readonly inner?: 'then' | 'branches';
}

export type ActionJson = Readonly<Record<string, unknown>>;

/** The words of an action's sentence and the names in it, without what is not said and the words around that. */
export function spoken(
  { args, sentence }: ActionDescription,
  says: (name: string) => boolean,
): readonly ({ words: string } | { name: string })[] {
  const optional = new Set(args.filter((arg) => arg.optional).map(({ name }) => name));
  const segments = sentence.split(/(?<=,)|(?= otherwise)/).filter((segment) => {
    const names = [...segment.matchAll(/\{(\w+)\}/g)].map((m) => m[1]);
    return names.every((name) => !optional.has(name) || says(name));
  });
  return segments
    .join('')
    .replace(/,$/, '')
    .split(/(\{\w+\})/)
    .filter((piece) => piece !== '')
    .map((piece) => {
      const name = /^\{(\w+)\}$/.exec(piece)?.[1];
      return name === undefined ? { words: piece } : { name };
    });
}

/** An action's sentence in pieces. `at` is where the action stands below the entry. */
export function piecesOf(described: ActionDescription, action: ActionJson, at: string): readonly Piece[] {
  return spoken(described, (name) => action[name] !== undefined).map((piece): Piece => {
    if ('words' in piece) return { words: piece.words.replace(' otherwise:', ''), at, label: '' };
    const { name } = piece;
    if (name === 'to') return { at: `${at}/to`, label: 'whom', format: described.to && formatOf(described.to) };
    const arg = described.args.find((one) => one.name === name);
    if (arg?.kind === 'then' || arg?.kind === 'branches') return { at: `${at}/${name}`, label: name, inner: arg.kind };
    return { at: `${at}/${name}`, label: name === 'if' ? 'condition' : name, format: arg && formatOf(arg) };
  });
}

/** Something that an action could say besides, and what it begins as. */
export interface Unsaid {
  readonly name: string;
  readonly at: string;
  readonly begins: unknown;
}

/** What else an action could say, of what its sentence has a place for. */
export const unsaid = (
  described: ActionDescription,
  action: ActionJson,
  at: string,
  document: RulesetJson | undefined,
): readonly Unsaid[] =>
  described.args
    .filter(({ name, optional }) => optional && action[name] === undefined && described.sentence.includes(`{${name}}`))
    .map((arg) => ({ name: arg.name === 'else' ? 'otherwise' : arg.name, at: `${at}/${arg.name}`, begins: beginningOf(arg, document) }));

/** What an argument that has to be there begins as. */
const BEGINS: Readonly<Record<string, unknown>> = { amount: 1, number: 1, duration: '1s', text: 'Something to read', then: [] };

function beginningOf(arg: FieldDescription, document: RulesetJson | undefined): unknown {
  if (arg.begins !== undefined) return arg.begins;
  if (arg.kind === 'reference') return entriesOf(document, arg.chapter).find(fitsIn(arg))?.id;
  if (arg.kind === 'condition') return `${entriesOf(document, 'attributes')[0]?.id ?? 1} > 0`;
  // What is said where nothing is comes first.
  if (arg.kind === 'word') return arg.options.at(-1)?.value;
  if (arg.kind === 'branches') return [1, 1].map((weight) => ({ weight, then: [] }));
  return BEGINS[arg.kind];
}

/** What a new action says. One of which nothing has to be said would do nothing: it begins with the first thing that it can say. */
export function beginningsOf(action: ActionDescription, document: RulesetJson | undefined): Record<string, unknown> {
  const needed = action.args.filter(({ optional }) => !optional);
  const said = needed.length > 0 ? needed : action.args.slice(0, 1);
  return Object.fromEntries(said.map((arg) => [arg.name, beginningOf(arg, document)]));
}
