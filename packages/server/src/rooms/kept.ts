import { type Problem, type Rules, type SavedPlayer, savedProblems } from '@eager-ember/core';
import type { Sequelize } from 'sequelize';
import { Player, SetAside } from '../database/models.js';
import type { RoomHold } from './room-hold.js';
import type { Unreadable } from './unreadable.js';

/** What is kept of a room's players. */
interface Kept {
  readonly saved: ReadonlyMap<string, SavedPlayer>;
  readonly unreadable: readonly Unreadable[];
}

const reasonOf = ({ path, message }: Problem): string => `${path || 'the whole'}: ${message}`;

/** What guests of a room keep. What can't be read is set aside untouched, and said; its guest begins anew. */
export async function keptOfGuests(hold: RoomHold, rules: Rules, guests: ReadonlyMap<string, SavedPlayer>): Promise<Kept> {
  const { rulesetId, room } = hold;
  const saved = new Map<string, SavedPlayer>();
  const unreadable: Unreadable[] = [];
  for (const [name, kept] of guests) {
    const [problem] = savedProblems(rules, kept);
    if (!problem) {
      saved.set(name, kept);
      continue;
    }
    unreadable.push({ player: name, reason: reasonOf(problem) });
    await SetAside.create({ rulesetId, name: `${name} of ${room}`, saved: kept, reason: reasonOf(problem) });
    hold.forget(name);
  }
  return { saved, unreadable };
}

/** What is kept of players. What can't be read is set aside untouched, and said; its player begins anew. */
export async function keptOfPlayers(sequelize: Sequelize, rulesetId: string, rules: Rules, names: readonly string[]): Promise<Kept> {
  const saved = new Map<string, SavedPlayer>();
  for (const player of await Player.findAll({ where: { rulesetId, name: [...names] } })) {
    const [problem] = savedProblems(rules, player.saved);
    if (!problem) saved.set(player.name, player.saved);
    else
      await sequelize.transaction(async (transaction) => {
        await SetAside.create({ rulesetId, name: player.name, saved: player.saved, reason: reasonOf(problem) }, { transaction });
        await player.destroy({ transaction });
      });
  }
  const aside = await SetAside.findAll({ where: { rulesetId, name: [...names] } });
  return { saved, unreadable: aside.map(({ name, reason }) => ({ player: name, reason })) };
}
