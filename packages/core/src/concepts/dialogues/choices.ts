import { z } from 'zod';
import type { World } from '../../world/world.js';
import { dialogues } from './state.js';
import { endTalk, lineAt, partiesOf, speak, talkOf, tell } from './talks.js';
import { MOST_CHOICES } from './schema.js';
import { events } from './events.js';

export const CHOOSE_ARGS = {
  /** The number of the choice, as it was offered; from 0. */
  choice: z
    .int('A choice is a whole number.')
    .min(0)
    .max(MOST_CHOICES - 1, 'There are not so many choices.'),
};

/** Answers the dialogue that one is the visitor of. What is not offered, or no longer, is answered by nothing. */
export function choose(world: World, visitor: number, args: Readonly<Record<string, unknown>>): void {
  const row = talkOf(world, visitor);
  if (row < 0) return;
  const number = Number(args['choice']);
  const choice = lineAt(world, row)?.choices[number];
  if (!choice || !isOffered(world, row, number)) return;
  const parties = partiesOf(world, row);
  const { talks } = dialogues.in(world);
  const talk = talks.handle(row);
  tell(world, row, events.choiceMade, { text: choice.text }, () => choice.then(world, parties));
  // What it did may have ended the dialogue already.
  if (talks.rowOf(talk) < 0) return;
  if (choice.next < 0) endTalk(world, row, 'over');
  else speak(world, row, choice.next);
}

function isOffered(world: World, row: number, number: number): boolean {
  const { offered } = dialogues.in(world);
  const { talk, number: numbers } = offered.cells;
  return offered.rows().some((at) => talk[at] === row && numbers[at] === number);
}
