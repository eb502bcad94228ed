import type { RulesetJson } from '../../shared/api';
import { matching } from '../../shared/matching';
import { entriesOf, labelOf } from '../entries';

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
  /** What can be typed, with its range: said while it is edited. */
  readonly hint?: string;
  /** The entry that a value names, where it names one. */
  names?(value: unknown, document: RulesetJson | undefined): { readonly chapter: string; readonly id: string } | undefined;
}

export const NUMBER = /^-?\d+(\.\d+)?$/;
const LARGEST = 1e9;
export const lower = (label: string) => label.charAt(0).toLowerCase() + label.slice(1);
const none = (): readonly Choice[] => [];

/** What is wrong with what should have been a number, where that can be told from its looks. */
export function notANumber(typed: string, expected: string): string | undefined {
  const plain = typed.trim();
  if (plain === '') return `Nothing is typed. ${expected} Escape keeps what was there.`;
  if (/^-?\d{1,3}(,\d{3})+(\.\d+)?$/.test(plain)) return `Write it without commas: ${plain.replace(/,/g, '')}.`;
  if (/^-?\d+,\d+$/.test(plain)) return `Write decimals with a point: ${plain.replace(',', '.')}.`;
  if (/^-?[\d.]+(e[+-]?\d+)?$/i.test(plain) && !(Math.abs(Number(plain)) <= LARGEST))
    return `${plain} is too large: numbers go from -1000000000 to 1000000000.`;
  return undefined;
}

export const text: PartFormat = {
  show: (value) => ({ text: String(value), look: 'word' }),
  edit: (value) => String(value ?? ''),
  read: (typed) => ({ value: typed.trim() }),
  choices: none,
  closed: false,
};

/** A number between two, in a unit. */
export interface NumberField {
  readonly least: number;
  readonly most: number;
  readonly whole?: boolean;
  readonly unit?: string;
  /** What a sentence says for some of them. */
  readonly words?: Readonly<Record<string, string>>;
  /** The words around it, with `{value}` where it stands. */
  readonly says?: string;
  /** What a sentence says where there is none. */
  readonly absent?: string;
}

export function numberFrom({ least, most, whole = false, unit = '', words, says, absent }: NumberField): PartFormat {
  const expected = `A ${whole ? 'whole ' : ''}number from ${least} to ${most}${unit && ` ${unit}`}.`;
  const none = says !== undefined && absent !== undefined ? [{ text: absent, label: absent, hint: '' }] : [];
  return {
    show: (value) => {
      const said = words?.[String(value)] ?? says?.replace('{value}', String(value));
      return said === undefined ? { text: String(value), look: 'figure' } : { text: said, look: 'word' };
    },
    edit: (value) => String(value ?? ''),
    read: (typed) => {
      const wrong = notANumber(typed, expected);
      if (wrong !== undefined) return { error: wrong };
      const value = Number(typed.trim());
      const fits = NUMBER.test(typed.trim()) && value >= least && value <= most && (!whole || Number.isInteger(value));
      return fits ? { value } : { error: `${expected} This is ${typed.trim()}.` };
    },
    choices: () => none,
    closed: false,
    hint: none.length === 0 ? expected : `${expected.slice(0, -1)}, or “${absent}”.`,
  };
}

const PERCENT = numberFrom({ least: 0, most: 100, unit: '%' });
/** A share from nothing to all, as percents; or a formula that yields one from 0 to 1, where that makes sense. */
export function shareWith(formula: boolean): PartFormat {
  const percents = (value: unknown) => String(Math.round(Number(value) * 1000) / 10);
  return {
    ...PERCENT,
    show: (value) => ({ text: typeof value === 'number' ? `${percents(value)} %` : String(value), look: 'figure' }),
    edit: (value) => (typeof value === 'number' ? percents(value) : String(value ?? '')),
    read: (typed, document) => {
      const reading = PERCENT.read(typed.replace('%', ''), document);
      if (reading.error === undefined) return { value: Number(reading.value) / 100 };
      const meant = formula && /[A-Za-z]/.test(typed);
      return meant ? { value: typed.trim() } : reading;
    },
    ...(formula && { hint: `${PERCENT.hint?.slice(0, -1)}, or a formula that yields 0 to 1.` }),
  };
}

const TIME_EXPECTED = 'A time up to a day, such as 1.5 s or 250 ms.';

/** A time span: `6s` in the document, `6 s` on the page; `6`, `6 s` or `250 ms` typed. */
export const duration: PartFormat = {
  show: (value) => ({ text: String(value).replace(/(ms|s)$/, ' $1'), look: 'figure' }),
  edit: (value) => String(value ?? ''),
  read: (typed) => {
    const match = /^(\d+(?:\.\d+)?)\s*(ms|s)?$/.exec(typed.trim());
    if (match) return { value: `${match[1]}${match[2] ?? 's'}` };
    return { error: notANumber(typed, TIME_EXPECTED) ?? TIME_EXPECTED };
  },
  choices: none,
  closed: false,
  hint: TIME_EXPECTED,
};

const wordAt = (typed: string) => /[A-Za-z][A-Za-z0-9 ]*$/.exec(typed)?.[0] ?? '';
const MOST_CHOICES = 8;

/** Names that fit the word being typed, with the text that picking one leaves. */
function completions(typed: string, document: RulesetJson | undefined, event: readonly string[]): readonly Choice[] {
  const attributes = entriesOf(document, 'attributes');
  const party = /\b(source|target|subject|event)\.([A-Za-z0-9]*)$/.exec(typed);
  if (party) {
    const before = typed.slice(0, typed.length - party[2].length);
    const all = party[1] === 'event' ? event.map((name) => ({ id: name, label: name })) : attributes;
    return matching(all, party[2])
      .slice(0, MOST_CHOICES)
      .map(({ id, label }) => ({ label, hint: `${party[1]}.${id}`, text: before + id }));
  }
  const names = attributes.map(({ id, label }) => ({ id, label, hint: id, text: id }));
  const calls = (call: string, chapter: string, says: string) =>
    entriesOf(document, chapter).map(({ id, label }) => ({
      id: `${call} ${id}`,
      label: `${says} ${lower(label)}`,
      hint: `${call}(${id})`,
      text: `${call}(${id})`,
    }));
  const carried = event.map((name) => ({
    id: `event ${name}`,
    label: `${name} by the event`,
    hint: `event.${name}`,
    text: `event.${name}`,
  }));
  const all = [
    ...carried,
    ...names,
    ...calls('has', 'statuses', 'has'),
    ...calls('count', 'effects', 'count of'),
    ...calls('doing', 'states', 'doing'),
    ...calls('level', 'tracks', 'level of'),
    ...calls('unlocked', 'achievements', 'has unlocked'),
  ];
  // A label may have several words, and words such as "and" may stand before it: the longest end that fits is meant.
  for (let word = wordAt(typed); ; word = word.slice(word.indexOf(' ') + 1)) {
    const before = typed.slice(0, typed.length - word.length);
    const fits = matching(all, word);
    if (fits.length > 0 || !word.includes(' '))
      return fits.slice(0, MOST_CHOICES).map(({ label, hint, text: name }) => ({ label, hint, text: before + name }));
  }
}

const AMOUNT_EXPECTED = 'A number, a name, a formula, or luck such as 1 to 5.';
const STEADY_EXPECTED = 'A number, a name or a formula.';

/**
 * A number, a name, a formula, or a range of luck written `1 to 5`.
 * @param event the amounts of an event that can be read
 * @param luck whether luck can have a part in it
 */
export function amountWith(event: readonly string[] = [], luck = true): PartFormat {
  const expected = luck ? AMOUNT_EXPECTED : STEADY_EXPECTED;
  const format: PartFormat = {
    show: (value, document) => {
      if (typeof value === 'string' && entriesOf(document, 'attributes').some((entry) => entry.id === value))
        return { text: lower(labelOf(document, 'attributes', value)), look: 'name' };
      return { text: format.edit(value, document), look: 'figure' };
    },
    edit: (value) => {
      const range = (value as { random?: readonly [number, number] } | undefined)?.random;
      return range ? `${range[0]} to ${range[1]}` : String(value ?? '');
    },
    read: (typed, document) => {
      const plain = typed.trim();
      const wrong = notANumber(plain, expected);
      if (wrong !== undefined) return { error: wrong };
      if (NUMBER.test(plain)) return { value: Number(plain) };
      const range = /^(-?\d+(?:\.\d+)?)\s+to\s+(-?\d+(?:\.\d+)?)$/.exec(plain);
      if (range && !luck) return { error: `Luck has no part in this. ${expected}` };
      if (range) {
        const random = [Number(range[1]), Number(range[2])];
        return { value: random.every(Number.isInteger) ? { random, whole: true } : { random } };
      }
      const byLabel = entriesOf(document, 'attributes').find((entry) => entry.label.toLowerCase() === plain.toLowerCase());
      return { value: byLabel?.id ?? plain };
    },
    choices: (typed, document) => (/^\s*-?[\d.]+\s*$/.test(typed) ? [] : completions(typed, document, event)),
    closed: false,
    hint: expected,
    names: (value, document) =>
      entriesOf(document, 'attributes').some((entry) => entry.id === value) ? { chapter: 'attributes', id: String(value) } : undefined,
  };
  return format;
}

export const amount = amountWith();

/** A number, or a formula over amounts that stand in this place alone, such as the level of a curve. */
export function amountOver(locals: readonly string[]): PartFormat {
  const expected = `A number, or a formula over ${locals.join(', ')}, such as 10 * ${locals[0]}.`;
  return {
    ...amount,
    show: (value) => ({ text: String(value), look: 'figure' }),
    edit: (value) => String(value ?? ''),
    read: (typed) => {
      const plain = typed.trim();
      const wrong = notANumber(plain, expected);
      if (wrong !== undefined) return { error: wrong };
      return { value: NUMBER.test(plain) ? Number(plain) : plain };
    },
    choices: none,
    hint: expected,
    names: () => undefined,
  };
}

/** A formula that yields yes or no. */
export function conditionWith(event: readonly string[] = []): PartFormat {
  const expected = 'A condition, such as suit < 20 and has(winded).';
  return {
    show: (value) => ({ text: String(value), look: 'figure' }),
    edit: (value) => String(value ?? ''),
    read: (typed) =>
      typed.trim() === '' ? { error: `Nothing is typed. ${expected} Escape keeps what was there.` } : { value: typed.trim() },
    choices: (typed, document) => completions(typed, document, event),
    closed: false,
    hint: expected,
  };
}

/** What a value begins with: `full`, `50 %` of its maximum, or an amount. */
export const start: PartFormat = {
  ...amount,
  show: (value, document) => {
    if (value === 'full') return { text: 'full', look: 'word' };
    const share = (value as { share?: number } | undefined)?.share;
    return share === undefined ? amount.show(value, document) : { text: `${Number((share * 100).toFixed(4))} % full`, look: 'figure' };
  },
  edit: (value, document) => {
    const share = (value as { share?: number } | undefined)?.share;
    return share === undefined ? amount.edit(value, document) : `${Number((share * 100).toFixed(4))} %`;
  },
  read: (typed, document) => {
    const plain = typed.trim().toLowerCase();
    if (plain === 'full') return { value: 'full' };
    const percent = /^(\d+(?:\.\d+)?)\s*%/.exec(plain);
    if (!percent) return amount.read(typed, document);
    return Number(percent[1]) <= 100 ? { value: { share: Number(percent[1]) / 100 } } : { error: 'A share is 0 % to 100 %.' };
  },
  choices: (typed, document) => [
    ...[
      { text: 'full', label: 'full', hint: 'its maximum' },
      { text: '50 %', label: '50 % full', hint: 'a share' },
    ].filter(({ label }) => label.includes(typed.trim().toLowerCase())),
    ...amount.choices(typed, document),
  ],
  hint: 'full, a share such as 50 %, a number, a formula, or a range of luck such as 80 to 100.',
};

/** A cooldown or a length: a time span, or a formula that yields seconds. */
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
  hint: 'A time up to a day, such as 1.5 s, or a formula that yields seconds.',
};
