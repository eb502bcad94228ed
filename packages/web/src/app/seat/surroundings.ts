import {
  actorTable,
  choicesTable,
  type Copy,
  lidsTable,
  offersTable,
  openingsTable,
  rowInHandle,
  shownTable,
  talksTable,
  visitsTable,
} from '@eager-ember/core';
import { displayOf } from './display';

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

export const nameOf = (copy: Copy, handle: number) => copy.of(actorTable).row(rowInHandle(handle)).name ?? '';

/** Seconds until a tick, in words; nothing where it is past, or there is none. */
export function until(copy: Copy, tick: number): string {
  const left = (tick - copy.tick) / copy.schema.tickRate;
  return tick === 0 || left <= 0 ? '' : `${left.toFixed(1)} s`;
}

/** Reads what is around a seat's actor from its copy. */
export function surroundingsOf(copy: Copy, own: number): SurroundingsView {
  return { offers: offersOf(copy, own), visit: visitOf(copy, own), box: boxOf(copy, own), talk: talkOf(copy, own) };
}

function offersOf(copy: Copy, own: number): readonly OfferView[] {
  const { attributes } = displayOf(copy.schema);
  return [...copy.of(offersTable).ownedBy(own)]
    .sort((a, b) => (a.order ?? 0) - (b.order ?? 0))
    .map(({ thing = 0, interaction: what, prompt = '', price = 0, currency: paidIn, busyUntil = 0, busy = false }) => {
      const currency = attributes.find(({ id }) => id === paidIn);
      const left = until(copy, busyUntil);
      return {
        key: `${thing}/${String(what)}`,
        with: rowInHandle(thing),
        whom: nameOf(copy, thing),
        what: what === '' ? undefined : what,
        prompt,
        // A prompt that says the price says it once.
        price: currency && !new RegExp(`\\b${price}\\b`).test(prompt) ? `${price} ${currency.label.toLowerCase()}` : '',
        busy: !busy ? '' : left === '' ? 'busy' : `busy, ${left}`,
      };
    });
}

function visitOf(copy: Copy, own: number): SurroundingsView['visit'] {
  const [visit] = copy.of(visitsTable).ownedBy(own);
  if (visit === undefined) return undefined;
  const { interactions } = displayOf(copy.schema);
  const { interaction: id = '', thing = 0, until: ends = 0 } = visit;
  return {
    label: interactions.find((one) => one.id === id)?.prompt ?? id,
    with: nameOf(copy, thing),
    left: until(copy, ends),
  };
}

function boxOf(copy: Copy, own: number): BoxView | undefined {
  const [opening] = copy.of(openingsTable).ownedBy(own);
  if (opening === undefined) return undefined;
  const { thing = 0 } = opening;
  const { containers } = displayOf(copy.schema);
  const { type } = copy.of(actorTable).row(rowInHandle(thing));
  const { lid = 'closed', until: ends = 0 } = copy.of(lidsTable).row(rowInHandle(thing));
  return {
    name: nameOf(copy, thing),
    lid,
    left: until(copy, ends),
    takes: containers.find(({ actor }) => actor === type)?.takes ?? 'either',
    items: [...copy.of(shownTable).ownedBy(own)]
      .sort((a, b) => (a.place ?? 0) - (b.place ?? 0))
      .map(({ item = 0, label = '', amount = 0 }) => ({ item, label, amount: amount === 0 ? '' : String(amount) })),
  };
}

function talkOf(copy: Copy, own: number): TalkView | undefined {
  // One's own dialogue first; else what is said within hearing.
  const talks = copy.of(talksTable);
  const talk = talks.ownedBy(own)[0] ?? talks.all()[0];
  if (talk === undefined) return undefined;
  const { voice: speaker = '', text = '', until: ends = 0 } = talk;
  const choices = copy.of(choicesTable).ownedBy(own);
  return {
    speaker,
    text,
    left: until(copy, ends),
    choices: choices.map(({ number = 0, text: words = '' }) => ({ number, text: words })).sort((a, b) => a.number - b.number),
  };
}
