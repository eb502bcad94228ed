import { z } from 'zod';
import { compileFormula, FormulaError } from '../formula/index.js';
import { placedActions } from './actions.js';
import { CompileContext } from './context.js';
import { pointer, type Problem } from './problem.js';
import { registry, type Then } from './registry.js';
import type { Rules } from './rules.js';
import { didYouMean } from './suggest.js';
import type { InputSpec } from '../world/concept.js';
import { walk } from './walk.js';

/** A checked request: sound, or with all that is wrong with it. */
export type Checked<T> =
  { readonly value: T; readonly problems: readonly [] } | { readonly value?: undefined; readonly problems: readonly Problem[] };

const failed = (error: z.ZodError): readonly Problem[] =>
  error.issues.flatMap((issue) =>
    issue.code === 'unrecognized_keys'
      ? issue.keys.map((key) => ({ path: pointer([...(issue.path as (string | number)[]), key]), message: `"${key}" is not known here.` }))
      : [{ path: pointer(issue.path as (string | number)[]), message: issue.message }],
  );

/** Checks one action that comes from outside the ruleset, such as a poke, against the rules it is to run under. */
export function checkAction(rules: Rules, value: unknown): Checked<Then[number]> {
  const before = typeof value === 'object' && value !== null ? checkedActions.get(value) : undefined;
  if (before?.chapters === rules.chapters) return { value: before.action, problems: [] };
  const schema = registry().action;
  const parsed = schema.safeParse(value);
  if (!parsed.success) return { problems: failed(parsed.error) };
  const problems: Problem[] = [];
  // What waits is kept in the rules, and an action from outside stands in none.
  const waits = placedActions([parsed.data], []).find(({ action }) => action.do === 'wait');
  if (waits) problems.push({ path: pointer(waits.path.slice(1)), message: 'What is done from outside happens at once: it can’t wait.' });
  walk(schema, parsed.data, [], (mark, text, path) => {
    if (mark.kind === 'reference') {
      const known = rules.chapters.get(mark.chapter)?.ids ?? [];
      if (!known.includes(text))
        problems.push({ path: pointer(path), message: `The ${mark.chapter} have no entry ${text}.${didYouMean(text, known)}` });
      return;
    }
    try {
      compileFormula(text, rules.vocabulary, mark.place);
    } catch (error) {
      if (!(error instanceof FormulaError)) throw error;
      problems.push({ path: pointer(path), message: error.message, at: error.at });
    }
  });
  if (problems.length > 0) return { problems };
  // What a list in the ruleset would be refused for is refused here as well.
  const context = new CompileContext(rules.registry, rules, new Map(rules.compiled));
  context.then([parsed.data], []);
  if (context.problems.length === 0) {
    const sound = { chapters: rules.chapters, action: parsed.data };
    for (const one of [parsed.data, value as object]) checkedActions.set(one, sound);
    return { value: parsed.data, problems: [] };
  }
  return { problems: context.problems.map((problem) => ({ ...problem, path: problem.path.replace(/^\/0/, '') })) };
}

/** Actions that were found to be sound, with the entries that there were then: rules that have the same take them as well. */
const checkedActions = new WeakMap<object, { readonly chapters: Rules['chapters']; readonly action: Then[number] }>();

/** Checks what a player asks for: `{ "do": name, …arguments }`. */
export function checkInput(value: unknown): Checked<{ readonly do: string; readonly [argument: string]: unknown }> {
  const { inputs } = registry();
  const name = (value as { do?: unknown } | null | undefined)?.do;
  const spec = typeof name === 'string' ? inputs.get(name) : undefined;
  if (!spec) {
    const known = [...inputs.keys()];
    return {
      problems: [
        {
          path: '/do',
          message: typeof name === 'string' ? `A seat can't ${name}.${didYouMean(name, known)}` : `One of ${known.join(', ')} is expected.`,
        },
      ],
    };
  }
  if (checked.has(value as object)) return { value: value as { do: string }, problems: [] };
  const parsed = shapeOf(name as string, spec).safeParse(value);
  if (!parsed.success) return { problems: failed(parsed.error) };
  checked.add(parsed.data);
  return { value: parsed.data as { do: string }, problems: [] };
}

/** Requests that were found to be sound: whoever hands one on need not have it read again. */
const checked = new WeakSet<object>();
const shapes = new WeakMap<InputSpec, z.ZodObject>();

function shapeOf(name: string, spec: InputSpec): z.ZodObject {
  let shape = shapes.get(spec);
  if (!shape) shapes.set(spec, (shape = z.strictObject({ do: z.literal(name), ...spec.args })));
  return shape;
}
