import { z } from 'zod';
import { Ruleset } from '../database/models.js';
import { notFound } from './problems.js';

const uuid = z.uuid();

/**
 * The ruleset of an id.
 * @throws HttpProblem where there is none
 */
export async function findRuleset(id: string): Promise<Ruleset> {
  const ruleset = uuid.safeParse(id).success ? await Ruleset.findByPk(id) : null;
  if (!ruleset) throw notFound('ruleset');
  return ruleset;
}
