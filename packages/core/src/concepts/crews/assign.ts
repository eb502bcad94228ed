import { idOf } from '../../ruleset/rules.js';
import type { World } from '../../world/world.js';
import { typeOf } from '../actors/index.js';
import { readAttribute } from '../attributes/index.js';
import { nameNumber, recall, remember } from '../memory/index.js';
import { teams } from '../teams/index.js';
import { crews } from './state.js';
import { crewsTable } from './tables.js';
import { events } from './events.js';

/** The rows of the players that are in a team, as it stands now. */
export function membersOf(world: World, team: number): readonly number[] {
  const cells = world.actors.cells.team;
  const rows: number[] = [];
  for (const row of world.actors.rows()) if (cells[row] === team && typeOf(world, row).kind === 'player') rows.push(row);
  return rows;
}

const isFull = (world: World, team: number, more = 1): boolean => {
  const { capacity } = teams.of(world.rules)[team];
  return capacity !== undefined && membersOf(world, team).length + more > capacity;
};

/** The team's weight for who is to be assigned: how many it has, or how much of a stat they have together. */
function weightOf(world: World, team: number): number {
  const { rules, stat } = crews.of(world.rules);
  const members = membersOf(world, team);
  if (rules.assign === 'fewest' || stat < 0) return members.length;
  return members.reduce((sum, row) => sum + readAttribute(world, world.actors.handle(row), stat), 0);
}

/**
 * The team for who joins: their party's where it has room, else that of the least weight among those that are open and not
 * full, the fewest players deciding between equals, then the order of the chapter. -1 where there is none.
 */
export function teamForJoining(world: World, party: string | undefined): number {
  const entries = teams.of(world.rules);
  const open = entries.flatMap(({ open: takes }, team) => (takes && !isFull(world, team) ? [team] : []));
  const theirs = party === undefined ? -1 : teamOfParty(world, party);
  if (theirs >= 0 && open.includes(theirs)) return theirs;
  const ranked = open
    .map((team) => ({ team, weight: weightOf(world, team), count: membersOf(world, team).length }))
    .sort((a, b) => a.weight - b.weight || a.count - b.count || a.team - b.team);
  return ranked[0]?.team ?? -1;
}

/** The team that somebody of a party is in; -1 where nobody is. */
function teamOfParty(world: World, party: string): number {
  const { party: parties } = crewsTable.in(world).cells;
  const cells = world.actors.cells.team;
  const wanted = world.textIndex(party);
  for (const row of world.actors.rows()) if (parties[row] === wanted + 1 && cells[row] >= 0) return cells[row];
  return -1;
}

/** Moves who came last over from the largest open team to the smallest, until they are at most one apart. */
export function rebalance(world: World): void {
  const open = teams.of(world.rules).flatMap(({ open: takes }, team) => (takes ? [team] : []));
  for (let moves = world.actors.count; moves > 0; moves--) {
    const sizes = open
      .map((team) => ({ team, rows: membersOf(world, team) }))
      .sort((a, b) => a.rows.length - b.rows.length || a.team - b.team);
    const [least, most] = [sizes[0], sizes.at(-1)];
    if (!least || !most || most.rows.length - least.rows.length < 2 || isFull(world, least.team)) return;
    const { joined } = crewsTable.in(world).cells;
    const last = most.rows.reduce((found, row) => (joined[row] >= joined[found] ? row : found));
    putInto(world, world.actors.handle(last), least.team);
  }
}

/** Notes the party that an actor came with. */
export function noteParty(world: World, row: number, party: string): void {
  crewsTable.in(world).cells.party[row] = world.textIndex(party) + 1;
}

/** Puts an actor into a team, -1 for none. It is announced once, when the tick has settled. */
export function putInto(world: World, actor: number, team: number): void {
  const row = world.actors.rowOf(actor);
  if (row < 0) return;
  world.actors.cells.team[row] = team;
  world.touch(row);
}

/** Puts an actor into a team where there is room for it, or says that there is none. */
export function assign(world: World, actor: number, team: number): void {
  const row = world.actors.rowOf(actor);
  if (row < 0 || world.actors.cells.team[row] === team) return;
  if (typeOf(world, row).kind === 'player' && isFull(world, team))
    return world.emit(events.switchRefused, { subject: actor }, { team: idOf(world.rules, 'teams', team), says: fullWords(world, team) });
  putInto(world, actor, team);
}

function fullWords(world: World, team: number): string {
  const { label, capacity } = teams.of(world.rules)[team];
  return `${label} is full: ${capacity} ${capacity === 1 ? 'is' : 'are'} in it.`;
}

/** What keeps a player from changing into a team by asking for it, in words; nothing where they may. -1 is no team. */
export function switchRefusal(world: World, row: number, team: number): string | undefined {
  const { rules, purpose } = crews.of(world.rules);
  const entries = teams.of(world.rules);
  const own = world.actors.cells.team[row];
  if (team === own) return team < 0 ? 'You are in no team already.' : `You are in ${entries[team].label} already.`;
  if (team < 0) return rules.neutral ? undefined : 'Everybody is in a team here.';
  const { label, open } = entries[team];
  if (!open) return `${label} takes nobody who asks.`;
  if (isFull(world, team)) return fullWords(world, team);
  // Who is in no team joins one: that is no change between teams.
  if (own < 0) return undefined;
  if (rules.switching === 'never') return 'Teams are kept here.';
  if (rules.switching === 'after') {
    const known = recall(world, nameNumber(world, world.actors.handle(row)), purpose);
    if (known && known.until > world.tick)
      return `You changed teams just now: wait ${waitWords(known.until - world.tick, world.rules.tickRate)}.`;
  }
  if (rules.switching === 'balanced') {
    const after = Math.abs(membersOf(world, team).length + 1 - (membersOf(world, own).length - 1));
    const before = Math.abs(membersOf(world, team).length - membersOf(world, own).length);
    if (after > 1 && after >= before)
      return `That would unbalance the teams: ${label} would have ${membersOf(world, team).length + 1}, ${entries[own].label} ${membersOf(world, own).length - 1}.`;
  }
  return undefined;
}

const waitWords = (ticks: number, rate: number) => `${Math.ceil(ticks / rate)} s`;

/** Changes a player's team because they ask for it, or says why not. */
export function switchTeam(world: World, actor: number, id: string): void {
  const row = world.actors.rowOf(actor);
  if (row < 0 || typeOf(world, row).kind !== 'player') return;
  const entries = teams.of(world.rules);
  const team = id === '' ? -1 : entries.findIndex((entry) => entry.id === id);
  const says = id !== '' && team < 0 ? 'There is no such team.' : switchRefusal(world, row, team);
  if (says !== undefined) return world.emit(events.switchRefused, { subject: actor }, { team: id, says });
  const { rules, ticks, purpose } = crews.of(world.rules);
  if (rules.switching === 'after' && ticks > 0) remember(world, nameNumber(world, actor), purpose, 0, ticks);
  putInto(world, actor, team);
}
