import { z } from 'zod';
import { condition, duration, entryFields, finite, id, seenBySome, word } from '../../ruleset/fields.js';
import { described } from '../../ruleset/described.js';
import { actionList } from '../../ruleset/registry.js';
import { PARTIES } from '../interactions/schema.js';
import { defineChapter } from '../../ruleset/chapter.js';

/** Who says a line: the character, the visitor, or one of the visitor's crew near by, by chance. */
export const SPEAKERS = ['character', 'visitor', 'crew'] as const;
/** What becomes of a dialogue that is to begin while its visitor hears another: it waits its turn, or is dropped and that is told. */
export const MEANWHILE = ['waits', 'dropped'] as const;
/** At most so many dialogues wait for one visitor. */
export const MOST_WAITING = 10;

/** Where a dialogue goes on: at a line, or nowhere. */
const next = () => z.string().max(48).optional();
const said = (most: number, tooLong: string) =>
  described(z.string('Words are expected.').min(1, 'Words are expected.').max(most, tooLong), { shown: true });
const line = () => said(200, 'A line has at most 200 characters.');

export const MOST_CHOICES = 6;

export const schema = z.strictObject({
  ...entryFields(),
  /** Who hears it: the visitor, the visitor's crew, or all. */
  heard: described(seenBySome(), { words: { owner: 'its visitor', team: 'the visitor’s crew', everyone: 'everyone' } }).default('everyone'),
  /** What the character is called where there is none: a voice without a body. What the dialogue is called where nothing is said. */
  voice: said(80, 'A name has at most 80 characters.').optional(),
  /** How far one of the crew may be away to have a part in it. */
  within: finite().min(1, 'A distance is 1 to 5000.').max(5000, 'A distance is 1 to 5000.').default(200),
  lines: z
    .array(
      z.strictObject({
        id: id(),
        speaker: word(SPEAKERS, { character: 'The character', visitor: 'The visitor', crew: 'One of the crew' }).default('character'),
        text: line(),
        /** How long it stands; with choices, how long one has to choose. */
        for: described(duration(), { atOnce: 'the line is gone before anybody has read it' }),
        /** It is passed over where this does not hold. */
        if: condition(PARTIES).optional(),
        then: actionList().optional(),
        /** The line that follows it; "end" for none, the one behind it where nothing is said. */
        next: next(),
        choices: z
          .array(
            z.strictObject({
              text: line(),
              if: condition(PARTIES).optional(),
              then: actionList().optional(),
              next: next(),
            }),
          )
          .max(MOST_CHOICES, `At most ${MOST_CHOICES} choices.`)
          .optional(),
      }),
    )
    .min(1, 'There is no line.')
    .max(100, 'A dialogue has at most 100 lines.'),
});
export type DialogueEntry = z.infer<typeof schema>;
export const dialogueChapter = defineChapter('dialogues', schema);
export type Speaker = (typeof SPEAKERS)[number];
