import { compileFormula, FormulaError, type FormulaPlace, type FormulaReference, type Vocabulary } from '../formula/index.js';
import { type Path, pointer } from './problem.js';
import { registry } from './registry.js';
import type { Rules } from './rules.js';
import { walk } from './walk.js';

/** A place in a document that speaks of an entry. */
export interface Use {
  /** JSON Pointer of the place. */
  readonly path: string;
  /** The entry it stands in, or undefined where it stands outside any chapter. */
  readonly chapter?: string;
  readonly id?: string;
  /** JSON Pointer of the item of a list that is nothing without the entry: it goes where the entry is deleted. */
  readonly item?: string;
}

/** Everywhere that an entry is spoken of, chapter by chapter in the order of the concepts. */
export function usesOf(rules: Rules, chapter: string, id: string): readonly Use[] {
  const uses: Use[] = [];
  walk(registry().document, rules.document, [], (mark, value, path) => {
    const speaks =
      mark.kind === 'reference'
        ? mark.chapter === chapter && value === id
        : readsOf(value, rules.vocabulary, mark.place).some((r) => r.chapter === chapter && r.id === id);
    if (!speaks) return;
    const [key, position] = path;
    const entry = typeof position === 'number' ? rules.chapters.get(String(key))?.ids[position] : undefined;
    const belongs = mark.kind === 'reference' && mark.belongs;
    uses.push({
      path: pointer(path),
      ...(entry !== undefined && { chapter: String(key), id: entry }),
      ...(belongs && { item: pointer(itemOf(path)) }),
    });
  });
  return uses;
}

/** The path of the innermost item of a list that a place is in. */
function itemOf(path: Path): Path {
  return path.length === 0 || typeof path.at(-1) === 'number' ? path : itemOf(path.slice(0, -1));
}

/** What a formula speaks of, in the order of its text; nothing where it can't be read, which its own check reports. */
export function readsOf(text: string, vocabulary: Vocabulary, place: FormulaPlace): readonly FormulaReference[] {
  try {
    return compileFormula(text, vocabulary, place).references;
  } catch (error) {
    if (error instanceof FormulaError) return [];
    throw error;
  }
}
