import type { Breach, Invariant } from '../../world/invariant.js';
import type { World } from '../../world/world.js';
import { typeOf } from '../actors/index.js';
import { withoutWayOut } from './findings.js';
import { states } from './state.js';

/** Seconds in a state in which one can do nothing, after which nobody comes out of it any more. */
const LONGEST = 30;

/** A player in a state that nothing leads out of. */
function caught(world: World, stuck: ReadonlySet<string>): Breach | undefined {
  const { entries, table } = states.in(world);
  for (let row = 0; row < world.actors.high; row++) {
    if (world.actors.live[row] === 0 || typeOf(world, row).kind !== 'player') continue;
    const { id, label } = entries[table.cells.state[row]];
    if (!stuck.has(id)) continue;
    const who = world.nameOf(world.actors.handle(row));
    return { who, says: `${who} is in ${label}, and nothing leads out of it.` };
  }
  return undefined;
}

/** The row of a player who can do nothing of their own, and since how many ticks; undefined where everybody can do something. */
function mostHeld(world: World): { readonly row: number; readonly ticks: number } | undefined {
  const { list, table } = states.in(world);
  const { state, since, free } = table.cells;
  let most: { readonly row: number; readonly ticks: number } | undefined;
  for (let row = 0; row < world.actors.high; row++) {
    if (world.actors.live[row] === 0 || typeOf(world, row).kind !== 'player') continue;
    const own = list[state[row]];
    if (!own || own.mayMove || own.mayUse || free[row] === 1) continue;
    const ticks = world.tick - since[row];
    if (!most || ticks > most.ticks) most = { row, ticks };
  }
  return most;
}

export const invariants: Readonly<Record<string, Invariant>> = {
  leavableStates: {
    label: 'nobody stays in a state that nothing leads out of',
    watch: (rules) => {
      const longest = LONGEST * rules.tickRate;
      const stuck = withoutWayOut(rules);
      return {
        onTick: (world) => {
          const found = stuck.size > 0 ? caught(world, stuck) : undefined;
          if (found) return found;
          const held = mostHeld(world);
          if (!held || held.ticks < longest) return undefined;
          const who = world.nameOf(world.actors.handle(held.row));
          const { label } = states.in(world).entries[states.in(world).table.cells.state[held.row]];
          return { who, says: `${who} has been in ${label} for ${LONGEST} s, can do nothing in it, and does not come out of it.` };
        },
        waitsFor: (world) => {
          const held = mostHeld(world);
          return held ? longest - held.ticks : 0;
        },
      };
    },
  },
};
