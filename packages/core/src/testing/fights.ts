import { type GameEvent, placeOf } from '../index.js';
import { join, pool, stat, Trial } from './rulesets.js';
import { statesTable } from '../concepts/states/tables.js';
import { abilitiesTable } from '../concepts/abilities/tables.js';

/** Two crews that face each other: `north` at 100, 100 and `south` 60 to its right. */
export const FIGHT = {
  teams: [
    { id: 'petrel', label: 'Petrel' },
    { id: 'gannet', label: 'Gannet' },
  ],
  attributes: [
    pool('stamina', { start: 30 }),
    pool('suit', { start: 100 }),
    stat('handling', 1, { min: 0.5, max: 2 }),
    stat('finSpeed', 100, { max: 600 }),
  ],
  statuses: [
    { id: 'stunned', label: 'Stunned' },
    { id: 'winded', label: 'Winded' },
  ],
  states: [{ id: 'stunned', label: 'Stunned', while: 'stunned' }],
  arena: {
    width: 800,
    height: 400,
    starts: [
      { x: 100, y: 100, team: 'petrel' },
      { x: 100, y: 160, team: 'petrel' },
      { x: 160, y: 100, team: 'gannet' },
    ],
  },
};

/** Hurts whom it hits by 10. */
export const HITS = [{ do: 'hurt', attribute: 'suit', amount: 10, to: 'target' }];

export const fight = (ability: Record<string, unknown>, more: Record<string, unknown> = {}): Trial =>
  Trial.of({ ...FIGHT, ...more, abilities: [{ id: 'torch', label: 'Torch', ...ability }, ...((more['abilities'] as unknown[]) ?? [])] }, [
    join('north', { team: 'petrel' }),
    join('south', { team: 'gannet' }),
  ]);

export const ask = (trial: Trial, more: Record<string, unknown> = {}, seat = 'north'): readonly GameEvent[] =>
  trial.step({ kind: 'input', args: { seat, input: { do: 'use', ability: 'torch', ...more } } });

/** What was announced, in words short enough for a table: the stamina that was paid or given back, and what became of the use. */
export function story(trial: Trial): string {
  return trial.events
    .flatMap((event) => {
      if (event.who !== 'north') return event.name === 'abilityHit' ? ['hit'] : [];
      const { name, data } = event;
      if (name === 'attributeChanged' && (data['how'] === 'cost' || data['how'] === 'refund'))
        return [`${data['how']} ${Math.abs(Number(data['given']))}`];
      if (name === 'castBroken' || name === 'abilityRefused') return [`${name === 'castBroken' ? 'broken' : 'refused'} ${data['reason']}`];
      const words: Record<string, string> = {
        castStarted: 'begins',
        abilityUsed: 'used',
        channelPulsed: 'pulse',
        channelEnded: 'ends',
        abilityMissed: 'miss',
      };
      return words[name] ? [words[name]] : [];
    })
    .join(', ');
}

export const at = (trial: Trial, seat = 'north') => placeOf(trial.world, trial.world.actors.rowOf(trial.actor(seat)));

/** The state that the actor of a seat is in. */
export function doing(trial: Trial, seat = 'north'): string {
  const row = trial.world.actors.rowOf(trial.actor(seat));
  return trial.rules.chapters.get('states')!.ids[statesTable.in(trial.world).cells.state[row]];
}

/** Ticks until the first ability of a seat may be used again. */
export function cooling(trial: Trial, seat = 'north'): number {
  const table = abilitiesTable.in(trial.world);
  const row = table.firstOf(trial.actor(seat));
  return row < 0 ? 0 : Math.max(0, table.cells.ready[row] - trial.world.tick);
}
