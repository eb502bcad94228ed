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

/** An action's sentence in pieces. `at` is where the action stands below the entry. */
export function piecesOf(described: ActionDescription, action: ActionJson, at: string): readonly Piece[] {
  const optional = new Set(described.args.filter((arg) => arg.optional).map((arg) => arg.name));
  // What is not said is left out of the sentence with the words around it.
  const segments = described.sentence.split(/(?<=,)|(?= otherwise)/).filter((segment) => {
    const names = [...segment.matchAll(/\{(\w+)\}/g)].map((m) => m[1]);
    return !names.some((name) => optional.has(name) && action[name] === undefined);
  });
  return segments
    .join('')
    .replace(/,$/, '')
    .split(/(\{\w+\})/)
    .filter((piece) => piece !== '')
    .map((piece) => {
      const name = /^\{(\w+)\}$/.exec(piece)?.[1];
      if (name === undefined) return { words: piece.replace(' otherwise:', ''), at, label: '' };
      if (name === 'to') return { at: `${at}/to`, label: 'whom', format: described.to && formatOf(described.to) };
      const arg = described.args.find((one) => one.name === name);
      if (arg?.kind === 'then' || arg?.kind === 'branches') return { at: `${at}/${name}`, label: name, inner: arg.kind };
      return { at: `${at}/${name}`, label: name === 'if' ? 'condition' : name, format: arg && formatOf(arg) };
    });
}
