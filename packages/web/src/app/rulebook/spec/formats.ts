import type { RulesetJson } from '../../shared/api';
import { entriesOf, labelOf } from '../chapters';

/** What a part of a sentence looks like: a word, a name of something, or a number or formula. */
export interface Shown {
  readonly text: string;
  readonly look: 'word' | 'name' | 'figure';
}

/** What was typed, as the document holds it. A missing value takes the field out. */
export type Reading = { readonly value: unknown; readonly error?: undefined } | { readonly error: string };

export interface Choice {
  /** What stands in the field when it is picked. */
  readonly text: string;
  readonly label: string;
  readonly hint: string;
}

/** How one kind of value is shown, typed and picked. */
export interface PartFormat {
  show(value: unknown, document: RulesetJson | undefined): Shown;
  /** The text that an editor begins with. */
  edit(value: unknown, document: RulesetJson | undefined): string;
  read(text: string, document: RulesetJson | undefined): Reading;
  choices(text: string, document: RulesetJson | undefined): readonly Choice[];
  /** Picking is all there is to it: the first fitting choice is taken by Enter. */
  readonly closed: boolean;
}

const NUMBER = /^-?\d+(\.\d+)?$/;
const lower = (label: string) => label.charAt(0).toLowerCase() + label.slice(1);
const none = (): readonly Choice[] => [];

export const text: PartFormat = {
  show: (value) => ({ text: String(value), look: 'word' }),
  edit: (value) => String(value ?? ''),
  read: (typed) => ({ value: typed.trim() }),
  choices: none,
  closed: false,
};

export const number: PartFormat = {
  show: (value) => ({ text: String(value), look: 'figure' }),
  edit: (value) => String(value ?? ''),
  read: (typed) => (NUMBER.test(typed.trim()) ? { value: Number(typed) } : { error: 'A number is expected.' }),
  choices: none,
  closed: false,
};

/** A time span: `6s` in the document, `6 s` on the page; `6`, `6 s` or `250 ms` typed. */
export const duration: PartFormat = {
  show: (value) => ({ text: String(value).replace(/(ms|s)$/, ' $1'), look: 'figure' }),
  edit: (value) => String(value ?? ''),
  read: (typed) => {
    const match = /^(\d+(?:\.\d+)?)\s*(ms|s)?$/.exec(typed.trim());
    return match ? { value: `${match[1]}${match[2] ?? 's'}` } : { error: 'A time is expected, such as 1.5 s or 250 ms.' };
  },
  choices: none,
  closed: false,
};

const wordAt = (typed: string) => /[A-Za-z][A-Za-z0-9 ]*$/.exec(typed)?.[0] ?? '';

/** Names that fit the word being typed, with the text that picking one leaves. */
function completions(typed: string, document: RulesetJson | undefined): readonly Choice[] {
  const word = wordAt(typed);
  const before = typed.slice(0, typed.length - word.length);
  const wanted = word.trim().toLowerCase();
  const names = entriesOf(document, 'attributes').map(({ id, label }) => ({ id, label, hint: id, text: id }));
  const tests = entriesOf(document, 'statuses').map(({ id, label }) => ({
    id: `has ${id}`,
    label: `has ${lower(label)}`,
    hint: `has(${id})`,
    text: `has(${id})`,
  }));
  return [...names, ...tests]
    .filter(({ id, label }) => `${label} ${id}`.toLowerCase().includes(wanted))
    .slice(0, 8)
    .map(({ label, hint, text: name }) => ({ label, hint, text: before + name }));
}

/** A number, a name, a formula, or a range of luck written `1 to 5`. */
export const amount: PartFormat = {
  show: (value, document) => {
    if (typeof value === 'string' && entriesOf(document, 'attributes').some((entry) => entry.id === value))
      return { text: lower(labelOf(document, 'attributes', value)), look: 'name' };
    return { text: amount.edit(value, document), look: 'figure' };
  },
  edit: (value) => {
    const range = (value as { random?: readonly [number, number] } | undefined)?.random;
    return range ? `${range[0]} to ${range[1]}` : String(value ?? '');
  },
  read: (typed, document) => {
    const plain = typed.trim();
    if (plain === '') return { error: 'A number or a formula is expected.' };
    if (NUMBER.test(plain)) return { value: Number(plain) };
    const range = /^(-?\d+(?:\.\d+)?)\s+to\s+(-?\d+(?:\.\d+)?)$/.exec(plain);
    if (range) {
      const random = [Number(range[1]), Number(range[2])];
      return { value: random.every(Number.isInteger) ? { random, whole: true } : { random } };
    }
    const byLabel = entriesOf(document, 'attributes').find((entry) => entry.label.toLowerCase() === plain.toLowerCase());
    return { value: byLabel?.id ?? plain };
  },
  choices: (typed, document) => (/^\s*-?[\d.]+\s*$/.test(typed) ? [] : completions(typed, document)),
  closed: false,
};

/** A cooldown: a time span, or a formula that yields seconds. */
export const timeAmount: PartFormat = {
  ...amount,
  show: (value, document) =>
    duration.read(String(value), document).error === undefined
      ? duration.show(typeof value === 'number' ? `${value}s` : value, document)
      : amount.show(value, document),
  read: (typed, document) => {
    const span = duration.read(typed, document);
    return span.error === undefined ? span : amount.read(typed, document);
  },
};

/** One of a few words. */
export function choice(options: Readonly<Record<string, string>>): PartFormat {
  const all = Object.entries(options).map(([value, label]) => ({ value, label }));
  return {
    show: (value) => ({ text: options[String(value)] ?? String(value), look: 'word' }),
    edit: () => '',
    read: (typed) => {
      const wanted = typed.trim().toLowerCase();
      const found = all.find(({ value, label }) => value.toLowerCase() === wanted || label.toLowerCase() === wanted);
      return found ? { value: found.value } : { error: `Pick one of: ${all.map((o) => o.label).join(', ')}.` };
    },
    choices: (typed) =>
      all
        .filter(({ label }) => label.toLowerCase().includes(typed.trim().toLowerCase()))
        .map(({ value, label }) => ({ text: label, label, hint: value === label ? '' : value })),
    closed: true,
  };
}

/** An entry of a chapter, picked by its label. */
export function entry(chapter: string, fits: (entry: Readonly<Record<string, unknown>>) => boolean = () => true): PartFormat {
  const all = (document: RulesetJson | undefined) => entriesOf(document, chapter).filter(fits);
  return {
    show: (value, document) => ({ text: lower(labelOf(document, chapter, String(value))), look: 'name' }),
    edit: () => '',
    read: (typed, document) => {
      const wanted = typed.trim().toLowerCase();
      const found = all(document).find(({ id, label }) => id.toLowerCase() === wanted || label.toLowerCase() === wanted);
      return found ? { value: found.id } : { error: typed.trim() === '' ? 'Pick one.' : `Nothing here is called ${typed.trim()}.` };
    },
    choices: (typed, document) =>
      all(document)
        .filter(({ id, label }) => `${label} ${id}`.toLowerCase().includes(typed.trim().toLowerCase()))
        .map(({ id, label }) => ({ text: label, label, hint: id })),
    closed: true,
  };
}

const WHOM: Readonly<Record<string, string>> = {
  self: 'self',
  source: 'the source',
  target: 'the target',
  team: 'the crew',
  everyone: 'everyone',
};
const NEARBY = /^(anyone|others|crew)\s+within\s+(\d+(?:\.\d+)?)$/;

/** Whom an action is for: a word, or `others within 260`. */
export const party: PartFormat = {
  show: (value) => ({ text: party.edit(value ?? 'self', undefined), look: 'word' }),
  edit: (value) => {
    const near = value as { nearby?: number; who?: string } | undefined;
    if (near?.nearby !== undefined) return `${near.who ?? 'anyone'} within ${near.nearby}`;
    return WHOM[String(value ?? 'self')] ?? String(value);
  },
  read: (typed) => {
    const plain = typed.trim().toLowerCase();
    const word = Object.entries(WHOM).find(([value, label]) => value === plain || label === plain);
    if (word) return { value: word[0] };
    const near = NEARBY.exec(plain);
    return near
      ? { value: { nearby: Number(near[2]), who: near[1] } }
      : { error: 'Say whom: self, the source, the target, the crew, everyone, or “others within 200”.' };
  },
  choices: () =>
    [...Object.values(WHOM), 'others within 200', 'crew within 200', 'anyone within 200'].map((label) => ({
      text: label,
      label,
      hint: '',
    })),
  closed: false,
};
