import { actorOfSeat } from '../seats/index.js';
import { type TeamEntry } from './schema.js';
import type { Rules } from '../../ruleset/rules.js';
import { World } from '../../world/world.js';
import { teamChapter } from './schema.js';

const JOINING = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh'];

/** Where players go that join one after the other, and what becomes of those who ask for another team. */
export interface TeamEvidence {
  readonly joined: readonly string[];
  readonly teams: readonly (Pick<TeamEntry, 'id' | 'label' | 'colour' | 'pattern' | 'mark' | 'open'> & {
    readonly capacity: number | undefined;
    readonly members: readonly string[];
  })[];
  /** Those for whom there was no team. */
  readonly alone: readonly string[];
  readonly asked: readonly { readonly who: string; readonly team: string; readonly granted: boolean; readonly says: string }[];
}

/** Plays a small world in which seven players join; then one of each team asks for each other team, each from the same beginning. */
export function teamEvidence(rules: Rules): TeamEvidence | undefined {
  const entries = teamChapter.of(rules);
  if (entries.length === 0) return undefined;
  const world = World.start(rules, 1);
  world.step(JOINING.map((seat) => ({ kind: 'join', args: { seat } })));
  const teamOf = (seat: string) => {
    const row = world.actors.rowOf(actorOfSeat(world, seat));
    return row < 0 ? -1 : world.actors.cells.team[row];
  };
  const members = entries.map((_, team) => JOINING.filter((seat) => teamOf(seat) === team));
  const alone = JOINING.filter((seat) => teamOf(seat) < 0);
  const snapshot = world.snapshot();
  const asked = members.flatMap(([who], own) =>
    who === undefined
      ? []
      : entries.flatMap((entry, team) => {
          if (team === own) return [];
          world.rewind(snapshot);
          const events = world.step([{ kind: 'input', args: { seat: who, input: { do: 'switch', team: entry.id } } }]);
          const refusal = events.find(({ name }) => name === 'switchRefused');
          const granted = teamOf(who) === team;
          return [{ who, team: entry.label, granted, says: granted ? 'may' : String(refusal?.data['says'] ?? 'may not') }];
        }),
  );
  return {
    joined: JOINING,
    teams: entries.map(({ id, label, colour, pattern, mark, open, capacity }, i) => ({
      id,
      label,
      colour,
      pattern,
      mark,
      open,
      capacity,
      members: members[i],
    })),
    alone,
    asked,
  };
}
