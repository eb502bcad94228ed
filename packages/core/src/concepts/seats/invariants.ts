import equal from 'fast-deep-equal';
import { Copy } from '../../replication/copy.js';
import { Publisher } from '../../replication/publisher.js';
import { wireSchemaOf } from '../../replication/schema.js';
import { shownTo } from '../../replication/shown.js';
import type { Breach, Invariant, InvariantWatch } from '../../world/invariant.js';
import { idOf, positionOf } from '../../ruleset/rules.js';
import { attributes, highOf, lowOf, readAttribute } from '../attributes/index.js';
import { savePlayer } from '../../world/saved.js';
import { savedProblems } from '../../world/saved-sheet.js';
import { World } from '../../world/world.js';
import { seats } from './state.js';
import { actorOfSeat, join } from './system.js';

/** The table in which what is kept of values stands. */
const ATTRIBUTES = attributes.id;

/** Ticks between two frames, in which one seat is looked at: that takes as long as many ticks do. At the end all are. */
const BETWEEN = 100;

interface Seat {
  readonly name: string;
  readonly actor: number;
  readonly row: number;
}

function seatsIn(world: World): readonly Seat[] {
  const { table } = seats.in(world);
  return table.rows().map((at) => {
    const actor = table.cells.actor[at];
    return { name: world.text(table.cells.name[at]), actor, row: world.actors.rowOf(actor) };
  });
}

/** What seats are told, frame by frame, against what they may see: a frame builds on the one before it. */
function toldCopies(): InvariantWatch {
  let publisher: Publisher | undefined;
  let of: World | undefined;
  let copies = new Map<number, Copy>();
  let turn = 0;
  let last = 0;
  const look = (world: World, all: boolean): Breach | undefined => {
    if (of !== world || !publisher) [of, publisher, copies] = [world, new Publisher(world), new Map()];
    publisher.capture(false);
    const present = seatsIn(world).filter(({ row }) => row >= 0);
    turn = (turn + 1) % Math.max(1, present.length);
    for (const [i, { name, actor, row }] of present.entries()) {
      const viewer = { actor, team: world.actors.cells.team[row] };
      let copy = copies.get(actor);
      if (!copy) copies.set(actor, (copy = new Copy(wireSchemaOf(world.rules))));
      copy.apply(publisher.frameFor(viewer, copy.frame));
      if ((all || i === turn) && !equal(copy.contents(), shownTo(world, viewer)))
        return { who: name, says: `What ${name} was told is not what ${name} may see.` };
    }
    return undefined;
  };
  return {
    onTick: (world) => {
      // Who comes to a game that began anew has heard nothing of it yet.
      if (world.tick < last) publisher = undefined;
      last = world.tick;
      return world.tick % BETWEEN === 0 ? look(world, false) : undefined;
    },
    atEnd: (world) => look(world, true),
  };
}

/** The first difference between what is kept of a player who leaves and what is kept of them once they are back. */
function lostOnTheWay(world: World): Breach | undefined {
  const { rules, seed } = world;
  let spare: World | undefined;
  for (const { name, row } of seatsIn(world)) {
    if (row < 0) continue;
    const saved = savePlayer(world, row);
    const [problem] = savedProblems(rules, saved, true);
    if (problem) return { who: name, says: `What is kept of ${name} can’t be taken in again: ${problem.message}` };
    spare ??= World.start(rules, seed);
    join(spare, { seat: name, actor: idOf(rules, 'actors', world.actors.cells.type[row]), saved });
    const actor = actorOfSeat(spare, name);
    const loaded = savePlayer(spare, spare.actors.rowOf(actor));
    for (const [table, cells] of Object.entries(saved))
      for (const [column, value] of Object.entries(cells))
        // What raised a bound and is not kept takes with it what was above.
        if (loaded[table]?.[column] !== value && !(table === ATTRIBUTES && isFull(spare, actor, column)))
          return { who: name, says: `${name} leaves with ${column} ${value}, and comes back with ${loaded[table]?.[column] ?? 'none'}.` };
  }
  return undefined;
}

/** Whether somebody has as much of an attribute as there is room for, or as little. */
function isFull(world: World, actor: number, id: string): boolean {
  const index = positionOf(world.rules, 'attributes', id);
  const one = attributes.of(world.rules).list[index];
  if (!one) return false;
  const low = lowOf(world, one, actor);
  const value = readAttribute(world, actor, index);
  return value === low || value === highOf(world, one, actor, low);
}

/** A game that is stored and loaded against the one that simply goes on. */
function otherOnceLoaded(world: World): Breach | undefined {
  const stored = world.snapshot();
  const loaded = World.restore(world.rules, stored);
  if (loaded.hash() !== world.hash()) return { who: '', says: 'A game that is stored and loaded again is another one.' };
  world.step();
  loaded.step();
  const same = loaded.hash() === world.hash();
  world.rewind(stored);
  return same ? undefined : { who: '', says: 'A game that was stored and loaded goes on in another way.' };
}

export const invariants: Readonly<Record<string, Invariant>> = {
  copies: { label: 'each seat is told what it may see, and no more', watch: toldCopies },
  saves: {
    label: 'saving and loading change nothing',
    watch: () => ({ atEnd: (world) => otherOnceLoaded(world) ?? lostOnTheWay(world) }),
  },
};
