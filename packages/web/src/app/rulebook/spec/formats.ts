import type { RulesetJson } from '../../shared/api';
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
export function numberFrom(low: number, high: number, unit = '', whole = false): PartFormat {
  const expected = `A ${whole ? 'whole ' : ''}number from ${low} to ${high}${unit && ` ${unit}`}.`;
  return {
    show: (value) => ({ text: String(value), look: 'figure' }),
    edit: (value) => String(value ?? ''),
    read: (typed) => {
      const wrong = notANumber(typed, expected);
      if (wrong !== undefined) return { error: wrong };
      const value = Number(typed.trim());
      const fits = NUMBER.test(typed.trim()) && value >= low && value <= high && (!whole || Number.isInteger(value));
      return fits ? { value } : { error: `${expected} This is ${typed.trim()}.` };
    },
    choices: none,
    closed: false,
    hint: expected,
  };
}

/** A share from nothing to all, as percents. */
export const share: PartFormat = {
  ...numberFrom(0, 100, '%'),
  show: (value) => ({ text: `${Math.round(Number(value) * 1000) / 10} %`, look: 'figure' }),
  edit: (value) => (value === undefined ? '' : String(Math.round(Number(value) * 1000) / 10)),
  read: (typed, document) => {
    const reading = numberFrom(0, 100, '%').read(typed.replace('%', ''), document);
    return reading.error === undefined ? { value: Number(reading.value) / 100 } : reading;
  },
};

export const number = numberFrom(-LARGEST, LARGEST);

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
    return all
      .filter(({ id, label }) => `${label} ${id}`.toLowerCase().includes(party[2].toLowerCase()))
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
    const fits = all.filter(({ id, label }) => `${label} ${id}`.toLowerCase().includes(word.trim().toLowerCase()));
    if (fits.length > 0 || !word.includes(' '))
      return fits.slice(0, MOST_CHOICES).map(({ label, hint, text: name }) => ({ label, hint, text: before + name }));
  }
}

const AMOUNT_EXPECTED = 'A number, a name, a formula, or luck such as 1 to 5.';

/** A number, a name, a formula, or a range of luck written `1 to 5`; `event` are the amounts of an event that can be read. */
export function amountWith(event: readonly string[] = []): PartFormat {
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
      const wrong = notANumber(plain, AMOUNT_EXPECTED);
      if (wrong !== undefined) return { error: wrong };
      if (NUMBER.test(plain)) return { value: Number(plain) };
      const range = /^(-?\d+(?:\.\d+)?)\s+to\s+(-?\d+(?:\.\d+)?)$/.exec(plain);
      if (range) {
        const random = [Number(range[1]), Number(range[2])];
        return { value: random.every(Number.isInteger) ? { random, whole: true } : { random } };
      }
      const byLabel = entriesOf(document, 'attributes').find((entry) => entry.label.toLowerCase() === plain.toLowerCase());
      return { value: byLabel?.id ?? plain };
    },
    choices: (typed, document) => (/^\s*-?[\d.]+\s*$/.test(typed) ? [] : completions(typed, document, event)),
    closed: false,
    hint: AMOUNT_EXPECTED,
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

export const condition = conditionWith();

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

/**
 * Who counts, seen from somebody. An opponent is whoever is on another side, a player of another team as well: a foe is a kind
 * of actor, whatever side it is on.
 */
export const who = choice({ foes: 'opponent', allies: 'ally', crew: 'of the crew', others: 'not of the crew', anyone: 'body' });
/** How whom one says within a distance is written in a document. */
const WHO_NEARBY: Readonly<Record<string, string>> = { opponents: 'foes' };

/** A yes or no, said in two words. */
export function flag(words: { true: string; false: string }): PartFormat {
  const base = choice(words);
  return {
    ...base,
    read: (typed) => {
      const reading = base.read(typed, undefined);
      return reading.error === undefined ? { value: reading.value === 'true' } : reading;
    },
    choices: (typed) => base.choices(typed, undefined).map((option) => ({ ...option, hint: '' })),
  };
}

/** One of several words, of which the first is what is meant where nothing is said: picking it takes the value out. */
export function choiceOrNone(
  none: string,
  options: Readonly<Record<string, string>>,
  toValue: (word: string) => unknown = String,
): PartFormat {
  const base = choice({ none, ...options });
  return {
    ...base,
    show: (value, document) => base.show(Object.keys(options).find((word) => toValue(word) === value) ?? value, document),
    read: (typed, document) => {
      const reading = base.read(typed, document);
      if (reading.error !== undefined) return reading;
      return { value: reading.value === 'none' ? undefined : toValue(String(reading.value)) };
    },
    choices: (typed, document) => base.choices(typed, document).map((option) => ({ ...option, hint: '' })),
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
    names: (value) => ({ chapter, id: String(value) }),
  };
}

const WHOM: Readonly<Record<string, string>> = {
  self: 'self',
  source: 'the source',
  target: 'the target',
  team: 'the crew',
  everyone: 'everyone',
  helpers: 'those who helped',
};
const NEARBY = /^(anyone|others|crew|opponents|foes|allies)\s+within\s+(\d+(?:\.\d+)?)$/;

/** Whom an action is for: a word, or `others within 260`. */
export const party: PartFormat = {
  show: (value) => ({ text: party.edit(value ?? 'self', undefined), look: 'word' }),
  edit: (value) => {
    const near = value as { nearby?: number; who?: string } | undefined;
    if (near?.nearby !== undefined) return `${near.who === 'foes' ? 'opponents' : (near.who ?? 'anyone')} within ${near.nearby}`;
    return WHOM[String(value ?? 'self')] ?? String(value);
  },
  read: (typed) => {
    const plain = typed.trim().toLowerCase();
    const word = Object.entries(WHOM).find(([value, label]) => value === plain || label === plain);
    if (word) return { value: word[0] };
    const near = NEARBY.exec(plain);
    return near
      ? { value: { nearby: Number(near[2]), who: WHO_NEARBY[near[1]] ?? near[1] } }
      : { error: 'Say whom: self, the source, the target, the crew, everyone, or “others within 200”.' };
  },
  choices: () =>
    [...Object.values(WHOM), 'opponents within 200', 'others within 200', 'crew within 200', 'anyone within 200'].map((label) => ({
      text: label,
      label,
      hint: '',
    })),
  closed: false,
};
