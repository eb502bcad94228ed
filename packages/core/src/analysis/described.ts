import type { z } from 'zod';
import type { Description } from '../ruleset/described.js';
import { isDuration, toMilliseconds } from '../ruleset/fields.js';
import { type Finding, type Path, pointer } from '../ruleset/problem.js';
import { atOnce, eachInPart } from '../ruleset/parts.js';
import { question, type Question } from '../ruleset/questions.js';
import { sameItems } from '../ruleset/recording.js';
import { registry } from '../ruleset/registry.js';
import type { Rules } from '../ruleset/rules.js';
import { walkDescribed } from '../ruleset/walk.js';
import { onlyTries } from './collect.js';

/** A value whose field is described, where it stands. */
export interface Described {
  readonly value: unknown;
  readonly path: Path;
  /** What is said of the field. */
  readonly is: Description;
  /** The fields beside it. */
  readonly beside: Readonly<Record<string, unknown>>;
  /** Fills a sentence of the description in; undefined where it names the entry and stands in none. */
  readonly says: (sentence: string, value: number | string) => string | undefined;
}

/** What is described in an entry or a section, with paths within that, and with whole ones as it stood the last time. */
interface Known {
  readonly schema: z.ZodType;
  readonly within: readonly Described[];
  at: string;
  placed: readonly Described[];
}
/** An entry is the same object as long as no edit touches it. */
const knownParts = new WeakMap<object, Known>();

/** Every value of a section whose field is described. */
export const describedInSection: Question<readonly Described[]> = question((rules, key) => atOnce(describedInParts(rules, key)), sameItems);

/** The same as work in parts, entry by entry: what was found in one is known as long as no edit touches it. */
export function* describedInParts(rules: Rules, key: string): Generator<void, readonly Described[]> {
  const section = registry().sections.get(key)!;
  const whole = rules.document[key];
  if (section.kind === 'chapter') {
    const entries = whole as readonly { readonly label: string }[];
    return (yield* eachInPart(entries, (entry, i) => describedAt(section.entry, entry, [key, i], entry.label))).flat();
  }
  return typeof whole === 'object' && whole !== null ? describedAt(section.schema, whole, [key]) : [];
}

/** The sections of a ruleset whose descriptions matter: all but what only tries entries out. */
export const sectionsDescribed = (): readonly string[] => [...registry().sections.keys()].filter((key) => !onlyTries(key));

function describedAt(schema: z.ZodType, part: object, path: Path, label?: string): readonly Described[] {
  const at = pointer(path);
  let known = knownParts.get(part);
  if (known?.schema !== schema)
    knownParts.set(part, (known = { schema, within: describedWithin(schema, part, label), at: '', placed: [] }));
  if (known.at !== at) {
    known.placed = known.within.map((one) => ({ ...one, path: [...path, ...one.path] }));
    known.at = at;
  }
  return known.placed;
}

function describedWithin(schema: z.ZodType, part: object, label?: string): readonly Described[] {
  const found: Described[] = [];
  walkDescribed(schema, part, [], (is, value, path) => {
    const beside = within(part, path.slice(0, -1));
    found.push({ value, path, is, beside, says: (sentence, of) => filled(sentence, of, beside, label) });
  });
  return found;
}

const within = (entry: unknown, path: Path) =>
  path.reduce((value, key) => (value as Record<string | number, unknown>)[key], entry) as Readonly<Record<string, unknown>>;

function filled(
  sentence: string,
  value: number | string,
  beside: Readonly<Record<string, unknown>>,
  entry: string | undefined,
): string | undefined {
  if (entry === undefined && sentence.includes('{entry}')) return undefined;
  return sentence.replace(/\{(\w+)\}/g, (_, name: string) => String(name === 'entry' ? entry : name === 'value' ? value : beside[name]));
}

const NAME_IN_BRACES = /\{ *[a-z][\w.]* *\}/i;

const inSection: Question<readonly Finding[]> = question((rules, section) => describedInSection(rules, section).flatMap(ofOne));

/** Times of 0 where something lasts, and names in braces where nothing is put in their place: players would read the braces. */
export const describedFindings = (rules: Rules): readonly Finding[] => sectionsDescribed().flatMap((section) => inSection(rules, section));

function ofOne({ value, path, is, says }: Described): readonly Finding[] {
  if (typeof value !== 'string') return [];
  const name = is.shown ? NAME_IN_BRACES.exec(value)?.[0] : undefined;
  if (name !== undefined)
    return [
      {
        kind: 'shownAsWritten',
        path: pointer(path),
        message: `Players read ${name} as it stands: nothing is put in its place here. Write the words themselves.`,
      },
    ];
  const atOnce = is.atOnce !== undefined && isDuration(value) && toMilliseconds(value) === 0 ? says(is.atOnce, value) : undefined;
  return atOnce === undefined ? [] : [{ kind: 'overAtOnce', path: pointer(path), message: `A time of 0: ${atOnce}. Say how long.` }];
}
