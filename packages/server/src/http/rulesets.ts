import { registry, upgradeDocument, VERSION } from '@eager-ember/core';
import { Router } from 'express';
import type { Operation } from 'fast-json-patch';
import { Op, type Sequelize, type Transaction } from 'sequelize';
import { z } from 'zod';
import { Revision, Ruleset } from '../database/models.js';
import { MOST_PATHS, type Trail } from '../trail/trail.js';
import { findRuleset } from '../database/rulesets.js';
import { followPlayers, lossesOf } from './players.js';
import type { Draft, DraftingDesk } from '../drafts/desk.js';
import { userOf } from './sessions.js';
import { pageOf } from './pages.js';
import { patched } from './patching.js';
import { HttpProblem } from './problems.js';
import { Missing } from '../errors.js';

const pathText = z
  .string()
  .max(500)
  .regex(/^(\/.*)?$/, 'A JSON Pointer is expected.');
/** JSON Patch (RFC 6902). */
export const patchSchema = z
  .array(
    z.discriminatedUnion('op', [
      z.strictObject({ op: z.enum(['add', 'replace', 'test']), path: pathText, value: z.unknown() }),
      z.strictObject({ op: z.literal('remove'), path: pathText }),
      z.strictObject({ op: z.enum(['move', 'copy']), path: pathText, from: pathText }),
    ]),
  )
  .min(1)
  .max(2000);

export const createSchema = z.strictObject({
  name: z.string().min(1).max(80).optional(),
  document: z.record(z.string(), z.unknown()).optional(),
});

/** By what an edit is known again: 8 to 64 letters, digits and dashes, in quotes or without (draft-ietf-httpapi-idempotency-key-header). */
const keySchema = z
  .string()
  .regex(/^"?[A-Za-z0-9-]{8,64}"?$/, 'Idempotency-Key is 8 to 64 letters, digits or dashes.')
  .transform((text) => text.replaceAll('"', ''))
  .optional();

function counts(document: Record<string, unknown>): Record<string, number> {
  const chapters = [...registry().sections].filter(([, section]) => section.kind === 'chapter');
  return Object.fromEntries(chapters.map(([key]) => [key, Array.isArray(document[key]) ? document[key].length : 0]));
}

const summary = ({ id, name, revision, updatedAt, document }: Ruleset) => ({ id, name, revision, updatedAt, entries: counts(document) });
const whole = (ruleset: Ruleset) => ({
  id: ruleset.id,
  revision: ruleset.revision,
  updatedAt: ruleset.updatedAt,
  document: ruleset.document,
});

/** A document as it is stored: of the version of the format that is written today. */
const upgraded = (document: Record<string, unknown>) => upgradeDocument(document) as Record<string, unknown>;

/** Has running rooms go by edited rules. */
export type OnEdit = (rulesetId: string, document: Readonly<Record<string, unknown>>, revision: number) => Promise<void>;

/**
 * Has what is kept of players follow an edit.
 * @throws HttpProblem where it is not sound, or would take something from players that nobody has been shown
 */
async function accept(ruleset: Ruleset, draft: Draft, lossesAccepted: boolean, transaction: Transaction): Promise<void> {
  draft.requireSound();
  // What an upgrade would take from somebody is shown first: only who has seen it may send it again so.
  const losses = lossesAccepted ? [] : await lossesOf(ruleset, draft, transaction);
  if (losses.length > 0)
    throw new HttpProblem(
      409,
      'Saved players would lose something',
      'Nothing was stored. Send it again with X-Losses: accept to have it so.',
      { losses },
    );
  await followPlayers(ruleset, draft, transaction);
}

/** Rulesets as documents: ETag is the revision, edits are JSON Patches on a revision one names. */
export function rulesetRoutes(sequelize: Sequelize, desk: DraftingDesk, trail: Trail, onEdit: OnEdit): Router {
  const router = Router();

  router.get('/', async (request, response) => {
    const { rows, next } = await pageOf(Ruleset, request, { by: 'updatedAt', then: 'id', descending: true });
    response.json({ rulesets: rows.map(summary), next });
  });

  router.post('/', async (request, response) => {
    const body = createSchema.safeParse(request.body);
    if (!body.success) throw new HttpProblem(400, 'A name or a document is expected', body.error.issues[0].message);
    const document = upgraded(
      body.data.document ?? { format: 'eager-ember/ruleset', version: VERSION, name: body.data.name ?? 'New ruleset', tickRate: 20 },
    );
    await desk.requireSound(document);
    const ruleset = await Ruleset.create({ name: String(document['name']), document, revision: 1 });
    trail.note({ who: userOf(response), ruleset: ruleset.id, what: 'begun', about: { name: ruleset.name } });
    response.status(201).location(`/api/rulesets/${ruleset.id}`).set('ETag', '"1"').json(whole(ruleset));
  });

  router.get('/:id', async (request, response) => {
    const ruleset = await findRuleset(request.params.id);
    response.set('ETag', `"${ruleset.revision}"`).json(whole(ruleset));
  });

  router.patch('/:id', async (request, response) => {
    const expected = /^"(\d+)"$/.exec(request.get('If-Match') ?? '')?.[1];
    if (expected === undefined) throw new HttpProblem(428, 'Say which revision you edit', 'Send its ETag as If-Match.');
    const patch = patchSchema.safeParse(request.body);
    if (!patch.success)
      throw new HttpProblem(400, 'A JSON Patch is expected', `${patch.error.issues[0].path.join('/')}: ${patch.error.issues[0].message}`);
    const key = keySchema.safeParse(request.get('Idempotency-Key'));
    if (!key.success) throw new HttpProblem(400, 'The key of the edit can’t be read', key.error.issues[0].message);
    await findRuleset(request.params.id);
    const stored = await sequelize.transaction(async (transaction) => {
      // What only refers to it, such as a player that a room stores, does not wait for the edit.
      const locked = await Ruleset.findByPk(request.params.id, { transaction, lock: transaction.LOCK.NO_KEY_UPDATE });
      if (!locked) throw new Missing('ruleset');
      if (locked.revision !== Number(expected)) {
        // Who sends an edit again because no answer came is told what came of it the first time.
        const since = { rulesetId: locked.id, revision: { [Op.gt]: Math.min(Number(expected), locked.revision) } };
        const earlier = key.data && (await Revision.findOne({ where: { ...since, key: key.data }, transaction }));
        if (earlier) return { id: locked.id, revision: earlier.revision, updatedAt: earlier.createdAt };
        throw new HttpProblem(
          412,
          'The ruleset was edited meanwhile',
          `You edited revision ${expected}; it is at ${locked.revision} now.`,
          { revision: locked.revision },
        );
      }
      const document = upgraded(patched(locked.document, patch.data as Operation[]));
      const draft = await desk.compare(locked.document, document);
      try {
        await accept(locked, draft, request.get('X-Losses') === 'accept', transaction);
      } finally {
        draft.drop();
      }
      locked.document = document;
      // A new object of the same shape may compare equal to the old one; it is a new revision all the same.
      locked.changed('document', true);
      locked.name = String(document['name']);
      locked.revision++;
      await locked.save({ transaction });
      await Revision.create(
        { rulesetId: locked.id, revision: locked.revision, patch: patch.data, userId: userOf(response), key: key.data ?? null },
        { transaction },
      );
      const about = {
        revision: locked.revision,
        operations: patch.data.length,
        paths: patch.data.slice(0, MOST_PATHS).map(({ path }) => path),
      };
      await trail.within(transaction, { who: userOf(response), ruleset: locked.id, what: 'edited', about });
      return locked;
    });
    const { id, revision, updatedAt } = stored;
    if (stored instanceof Ruleset) await onEdit(id, stored.document, revision);
    response.set('ETag', `"${revision}"`).json({ id, revision, updatedAt });
  });

  return router;
}
