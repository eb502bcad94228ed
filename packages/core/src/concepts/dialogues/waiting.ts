import type { World } from '../../world/world.js';
import { type Dropped, events } from './events.js';
import { dialogues } from './state.js';
import { speak, talkOf } from './talks.js';
import { MOST_WAITING } from './schema.js';

/** Begins a dialogue at its first line that holds. Who hears another hears it to its end first: this one waits, or is dropped. */
export function startTalk(world: World, talk: Talk, waits: boolean): void {
  const current = talkOf(world, talk.visitor);
  const row = dialogues.in(world).talks.cells.dialogue[current];
  const queue = waitingFor(world, talk.visitor);
  if (current < 0 && queue.length === 0) return begin(world, talk);
  const { waiting } = dialogues.in(world);
  const isKnown = row === talk.dialogue || queue.some((at) => waiting.cells.dialogue[at] === talk.dialogue);
  if (isKnown) return drop(world, talk, 'again');
  if (!waits) return drop(world, talk, 'busy');
  if (queue.length >= MOST_WAITING) return drop(world, talk, 'full');
  const turn = queue.length === 0 ? 1 : waiting.cells.turn[queue[queue.length - 1]] + 1;
  const cells = { ...talk, turn, cause: world.cause };
  waiting.write(waiting.add(), cells);
}

/** A dialogue that is to be said to somebody. */
export interface Talk {
  readonly dialogue: number;
  readonly visitor: number;
  readonly character: number;
  readonly scope: number;
}

function begin(world: World, talk: Talk): void {
  const { talks } = dialogues.in(world);
  const row = talks.add();
  const cells = { ...talk, cause: world.cause };
  talks.write(row, cells);
  speak(world, row, 0);
}

export function drop(world: World, { dialogue, visitor }: Talk, why: Dropped): void {
  world.emit(events.dialogueDropped, { subject: visitor }, { dialogue: dialogues.in(world).list[dialogue].id, why });
}

/** The rows of what waits to be said to somebody, in turn. */
function waitingFor(world: World, visitor: number): readonly number[] {
  const { waiting } = dialogues.in(world);
  if (waiting.count === 0) return [];
  const { turn } = waiting.cells;
  return [...waiting.rowsOf(visitor)].sort((a, b) => turn[a] - turn[b]);
}

/** Has what waits begin with those who hear nothing any more. */
export function beginWaiting(world: World): void {
  const { waiting } = dialogues.in(world);
  if (waiting.count === 0) return;
  const of = waiting.cells;
  const live = [...Array(waiting.high).keys()].filter((row) => waiting.live[row] === 1);
  for (const visitor of new Set(live.map((row) => of.visitor[row]))) {
    if (talkOf(world, visitor) >= 0) continue;
    const [row] = waitingFor(world, visitor);
    if (row === undefined) continue;
    const [character, dialogue, scope, cause] = [of.character[row], of.dialogue[row], of.scope[row], of.cause[row]];
    waiting.remove(row);
    world.since(cause, () => begin(world, { visitor, character, dialogue, scope }));
  }
}
