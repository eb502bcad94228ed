import type { RulesetJson } from '../shared/api';
import { entriesOf, labelOf } from '../rulebook/entries';
import { duration, lower, type Choice, type PartFormat } from '../rulebook/spec/formats';

const ID = /^[a-z][A-Za-z0-9]{0,47}$/;
const IN_ROW = /^row\.[A-Za-z][A-Za-z0-9]*$/;

/** What somebody may have meant as an id: `max health` is `maxHealth`. */
const asId = (typed: string): string | undefined => {
  const id = typed
    .trim()
    .split(/\s+/)
    .map((word, i) => (i === 0 ? word.charAt(0).toLowerCase() + word.slice(1) : word.charAt(0).toUpperCase() + word.slice(1)))
    .join('');
  return ID.test(id) ? id : undefined;
};

/** A format that also takes the name of something that is not there yet, and what a row of a table has. */
export function ahead(format: PartFormat): PartFormat {
  return {
    ...format,
    closed: false,
    read: (typed, document) => {
      const known = format.read(typed, document);
      if (known.error === undefined) return known;
      const plain = typed.trim();
      const id = IN_ROW.test(plain) ? plain : asId(plain);
      return id === undefined ? known : { value: id };
    },
    hint: format.hint ?? 'A name; it may be one that is still to be made.',
  };
}

/** Where a column may be spoken of: the end of what is being typed. */
const COLUMN_AT_END = /[A-Za-z.][A-Za-z0-9.]*$/;

/** A format that also takes what a row of the check's table has: `row.name`. */
export function orRow(format: PartFormat, columns: () => readonly string[]): PartFormat {
  const isRow = (value: unknown) => typeof value === 'string' && IN_ROW.test(value.trim());
  return {
    ...format,
    show: (value, document) => (isRow(value) ? { text: String(value), look: 'figure' } : format.show(value, document)),
    edit: (value, document) => (isRow(value) ? String(value) : format.edit(value, document)),
    read: (typed, document) => (isRow(typed) ? { value: typed.trim() } : format.read(typed, document)),
    choices: (typed, document) => {
      const word = COLUMN_AT_END.exec(typed)?.[0] ?? '';
      const before = typed.slice(0, typed.length - word.length);
      const meant = columns().filter((column) => `row.${column}`.toLowerCase().includes(word.toLowerCase()));
      const rows = meant.map((column) => ({ text: `${before}row.${column}`, label: `row.${column}`, hint: 'of the table' }));
      if (word.startsWith('row.')) return rows;
      return [...format.choices(typed, document), ...(word === '' && typed !== '' ? [] : rows)];
    },
    names: (value, document) => (isRow(value) ? undefined : format.names?.(value, document)),
  };
}

type Who = string | { readonly every: string } | { readonly crew: string } | undefined;

/** Who is spoken of: one by name, everyone, each of a kind, all of a crew. */
export function whoAmong(names: () => readonly string[], none: string): PartFormat {
  const ways = (document: RulesetJson | undefined): readonly { readonly text: string; readonly value: Who }[] => [
    { text: none, value: undefined },
    ...names().map((name) => ({ text: name, value: name })),
    ...entriesOf(document, 'actors').map(({ id, label }) => ({ text: `every ${lower(label)}`, value: { every: id } })),
    ...entriesOf(document, 'teams').map(({ id, label }) => ({ text: `the crew of ${label}`, value: { crew: id } })),
  ];
  const say = (value: unknown, document: RulesetJson | undefined): string => {
    if (value === undefined) return none;
    if (typeof value === 'string') return value;
    const { every, crew } = value as { every?: string; crew?: string };
    return every !== undefined
      ? `every ${lower(labelOf(document, 'actors', every))}`
      : `the crew of ${labelOf(document, 'teams', String(crew))}`;
  };
  return {
    show: (value, document) => ({ text: say(value, document), look: 'name' }),
    edit: () => '',
    read: (typed, document) => {
      const wanted = typed.trim().toLowerCase();
      const found = ways(document).find(({ text }) => text.toLowerCase() === wanted);
      if (found) return { value: found.value };
      return /^[A-Za-z][A-Za-z0-9 _-]{0,23}$/.test(typed.trim())
        ? { value: typed.trim() }
        : { error: `Say whom: ${names().join(', ')}, ${none}.` };
    },
    choices: (typed, document): readonly Choice[] =>
      ways(document)
        .filter(({ text }) => text.toLowerCase().includes(typed.trim().toLowerCase()))
        .map(({ text }) => ({ text, label: text, hint: '' })),
    closed: false,
  };
}

/** One of those who were given, by name. */
export function nameAmong(names: () => readonly string[], none?: string): PartFormat {
  return {
    show: (value) => ({ text: value === undefined && none !== undefined ? none : String(value), look: 'name' }),
    edit: () => '',
    read: (typed) => {
      const plain = typed.trim();
      if (none !== undefined && plain.toLowerCase() === none) return { value: undefined };
      return /^[A-Za-z][A-Za-z0-9 _-]{0,23}$/.test(plain) ? { value: plain } : { error: `Say whom: ${names().join(', ')}.` };
    },
    choices: (typed) =>
      [...(none === undefined ? [] : [none]), ...names()]
        .filter((name) => name.toLowerCase().includes(typed.trim().toLowerCase()))
        .map((name) => ({ text: name, label: name, hint: '' })),
    closed: false,
  };
}

/** How often: once, twice, never, 5 times. */
export const times: PartFormat = {
  show: (value) => ({ text: timesWords(Number(value ?? 1)), look: 'figure' }),
  edit: (value) => String(value ?? 1),
  read: (typed) => {
    const plain = typed
      .trim()
      .toLowerCase()
      .replace(/\s*times$/, '');
    const word = { never: 0, once: 1, twice: 2 }[plain];
    if (word !== undefined) return { value: word };
    return /^\d{1,5}$/.test(plain) ? { value: Number(plain) } : { error: 'never, once, twice, or a number of times.' };
  },
  choices: () => ['never', 'once', 'twice'].map((text) => ({ text, label: text, hint: '' })),
  closed: false,
  hint: 'never, once, twice, or a number of times.',
};

const timesWords = (count: number) => ['never', 'once', 'twice'][count] ?? `${count} times`;

/** A stretch of time: a number in a document is one of seconds. */
export const time: PartFormat = {
  ...duration,
  show: (value, document) => duration.show(typeof value === 'number' ? `${value}s` : value, document),
  edit: (value, document) => duration.edit(typeof value === 'number' ? `${value}s` : value, document),
};

/** Any JSON: a number, true, a text, a list. */
export const json: PartFormat = {
  show: (value) => ({ text: typeof value === 'string' ? value : JSON.stringify(value), look: 'figure' }),
  edit: (value) => (typeof value === 'string' ? value : JSON.stringify(value)),
  read: (typed) => {
    if (typed.trim() === '') return { error: 'Nothing is typed. Escape keeps what was there.' };
    try {
      return { value: JSON.parse(typed) as unknown };
    } catch {
      return { value: typed.trim() };
    }
  },
  choices: () => [],
  closed: false,
  hint: 'A number, a text, or JSON.',
};
