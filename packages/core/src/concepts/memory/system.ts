import type { World } from '../../world/world.js';
import { memory } from './state.js';

/** Whom something is remembered of where it is remembered of everybody at once. */
export const EVERYBODY = -1;

/** The number under which an actor's name is remembered. */
export const nameNumber = (world: World, actor: number): number => world.actors.cells.name[world.actors.rowOf(actor)];

export function rowOf(world: World, who: number, what: number, thing: number): number {
  const { table, index } = memory.in(world);
  if (index.version !== table.version) {
    index.rows.clear();
    const { who: whos, what: whats, thing: things } = table.cells;
    for (const row of table.rows()) index.rows.set(`${whos[row]}/${whats[row]}/${things[row]}`, row);
    index.version = table.version;
  }
  return index.rows.get(`${who}/${what}/${thing}`) ?? -1;
}

export interface Recalled {
  readonly count: number;
  /** The tick from which it counts no more; 0 for never. */
  readonly until: number;
}

/** What is remembered and still counts; undefined where nothing does. */
export function recall(world: World, who: number, what: number, thing = 0): Recalled | undefined {
  const row = rowOf(world, who, what, thing);
  if (row < 0) return undefined;
  const { table } = memory.in(world);
  const until = table.cells.until[row];
  return until !== 0 && until <= world.tick ? undefined : { count: table.cells.count[row], until };
}

/** Notes that it happened once more. What counted no longer begins anew, with the time that is given; 0 ticks is for ever. */
export function remember(world: World, who: number, what: number, thing: number, ticks: number): void {
  const known = recall(world, who, what, thing);
  const { table } = memory.in(world);
  const found = rowOf(world, who, what, thing);
  const row = found >= 0 ? found : table.add();
  const cells = {
    who,
    what,
    thing,
    count: (known?.count ?? 0) + 1,
    until: known ? known.until : ticks === 0 ? 0 : world.tick + ticks,
  };
  table.write(row, cells);
}

/** Forgets all that was remembered of a thing that has gone. */
export function forgetThing(world: World, thing: number): void {
  const { table } = memory.in(world);
  const things = table.cells.thing;
  for (const row of table.rows()) if (things[row] === thing) table.remove(row);
}
