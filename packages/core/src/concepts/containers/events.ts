import { amount, entry, forTrace, text, word } from '../../world/event-fields.js';
import { defineEvents } from '../../world/events.js';

/** Why somebody no longer has a container open. */
export const LEAVES = ['closed', 'walkedOff', 'fell', 'gone'] as const;
export type Leave = (typeof LEAVES)[number];

/** Whether somebody had the lid come up, or looks into what is open or opening already. */
export const OPENS = ['opened', 'joined'] as const;

const fields = { container: entry('containers') };
const patterns = ['container'];
const NOT_TAKEN = ['notOpen', 'taken', 'noRoom', 'onlyAll', 'onlyOne'] as const;
const from = { arises: { from: 'containers', field: 'container' } } as const;

export const events = defineEvents({
  containerOpened: {
    label: 'somebody has a container open',
    when: 'Once for each who has it open: the lid is up, what is in it is decided, and they see it.',
    fields: { ...fields, how: word(OPENS) },
    patterns: [...patterns, 'how'],
    ...from,
    see: 'everyone',
    announced: true,
    sentence: (e, speak) =>
      `${e.who} ${e.data['how'] === 'joined' ? 'looks into' : 'opens'} ${speak.label('containers', e.data['container']).toLowerCase()}`,
  },
  containerClosed: {
    label: 'a container closes',
    when: 'The lid is down and nobody has it open any more; what was not taken stays in it.',
    fields: { ...fields, how: word(LEAVES) },
    patterns: [...patterns, 'how'],
    ...from,
    see: 'everyone',
    announced: true,
    sentence: (e, speak) => `${speak.label('containers', e.data['container'])} is closed`,
  },
  containerFilled: {
    label: 'a container is filled anew',
    when: 'What was in a closed container is gone; what will be in it is decided when it is next opened.',
    fields,
    patterns,
    ...from,
    see: 'everyone',
    sentence: (e, speak) => `${speak.label('containers', e.data['container'])} is filled anew`,
  },
  itemTaken: {
    label: 'something is taken from a container',
    when: 'A thing is no longer in its container and its taker has it; what else it does is still to come.',
    fields: {
      ...fields,
      item: forTrace(text()),
      gives: entry('attributes'),
      named: entry({ field: 'chapter' }),
      chapter: text('named'),
      label: text('named'),
      amount: amount('gives'),
    },
    patterns: [...patterns, 'amount'],
    ...from,
    see: 'owner',
    announced: true,
    sentence: (e, speak) => {
      const count = Number(e.data['amount'] ?? 0);
      const label = String(e.data['label'] ?? 'Something').toLowerCase();
      const what = count === 0 ? label : `${count} ${label}`;
      return `${e.who} takes ${what} from ${speak.label('containers', e.data['container']).toLowerCase()}`;
    },
  },
  itemRefused: {
    label: 'something can’t be taken from a container',
    when: 'Something was asked for that is not there, or for which there is no room; it stays where it was.',
    fields: { ...fields, reason: word(NOT_TAKEN) },
    patterns: [...patterns, 'reason'],
    ...from,
    see: 'owner',
    announced: true,
    refusal: true,
    sentence: ({ data }) => WORDS[String(data['reason'])],
  },
});

const WORDS: Readonly<Record<string, string>> = {
  notOpen: 'You have nothing open.',
  taken: 'This is no longer there.',
  noRoom: 'You can’t carry more of this.',
  onlyAll: 'This is taken all at once or not at all.',
  onlyOne: 'Things are taken one by one here.',
};
