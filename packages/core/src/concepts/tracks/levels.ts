import { type World } from '../../world/world.js';
import { tracks } from './state.js';

/** An actor's level on a track, from 1; 0 for who has none. */
export function levelOf(world: World, actor: number, track: number): number {
  const row = world.actors.rowOf(actor);
  return row < 0 ? 0 : tracks.in(world).cells[track].level.data[row];
}

/** The highest level that an actor ever reached. */
export function peakOf(world: World, actor: number, track: number): number {
  const row = world.actors.rowOf(actor);
  return row < 0 ? 0 : tracks.in(world).cells[track].peak.data[row];
}

/** What an actor has towards its next level. */
export function experienceOf(world: World, actor: number, track: number): number {
  const row = world.actors.rowOf(actor);
  return row < 0 ? 0 : tracks.in(world).cells[track].experience.data[row];
}
