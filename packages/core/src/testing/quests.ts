import { savePlayer } from '../index.js';
import { counter, input, join, pool, type Trial } from './rulesets.js';
import { questsTable } from '../concepts/quests/tables.js';

export const FELLED = { on: 'attributeChanged', attribute: 'felled', how: 'give' };
export const HURT = { on: 'attributeChanged', attribute: 'suit', how: 'hurt' };
export const goal = (id: string, more: Record<string, unknown> = {}) => ({ id, line: `${id} {have}/{need}`, on: FELLED, ...more });
export const step = (id: string, ...goals: Record<string, unknown>[]) => ({ id, label: id, goals });
export const quest = (id: string, more: Record<string, unknown> = {}) => ({ id, label: id, steps: [step('only', goal('fell'))], ...more });
export const pay = [{ do: 'give', attribute: 'scrip', amount: 10 }];
export const parts = (...list: Record<string, unknown>[]) => ({
  teams: [
    { id: 'petrel', label: 'Petrel' },
    { id: 'gannet', label: 'Gannet' },
  ],
  attributes: [pool('suit'), counter('felled', { saved: true }), counter('scrip', { saved: true })],
  quests: list,
});
export const crew = [join('north', { team: 'petrel' }), join('south', { team: 'petrel' }), join('east', { team: 'gannet' })];

export const fell = (trial: Trial, seat = 'north') => trial.poke({ do: 'give', attribute: 'felled', amount: 1 }, seat);
export const ask = (trial: Trial, what: string, id: string, seat = 'north') => trial.step(input(seat, { do: `${what}Quest`, quest: id }));
export const offer = (trial: Trial, id: string, seat = 'north') => trial.poke({ do: 'offerQuest', quest: id }, seat);
export const begin = (trial: Trial, id: string, seat = 'north') => trial.poke({ do: 'startQuest', quest: id }, seat);
export const told = (trial: Trial) =>
  trial.events
    .filter(({ name }) => /^(quest|step|goal)/.test(name))
    .map(({ name, who, data }) =>
      [who, name, data['quest'], data['reason'] ?? data['why'] ?? data['have']].filter((x) => x !== undefined).join(' '),
    );
export const cell = (trial: Trial, name: string, seat = 'north') =>
  questsTable.in(trial.world).cells[name][trial.world.actors.rowOf(trial.actor(seat))];
export const rows = (trial: Trial, table: string, ...columns: string[]) => {
  const { high, live } = trial.world.table(table);
  return Array.from({ length: high }, (_, row) => row)
    .filter((row) => live[row] === 1)
    .map((row) =>
      columns.map((name) => {
        const value = trial.world.table(table).cells[name][row];
        return ['line', 'label', 'step', 'rewards'].includes(name)
          ? trial.world.text(value)
          : name === 'actor'
            ? trial.world.nameOf(value)
            : value;
      }),
    );
};
export const saved = (trial: Trial, seat = 'north') => savePlayer(trial.world, trial.world.actors.rowOf(trial.actor(seat)));
