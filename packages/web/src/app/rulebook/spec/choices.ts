import type { FieldDescription } from '@eager-ember/core';
import type { RulesetJson } from '../../shared/api';
import { matching } from '../../shared/matching';
import { entriesOf, labelOf } from '../entries';
import { lower, type PartFormat } from './formats';

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
    choices: (typed, document) => matching(all(document), typed).map(({ id, label }) => ({ text: label, label, hint: id })),
    closed: true,
    names: (value) => ({ chapter, id: String(value) }),
  };
}

/** Somebody that something can be for: by a word, or by what is filled in between words. */
export interface PartyWay {
  readonly value?: string;
  readonly pieces: readonly (string | { readonly name: string; readonly field: FieldDescription })[];
}

const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&').replace(/\s+/g, '\\s+');
const optionsOf = (field: FieldDescription) => (field.kind === 'word' ? field.options : []);

/** A way that is said as `others within 260`: what is in a value, and what was typed. */
function filledIn({ pieces }: PartyWay) {
  const holes = pieces.flatMap((piece) => (typeof piece === 'string' ? [] : [piece]));
  const pattern = new RegExp(
    `^${pieces
      .map((piece) =>
        typeof piece === 'string'
          ? escaped(piece)
          : piece.field.kind === 'word'
            ? `(${piece.field.options.flatMap(({ value, label }) => [label, value].map(escaped)).join('|')})`
            : '(\\d+(?:\\.\\d+)?)',
      )
      .join('')}$`,
    'i',
  );
  const say = (value: Readonly<Record<string, unknown>>) =>
    pieces
      .map((piece) => {
        if (typeof piece === 'string') return piece;
        const written = value[piece.name];
        return optionsOf(piece.field).find((option) => option.value === written)?.label ?? String(written ?? piece.field.absent);
      })
      .join('');
  const begins = Object.fromEntries(holes.map(({ name, field }) => [name, field.begins]));
  const choices = holes.find(({ field }) => field.kind === 'word');
  return {
    fits: (value: unknown) =>
      typeof value === 'object' && value !== null && holes.every(({ name, field }) => field.optional || name in value),
    say,
    read: (typed: string): unknown => {
      const match = pattern.exec(typed);
      if (!match) return undefined;
      return Object.fromEntries(
        holes.map(({ name, field }, i) => {
          const given = match[i + 1].toLowerCase();
          const option = optionsOf(field).find(({ value, label }) => [value, label].includes(given));
          return [name, option?.value ?? Number(given)];
        }),
      );
    },
    examples: choices ? optionsOf(choices.field).map(({ value }) => say({ ...begins, [choices.name]: value })) : [say(begins)],
  };
}

/** Whom an action is for: a word, or a sentence with something filled in. */
export function partyAmong(ways: readonly PartyWay[]): PartFormat {
  const named = ways.flatMap(({ value, pieces }) => (value === undefined ? [] : [{ value, label: pieces.join('') }]));
  const sentences = ways.filter(({ value }) => value === undefined).map(filledIn);
  const examples = sentences.flatMap((sentence) => sentence.examples);
  const edit = (value: unknown) =>
    named.find((one) => one.value === (value ?? named[0].value))?.label ??
    sentences.find((one) => one.fits(value))?.say(value as Readonly<Record<string, unknown>>) ??
    String(value);
  return {
    show: (value) => ({ text: edit(value), look: 'word' }),
    edit,
    read: (typed) => {
      const plain = typed.trim().toLowerCase();
      const word = named.find(({ value, label }) => value.toLowerCase() === plain || label.toLowerCase() === plain);
      if (word) return { value: word.value };
      const filled = sentences.map((sentence) => sentence.read(plain)).find((value) => value !== undefined);
      return filled !== undefined
        ? { value: filled }
        : { error: `Say whom: ${[...named.map(({ label }) => label), ...examples.slice(-1).map((one) => `or “${one}”`)].join(', ')}.` };
    },
    choices: () => [...named.map(({ label }) => label), ...examples].map((label) => ({ text: label, label, hint: '' })),
    closed: false,
  };
}
