import type { z } from 'zod';
import { LARGEST_AMOUNT } from '../math/grid.js';
import { type Description, descriptions } from './described.js';
import { type Fits, formOf, marks } from './marks.js';
import { registry } from './registry.js';
import { definitionOf, lazilyMade } from './walk.js';

/** Somebody that something can be for: by a word, or by fields that stand in a sentence. */
export interface PartyDescription {
  readonly value?: string;
  /** As `the crew`, or `{who} within {nearby}`. */
  readonly sentence: string;
  readonly fields: Readonly<Record<string, FieldDescription>>;
}

/** One of the words that can stand somewhere. */
export interface WordOption {
  readonly value: string;
  /** What a sentence says for it. */
  readonly label: string;
  readonly hint?: string;
}

/** A number between two, ends included. */
interface NumberKind {
  readonly kind: 'number';
  readonly least: number;
  readonly most: number;
  readonly whole: boolean;
  readonly unit: string;
  /** What a sentence says for some of them. */
  readonly words?: Readonly<Record<string, string>>;
  /** The words around it, with `{value}` where it stands. */
  readonly says?: string;
}

/** What can stand in one place of a ruleset. */
export type FieldKind =
  /** The id of an entry; of one that fits where not all do. */
  | { readonly kind: 'reference'; readonly chapter: string; readonly fits?: Fits }
  | { readonly kind: 'word'; readonly options: readonly WordOption[] }
  | { readonly kind: 'flag'; readonly yes: string; readonly no: string }
  | NumberKind
  /** Numbers, formulas and luck; `event` are the amounts of an event that can be read. */
  | { readonly kind: 'amount'; readonly luck: boolean; readonly event: readonly string[] }
  | { readonly kind: 'condition'; readonly event: readonly string[] }
  /** A formula over amounts that stand here alone; several amounts of attributes, over such ones as well. */
  | { readonly kind: 'amountOver' | 'parts'; readonly over: readonly string[] }
  | { readonly kind: 'text' | 'start' | 'duration' | 'timeAmount' | 'length' }
  /** A share from 0 to 1, said in percents; or a formula that yields one. */
  | { readonly kind: 'share'; readonly formula: boolean }
  /** Whom something is for. */
  | { readonly kind: 'party'; readonly parties: readonly PartyDescription[] }
  /** A list of actions; several of which one is picked by weight; an event to wait for. */
  | { readonly kind: 'then' | 'branches' | 'pattern' }
  | { readonly kind: 'fields'; readonly fields: Readonly<Record<string, FieldDescription>> }
  /** Fields of one of several shapes: of that which the word in `by` names, or which has the field that is asked for. */
  | { readonly kind: 'shapes'; readonly by?: string; readonly shapes: readonly Shape[]; readonly options: readonly WordOption[] }
  | { readonly kind: 'list'; readonly of: FieldDescription }
  | { readonly kind: 'either'; readonly of: readonly FieldDescription[] }
  /** What has a page of its own to say it. */
  | { readonly kind: 'other' };

interface Shape {
  readonly is?: string;
  readonly fields: Readonly<Record<string, FieldDescription>>;
}

/** One place of a ruleset: what can stand there, and what a sentence says of it. */
export type FieldDescription = FieldKind & {
  readonly optional: boolean;
  /** What a sentence says where nothing is written. */
  readonly absent?: string;
  /** What can be written, where its kind does not tell. */
  readonly hint?: string;
  /** What a new one begins as. */
  readonly begins?: number | string;
};

const optionsOf = (values: readonly string[], { words, hints }: Description = {}): readonly WordOption[] =>
  values.map((value) => ({ value, label: words?.[value] ?? value, ...(hints?.[value] && { hint: hints[value] }) }));

const fieldsOf = (shape: Readonly<Record<string, z.ZodType>>) =>
  Object.fromEntries(Object.entries(shape).map(([name, schema]) => [name, describeField(schema)]));

/** The amounts that formulas in a place can read, beside those of attributes. */
function placeOf(schema: z.ZodType): { readonly event: readonly string[]; readonly over: readonly string[] } {
  const all = [schema, ...(definitionOf(schema).options ?? [])].map((one) => marks.get(one));
  const place = all.find((mark) => mark?.kind === 'formula')?.place;
  return { event: place?.event ?? [], over: place?.locals ?? [] };
}

/** Where a number is bounded by nothing else, it is by the largest amount there is. */
const bounded = (value: number | null, otherwise: number) => (value === null || Math.abs(value) > LARGEST_AMOUNT ? otherwise : value);

/** What can stand where a schema is, going by how it is written. */
function writtenKind(schema: z.ZodType): FieldKind | undefined {
  const mark = marks.get(schema);
  if (mark?.kind === 'reference') return { kind: 'reference', chapter: mark.chapter, ...(mark.fits && { fits: mark.fits }) };
  if (mark?.kind === 'formula') {
    if (mark.place.yields === 'text') return { kind: 'text' };
    return mark.place.yields === 'condition'
      ? { kind: 'condition', event: placeOf(schema).event }
      : { kind: 'amount', luck: false, event: placeOf(schema).event };
  }
  const form = formOf(schema);
  switch (form) {
    case undefined:
      return undefined;
    case 'amount':
    case 'steadyAmount':
      return { kind: 'amount', luck: form === 'amount', event: placeOf(schema).event };
    case 'amountOver':
      return { kind: form, over: placeOf(schema).over };
    case 'parts':
      return { kind: form, over: placeOf(definitionOf(definitionOf(schema).element!).shape!['amount']).over };
    case 'share':
      return { kind: form, formula: definitionOf(schema).type === 'union' };
    case 'party':
      return { kind: form, parties: describeParties() };
    default:
      return { kind: form };
  }
}

/** What can stand where a schema is, going by its shape. */
function shapedKind(schema: z.ZodType): FieldKind {
  const def = definitionOf(schema);
  const said = descriptions.get(schema);
  switch (def.type) {
    case 'string':
      return { kind: 'text' };
    case 'enum':
      return { kind: 'word', options: optionsOf(Object.values(def.entries!), said) };
    case 'literal':
      return { kind: 'word', options: optionsOf(def.values!.map(String), said) };
    case 'boolean':
      return { kind: 'flag', yes: said?.words?.['true'] ?? 'yes', no: said?.words?.['false'] ?? 'no' };
    case 'number': {
      const { minValue, maxValue, isInt } = schema as z.ZodNumber;
      const [least, most] = [bounded(minValue, -LARGEST_AMOUNT), bounded(maxValue, LARGEST_AMOUNT)];
      const { unit = '', words, says } = said ?? {};
      return { kind: 'number', least, most, whole: isInt, unit, ...(words && { words }), ...(says !== undefined && { says }) };
    }
    case 'object':
      return { kind: 'fields', fields: fieldsOf(def.shape!) };
    case 'array': {
      const of = describeField(def.element!);
      // Several lists of actions with weights are one of which is picked.
      return of.kind === 'fields' && of.fields['weight'] && of.fields['then']?.kind === 'then' && Object.keys(of.fields).length === 2
        ? { kind: 'branches' }
        : { kind: 'list', of };
    }
    case 'tuple':
      return { kind: 'list', of: describeField(def.items![0]) };
    case 'union': {
      const { discriminator: by, options: all = [] } = def;
      const options = all.filter((option) => descriptions.get(option)?.standsIn !== true);
      if (options.length === 1 && all.length > 1) return kindOf(options[0]);
      if (!options.every((option) => definitionOf(option).type === 'object')) return { kind: 'either', of: options.map(describeField) };
      const shapes = options.map((option) => {
        const { [by ?? '']: name, ...shape } = definitionOf(option).shape!;
        return { ...(name && { is: String(definitionOf(name).values![0]) }), fields: fieldsOf(shape) };
      });
      return {
        kind: 'shapes',
        ...(by !== undefined && { by }),
        shapes,
        options: optionsOf(
          shapes.flatMap(({ is }) => is ?? []),
          said,
        ),
      };
    }
    default:
      return { kind: 'other' };
  }
}

const kindOf = (schema: z.ZodType): FieldKind => writtenKind(schema) ?? shapedKind(schema);

/** How a sentence says a value that stands there where nothing is written. */
function inWords(value: unknown, kind: FieldKind): string | undefined {
  switch (kind.kind) {
    case 'word':
      return kind.options.find((option) => option.value === value)?.label;
    case 'flag':
      return value === true ? kind.yes : kind.no;
    case 'duration':
      return /^0m?s$/.test(String(value)) ? 'no time' : String(value).replace(/(ms|s)$/, ' $1');
    default:
      return typeof value === 'number' || (typeof value === 'string' && value !== '') ? String(value) : undefined;
  }
}

/** What can stand where a schema is. */
export function describeField(schema: z.ZodType): FieldDescription {
  const def = definitionOf(schema);
  const { absent, hint, begins } = descriptions.get(schema) ?? {};
  const own = {
    ...(absent !== undefined && { absent }),
    ...(hint !== undefined && { hint }),
    ...(begins !== undefined && { begins }),
  };
  switch (def.type) {
    case 'optional': {
      const inner = describeField(def.innerType!);
      return { ...inner, optional: true, ...(inner.kind === 'flag' && inner.absent === undefined && { absent: inner.no }), ...own };
    }
    case 'default':
    case 'prefault': {
      const inner = describeField(def.innerType!);
      const said = inner.absent ?? inWords(def.defaultValue, inner);
      return { ...inner, optional: true, ...(said !== undefined && { absent: said }), ...own };
    }
    case 'lazy': {
      // Words of what concepts declare, which are known only once there are concepts; anything longer is described where it stands.
      const inner = lazilyMade(schema);
      return definitionOf(inner).type === 'enum' ? describeField(inner) : { kind: 'other', optional: false, ...own };
    }
    default:
      return { ...kindOf(schema), optional: false, ...own };
  }
}

/** Whom an action can be for: the parties of what happened, and those that concepts find. */
function describeParties(): readonly PartyDescription[] {
  const words = { self: 'self', source: 'the source', target: 'the target' };
  return [
    ...Object.entries(words).map(([value, sentence]) => ({ value, sentence, fields: {} })),
    ...[...registry().selectors].map(([name, { schema, sentence }]) => {
      const described = describeField(schema);
      return described.kind === 'fields' ? { sentence, fields: described.fields } : { value: name, sentence, fields: {} };
    }),
  ];
}

/** What every section of a ruleset can hold, by its name: of a chapter, its entries. */
export function describeSections(): Readonly<Record<string, FieldDescription>> {
  return Object.fromEntries(
    [...registry().sections].map(([key, section]) => [key, describeField(section.kind === 'chapter' ? section.entry : section.schema)]),
  );
}

/** An action as a spec can say it. */
export interface ActionDescription {
  readonly do: string;
  readonly label: string;
  readonly sentence: string;
  /** It steers the list that it stands in, and is for nobody in particular. */
  readonly steers: boolean;
  /** It does nothing but in a list. */
  readonly onlyInLists: boolean;
  /** Whom it is for, where it can say that. */
  readonly to?: FieldDescription;
  readonly args: readonly (FieldDescription & { readonly name: string })[];
}

/** Every action there is, for pickers and sentences. */
export function describeActions(): readonly ActionDescription[] {
  const to = describeField(registry().party);
  return [...registry().actions].map(([name, spec]) => ({
    do: name,
    label: spec.label,
    sentence: spec.sentence,
    steers: spec.steer !== undefined,
    onlyInLists: spec.onlyInLists === true,
    ...(!spec.steer && { to }),
    args: Object.entries(spec.args).map(([arg, schema]) => ({ name: arg, ...describeField(schema) })),
  }));
}

/** Everything that a seat can ask for, in the same way. */
export function describeInputs(): readonly ActionDescription[] {
  return [...registry().inputs].map(([name, { label, sentence, args }]) => ({
    do: name,
    label,
    sentence,
    steers: false,
    onlyInLists: false,
    args: Object.entries(args).map(([arg, schema]) => ({ name: arg, ...describeField(schema) })),
  }));
}

/** An event as a pattern can wait for it. */
export interface EventDescription {
  readonly on: string;
  readonly label: string;
  /** Fields that name an entry, with its chapter. */
  readonly entries: readonly { readonly name: string; readonly chapter: string }[];
  /** Fields that are one of a few words. */
  readonly words: readonly { readonly name: string; readonly options: readonly WordOption[] }[];
  /** Amounts that its condition can read, as in `event.asked`. */
  readonly amounts: readonly string[];
}

/** Every event that can be waited for. */
export function describeEvents(): readonly EventDescription[] {
  return [...registry().events].flatMap(([on, { label, carries }]) =>
    carries
      ? [
          {
            on,
            label,
            entries: Object.entries(carries.entries).map(([name, chapter]) => ({ name, chapter })),
            words: Object.entries(carries.words).map(([name, words]) => ({
              name,
              options: optionsOf(words, { words: carries.says[name] }),
            })),
            amounts: carries.amounts,
          },
        ]
      : [],
  );
}
