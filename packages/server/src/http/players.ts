import type { SavedPlayer } from '@eager-ember/core';
import { Router } from 'express';
import { Op, type Transaction } from 'sequelize';
import { z } from 'zod';
import { Player, SetAside } from '../database/models.js';
import type { Draft, DraftingDesk } from '../drafts/desk.js';
import type { PlayerLoss } from '../drafts/jobs.js';
import type { RoomKeeper } from '../rooms/keeper.js';
import { PlayersElsewhere } from '../errors.js';
import { pageOf } from './pages.js';
import { HttpProblem } from './problems.js';
import { Missing } from '../errors.js';
import { userOf } from './sessions.js';
import type { Trail } from '../trail/trail.js';
import { findHead, type RulesetHead } from '../database/rulesets.js';

/** What a path under a ruleset names. */
type OfRuleset = { id: string };
type OfPlayer = OfRuleset & { name: string };

/** The name of a player: that of the seat they take. */
export const playerName = z
  .string()
  .regex(/^[A-Za-z][A-Za-z0-9 _-]{0,23}$/, 'A name has at most 24 letters, digits, spaces, - or _, beginning with a letter.');
export const putSchema = z.strictObject({ saved: z.unknown() });
/** How many players are followed at a time when a ruleset is edited. */
const BATCH = 500;
/** How many players are asked what an edit would cost them. */
const MOST_ASKED = 200;
const MOST_LOSSES = 60;

/** Players of a ruleset, some at a time in the order of their names: however many there are, memory holds one batch. */
export async function* batches(rulesetId: string, transaction?: Transaction, size = BATCH): AsyncIterable<readonly Player[]> {
  for (let last = ''; ;) {
    const players = await Player.findAll({
      where: { rulesetId, name: { [Op.gt]: last } },
      order: [['name', 'ASC']],
      limit: size,
      ...(transaction && { transaction, lock: transaction.LOCK.UPDATE }),
    });
    if (players.length > 0) yield players;
    if (players.length < size) return;
    last = players.at(-1)!.name;
  }
}

/** What is kept of players follows renamed entries in the same step: a room that opens later finds it under its new name. */
export async function followPlayers({ id, revision }: RulesetHead, draft: Draft, transaction: Transaction): Promise<void> {
  for await (const players of batches(id, transaction)) {
    const moved = await draft.followed(players.map(({ name, saved }) => ({ name, saved })));
    const rows = moved.map(({ name, saved }) => ({ rulesetId: id, name, saved, revision: revision + 1 }));
    if (rows.length > 0) await Player.bulkCreate(rows, { updateOnDuplicate: ['saved', 'revision', 'updatedAt'], transaction });
  }
}

/** What saved players would lose by an edit, before it is made: of those who played last, and not of everybody where they are many. */
export async function lossesOf({ id }: RulesetHead, draft: Draft, transaction: Transaction): Promise<readonly PlayerLoss[]> {
  if (draft.keeps) return [];
  const players = await Player.findAll({ where: { rulesetId: id }, order: [['updatedAt', 'DESC']], limit: MOST_ASKED, transaction });
  if (players.length === 0) return [];
  return (await draft.lossesOf(players.map(({ name, saved }) => ({ name, saved })))).slice(0, MOST_LOSSES);
}

const versionOf = ({ updatedAt }: Player) => `"${updatedAt.getTime()}"`;

/** What is kept of a ruleset's players: to be read, put right, reset in part, carried from one place to another. */
export function playerRoutes(keeper: RoomKeeper, desk: DraftingDesk, trail: Trail): Router {
  const router = Router({ mergeParams: true });
  const named = (name: string): string => {
    const read = playerName.safeParse(name);
    if (!read.success) throw new HttpProblem(400, 'That is no name of a player', read.error.issues[0].message);
    return read.data;
  };
  const find = async (rulesetId: string, name: string): Promise<Player> => {
    const player = await Player.findOne({ where: { rulesetId, name } });
    if (!player) throw new Missing('player');
    return player;
  };
  const alone = async <T>(rulesetId: string, name: string, work: () => Promise<T>): Promise<T> => {
    try {
      return await keeper.leases.withPlayers(rulesetId, [name], work);
    } catch (error) {
      if (error instanceof PlayersElsewhere) throw new HttpProblem(409, error.title, `${error.message} Or poke them there.`);
      throw error;
    }
  };
  const strict = async (ruleset: RulesetHead, saved: unknown): Promise<SavedPlayer> => {
    const problems = await desk.strict(ruleset, saved);
    if (problems.length > 0) throw new HttpProblem(422, 'That cannot be kept of a player', 'Nothing was stored.', { problems });
    return saved as SavedPlayer;
  };

  router.get<OfRuleset>('/', async (request, response) => {
    const { id } = await findHead(request.params.id);
    const where = { rulesetId: id };
    const [{ rows: players, next }, aside, all] = await Promise.all([
      pageOf(Player, request, { by: 'name', then: 'name' }, { where, attributes: ['name', 'revision', 'updatedAt'] }),
      // Few are ever set aside: the latest come with every part.
      SetAside.findAll({ where, order: [['createdAt', 'DESC']], limit: 100 }),
      Player.count({ where }),
    ]);
    const playing = keeper.leases.players(id);
    response.json({
      all,
      next,
      players: players.map(({ name, revision, updatedAt }) => ({ name, revision, updatedAt, room: playing.get(name) ?? null })),
      aside: aside.map(({ id: key, name, reason, createdAt, saved }) => ({ id: key, name, reason, at: createdAt, saved })),
    });
  });

  router.get<OfPlayer>('/:name', async (request, response) => {
    const ruleset = await findHead(request.params.id);
    await keeper.stored(ruleset.id);
    const player = await find(ruleset.id, named(request.params.name));
    const { problems, sheet } = await desk.sheet(ruleset, player.saved);
    response.set('ETag', versionOf(player)).json({
      name: player.name,
      revision: player.revision,
      updatedAt: player.updatedAt,
      saved: player.saved,
      problems,
      sheet,
    });
  });

  router.put<OfPlayer>('/:name', async (request, response) => {
    const body = putSchema.safeParse(request.body);
    if (!body.success) throw new HttpProblem(400, 'What is to be kept is expected', 'Send { "saved": … }.');
    const { id } = await findHead(request.params.id);
    const name = named(request.params.name);
    const expected = request.get('If-Match');
    const player = await alone(id, name, async () => {
      const ruleset = await findHead(id);
      const saved = await strict(ruleset, body.data.saved);
      const known = await Player.findOne({ where: { rulesetId: id, name } });
      if (known && expected === undefined) throw new HttpProblem(428, 'Say which state you change', 'Send its ETag as If-Match.');
      if (known && expected !== versionOf(known))
        throw new HttpProblem(412, `${name} has changed meanwhile`, 'Read them again, and change what is there now.');
      if (!known) return Player.create({ rulesetId: id, name, saved, revision: ruleset.revision });
      return known.update({ saved, revision: ruleset.revision });
    });
    trail.note({ who: userOf(response), ruleset: id, what: 'playerChanged', about: { player: name } });
    response.set('ETag', versionOf(player)).json({ name, revision: player.revision, updatedAt: player.updatedAt });
  });

  router.delete<OfPlayer>('/:name', async (request, response) => {
    const { id } = await findHead(request.params.id);
    const name = named(request.params.name);
    await alone(id, name, async () => (await find(id, name)).destroy());
    trail.note({ who: userOf(response), ruleset: id, what: 'playerDeleted', about: { player: name } });
    response.status(204).end();
  });

  router.delete<OfRuleset & { key: string }>('/aside/:key', async (request, response) => {
    const { id } = await findHead(request.params.id);
    const key = z.uuid().safeParse(request.params.key);
    const aside = key.success ? await SetAside.findOne({ where: { rulesetId: id, id: key.data } }) : null;
    if (!aside) throw new Missing('state that was set aside');
    await aside.destroy();
    trail.note({ who: userOf(response), ruleset: id, what: 'asideDeleted', about: { player: aside.name } });
    response.status(204).end();
  });

  return router;
}
