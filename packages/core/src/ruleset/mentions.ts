import { compileFormula, FormulaError, type FormulaReference, type Lookup, meansTheSame, type Vocabulary } from '../formula/index.js';
import type { Mark } from './marks.js';
import { type Path } from './problem.js';
import { registry } from './registry.js';
import type { Rules } from './rules.js';
import { walk } from './walk.js';

/** A value of a ruleset that means more than its shape: a reference, or a formula. */
export interface Mention {
  readonly mark: Mark;
  readonly value: string;
  /** Where it stands within its entry, or its section where that is no chapter. */
  readonly within: Path;
  /** The entries that it speaks of, in the order of its text; for a formula, each with the place of the name in it. */
  readonly speaksOf: readonly FormulaReference[];
}

/** The mentions of one entry, or of a section that is no chapter. */
export interface Mentioning {
  readonly chapter: string;
  /** The entry's position and id; none for a section that is no chapter. */
  readonly position: number | undefined;
  readonly id: string | undefined;
  readonly mentions: readonly Mention[];
}

interface Known {
  /** Under which the formulas were read. */
  vocabulary: Vocabulary;
  readonly lookups: readonly Lookup[];
  /** Whether all of its formulas can be read. */
  readonly whole: boolean;
  readonly mentions: readonly Mention[];
}

/** Entries are the same objects as long as no edit touches them. */
const knownParts = new WeakMap<object, Known>();
const knownRules = new WeakMap<Rules, { readonly all: readonly Mentioning[]; readonly by: ReadonlyMap<string, readonly Spoken[]> }>();

/** A mention of an entry, and whose it is. */
export interface Spoken {
  readonly by: Mentioning;
  readonly mention: Mention;
}

const keyOf = (chapter: string, id: string) => `${chapter}/${id}`;

/** Every mention in a ruleset, chapter by chapter in the order of the concepts. */
export const mentionsIn = (rules: Rules): readonly Mentioning[] => indexOf(rules).all;

/** Everywhere that an entry is spoken of, each place once. */
export const mentionsOf = (rules: Rules, chapter: string, id: string): readonly Spoken[] => indexOf(rules).by.get(keyOf(chapter, id)) ?? [];

/** Where a mention stands in the document. */
export const placeOfMention = ({ chapter, position }: Mentioning, { within }: Mention): Path =>
  position === undefined ? [chapter, ...within] : [chapter, position, ...within];

function indexOf(rules: Rules) {
  const before = knownRules.get(rules);
  if (before) return before;
  const all = partsOf(rules);
  const by = new Map<string, Spoken[]>();
  for (const one of all)
    for (const mention of one.mentions)
      for (const { chapter, id } of mention.speaksOf) {
        const key = keyOf(chapter, id);
        const spoken = by.get(key);
        if (!spoken) by.set(key, [{ by: one, mention }]);
        else if (spoken[spoken.length - 1].mention !== mention) spoken.push({ by: one, mention });
      }
  const index = { all, by };
  knownRules.set(rules, index);
  return index;
}

function partsOf(rules: Rules): readonly Mentioning[] {
  const parts: Mentioning[] = [];
  for (const [chapter, section] of registry().sections) {
    const written = rules.document[chapter];
    if (section.kind === 'chapter')
      (written as readonly { readonly id: string }[]).forEach((entry, position) =>
        parts.push({ chapter, position, id: entry.id, mentions: within(rules, section.entry, entry) }),
      );
    else if (typeof written === 'object' && written !== null)
      parts.push({ chapter, position: undefined, id: undefined, mentions: within(rules, section.schema, written) });
  }
  return parts;
}

function within({ vocabulary }: Rules, schema: Parameters<typeof walk>[0], part: object): readonly Mention[] {
  const known = knownParts.get(part);
  if (known && (known.vocabulary === vocabulary || (known.whole && known.lookups.every((one) => meansTheSame(vocabulary, one))))) {
    known.vocabulary = vocabulary;
    return known.mentions;
  }
  const mentions: Mention[] = [];
  const lookups: Lookup[] = [];
  let whole = true;
  walk(schema, part, [], (mark, value, path) => {
    if (mark.kind === 'reference') {
      mentions.push({ mark, value, within: path, speaksOf: [{ chapter: mark.chapter, id: value, party: null, at: 0 }] });
      return;
    }
    try {
      const formula = compileFormula(value, vocabulary, mark.place);
      lookups.push(...formula.lookups);
      mentions.push({ mark, value, within: path, speaksOf: formula.references });
    } catch (error) {
      // Its own check reports it.
      if (!(error instanceof FormulaError)) throw error;
      whole = false;
    }
  });
  knownParts.set(part, { vocabulary, lookups, whole, mentions });
  return mentions;
}
