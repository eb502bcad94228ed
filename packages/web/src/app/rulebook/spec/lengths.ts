import type { RulesetJson } from '../../shared/api';
import { entriesOf, labelOf } from '../entries';
import { type Choice, lower, type PartFormat, timeAmount } from './formats';

interface Span {
  readonly clip: string;
  readonly from?: string;
  readonly mark?: string;
}

const isSpan = (value: unknown): value is Span => typeof value === 'object' && value !== null && 'clip' in value;

interface ClipMarks {
  readonly id: string;
  readonly label: string;
  readonly marks: readonly string[];
}

const clipsOf = (document: RulesetJson | undefined): readonly ClipMarks[] =>
  entriesOf(document, 'clips').map(({ id, label, marks }) => ({
    id,
    label,
    marks: ((marks ?? []) as readonly { mark: string }[]).map(({ mark }) => mark),
  }));

/** A stretch of a clip in words: `torch sweep from strike to its end`. */
function words({ clip, from, mark }: Span, label: string): string {
  return (
    `${lower(label)}${from === undefined ? '' : ` from ${from}`}${mark === undefined ? (from === undefined ? '' : ' to its end') : ` to ${mark}`}` ||
    clip
  );
}

/** Every stretch of every clip: to a mark, from a mark to the end, and all of it. */
function spans(document: RulesetJson | undefined): readonly { readonly span: Span; readonly text: string }[] {
  return clipsOf(document).flatMap(({ id, label, marks }) => {
    const all: Span[] = [...marks.map((mark) => ({ clip: id, mark })), ...marks.map((from) => ({ clip: id, from })), { clip: id }];
    return all.map((span) => ({ span, text: words(span, label) }));
  });
}

/** A time, a formula of seconds, or a stretch of a clip, said as `torch sweep to strike`. */
export const length: PartFormat = {
  ...timeAmount,
  show: (value, document) =>
    isSpan(value) ? { text: words(value, labelOf(document, 'clips', value.clip)), look: 'name' } : timeAmount.show(value, document),
  edit: (value, document) => (isSpan(value) ? words(value, labelOf(document, 'clips', value.clip)) : timeAmount.edit(value, document)),
  read: (typed, document) => {
    const wanted = typed.trim().toLowerCase();
    const found = spans(document).find(({ text }) => text.toLowerCase() === wanted);
    return found ? { value: found.span } : timeAmount.read(typed, document);
  },
  choices: (typed, document): readonly Choice[] => {
    const wanted = typed.trim().toLowerCase();
    const fits = spans(document).filter(({ text }) => text.toLowerCase().includes(wanted));
    return fits.length > 0
      ? fits.slice(0, 8).map(({ text }) => ({ text, label: text, hint: 'a clip' }))
      : timeAmount.choices(typed, document);
  },
  hint: 'A time such as 1.8 s, a formula of seconds, or a clip to one of its marks.',
  names: (value) => (isSpan(value) ? { chapter: 'clips', id: value.clip } : undefined),
};
