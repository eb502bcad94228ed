import { type Request, type Response, Router } from 'express';
import { Op } from 'sequelize';
import { TrailEntry } from '../database/models.js';
import { pageOf } from '../http/pages.js';
import { findHead } from '../database/rulesets.js';
import type { Trail } from './trail.js';

/** How many notes are read at a time when all are sent. */
const BATCH = 500;

/** A note as it is told: who and when, what and about what. */
const told = ({ id, at, userId, what, about }: TrailEntry) => ({
  id: Number(id),
  at,
  who: userId === null ? 'terminal' : 'author',
  what,
  about,
});

/** Who did what: of a ruleset, or where no ruleset is named, of what is about none. */
export function trailRoutes(trail: Trail): Router {
  const router = Router({ mergeParams: true });
  const whereOf = async (request: Request) => {
    const { id } = request.params as { id?: string };
    return { rulesetId: id === undefined ? null : (await findHead(id)).id };
  };

  router.get('/', async (request, response) => {
    const where = await whereOf(request);
    await trail.flush();
    const { rows, next } = await pageOf(TrailEntry, request, { by: 'at', then: 'id', descending: true }, { where });
    response.json({ notes: rows.map(told), next });
  });

  // JSON lines: one value a line, the first note first.
  router.get('/lines', async (request, response) => {
    const where = await whereOf(request);
    await trail.flush();
    // Its name would say what it is, were it known: what is said last holds.
    response.attachment('trail.jsonl').type('application/jsonl');
    await sendLines(response, where);
    response.end();
  });
  return router;
}

async function sendLines(response: Response, where: { readonly rulesetId: string | null }): Promise<void> {
  for (let last: TrailEntry | undefined; ;) {
    const after = last && { [Op.or]: [{ at: { [Op.gt]: last.at } }, { at: last.at, id: { [Op.gt]: last.id } }] };
    const rows = await TrailEntry.findAll({
      where: { ...where, ...after },
      order: [
        ['at', 'ASC'],
        ['id', 'ASC'],
      ],
      limit: BATCH,
    });
    const text = rows.map((row) => `${JSON.stringify(told(row))}\n`).join('');
    // Who reads slowly is waited for; who has gone is not.
    if (!response.write(text)) await new Promise((done) => response.once('drain', done).once('close', done));
    if (rows.length < BATCH || response.destroyed) return;
    last = rows.at(-1);
  }
}
