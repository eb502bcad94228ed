import { compileFormula, FormulaError, type FormulaReference, type Lookup, meansTheSame, type Vocabulary } from '../formula/index.js';
import type { Mark } from './marks.js';
import { type Path, pointer } from './problem.js';
import { grouped } from './grouped.js';
import { atOnce, eachInPart } from './parts.js';
import { question, type Question } from './questions.js';
import { sameItems } from './recording.js';
import { registry } from './registry.js';
import type { Rules } from './rules.js';
import type { SectionSpec } from '../world/concept.js';
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
  /** The last that was said of where it stands. */
  last?: Mentioning;
}

/** Entries are the same objects as long as no edit touches them. */
const knownParts = new WeakMap<object, Known>();

/** A mention of an entry, and whose it is. */
export interface Spoken {
  readonly by: Mentioning;
  readonly mention: Mention;
}

const keyOf = (chapter: string, id: string) => `${chapter}/${id}`;

/** The mentions in a section, in the order of its entries. */
export const mentionsInSection: Question<readonly Mentioning[]> = question(
  (rules, chapter) => atOnce(mentionsInParts(rules, chapter)),
  sameItems,
);

/** The same as work in parts, entry by entry: what was found in one is known as long as no edit touches it. */
export function* mentionsInParts(rules: Rules, chapter: string): Generator<void, readonly Mentioning[]> {
  const section = registry().sections.get(chapter)!;
  const written = rules.document[chapter];
  const { vocabulary } = rules;
  if (section.kind === 'chapter')
    return yield* eachInPart(written as readonly { readonly id: string }[], (entry, i) =>
      mentioning(vocabulary, section, entry, chapter, i, entry.id),
    );
  if (typeof written !== 'object' || written === null) return [];
  return [mentioning(vocabulary, section, written, chapter, undefined, undefined)];
}

/** What a section speaks of, by chapter and id. */
const spokenOfIn = question((rules, section) => {
  const by = new Map<string, Spoken[]>();
  for (const one of mentionsInSection(rules, section))
    for (const mention of one.mentions)
      for (const { chapter, id } of mention.speaksOf) {
        const key = keyOf(chapter, id);
        const spoken = by.get(key);
        if (!spoken) by.set(key, [{ by: one, mention }]);
        else if (spoken[spoken.length - 1].mention !== mention) spoken.push({ by: one, mention });
      }
  return by;
});

const keysSpokenOfIn: Question<readonly string[]> = question((rules, section) => [...spokenOfIn(rules, section).keys()], sameItems);

/** By what is spoken of: the sections that do. */
const speaking = question((rules) => {
  const all = [...registry().sections.keys()].flatMap((section) => keysSpokenOfIn(rules, section).map((key) => ({ key, section })));
  return grouped(all, ({ key }) => key);
});

/** Everywhere that an entry is spoken of, each place once. */
export function mentionsOf(rules: Rules, chapter: string, id: string): readonly Spoken[] {
  const key = keyOf(chapter, id);
  return (speaking(rules).get(key) ?? []).flatMap(({ section }) => spokenOfIn(rules, section).get(key)!);
}

/** Where a mention stands in the document. */
export const placeOfMention = ({ chapter, position }: Mentioning, { within }: Mention): Path =>
  position === undefined ? [chapter, ...within] : [chapter, position, ...within];

/** What one entry speaks of, without its being recorded for a question: for who keeps answers of its own. */
export function mentionsIn({ vocabulary }: Rules, chapter: string, entry: object): readonly Mention[] {
  return within(vocabulary, registry().sections.get(chapter)!, entry).mentions;
}

function mentioning(
  vocabulary: Vocabulary,
  section: SectionSpec,
  part: object,
  chapter: string,
  position: number | undefined,
  id: string | undefined,
): Mentioning {
  const known = within(vocabulary, section, part);
  const { last, mentions } = known;
  if (last?.chapter === chapter && last.position === position && last.mentions === mentions) return last;
  return (known.last = { chapter, position, id, mentions });
}

function within(vocabulary: Vocabulary, section: SectionSpec, part: object): Known {
  const known = knownParts.get(part);
  if (known && (known.vocabulary === vocabulary || (known.whole && known.lookups.every((one) => meansTheSame(vocabulary, one))))) {
    known.vocabulary = vocabulary;
    return known;
  }
  const schema = section.kind === 'chapter' ? section.entry : section.schema;
  const ahead = section.kind === 'chapter' ? section.ahead : undefined;
  const asFormula = ahead?.asFormula ?? ((text: string) => text);
  const placed = new Set<string>();
  const mentions: Mention[] = [];
  const lookups: Lookup[] = [];
  let whole = true;
  const note = (mark: Mark, value: string, path: Path) => {
    if (mark.kind === 'reference') {
      mentions.push({ mark, value, within: path, speaksOf: [{ chapter: mark.chapter, id: value, party: null, at: 0 }] });
      return;
    }
    try {
      const formula = compileFormula(asFormula(value), vocabulary, mark.place);
      lookups.push(...formula.lookups);
      mentions.push({ mark, value, within: path, speaksOf: formula.references });
    } catch (error) {
      // Its own check reports it.
      if (!(error instanceof FormulaError)) throw error;
      whole = false;
    }
  };
  walk(schema, part, [], (mark, value, path) => {
    const others = ahead?.standsFor?.(part, value);
    if (!others) return note(mark, value, path);
    for (const other of others) {
      // Several places may be filled from the same one.
      const at = pointer(other.path);
      if (!placed.has(at)) note(mark, other.value, other.path);
      placed.add(at);
    }
  });
  const now = { vocabulary, lookups, whole, mentions };
  knownParts.set(part, now);
  return now;
}
