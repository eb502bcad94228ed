import type { ActionDescription } from '@eager-ember/core';
import { formatOf } from './described';
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
