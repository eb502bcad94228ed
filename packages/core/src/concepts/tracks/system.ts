import { type GameEvent, partyIn } from '../../world/events.js';
import type { World } from '../../world/world.js';
import { award, divide, grow } from './award.js';
import { tracks } from './state.js';

export const partsKey = (event: GameEvent, track: number, source: number) => `${event.serial}/${track}/${source}`;

export function earn(world: World, event: GameEvent, index: number, k: number): void {
  const { list, parts } = tracks.in(world);
  const { pattern, who, amount: by, share: shared } = list[index].sources[k];
  const earner = partyIn(event, who);
  if (!pattern.matches(world, event, earner)) return;
  const { subject, source, target, data } = event;
  const whole = by.run(world, { owner: earner, subject, source, target, event: data });
  const known = parts.get(partsKey(event, index, k))?.map(({ actor, amount: part }) => ({ actor, amount: part * whole }));
  for (const part of known ?? divide(world, whole, earner, subject, shared)) award(world, part.actor, index, part.amount, source);
}

/** Levels within what the rules have, what is earned below what the next takes, and what grows as it should be. */
export function sound(world: World, row: number, before: number): void {
  const { list, cells, players } = tracks.in(world);
  if (players[world.actors.cells.type[row]])
    for (const track of list) {
      const { level, experience, peak } = cells[track.index];
      level.data[row] = Math.min(track.levels, Math.max(1, level.data[row]));
      peak.data[row] = Math.min(track.levels, Math.max(level.data[row], peak.data[row]));
      const need = level.data[row] < track.levels ? track.need(world.rules, level.data[row]) : 0;
      // An edit that makes a level cheaper does not hand levels out: what is there is held just below.
      experience.data[row] = Math.max(0, Math.min(experience.data[row], Math.max(0, need - 0.001)));
    }
  grow(world, row, before);
}
