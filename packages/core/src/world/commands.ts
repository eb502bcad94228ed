import { z } from 'zod';
import { pointer, type Problem } from '../ruleset/problem.js';
import type { Rules } from '../ruleset/rules.js';
import { didYouMean } from '../ruleset/suggest.js';
import type { CommandSpec } from './concept.js';

/** A change from outside: an input of a seat, a seat taken or left, a poke. What a tape consists of, beside the seed. */
export interface Command {
  readonly kind: string;
  readonly args: Readonly<Record<string, unknown>>;
}

/** Commands that no world runs: the tick that they were meant for has not begun. */
export class CommandError extends Error {
  /** @param problems what is wrong, by its place in the list of commands */
  constructor(readonly problems: readonly Problem[]) {
    super(problems.map(({ path, message }) => `${path}: ${message}`).join('\n'));
    this.name = 'CommandError';
  }
}

const shapes = new WeakMap<CommandSpec, z.ZodObject>();

function shapeOf(spec: CommandSpec): z.ZodObject {
  let shape = shapes.get(spec);
  if (!shape) shapes.set(spec, (shape = z.strictObject(spec.args)));
  return shape;
}

/** What is wrong with commands under these rules; nothing where a world may run them. */
export function commandProblems(rules: Rules, commands: unknown): readonly Problem[] {
  if (!Array.isArray(commands)) return [{ path: '', message: 'A list of commands is expected: [{ "kind", "args" }].' }];
  return commands.flatMap((command: unknown, i) =>
    problemsOf(rules, command).map(({ path, message }) => ({ path: `/${i}${path}`, message })),
  );
}

function problemsOf(rules: Rules, command: unknown): readonly Problem[] {
  const { commands } = rules.registry;
  const { kind, args } = (typeof command === 'object' && command !== null ? command : {}) as Partial<Command>;
  const spec = typeof kind === 'string' ? commands.get(kind) : undefined;
  if (!spec) {
    const known = [...commands.keys()];
    const wrong = typeof kind === 'string' ? `No command is called ${kind}.${didYouMean(kind, known)} ` : '';
    return [{ path: '/kind', message: `${wrong}A command is one of ${known.join(', ')}.` }];
  }
  const parsed = shapeOf(spec).safeParse(args);
  if (!parsed.success) {
    return parsed.error.issues.flatMap(({ path, message, ...issue }) => {
      const at = ['args', ...path.map((part) => (typeof part === 'number' ? part : String(part)))];
      return issue.code === 'unrecognized_keys'
        ? issue.keys.map((key) => ({ path: pointer([...at, key]), message: `"${key}" is not known here.` }))
        : [{ path: pointer(at), message }];
    });
  }
  return (spec.check?.(rules, args!) ?? []).map(({ path, message }) => ({ path: `/args${path}`, message }));
}
