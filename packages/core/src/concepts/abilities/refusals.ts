import { amount, entry, text, word } from '../../world/event-fields.js';
import type { DataOf, GameEvent, Speaker } from '../../world/events.js';
import { type Refusal } from '../../world/refusal.js';

/** Why a use is refused, or why one under way comes to nothing. */
export const REFUSALS = [
  'notOwned',
  'busy',
  'state',
  'coolingDown',
  'noneStored',
  'requirement',
  'moving',
  'noTarget',
  'notATarget',
  'targetGone',
  'outOfArena',
  'outOfRange',
  'outOfSight',
  'tooExpensive',
  'notToBeBroken',
] as const;
export type Refused = (typeof REFUSALS)[number];

/** What a refusal says, beside the ability that it is of. */
export const refusedFields = {
  reason: word(REFUSALS, 'with', 'state', 'status', 'attribute'),
  with: entry('abilities'),
  state: entry('states'),
  ticks: amount(),
  says: text('status'),
  status: entry('statuses'),
  attribute: entry('attributes'),
  needs: amount('attribute'),
  present: amount('attribute'),
  range: amount(),
  distance: amount(),
} as const;

export type AbilityRefusal = Refusal<Refused, Omit<DataOf<typeof refusedFields>, 'reason'>>;

/**
 * What is asked before an ability is begun. The world answers from its tables; a seat that expects its own use answers
 * from what it was told, and leaves out what it can't know.
 */
export interface AbilityView {
  owned(): boolean;
  /** The id of the ability that is under way; none where nothing is. */
  busyWith(): string | undefined;
  /** The id of the state that keeps it from being begun. */
  forbiddingState(): string | undefined;
  /** Ticks until it has cooled down. */
  wait(): number;
  /** Ticks until the next use is in store; 0 where there is one, or none are kept. */
  storeWait(): number;
  /** What the player reads of a requirement that is not met, and the status that these words speak of, where they do. */
  unmet(): { readonly says: string; readonly status?: string } | undefined;
  /** Whether the user is on its way somewhere although that would break it. */
  onTheWay(): boolean;
  aim(): AbilityRefusal | undefined;
  /** A cost that there is not enough for. */
  short(): { readonly attribute: string; readonly needs: number; readonly present: number } | undefined;
}

/** The first thing that keeps an ability from being begun, in an order in which the most lasting reason comes first. */
export function refusalOf(view: AbilityView): AbilityRefusal | undefined {
  if (!view.owned()) return { reason: 'notOwned' };
  const busy = view.busyWith();
  if (busy !== undefined) return { reason: 'busy', with: busy };
  const state = view.forbiddingState();
  if (state !== undefined) return { reason: 'state', state };
  const wait = view.wait();
  if (wait > 0) return { reason: 'coolingDown', ticks: wait };
  const store = view.storeWait();
  if (store > 0) return { reason: 'noneStored', ticks: store };
  const unmet = view.unmet();
  if (unmet) return { reason: 'requirement', ...unmet };
  if (view.onTheWay()) return { reason: 'moving' };
  const aim = view.aim();
  if (aim) return aim;
  const short = view.short();
  return short && { reason: 'tooExpensive', ...short };
}

/** Why a player may not use an ability, in words a player can act on. */
export function refusalWords(event: Pick<GameEvent, 'who' | 'data'>, speak: Speaker): string {
  const { ability, reason, ticks, attribute, needs, present, says, state, with: other } = event.data;
  if (ability === undefined) return 'You have no such ability.';
  const name = speak.label('abilities', ability);
  switch (reason as Refused | undefined) {
    case undefined:
      return `${name} can’t be used just now.`;
    case 'notOwned':
      return `${event.who} does not have ${name}.`;
    case 'busy':
      return other === ability
        ? `${name} is under way already.`
        : `${name}: ${speak.label('abilities', other).toLowerCase()} is under way.`;
    case 'state':
      return `${name} can’t be used while ${speak.label('states', state).toLowerCase()}.`;
    case 'coolingDown':
      return `${name} is cooling down: ready in ${speak.time(Number(ticks))}.`;
    case 'noneStored':
      return `${name} is used up: the next is ready in ${speak.time(Number(ticks))}.`;
    case 'requirement':
      return `${name}: ${says}`;
    case 'moving':
      return `${name} needs you to stand still.`;
    case 'noTarget':
      return `${name}: nobody is there to use it on.`;
    case 'notATarget':
      return `${name} is not for this one.`;
    case 'targetGone':
      return `${name}: whom it was aimed at has gone.`;
    case 'outOfArena':
      return `${name} can’t be aimed outside the arena.`;
    case 'outOfRange':
      return `${name} reaches ${round(event.data['range'])}, and this is ${round(event.data['distance'])} away.`;
    case 'outOfSight':
      return `${name}: a wall is in the way.`;
    case 'notToBeBroken':
      return `${name} can’t be taken back.`;
    case 'tooExpensive':
      return `${name} needs ${round(needs)} ${speak.label('attributes', attribute).toLowerCase()}, and you have ${Math.floor(Number(present) * 10) / 10}.`;
  }
}

const round = (value: unknown) => String(Math.round(Number(value) * 10) / 10);
