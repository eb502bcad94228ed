import { type CompiledFormula, compileExpression, type FormulaPlace, type Vocabulary } from './compile.js';
import { compileText } from './text.js';

/**
 * Compiles a formula against what a ruleset knows: an amount, a condition, or a text with amounts in it.
 * @throws FormulaError where it can't be read, speaks of something unknown, or mixes amounts and conditions
 */
export function compileFormula(text: string, vocabulary: Vocabulary, place: FormulaPlace): CompiledFormula {
  if (place.yields === 'text') {
    const { references, lookups } = compileText(text, vocabulary, place);
    return { text, run: () => 0, references, lookups };
  }
  return compileExpression(text, vocabulary, place);
}
