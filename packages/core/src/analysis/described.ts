import type { z } from 'zod';
import type { Description } from '../ruleset/described.js';
import { isDuration, toMilliseconds } from '../ruleset/fields.js';
import { type Finding, type Path, pointer } from '../ruleset/problem.js';
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

const known = new WeakMap<Rules, readonly Described[]>();
/** The same of an entry, with paths within it: it is the same object as long as no edit touches it. */
const knownParts = new WeakMap<object, readonly Described[]>();

/** Every value of a ruleset whose field is described, but for what only tries entries out. */
export function describedIn(rules: Rules): readonly Described[] {
  const before = known.get(rules);
  if (before) return before;
  const found: Described[] = [];
  for (const [key, section] of registry().sections) {
    if (onlyTries(key)) continue;
    const whole = rules.document[key];
    if (section.kind === 'chapter')
      (whole as readonly { readonly label: string }[]).forEach((entry, i) => {
        for (const one of describedWithin(section.entry, entry, entry.label)) found.push({ ...one, path: [key, i, ...one.path] });
      });
    else if (typeof whole === 'object' && whole !== null)
      for (const one of describedWithin(section.schema, whole)) found.push({ ...one, path: [key, ...one.path] });
  }
  known.set(rules, found);
  return found;
}

function describedWithin(schema: z.ZodType, part: object, label?: string): readonly Described[] {
  const before = knownParts.get(part);
  if (before) return before;
  const found: Described[] = [];
  walkDescribed(schema, part, [], (is, value, path) => {
    const beside = within(part, path.slice(0, -1));
    found.push({ value, path, is, beside, says: (sentence, of) => filled(sentence, of, beside, label) });
  });
  knownParts.set(part, found);
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

/** Times of 0 where something lasts, and names in braces where nothing is put in their place: players would read the braces. */
export function describedFindings(rules: Rules): readonly Finding[] {
  return describedIn(rules).flatMap(({ value, path, is, says }): readonly Finding[] => {
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
  });
}
