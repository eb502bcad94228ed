import type { Copy } from '@eager-ember/core';
import { displayOf, rowOf } from './display';

/** Something that is offered to a seat within its reach. */
export interface OfferView {
  readonly key: string;
  /** The row of the actor that offers it. */
  readonly with: number;
  readonly whom: string;
  /** The id of the interaction; undefined for a container. */
  readonly what: string | undefined;
  readonly prompt: string;
  /** What it asks first, in words. */
  readonly price: string;
  /** Why it has to wait, in words. */
  readonly busy: string;
}

/** What a seat has open: what its window shows. */
export interface BoxView {
  readonly name: string;
  readonly lid: string;
  readonly left: string;
  readonly takes: string;
  readonly items: readonly { readonly item: number; readonly label: string; readonly amount: string }[];
}

/** What is said, and what may be answered. */
export interface TalkView {
  readonly speaker: string;
  readonly text: string;
  readonly left: string;
  readonly choices: readonly { readonly number: number; readonly text: string }[];
}

/** All that the world around a player has to do with them just now, as far as their copy was told. */
export interface SurroundingsView {
  readonly offers: readonly OfferView[];
  readonly visit: { readonly label: string; readonly with: string; readonly left: string } | undefined;
  readonly box: BoxView | undefined;
  readonly talk: TalkView | undefined;
}

const LIDS = ['closed', 'opening', 'open', 'closing'] as const;

export const nameOf = (copy: Copy, handle: number) => String(copy.value('actors', rowOf(handle), 'name') ?? '');

/** Seconds until a tick, in words; nothing where it is past, or there is none. */
export function until(copy: Copy, tick: number): string {
  const left = (tick - copy.tick) / copy.schema.tickRate;
  return tick === 0 || left <= 0 ? '' : `${left.toFixed(1)} s`;
}

const number = (copy: Copy, table: string, row: number, column: string) => Number(copy.value(table, row, column) ?? 0);
const ownRows = (copy: Copy, table: string, own: number) =>
  copy.rows(table).filter((row) => rowOf(number(copy, table, row, 'visitor')) === own);

/** Reads what is around a seat's actor from its copy. */
export function surroundingsOf(copy: Copy, own: number): SurroundingsView {
  return { offers: offersOf(copy, own), visit: visitOf(copy, own), box: boxOf(copy, own), talk: talkOf(copy, own) };
}

function offersOf(copy: Copy, own: number): readonly OfferView[] {
  const { attributes } = displayOf(copy.schema);
  return [...ownRows(copy, 'offers', own)]
    .sort((a, b) => number(copy, 'offers', a, 'order') - number(copy, 'offers', b, 'order'))
    .map((row) => {
      const thing = number(copy, 'offers', row, 'thing');
      const what = copy.value('offers', row, 'interaction');
      const currency = attributes.find(({ id }) => id === copy.value('offers', row, 'currency'));
      const price = number(copy, 'offers', row, 'price');
      const left = until(copy, number(copy, 'offers', row, 'busyUntil'));
      const prompt = String(copy.value('offers', row, 'prompt') ?? '');
      return {
        key: `${thing}/${String(what)}`,
        with: rowOf(thing),
        whom: nameOf(copy, thing),
        what: typeof what === 'string' && what !== '' ? what : undefined,
        prompt,
        // A prompt that says the price says it once.
        price: currency && !new RegExp(`\\b${price}\\b`).test(prompt) ? `${price} ${currency.label.toLowerCase()}` : '',
        busy: number(copy, 'offers', row, 'busy') === 0 ? '' : left === '' ? 'busy' : `busy, ${left}`,
      };
    });
}

function visitOf(copy: Copy, own: number): SurroundingsView['visit'] {
  const [row] = ownRows(copy, 'visits', own);
  if (row === undefined) return undefined;
  const { interactions } = displayOf(copy.schema);
  const id = copy.value('visits', row, 'interaction');
  return {
    label: interactions.find((one) => one.id === id)?.prompt ?? String(id),
    with: nameOf(copy, number(copy, 'visits', row, 'thing')),
    left: until(copy, number(copy, 'visits', row, 'until')),
  };
}

function boxOf(copy: Copy, own: number): BoxView | undefined {
  const [row] = ownRows(copy, 'openings', own);
  if (row === undefined) return undefined;
  const thing = number(copy, 'openings', row, 'thing');
  const { containers } = displayOf(copy.schema);
  const type = copy.value('actors', rowOf(thing), 'type');
  return {
    name: nameOf(copy, thing),
    lid: LIDS[number(copy, 'lids', rowOf(thing), 'lid')] ?? '',
    left: until(copy, number(copy, 'lids', rowOf(thing), 'until')),
    takes: containers.find(({ actor }) => actor === type)?.takes ?? 'either',
    items: [...ownRows(copy, 'shown', own)]
      .sort((a, b) => number(copy, 'shown', a, 'place') - number(copy, 'shown', b, 'place'))
      .map((at) => {
        const amount = number(copy, 'shown', at, 'amount');
        return {
          item: number(copy, 'shown', at, 'item'),
          label: String(copy.value('shown', at, 'label') ?? ''),
          amount: amount === 0 ? '' : String(amount),
        };
      }),
  };
}

function talkOf(copy: Copy, own: number): TalkView | undefined {
  // One's own dialogue first; else what is said within hearing.
  const [mine] = ownRows(copy, 'talks', own);
  const row = mine ?? copy.rows('talks')[0];
  if (row === undefined) return undefined;
  return {
    speaker: String(copy.value('talks', row, 'voice') ?? ''),
    text: String(copy.value('talks', row, 'text') ?? ''),
    left: until(copy, number(copy, 'talks', row, 'until')),
    choices: [...ownRows(copy, 'choices', own)]
      .sort((a, b) => number(copy, 'choices', a, 'number') - number(copy, 'choices', b, 'number'))
      .map((at) => ({ number: number(copy, 'choices', at, 'number'), text: String(copy.value('choices', at, 'text') ?? '') })),
  };
}
