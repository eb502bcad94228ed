import type { Table } from '../../world/table.js';
import type { World } from '../../world/world.js';
import { beginWaiting, drop } from './waiting.js';
import { dialogues } from './state.js';
import { endTalk, lineAt, speak } from './talks.js';

/** Lines whose time is over make room for the next. */
export function goOn(world: World): void {
  const { talks } = dialogues.in(world);
  const until = talks.cells.until;
  for (let row = 0; row < talks.high; row++) {
    if (talks.live[row] === 0) continue;
    if (world.actors.rowOf(talks.cells.character[row]) < 0 && talks.cells.character[row] !== 0) {
      endTalk(world, row, 'broken');
      continue;
    }
    if (until[row] > world.tick) continue;
    const line = lineAt(world, row);
    if (!line || line.choices.length > 0) endTalk(world, row, line ? 'silence' : 'over');
    else if (line.next < 0) endTalk(world, row, 'over');
    else speak(world, row, line.next);
  }
  beginWaiting(world);
}

/** Whether a dialogue that belongs to something still goes on. */
export function isTalking(world: World, scope: number): boolean {
  const { talks, waiting } = dialogues.in(world);
  return scope !== 0 && (rowsOfScope(talks, scope).length > 0 || rowsOfScope(waiting, scope).length > 0);
}

/** Breaks off what belongs to something that has ended. */
export function stopTalking(world: World, scope: number): void {
  const { talks, waiting } = dialogues.in(world);
  const of = waiting.cells;
  for (const row of rowsOfScope(waiting, scope)) {
    const [visitor, character, dialogue] = [of.visitor[row], of.character[row], of.dialogue[row]];
    waiting.remove(row);
    drop(world, { visitor, character, dialogue, scope }, 'broken');
  }
  for (const row of rowsOfScope(talks, scope)) endTalk(world, row, 'broken');
}

/** What dialogues that go on belong to; those that stand for themselves are left out. */
export function scopesTalking(world: World): readonly number[] {
  const { talks, waiting } = dialogues.in(world);
  const scopes = [...talks.rows().map((row) => talks.cells.scope[row]), ...waiting.rows().map((row) => waiting.cells.scope[row])];
  return scopes.filter((scope) => scope !== 0);
}

function rowsOfScope(table: Table, scope: number): readonly number[] {
  const cells = table.cells.scope;
  const found: number[] = [];
  for (const row of table.rows()) if (cells[row] === scope) found.push(row);
  return found;
}
