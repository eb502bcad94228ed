import { amount, entry, text, word } from '../../world/event-fields.js';
import { defineEvents, type EventData, type Speaker } from '../../world/events.js';

/** What a player asks to do with a quest. */
const ASKS = ['accept', 'decline', 'abandon'] as const;
export type Ask = (typeof ASKS)[number];

/** Why somebody may not have a quest, or not do with it what they asked for. */
const REFUSALS = ['unknown', 'notOffered', 'has', 'done', 'later', 'failed', 'notYet', 'notActive', 'notGivenUp'] as const;
export type Refused = (typeof REFUSALS)[number];

const fields = { quest: entry('quests'), label: text('quest') };
const patterns = ['quest'];
const see = { as: 'quest' } as const;
const FAILED_BY = ['time', 'event', 'action'] as const;
const arises = { from: 'quests', field: 'quest' };
const label = (data: EventData, speak: Speaker) => speak.label('quests', data['quest']);

/** A stretch of the server's time in words: `3 h 20 min`. */
export function stretch(seconds: number): string {
  const minutes = Math.ceil(seconds / 60);
  if (seconds < 90) return `${Math.ceil(seconds)} s`;
  if (minutes < 60) return `${minutes} min`;
  const [hours, rest] = [Math.floor(minutes / 60), minutes % 60];
  if (hours >= 48) return `${Math.ceil(hours / 24)} days`;
  return rest === 0 ? `${hours} h` : `${hours} h ${rest} min`;
}

const FAILURES: Readonly<Record<string, string>> = { time: 'its time is over', event: 'by what happened', action: 'it was called off' };
const ASKED: Readonly<Record<Ask, string>> = { accept: 'accepted', decline: 'declined', abandon: 'given up' };

/** Why a request about a quest is refused, in words that a player can act on. */
function questRefusal({ data }: { readonly data: EventData }, speak: Speaker): string {
  const name = data['quest'] === undefined ? '' : label(data, speak);
  const { ask, seconds } = data;
  switch (data['reason'] as Refused) {
    case 'unknown':
      return 'You know of no such quest.';
    case 'notOffered':
      return `${name} is not offered to you: it cannot be ${ASKED[ask as Ask]}.`;
    case 'has':
      return `You are on ${name} already.`;
    case 'done':
      return `${name} is done, and done once.`;
    case 'later':
      return `${name} is there again in ${stretch(Number(seconds ?? 0))}.`;
    case 'failed':
      return `${name} has failed, and is not offered again.`;
    case 'notYet':
      return `${name} is not for you yet.`;
    case 'notActive':
      return `You are not on ${name}.`;
    case 'notGivenUp':
      return `${name} cannot be given up.`;
  }
}

export const events = defineEvents({
  questOffered: {
    label: 'a quest is offered',
    when: 'A quest stands in its player’s log to be accepted or declined; nothing of it has begun.',
    fields,
    patterns,
    arises,
    see: 'owner',
    announced: true,
    sentence: (e) => `${e.who} is offered “${e.data['label']}”${e.by ? ` by ${e.by}` : ''}`,
  },
  questStarted: {
    label: 'a quest begins',
    when: 'Its first step is the current one; what follows from the beginning is still to come. For each who shares it.',
    fields,
    patterns,
    arises,
    see,
    announced: true,
    sentence: (e) => `${e.who} begins “${e.data['label']}”${e.by && e.by !== e.who ? `, through ${e.by}` : ''}`,
  },
  goalCounted: {
    label: 'a goal is counted',
    when: 'Something was counted for a goal of the current step; what follows from a goal that is met is still to come.',
    fields: { ...fields, goal: text('quest'), have: amount('quest'), need: amount('quest') },
    patterns: [...patterns, 'have', 'need'],
    arises,
    see,
    sentence: (e) => `${e.who}, “${e.data['label']}”: ${e.data['goal']} ${e.data['have']} of ${e.data['need']}`,
  },
  stepDone: {
    label: 'a step of a quest is done',
    when: 'All its goals but the optional ones are met and the next step is the current one; what follows from it is still to come.',
    fields: { ...fields, step: text('quest'), number: amount('quest') },
    patterns: [...patterns, 'number'],
    arises,
    see,
    announced: true,
    sentence: (e) => `${e.who}, “${e.data['label']}”: ${e.data['step']} is done`,
  },
  questReady: {
    label: 'a quest can be handed in',
    when: 'Its last step is done, and somebody takes it back.',
    fields: { ...fields, line: text('quest') },
    patterns,
    arises,
    see,
    announced: true,
    sentence: (e) => `${e.who}, “${e.data['label']}”: ${e.data['line']}`,
  },
  questDone: {
    label: 'a quest is done',
    when: 'It is done and counted; what it gives is still to come, and then what comes next.',
    fields: { ...fields, times: amount('quest') },
    patterns: [...patterns, 'times'],
    arises,
    see,
    announced: true,
    sentence: (e) => `${e.who} has done “${e.data['label']}”${Number(e.data['times']) > 1 ? `, for the ${e.data['times']}. time` : ''}`,
  },
  questFailed: {
    label: 'a quest fails',
    when: 'Nothing of it counts any more; what follows from its failing is still to come.',
    fields: { ...fields, why: word(FAILED_BY) },
    patterns: [...patterns, 'why'],
    arises,
    see,
    announced: true,
    sentence: (e) => `${e.who} fails in “${e.data['label']}”: ${FAILURES[String(e.data['why'])]}`,
  },
  questDeclined: {
    label: 'a quest is declined',
    when: 'A player turned it down.',
    fields,
    patterns,
    arises,
    see: 'owner',
    announced: true,
    sentence: (e) => `${e.who} declines “${e.data['label']}”`,
  },
  questAbandoned: {
    label: 'a quest is given up',
    when: 'A player gave it up: nothing of it counts any more.',
    fields,
    patterns,
    arises,
    see,
    announced: true,
    sentence: (e) => `${e.who} gives “${e.data['label']}” up`,
  },
  questRefused: {
    label: 'a quest is refused',
    when: 'A player asked for something about a quest and something stands against it; nothing was changed.',
    fields: { ...fields, ask: word(ASKS), reason: word(REFUSALS), seconds: amount() },
    see: 'owner',
    announced: true,
    refusal: true,
    sentence: questRefusal,
  },
  nothingOffered: {
    label: 'a character has no quest for somebody',
    when: 'A character was asked for quests and has none that this player may have.',
    fields: { from: text(), seconds: amount() },
    see: 'owner',
    announced: true,
    refusal: true,
    sentence: (e) => {
      const again = Number(e.data['seconds']) > 0 ? ` Come back in ${stretch(Number(e.data['seconds']))}.` : '';
      return `${e.data['from']} has nothing for you just now.${again}`;
    },
  },
  questsReset: {
    label: 'quests are taken back',
    when: 'Nothing is kept of a player’s quests any more, as if none had been offered.',
    see: 'owner',
    announced: true,
    sentence: (e) => `${e.who}’s quests are taken back`,
  },
});
