import { entry, text, word } from '../../world/event-fields.js';
import { defineEvents, type EventData } from '../../world/events.js';

const DIALOGUE_ENDS = ['over', 'silence', 'broken'] as const;
export type DialogueEnd = (typeof DIALOGUE_ENDS)[number];
const ENDINGS: Readonly<Record<DialogueEnd, string>> = {
  over: 'is over',
  silence: 'ends: nothing was chosen',
  broken: 'is broken off',
};

/** Why a dialogue never began. */
const DROPPED = ['busy', 'again', 'full', 'broken'] as const;
export type Dropped = (typeof DROPPED)[number];
const DROPS: Readonly<Record<Dropped, (who: string) => string>> = {
  busy: (who) => `${who} hears another`,
  again: (who) => `${who} hears it already, or will`,
  full: (who) => `too many wait for ${who}`,
  broken: () => 'what it belonged to is over',
};

const HEARD = ['owner', 'team', 'everyone'] as const;
export type Heard = (typeof HEARD)[number];
/** What any event of a dialogue can say. */
export const fields = {
  dialogue: entry('dialogues'),
  heard: word(HEARD),
  speaker: text(),
  text: text(),
  how: word(DIALOGUE_ENDS),
} as const;
const patterns = ['dialogue'];
const heard = (data: EventData) => data['heard'] as Heard;

export const events = defineEvents({
  lineSpoken: {
    label: 'a line is spoken',
    when: 'A line of a dialogue stands, with who says it; what it does is still to come.',
    fields,
    patterns,
    arises: { from: 'dialogues', field: 'dialogue' },
    see: heard,
    announced: true,
    sentence: (e) => `${e.data['speaker']}: “${e.data['text']}”`,
  },
  choiceMade: {
    label: 'something is chosen in a dialogue',
    when: 'A visitor has chosen; what the choice does is still to come.',
    fields,
    patterns,
    arises: { from: 'dialogues', field: 'dialogue' },
    see: heard,
    announced: true,
    sentence: (e) => `${e.who} answers: “${e.data['text']}”`,
  },
  dialogueDropped: {
    label: 'a dialogue is dropped',
    when: 'A dialogue was to begin while its visitor heard another and was not to wait, or could not; or what it belonged to has ended.',
    fields: { dialogue: entry('dialogues'), why: word(DROPPED) },
    patterns: [...patterns, 'why'],
    arises: { from: 'dialogues', field: 'dialogue' },
    see: 'owner',
    announced: true,
    sentence: (e, speak) => `${speak.label('dialogues', e.data['dialogue'])} is dropped: ${DROPS[e.data['why'] as Dropped](e.who)}`,
  },
  dialogueEnded: {
    label: 'a dialogue ends',
    when: 'The last line no longer stands.',
    fields,
    patterns: [...patterns, 'how'],
    arises: { from: 'dialogues', field: 'dialogue' },
    see: heard,
    announced: true,
    sentence: (e, speak) => `${speak.label('dialogues', e.data['dialogue'])} ${ENDINGS[e.data['how'] as DialogueEnd]}`,
  },
});
