import { entry, text, word } from '../../world/event-fields.js';
import { defineEvents, type EventData } from '../../world/events.js';

export const DIALOGUE_ENDS = ['over', 'silence', 'broken'] as const;
export type DialogueEnd = (typeof DIALOGUE_ENDS)[number];
const ENDINGS: Readonly<Record<DialogueEnd, string>> = {
  over: 'is over',
  silence: 'ends: nothing was chosen',
  broken: 'is broken off',
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
