import { amount, entry, text, word } from '../../world/event-fields.js';
import { type DataOf, defineEvents, type EventData, type Speaker } from '../../world/events.js';
import { type Refusal } from '../../world/refusal.js';

/** Why a deal does not come about. */
const TRADE_REFUSALS = [
  'tooPoor',
  'noRoom',
  'soldOut',
  'topTier',
  'atMost',
  'needs',
  'tooFar',
  'notSold',
  'ruined',
  'over',
  'settling',
  'notReady',
] as const;
type TradeRefused = (typeof TRADE_REFUSALS)[number];

const fields = {
  offer: entry('offers'),
  reason: word(TRADE_REFUSALS, 'attribute'),
  says: text(),
  attribute: entry('attributes'),
  needs: amount('attribute'),
  present: amount('attribute'),
} as const;
/** Why a deal does not come about, with what its words need. */
export type TradeRefusal = Refusal<TradeRefused, Omit<DataOf<typeof fields>, 'reason'>>;

/** Why a deal does not come about, in words. */
export function refusalWords({ reason, says, attribute, needs, present }: EventData, speak: Pick<Speaker, 'label'>): string {
  if (typeof says === 'string') return says;
  const what = attribute === undefined ? '' : speak.label('attributes', attribute).toLowerCase();
  switch (reason) {
    case 'tooPoor':
      return `It takes ${String(needs)} ${what}: you have ${String(present)}.`;
    case 'noRoom':
      return `There is no room for ${String(needs)} ${what}: ${String(present)} more would fit.`;
    case 'soldOut':
      return 'There is none left.';
    case 'topTier':
      return 'You have the highest tier.';
    case 'atMost':
      return 'You have as many as one may have.';
    case 'tooFar':
      return 'You are too far away.';
    case 'notSold':
      return 'Nobody here trades in that.';
    case 'ruined':
      return 'You are ruined: nobody trades with you.';
    case 'over':
      return 'You have reached the goal: the books are closed.';
    case 'settling':
      return 'The day is being settled: sell what you have first.';
    case 'notReady':
      return 'The day can’t be ended now.';
    default:
      return 'That does not come about.';
  }
}

export const events = defineEvents({
  tradeRefused: {
    label: 'a deal is refused',
    when: 'Somebody asked for a deal and something stands against it; nothing has changed hands.',
    fields,
    see: 'owner',
    announced: true,
    refusal: true,
    sentence: (e, speak) => refusalWords(e.data, speak),
  },
  traded: {
    label: 'things change hands',
    when: 'All that is paid is paid and all that is received is there: both, or neither.',
    patterns: [],
    see: 'owner',
    sentence: (e) => `${e.who} trades`,
  },
});
