import type { Finding } from '../../ruleset/problem.js';
import { entryOf, idOf, type Rules } from '../../ruleset/rules.js';
import type { World } from '../../world/world.js';
import type { Arena } from '../arena/index.js';
import { teamChapter } from '../teams/schema.js';
import { rebalance } from './assign.js';
import { events } from './events.js';
import { crewsTable } from './tables.js';
import { crews } from './state.js';

export const label = (rules: Rules, team: unknown) => entryOf(rules, 'teams', String(team))?.label ?? '';

/** Notes a team as known to everybody: it is not announced. */
export function settle(world: World, row: number): void {
  const { settled } = crewsTable.in(world).cells;
  settled[row] = world.actors.cells.team[row];
}

export function announceChanges(world: World): void {
  if (crews.of(world.rules).rules.rebalance) rebalance(world);
  const { settled } = crewsTable.in(world).cells;
  const team = world.actors.cells.team;
  const { live, high } = world.actors;
  for (let row = 0; row < high; row++) {
    if (live[row] === 0 || settled[row] === team[row]) continue;
    const before = settled[row];
    settled[row] = team[row];
    const name = (index: number) => (index < 0 ? '' : idOf(world.rules, 'teams', index));
    world.emit(events.teamChanged, { subject: world.actors.handle(row) }, { team: name(team[row]), before: name(before) });
  }
}

/** Teams that players are assigned to and that begin nowhere of their own, where others do. */
export function withoutStarts(rules: Rules): readonly Finding[] {
  const arena = rules.document['arena'] as Arena | undefined;
  const entries = teamChapter.of(rules);
  const starts = arena?.starts ?? [];
  const found: Finding[] = [];
  entries.forEach(({ id, open }, i) => {
    if (open && starts.some(({ team }) => team !== undefined) && !starts.some(({ team }) => team === id || team === undefined))
      found.push({
        kind: 'noStart',
        path: `/teams/${i}`,
        message: `${label(rules, id)} has no start point, and other teams have: its players begin in the middle. Place one for it in the arena.`,
      });
  });
  if (entries.length > 0 && !entries.some(({ open }) => open))
    found.push({
      kind: 'noOpenTeam',
      path: '/teams/0/open',
      message: 'No team is open: nobody who joins is assigned to one. Open one of them.',
    });
  return found;
}
