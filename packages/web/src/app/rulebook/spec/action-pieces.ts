import type { ActionDescription } from '@eager-ember/core';
import { amount, choice, condition, duration, entry, number, party, type PartFormat, text } from './formats';
import { partsWith } from './parts';

/** A piece of an action's sentence: words, a part to edit, or a list within the list. */
export interface Piece {
  readonly words?: string;
  readonly at: string;
  readonly label: string;
  readonly format?: PartFormat;
  readonly inner?: 'then' | 'branches';
}

export type ActionJson = Readonly<Record<string, unknown>>;

const FORMATS: Readonly<Record<string, PartFormat>> = { amount, condition, duration, number, text, parts: partsWith() };

/** Whether an entry is of a kind that makes sense where it would be named. */
export const isOfKind = ({ kinds }: { readonly kinds?: readonly string[] }, one: Readonly<Record<string, unknown>>): boolean =>
  kinds === undefined || kinds.includes(String(one['kind']));

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
      if (name === 'to') return { at: `${at}/to`, label: 'whom', format: party };
      const kind = described.args.find((arg) => arg.name === name)?.kind;
      if (kind?.kind === 'then' || kind?.kind === 'branches') return { at: `${at}/${name}`, label: name, inner: kind.kind };
      const format =
        kind?.kind === 'reference'
          ? entry(kind.chapter, (one) => isOfKind(kind, one))
          : kind?.kind === 'word'
            ? choice(Object.fromEntries(kind.options.map((word) => [word, word])))
            : FORMATS[kind?.kind ?? 'text'];
      return { at: `${at}/${name}`, label: name === 'if' ? 'condition' : name, format };
    });
}
