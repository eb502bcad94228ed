import type { RulesetJson } from '../../shared/api';
import { entriesOf, labelOf } from '../entries';
import { amount, type Choice, lower, type PartFormat, type Reading } from './formats';

interface PartJson {
  readonly attribute: string;
  readonly amount: unknown;
}

const EXPECTED = 'How much of what, such as 40 scrip, 2 brass fittings; an amount can be a formula.';
/** Commas and “and” part one from the next, but not within parentheses. */
const BETWEEN = /(?:,|\band\b)(?![^(]*\))/;

const counted = (document: RulesetJson | undefined) => entriesOf(document, 'attributes').filter(({ kind }) => kind !== 'stat');

/** Several amounts of pools and counters as one phrase: `40 scrip and 2 brass fittings`. */
export function partsWith(locals: readonly string[] = []): PartFormat {
  const phrase = (value: unknown, document: RulesetJson | undefined, between: string) =>
    ((value as readonly PartJson[] | undefined) ?? [])
      .map((part) => `${amount.edit(part.amount, document)} ${lower(labelOf(document, 'attributes', part.attribute))}`)
      .join(between);
  const hint = locals.length === 0 ? EXPECTED : `${EXPECTED.slice(0, -1)} over ${locals.join(', ')}.`;
  return {
    show: (value, document) => ({ text: phrase(value, document, ' and ') || 'nothing', look: 'figure' }),
    edit: (value, document) => phrase(value, document, ', '),
    read: (typed, document): Reading => {
      if (typed.trim() === '' || typed.trim().toLowerCase() === 'nothing') return { value: [] };
      const parts: PartJson[] = [];
      for (const one of typed.split(BETWEEN).map((text) => text.trim())) {
        const name = counted(document)
          .flatMap(({ id, label }) => [id, label].map((text) => ({ id, text })))
          .filter(({ text }) => one.toLowerCase().endsWith(text.toLowerCase()))
          .sort((a, b) => b.text.length - a.text.length)[0];
        if (!name) return { error: `“${one}” names nothing that can be counted. ${hint}` };
        const much = one.slice(0, one.length - name.text.length).trim();
        const read = much === '' ? { value: 1 } : amount.read(much, document);
        if (read.error !== undefined) return read;
        parts.push({ attribute: name.id, amount: read.value });
      }
      return { value: parts };
    },
    choices: (typed, document): readonly Choice[] => {
      const word = /[A-Za-z][A-Za-z ]*$/.exec(typed)?.[0] ?? '';
      const before = typed.slice(0, typed.length - word.length);
      if (typed.trim() !== '' && word.trim() === '') return [];
      return counted(document)
        .filter(({ id, label }) => `${label} ${id}`.toLowerCase().includes(word.trim().toLowerCase()))
        .slice(0, 8)
        .map(({ id, label }) => ({ label, hint: id, text: `${before === '' ? '1 ' : before}${lower(label)}` }));
    },
    closed: false,
    hint,
  };
}
