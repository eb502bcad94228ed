import type { ActionDescription, FieldDescription } from '@eager-ember/core';
import type { RulesetJson } from '../shared/api';
import { entriesOf } from '../rulebook/entries';
import { spoken } from '../rulebook/spec/action-pieces';
import { fitsIn, formatOf } from '../rulebook/spec/described';

/** What is asked of somebody who pokes: an argument of the action, the seat that it is for, or a point. */
export interface Control {
  readonly name: string;
  readonly label: string;
  /** What is picked from; where nothing is, it is typed. */
  readonly options?: readonly { readonly value: string; readonly label: string }[];
  readonly begins: string;
  readonly hint: string;
}

/** A piece of the line: words between what is asked. */
export type LinePiece = { readonly words: string } | { readonly control: Control };

const TYPED = ['amount', 'number', 'duration', 'timeAmount', 'text', 'share'];
/** What is typed begins as something that one sees the effect of. */
const BEGINS: Readonly<Record<string, string>> = { amount: '30', number: '30', duration: '10s', timeAmount: '10s', share: '50' };

type Arg = ActionDescription['args'][number];

const asked = ({ args }: ActionDescription): readonly Arg[] => args.filter(({ optional }) => !optional);
const isPoint = (name: string) => name === 'x' || name === 'y';
/** Whether it happens at a point that can be said. */
const takesPoint = ({ args }: ActionDescription) => ['x', 'y'].every((name) => args.some((arg) => arg.name === name));
const isPicked = ({ kind }: FieldDescription) => kind === 'reference' || kind === 'word';

/** Whether everything that an action has to be told fits on one line, and it does something with that alone. */
export function canBePoked(action: ActionDescription): boolean {
  const needed = asked(action);
  const says = needed.length > 0 || action.args.every(({ name }) => isPoint(name));
  return !action.onlyInLists && says && needed.every((arg) => isPicked(arg) || TYPED.includes(arg.kind));
}

function optionsOf(field: FieldDescription, document: RulesetJson | undefined): Control['options'] {
  if (field.kind === 'word') return field.options;
  if (field.kind !== 'reference') return undefined;
  return entriesOf(document, field.chapter)
    .filter(fitsIn(field))
    .map(({ id, label }) => ({ value: id, label: label.toLowerCase() }));
}

function controlOf(arg: Arg, first: boolean, document: RulesetJson | undefined): Control {
  const options = optionsOf(arg, document);
  const label = options ? (first ? 'What it is about' : `Which ${arg.name}`) : TYPED.indexOf(arg.kind) < 2 ? 'Amount' : `How: ${arg.name}`;
  const begins = String(arg.begins ?? BEGINS[arg.kind] ?? '');
  return { name: arg.name, label, ...(options && { options }), begins, hint: formatOf(arg).hint ?? '' };
}

/** What is asked for an action, in the order of its sentence, with the words between. */
export function pokeLine(action: ActionDescription, seats: readonly string[], document: RulesetJson | undefined): readonly LinePiece[] {
  const needed = asked(action);
  const seat: Control = { name: 'seat', label: 'Seat', options: seats.map((name) => ({ value: name, label: name })), begins: '', hint: '' };
  const firstPicked = needed.find(isPicked);
  const controls = new Map<string, Control>([
    ['to', seat],
    ...needed.filter(({ name }) => !isPoint(name)).map((arg) => [arg.name, controlOf(arg, arg === firstPicked, document)] as const),
  ]);
  const needsPoint = needed.some(({ name }) => isPoint(name));
  const point: Control = {
    name: 'point',
    label: 'Where',
    begins: needsPoint ? '480, 200' : '',
    hint: needsPoint ? 'A point of the arena: x, y' : 'A point of the arena, x, y; where the seat is when it is left empty',
  };
  const line: LinePiece[] = [];
  let words = '';
  for (const piece of spoken(action, () => false)) {
    if ('words' in piece) words += piece.words;
    else if (controls.has(piece.name)) {
      // The verb stands in the list of actions already.
      if (line.length > 0) line.push({ words });
      line.push({ control: controls.get(piece.name)! });
      controls.delete(piece.name);
      words = '';
    } else if (piece.name === 'to') words += 'they';
  }
  for (const control of controls.values()) line.push(...(line.length > 0 ? [{ words: 'for' }] : []), { control });
  return takesPoint(action) ? [...line, { words: 'at' }, { control: point }] : line;
}

/** What was filled in, as the action that it is; or what is wrong with it. */
export function pokedAction(
  action: ActionDescription,
  filled: (name: string) => string,
  document: RulesetJson | undefined,
): { readonly action: { readonly do: string; readonly [argument: string]: unknown } } | { readonly error: string } {
  const said: Record<string, unknown> = {};
  for (const arg of asked(action)) {
    if (isPoint(arg.name) && takesPoint(action)) continue;
    const reading = isPicked(arg) ? { value: filled(arg.name) } : formatOf(arg).read(filled(arg.name), document);
    if (reading.error !== undefined) return { error: reading.error };
    said[arg.name] = reading.value;
  }
  const where = filled('point').trim();
  if (takesPoint(action) && (where !== '' || asked(action).some(({ name }) => isPoint(name)))) {
    const point = /^(-?\d+(?:\.\d+)?)\s*[, ]\s*(-?\d+(?:\.\d+)?)$/.exec(where);
    if (!point) return { error: 'A point is expected, such as 480, 200.' };
    [said['x'], said['y']] = [Number(point[1]), Number(point[2])];
  }
  return { action: { do: action.do, ...said } };
}
