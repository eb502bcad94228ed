import type { EventSpec } from '../../world/events.js';
import type { World } from '../../world/world.js';
import { counts } from '../actors/index.js';
import { actorsWithin, placeOf } from '../movement/index.js';
import { dialogueChapter } from './schema.js';
import { type DialogueEnd, events, type fields } from './events.js';
import { type Dialogue, dialogues, type Line } from './state.js';

/** The row of the dialogue that somebody is the visitor of, or -1. */
export function talkOf(world: World, visitor: number): number {
  return dialogues.in(world).talks.firstOf(visitor);
}

/** The line that stands in a dialogue; undefined where an edit has taken it out. */
export function lineAt(world: World, row: number): Line | undefined {
  const { list, talks } = dialogues.in(world);
  const id = world.text(talks.cells.line[row]);
  return list[talks.cells.dialogue[row]]?.lines.find((line) => line.id === id);
}

export const partiesOf = (world: World, row: number) => {
  const { talks } = dialogues.in(world);
  const { visitor, character, scope } = talks.cells;
  return { owner: visitor[row], source: visitor[row], target: character[row], scope: scope[row] };
};

/** Has the first line from a position on that holds stand; ends the dialogue where none does. */
export function speak(world: World, row: number, from: number): void {
  const { list, talks, offered } = dialogues.in(world);
  const dialogue = list[talks.cells.dialogue[row]];
  const parties = partiesOf(world, row);
  clearChoices(world, row);
  let at = from;
  while (at >= 0 && dialogue.lines[at]?.test?.(world, parties) === 0) at = at + 1;
  const line = dialogue.lines[at] as Line | undefined;
  if (!line) return endTalk(world, row, 'over');
  const speaker = speakerOf(world, dialogue, line, parties.owner, parties.target);
  const voice = speaker === 0 ? dialogue.voice : world.nameOf(speaker);
  const cells = {
    speaker,
    voice: world.textIndex(voice),
    text: world.textIndex(line.text),
    until: world.tick + line.ticks,
    line: world.textIndex(line.id),
  };
  talks.write(row, cells);
  line.choices.forEach((choice, number) => {
    if (choice.test?.(world, parties) === 0) return;
    const choiceRow = offered.add();
    const offer = { visitor: parties.owner, talk: row, number, text: world.textIndex(choice.text) };
    offered.write(choiceRow, offer);
  });
  tell(world, row, events.lineSpoken, { speaker: voice, text: line.text }, () => line.then(world, parties));
}

/** Who says a line; 0 for a voice, where nobody else stands there than the visitor. One of the crew is drawn among those near the visitor; where there is none, the visitor says it. */
export function speakerOf(world: World, { within, luck }: Dialogue, { speaker }: Line, visitor: number, character: number): number {
  if (speaker === 'character') return character === visitor || world.actors.rowOf(character) < 0 ? 0 : character;
  const row = world.actors.rowOf(visitor);
  if (speaker === 'visitor' || row < 0) return visitor;
  const { x, y } = placeOf(world, row);
  const crew = actorsWithin(world, x, y, within).filter((other) => counts(world, row, other, 'crew'));
  const drawn = world.roll(luck, visitor);
  return crew.length === 0 ? visitor : world.actors.handle(crew[Math.floor(drawn * crew.length)]);
}

/** Announces what happens in a dialogue to those who hear it, and does what follows. */
export function tell(
  world: World,
  row: number,
  event: EventSpec<typeof fields>,
  data: { readonly speaker?: string; readonly text?: string; readonly how?: DialogueEnd },
  work: () => void,
): void {
  const { talks } = dialogues.in(world);
  const { owner, target } = partiesOf(world, row);
  const entry = dialogueChapter.of(world.rules)[talks.cells.dialogue[row]];
  world.since(talks.cells.cause[row], () =>
    world.follow(event, { subject: owner, source: owner, target }, { dialogue: entry.id, heard: entry.heard, ...data }, work),
  );
}

function clearChoices(world: World, row: number): void {
  const { offered } = dialogues.in(world);
  for (const at of offered.rows()) if (offered.cells.talk[at] === row) offered.remove(at);
}

export function endTalk(world: World, row: number, how: DialogueEnd): void {
  const { talks } = dialogues.in(world);
  if (talks.live[row] === 0) return;
  clearChoices(world, row);
  tell(world, row, events.dialogueEnded, { how }, () => undefined);
  talks.remove(row);
}
