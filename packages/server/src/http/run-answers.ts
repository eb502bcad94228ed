import { z } from 'zod';

/** What is written in a ruleset. */
const json = z.record(z.string(), z.unknown());
const moments = { t: z.number(), says: z.string() };
/** What became of a sentence of a check: at which second of it, and why it does not hold. */
const outcome = z.strictObject({
  path: z.string(),
  holds: z.boolean(),
  ...moments,
  failure: z
    .strictObject({
      says: z.string(),
      expected: z.string(),
      found: z.string(),
      who: z.string(),
      cause: z.int(),
      about: z.strictObject({ actor: z.int(), attribute: z.string() }).optional(),
      right: z.strictObject({ path: z.string(), value: z.union([z.number(), z.string()]) }).optional(),
    })
    .optional(),
});
const mistakes = z.array(z.strictObject({ path: z.string(), message: z.string() }));
const ran = { ok: z.boolean(), ticks: z.int(), outcomes: z.array(outcome), mistakes };
const check = z
  .strictObject({
    id: z.string(),
    label: z.string(),
    ...ran,
    rows: z.array(z.strictObject({ row: z.int(), label: z.string(), ...ran })).optional(),
  })
  .meta({ id: 'Check' });
const covered = z.strictObject({
  chapter: z.string(),
  title: z.string(),
  covered: z.int(),
  total: z.int(),
  uncovered: z.array(z.string()),
});
/** `found` has the story as short as it could be made, and the check that it comes to. */
const hunt = z
  .strictObject({
    id: z.string(),
    label: z.string(),
    ok: z.boolean(),
    mistakes,
    stories: z.int(),
    ticks: z.int(),
    found: z
      .strictObject({
        story: z.int(),
        ...moments,
        broken: json,
        steps: z.array(json),
        words: z.array(z.string()),
        before: z.int(),
        after: z.int(),
        check: json,
      })
      .optional(),
  })
  .meta({ id: 'Hunt' });

export const checksRunAnswer = z.strictObject({
  revision: z.int(),
  ok: z.boolean(),
  ticks: z.int(),
  checks: z.array(check),
  left: z.array(z.string()),
  coverage: z.array(covered).optional(),
});
export const huntsRunAnswer = z.strictObject({ revision: z.int(), ok: z.boolean(), hunts: z.array(hunt) });
