import { Router } from 'express';
import { z } from 'zod';
import { findHead } from '../database/rulesets.js';
import type { DraftingDesk } from '../drafts/desk.js';
import type { RunAsked } from '../drafts/test-runs.js';
import { NotNow } from '../errors.js';
import { HttpProblem } from './problems.js';

/** Runs that share the thread at once; more are refused. */
const MOST_AT_ONCE = 4;

const runSchema = z.strictObject({
  only: z.string().min(1).max(80).optional().meta({ description: 'The id of one, or words of labels or groups' }),
  seed: z.int().min(-0x7fffffff).max(0x7fffffff).optional().meta({ description: 'Another seed than their own' }),
});
const TIME = 'A time is 1 to 120 seconds.';
const seconds = (otherwise: number) => z.number(TIME).min(1, TIME).max(120, TIME).default(otherwise);
export const checksRunSchema = runSchema.extend({
  seconds: seconds(60).meta({ description: 'Those for which there is no time are left' }),
  coverage: z.boolean().default(false).meta({ description: 'Tells how far the checks have run through the ruleset' }),
});
export const huntsRunSchema = runSchema.extend({
  seconds: seconds(10).meta({ description: 'How long in all; a story that was found by then is still made short' }),
});

/** Runs what a stored ruleset asks of itself: its checks, its hunts. What comes back is what `ember test --json` tells. */
export function testRunRoutes(runner: DraftingDesk): Router {
  const router = Router({ mergeParams: true });
  let underway = 0;

  for (const [what, schema] of [
    ['checks', checksRunSchema],
    ['hunts', huntsRunSchema],
  ] as const)
    router.post(`/${what}/run`, async (request, response) => {
      const body = schema.safeParse(request.body ?? {});
      if (!body.success) {
        const [{ path, message }] = body.error.issues;
        throw new HttpProblem(400, 'This can’t be run so', path.length === 0 ? message : `${path.join('/')}: ${message}`);
      }
      const ruleset = await findHead(String((request.params as { id?: string }).id));
      if (underway >= MOST_AT_ONCE) throw new NotNow('Too much is run at once', 'Try again in a while.');
      underway++;
      try {
        const { seconds: most, ...asked } = body.data;
        // Whoever has gone waits for nothing: then it is left.
        const outcome = await runner.run(ruleset, { what, ...asked } satisfies RunAsked, most * 1000, () => response.destroyed);
        response.json(outcome);
      } finally {
        underway--;
      }
    });
  return router;
}
