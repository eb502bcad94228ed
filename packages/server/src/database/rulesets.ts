import { QueryTypes, type Transaction } from 'sequelize';
import { z } from 'zod';
import { Missing } from '../errors.js';
import { Ruleset } from './models.js';

const uuid = z.uuid();

/** A document as it was written, and of which revision it is. */
export interface StoredText {
  readonly revision: number;
  readonly text: string;
}

/** A ruleset as far as it is known without its document, which is large and read by whoever needs it. */
export class RulesetHead {
  constructor(
    readonly id: string,
    readonly name: string,
    readonly revision: number,
    private readonly transaction?: Transaction,
  ) {}

  /**
   * Its document as text, as it is stored now: somebody may have edited it meanwhile.
   * @throws Missing where it has gone
   */
  async read(): Promise<StoredText> {
    const [found] = await Ruleset.sequelize!.query<StoredText>('SELECT revision, document::text AS text FROM rulesets WHERE id = $id', {
      bind: { id: this.id },
      type: QueryTypes.SELECT,
      transaction: this.transaction,
    });
    if (!found) throw new Missing('ruleset');
    return found;
  }
}

/**
 * What is known of the ruleset of an id without reading its document.
 * @param transaction nobody else edits it before that is over
 * @throws Missing where there is none
 */
export async function findHead(id: string, transaction?: Transaction): Promise<RulesetHead> {
  // What only refers to it, such as a player that a room stores, does not wait for an edit.
  const how = transaction && { transaction, lock: transaction.LOCK.NO_KEY_UPDATE };
  const found = uuid.safeParse(id).success ? await Ruleset.findByPk(id, { attributes: ['name', 'revision'], ...how }) : null;
  if (!found) throw new Missing('ruleset');
  return new RulesetHead(id, found.name, found.revision, transaction);
}

/** Stores a ruleset's edited document. @returns when */
export async function storeEdited(id: string, edited: StoredText & { readonly name: string }, transaction: Transaction): Promise<Date> {
  const { text, name, revision } = edited;
  const [{ at }] = await Ruleset.sequelize!.query<{ at: Date }>(
    'UPDATE rulesets SET document = $text::json, name = $name, revision = $revision, updated_at = $at WHERE id = $id RETURNING updated_at AS at',
    { bind: { id, text, name, revision, at: new Date() }, type: QueryTypes.SELECT, transaction },
  );
  return at;
}

/**
 * The ruleset of an id, with its document as text and in the version of the format that it was stored in.
 * @throws Missing where there is none
 */
export async function findText(
  id: string,
): Promise<StoredText & { readonly id: string; readonly updatedAt: Date; readonly version: string | null }> {
  const [found] = uuid.safeParse(id).success
    ? await Ruleset.sequelize!.query<StoredText & { id: string; updatedAt: Date; version: string | null }>(
        `SELECT id, revision, updated_at AS "updatedAt", document::text AS text, document->>'version' AS version FROM rulesets WHERE id = $id`,
        { bind: { id }, type: QueryTypes.SELECT },
      )
    : [];
  if (!found) throw new Missing('ruleset');
  return found;
}
