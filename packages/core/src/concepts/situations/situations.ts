import { type SituationEntry } from './schema.js';
import { toMilliseconds } from '../../ruleset/fields.js';
import { labelOf, type Rules } from '../../ruleset/rules.js';
import type { Script } from '../seats/script/schema.js';
import type { GameEvent } from '../../world/events.js';
import { OTHER, SEAT } from './play.js';
import { EVIDENCE_SECONDS, inWords, type Pin, type PinAction, type ProposedSituation } from '../../workbench/evidence.js';
import { entriesIn } from '../../ruleset/chapter.js';

export type SubjectKind = 'attribute' | 'effect' | 'ability';

/** The situation that its author wrote for an entry; otherwise the proposed one. */
export function situationOf(
  rules: Rules,
  kind: SubjectKind,
  id: string,
  propose: () => Omit<ProposedSituation, 'authored'>,
): ProposedSituation {
  const all = entriesIn<SituationEntry>(rules, 'situations');
  const written = all.find((situation) => situation[kind] === id);
  if (!written) return { authored: false, ...propose() };
  const pins = written.pins.map((pin) => ({ at: pin.at, action: pin.action as PinAction, ...(pin.from && { from: pin.from }) }));
  return { authored: true, seconds: written.seconds ?? EVIDENCE_SECONDS, pins };
}

/** The pins of a situation as what a script does to the seat that is tried on. */
export function pokesOf({ pins }: ProposedSituation): Script['pokes'] {
  return pins.map(({ at, action, from }) => ({ at, seat: SEAT, ...(from && { from: OTHER }), ...action }));
}

export const secondsOf = (at: string) => toMilliseconds(at) / 1000;

/** The pins as they are shown, with what of each was lost. */
export function pinsOf(rules: Rules, { pins }: ProposedSituation, events: readonly GameEvent[]): readonly Pin[] {
  const pokes = events.filter((event) => event.name === 'poked');
  // The pokes of a situation are its pins, in the order of their ticks; those of one tick stand in the author's order.
  const order = pins.map((pin, i) => ({ i, ms: toMilliseconds(pin.at) })).sort((a, b) => a.ms - b.ms || a.i - b.i);
  const serials = new Map(order.map(({ i }, k) => [i, pokes[k]?.serial]));
  return pins.map((pin, i) => {
    const change = events.find((event) => event.name === 'attributeChanged' && event.cause === serials.get(i));
    const lost = Number(change?.data['lost'] ?? 0);
    const name = pin.action.do === 'heal' ? 'over-heal' : pin.action.do === 'hurt' ? 'overkill' : 'too much';
    return {
      t: secondsOf(pin.at),
      label: pinLabel(rules, pin.action) + (pin.from ? ' (from another)' : ''),
      ...(lost !== 0 && { lost: `${inWords(Math.abs(lost))} ${name} lost` }),
    };
  });
}

/** What a pin does, in two or three words. */
export function pinLabel(rules: Rules, action: PinAction): string {
  const name = (chapter: string, id: unknown) => labelOf(rules, chapter, String(id)).toLowerCase();
  const amount = (value: unknown) => (typeof value === 'object' && value !== null ? 'some' : String(value));
  switch (action.do) {
    case 'hurt':
      return `lose ${amount(action['amount'])} ${name('attributes', action['attribute'])}`;
    case 'heal':
    case 'give':
      return `gain ${amount(action['amount'])} ${name('attributes', action['attribute'])}`;
    case 'take':
      return `lose ${amount(action['amount'])} ${name('attributes', action['attribute'])}`;
    case 'set':
      return `${name('attributes', action['attribute'])} = ${amount(action['value'])}`;
    case 'apply':
      return name('effects', action['effect']);
    case 'end':
      return `end ${name('effects', action['effect'])}`;
    case 'grant':
      return name('statuses', action['status']);
    case 'withdraw':
      return `no longer ${name('statuses', action['status'])}`;
    default:
      return rules.registry.actions.get(action.do)?.label ?? action.do;
  }
}
