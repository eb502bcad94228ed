import { z } from 'zod';
import { seatName, seatProblems } from '../system.js';
import { duration, toMilliseconds } from '../../../ruleset/fields.js';
import { pointer, type Problem } from '../../../ruleset/problem.js';
import { checkAction, checkInput } from '../../../ruleset/requests.js';
import type { Rules } from '../../../ruleset/rules.js';
import { didYouMean } from '../../../ruleset/suggest.js';

/** A moment after the start: a time span, or seconds as a number. */
const moment = z.union([duration(), z.number().min(0).max(86400)], 'A moment is expected, such as "1.5s".');

/** A script: who sits where, what they do when, and what is done to the world from outside. */
export const scriptSchema = z.strictObject(
  {
    seats: z
      .array(
        z.strictObject({ id: seatName(), team: z.string().optional(), party: z.string().max(48).optional(), actor: z.string().optional() }),
      )
      .min(1, 'A script has at least one seat.')
      .max(64, 'A script has at most 64 seats.'),
    inputs: z
      .array(z.looseObject({ at: moment, seat: z.string(), do: z.string() }))
      .max(100000)
      .default([]),
    pokes: z
      .array(z.looseObject({ at: moment, seat: z.string().optional(), from: z.string().optional(), do: z.string() }))
      .max(100000)
      .default([]),
  },
  { error: (issue) => (issue.code === 'invalid_type' ? 'A script is a JSON object with "seats".' : undefined) },
);
export type Script = z.infer<typeof scriptSchema>;

/** The tick at which something authored for a moment runs: the first is 1, in which the seats are taken. */
export function tickAt(at: string | number, tickRate: number): number {
  const ms = typeof at === 'number' ? at * 1000 : toMilliseconds(at);
  return Math.max(1, Math.ceil((ms * tickRate) / 1000 - 1e-9));
}

/** Checks a script against the rules that it is to run under: every problem with its place. */
export function checkScript(rules: Rules, value: unknown): { readonly script?: Script; readonly problems: readonly Problem[] } {
  const parsed = scriptSchema.safeParse(value);
  if (!parsed.success)
    return {
      problems: parsed.error.issues.flatMap((issue) =>
        issue.code === 'unrecognized_keys'
          ? issue.keys.map((key) => ({ path: pointer([...(issue.path as string[]), key]), message: `"${key}" is not known here.` }))
          : [{ path: pointer(issue.path as string[]), message: issue.message }],
      ),
    };
  const script = parsed.data;
  const problems: Problem[] = [];
  const say = (path: (string | number)[], message: string) => problems.push({ path: pointer(path), message });
  const known = (path: (string | number)[], id: string | undefined, ids: readonly string[], what: string) => {
    if (id !== undefined && !ids.includes(id)) say(path, `No ${what} is called ${id}.${didYouMean(id, ids)}`);
  };
  const seatIds = script.seats.map((seat) => seat.id);
  script.seats.forEach((seat, i) => {
    for (const { argument, message } of seatProblems(rules, seat)) say(['seats', i, argument], message);
    if (seatIds.indexOf(seat.id) < i) say(['seats', i, 'id'], `${seat.id} is taken by an earlier seat.`);
  });
  script.inputs.forEach(({ at: _, seat, ...input }, i) => {
    known(['inputs', i, 'seat'], seat, seatIds, 'seat');
    const { value, problems: wrong } = checkInput(input);
    for (const problem of wrong) problems.push({ ...problem, path: `/inputs/${i}${problem.path}` });
    const found = value && rules.registry.inputs.get(value.do)?.check?.(rules, value);
    if (found) say(['inputs', i, found.argument], found.message);
  });
  script.pokes.forEach(({ at: _, seat, from, ...action }, i) => {
    known(['pokes', i, 'seat'], seat, seatIds, 'seat');
    known(['pokes', i, 'from'], from, seatIds, 'seat');
    for (const problem of checkAction(rules, action).problems) problems.push({ ...problem, path: `/pokes/${i}${problem.path}` });
  });
  return problems.length > 0 ? { problems } : { script, problems: [] };
}
