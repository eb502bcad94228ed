import { z } from 'zod';
import { Missing } from '../errors.js';
import { Ruleset } from './models.js';

const uuid = z.uuid();

/**
 * The ruleset of an id.
 * @throws Missing where there is none
 */
export async function findRuleset(id: string): Promise<Ruleset> {
  const ruleset = uuid.safeParse(id).success ? await Ruleset.findByPk(id) : null;
  if (!ruleset) throw new Missing('ruleset');
  return ruleset;
}
