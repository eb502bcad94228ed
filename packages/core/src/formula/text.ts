import {
  type CompiledFormula,
  compileExpression,
  type FormulaFunction,
  type FormulaPlace,
  type FormulaReference,
  type Vocabulary,
} from './compile.js';
import type { Lookup } from './lookup.js';
import { FormulaError } from './parser.js';

/** A piece of a text: words, or a formula whose amount stands there. */
export type TextPiece = { readonly words: string } | { readonly hole: FormulaFunction };

export interface CompiledText {
  readonly pieces: readonly TextPiece[];
  /** What its formulas speak of, with places in the whole text. */
  readonly references: readonly FormulaReference[];
  readonly lookups: readonly Lookup[];
}

/**
 * Compiles a text with formulas in braces.
 * @throws FormulaError with its place in the whole text
 */
export function compileText(text: string, vocabulary: Vocabulary, place: FormulaPlace): CompiledText {
  const pieces: TextPiece[] = [];
  const references: FormulaReference[] = [];
  const lookups: Lookup[] = [];
  let at = 0;
  for (const part of text.split(/(\{[^{}]*\})/)) {
    const brace = part.search(/[{}]/);
    if (!part.startsWith('{') || !part.endsWith('}')) {
      if (brace >= 0) throw new FormulaError('A brace opens a formula and another closes it, as in {suit / 2}.', at + brace);
      if (part !== '') pieces.push({ words: part });
    } else {
      const { run, references: read, lookups: words } = hole(part.slice(1, -1), at + 1, vocabulary, place);
      pieces.push({ hole: run });
      references.push(...read.map((reference) => ({ ...reference, at: reference.at + at + 1 })));
      lookups.push(...words);
    }
    at += part.length;
  }
  return { pieces, references, lookups };
}

function hole(text: string, at: number, vocabulary: Vocabulary, place: FormulaPlace): CompiledFormula {
  try {
    return compileExpression(text, vocabulary, { ...place, yields: 'amount' });
  } catch (error) {
    if (error instanceof FormulaError) throw new FormulaError(error.message, error.at + at);
    throw error;
  }
}
