import { registry, upgradeDocument, VERSION } from '@eager-ember/core';
import { Router } from 'express';
import type { Operation } from 'fast-json-patch';
import { type FindAttributeOptions, literal, Op, type Sequelize, type Transaction } from 'sequelize';
import { z } from 'zod';
import { Revision, Ruleset } from '../database/models.js';
import { MOST_PATHS, type Trail } from '../trail/trail.js';
import { findHead, findText, RulesetHead, storeEdited } from '../database/rulesets.js';
import { followPlayers, lossesOf } from './players.js';
import type { Draft, DraftingDesk } from '../drafts/desk.js';
import { userOf } from './sessions.js';
import { pageOf } from './pages.js';
import { HttpProblem } from './problems.js';

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

/** How many entries each list of a document has: counted where it lies, so that nobody here reads thousands of them for a list. */
const LENGTHS = literal(
  `(SELECT json_object_agg(part.key, json_array_length(part.value)) FROM json_each("Ruleset"."document") AS part WHERE json_typeof(part.value) = 'array')`,
);

function summary(ruleset: Ruleset) {
  const { id, name, revision, updatedAt } = ruleset;
  const lengths = (ruleset.get('lengths') ?? {}) as Readonly<Record<string, number>>;
  const chapters = [...registry().sections].filter(([, section]) => section.kind === 'chapter');
  return { id, name, revision, updatedAt, entries: Object.fromEntries(chapters.map(([key]) => [key, lengths[key] ?? 0])) };
}

const whole = (ruleset: Ruleset) => ({
  id: ruleset.id,
  revision: ruleset.revision,
  updatedAt: ruleset.updatedAt,
  document: ruleset.document,
});

/** A document as it is stored: of the version of the format that is written today. */
const upgraded = (document: Record<string, unknown>) => upgradeDocument(document) as Record<string, unknown>;

/** Has running rooms go by edited rules: those of the revision that a patch has led to. */
export type OnEdit = (ruleset: RulesetHead, patch: readonly Operation[]) => Promise<void>;

/** An edit as it was sent. */
interface Edit {
  readonly id: string;
  readonly operations: readonly Operation[];
  /** The revision that it is an edit of. */
  readonly expected: number;
  /** By what its sender knows it again. */
  readonly key: string | undefined;
  readonly lossesAccepted: boolean;
}

interface StoredEdit {
  readonly revision: number;
  readonly updatedAt: Date;
  readonly edited?: RulesetHead;
}

/**
 * Has what is kept of players follow an edit.
 * @throws HttpProblem where it is not sound, or would take something from players that nobody has been shown
 */
async function accept(ruleset: RulesetHead, draft: Draft, lossesAccepted: boolean, transaction: Transaction): Promise<void> {
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

  /** Stores an edit, and all that follows from it. @returns what was edited; nothing where it had been stored before */
  async function storeEdit({ id, operations, expected, key, lossesAccepted }: Edit, who: string): Promise<StoredEdit> {
    const begun: Draft[] = [];
    const over = (stored: boolean) => begun.forEach((draft) => draft.drop(stored));
    try {
      const stored = await sequelize.transaction(async (transaction): Promise<StoredEdit> => {
        const locked = await findHead(id, transaction);
        if (locked.revision !== expected) {
          // Who sends an edit again because no answer came is told what came of it the first time.
          const since = { rulesetId: id, revision: { [Op.gt]: Math.min(expected, locked.revision) } };
          const earlier = key && (await Revision.findOne({ where: { ...since, key }, transaction }));
          if (earlier) return { revision: earlier.revision, updatedAt: earlier.createdAt };
          throw new HttpProblem(
            412,
            'The ruleset was edited meanwhile',
            `You edited revision ${expected}; it is at ${locked.revision} now.`,
            { revision: locked.revision },
          );
        }
        // The document itself is with the thread that reads rulesets: here it is no more than a text that is stored.
        const draft = await desk.edit(locked, operations);
        begun.push(draft);
        await accept(locked, draft, lossesAccepted, transaction);
        const { name, text } = draft;
        const revision = expected + 1;
        const updatedAt = await storeEdited(id, { name, text, revision }, transaction);
        await Revision.create({ rulesetId: id, revision, patch: operations, userId: who, key: key ?? null }, { transaction });
        const paths = operations.slice(0, MOST_PATHS).map(({ path }) => path);
        const about = { revision, operations: operations.length, paths };
        await trail.within(transaction, { who, ruleset: id, what: 'edited', about });
        return { revision, updatedAt, edited: new RulesetHead(id, name, revision) };
      });
      over(true);
      return stored;
    } catch (error) {
      over(false);
      throw error;
    }
  }

  router.get('/', async (request, response) => {
    const attributes: FindAttributeOptions = ['id', 'name', 'revision', 'updatedAt', [LENGTHS, 'lengths']];
    const { rows, next } = await pageOf(Ruleset, request, { by: 'updatedAt', then: 'id', descending: true }, { attributes });
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
    const { id, revision, updatedAt, text, version } = await findText(request.params.id);
    // It is sent as it is stored, and read here only where it was stored in an earlier version of the format.
    const document = version === String(VERSION) ? text : JSON.stringify(upgradeDocument(JSON.parse(text)));
    const head = JSON.stringify({ id, revision, updatedAt });
    response
      .set('ETag', `"${revision}"`)
      .type('json')
      .send(`${head.slice(0, -1)},"document":${document}}`);
  });

  router.patch('/:id', async (request, response) => {
    const expected = /^"(\d+)"$/.exec(request.get('If-Match') ?? '')?.[1];
    if (expected === undefined) throw new HttpProblem(428, 'Say which revision you edit', 'Send its ETag as If-Match.');
    const patch = patchSchema.safeParse(request.body);
    if (!patch.success)
      throw new HttpProblem(400, 'A JSON Patch is expected', `${patch.error.issues[0].path.join('/')}: ${patch.error.issues[0].message}`);
    const key = keySchema.safeParse(request.get('Idempotency-Key'));
    if (!key.success) throw new HttpProblem(400, 'The key of the edit can’t be read', key.error.issues[0].message);
    const { id } = await findHead(request.params.id);
    const operations = patch.data as Operation[];
    const edit = { id, operations, expected: Number(expected), key: key.data, lossesAccepted: request.get('X-Losses') === 'accept' };
    const { revision, updatedAt, edited } = await storeEdit(edit, userOf(response));
    if (edited) await onEdit(edited, operations);
    response.set('ETag', `"${revision}"`).json({ id, revision, updatedAt });
  });

  return router;
}
