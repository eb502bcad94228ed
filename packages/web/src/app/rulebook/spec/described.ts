import { inject, Injectable, resource } from '@angular/core';
import type { FieldDescription, PartyDescription } from '@eager-ember/core';
import { CoreClient } from '../../shared/core-client';
import type { RulesetJson } from '../../shared/api';
import { entriesOf } from '../entries';
import { choice, entry, flag, partyAmong, type PartyWay } from './choices';
import {
  amountOver,
  amountWith,
  conditionWith,
  duration,
  numberFrom,
  type PartFormat,
  shareWith,
  start,
  text,
  timeAmount,
} from './formats';
import { length } from './lengths';
import { partsWith } from './parts';

/** What every section of a ruleset can hold, as its schema says: asked of the core once. */
@Injectable({ providedIn: 'root' })
export class Descriptions {
  private readonly client = inject(CoreClient);
  private readonly sections = resource({ loader: () => this.client.sections() });

  /** What a section can hold: of a chapter, one of its entries. Undefined until it is known. */
  of(section: string): FieldDescription | undefined {
    return this.sections.value()?.[section];
  }

  /** Resolves once they are known. */
  async known(): Promise<void> {
    await this.client.sections();
  }
}

/** What can stand at a path below a value, which says of what shape it is where there are several. */
export function fieldAt(within: FieldDescription | undefined, value: unknown, at: string): FieldDescription | undefined {
  if (at === '') return within;
  let [field, holder] = [within, value];
  for (const key of at.split('/')) {
    field = field && stepInto(field, holder, key);
    holder = (holder as Readonly<Record<string, unknown>> | undefined)?.[key];
  }
  return field;
}

function stepInto(field: FieldDescription, holder: unknown, key: string): FieldDescription | undefined {
  switch (field.kind) {
    case 'fields':
      return field.fields[key];
    case 'list':
      return field.of;
    case 'shapes': {
      const { by, shapes } = field;
      const own = (holder ?? {}) as Readonly<Record<string, unknown>>;
      const fits = shapes.filter(({ is, fields }) => (by === undefined ? key in fields : is === own[by]));
      // Of several shapes with such a field it is the one that has the fields that are there.
      const shape = fits.find(({ fields }) => Object.keys(own).every((name) => name === by || name in fields)) ?? fits[0];
      return shape?.fields[key];
    }
    case 'either':
      return field.of.map((one) => stepInto(one, holder, key)).find((one) => one !== undefined);
    default:
      return undefined;
  }
}

/** Whether an entry makes sense where a field names one. */
export const fitsIn =
  (field: FieldDescription) =>
  (one: Readonly<Record<string, unknown>>): boolean =>
    field.kind !== 'reference' || Object.entries(field.fits ?? {}).every(([name, words]) => words.includes(String(one[name])));

/** How what stands in a place is shown, typed and picked. What has no words of its own is text. */
export function formatOf(field: FieldDescription): PartFormat {
  const format = ofKind(field);
  return field.hint === undefined ? format : { ...format, hint: field.hint };
}

function ofKind(field: FieldDescription): PartFormat {
  switch (field.kind) {
    case 'reference':
      return entry(field.chapter, fitsIn(field));
    case 'word':
      return choice(Object.fromEntries(field.options.map(({ value, label }) => [value, label])));
    case 'flag':
      return flag({ true: field.yes, false: field.no });
    case 'number':
      return numberFrom(field);
    case 'amount':
      return amountWith(field.event, field.luck);
    case 'condition':
      return conditionWith(field.event);
    case 'amountOver':
      return amountOver(field.over);
    case 'parts':
      return partsWith(field.over);
    case 'share':
      return shareWith(field.formula);
    case 'party':
      return partyAmong(field.parties.map(sentenceOf));
    case 'either':
      return eitherOf(field.of.map(formatOf));
    default:
      return PLAIN[field.kind] ?? text;
  }
}

const PLAIN: Readonly<Record<string, PartFormat>> = { start, duration, timeAmount, length };

/** A party's sentence in pieces: words, and numbers and words to fill in. */
function sentenceOf({ value, sentence, fields }: PartyDescription): PartyWay {
  const pieces = sentence.split(/(\{\w+\})/).map((piece) => {
    const name = /^\{(\w+)\}$/.exec(piece)?.[1];
    return name === undefined ? piece : { name, field: fields[name] };
  });
  return { ...(value !== undefined && { value }), pieces };
}

/** What is written in one of several ways: the first that can show it, and the first that can read it. */
function eitherOf(formats: readonly PartFormat[]): PartFormat {
  const naming = (value: unknown, document: RulesetJson | undefined) =>
    formats.find((format) => {
      const named = format.names?.(value, document);
      return named && entriesOf(document, named.chapter).some(({ id }) => id === named.id);
    });
  return {
    show: (value, document) => (naming(value, document) ?? formats[0]).show(value, document),
    edit: (value, document) => {
      const named = naming(value, document);
      return named ? named.show(value, document).text : formats[0].edit(value, document);
    },
    read: (typed, document) => {
      const readings = formats.map((format) => format.read(typed, document));
      return readings.find(({ error }) => error === undefined) ?? readings[0];
    },
    choices: (typed, document) => formats.flatMap((format) => format.choices(typed, document)),
    closed: false,
    hint: formats.map(({ hint }) => hint ?? '').join(' '),
    names: (value, document) => naming(value, document)?.names?.(value, document),
  };
}
