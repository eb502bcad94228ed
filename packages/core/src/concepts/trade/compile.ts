import { type AmountSource } from '../../ruleset/fields.js';
import type { CompileContext, Amount } from '../../ruleset/context.js';
import type { Path } from '../../ruleset/problem.js';
import { type CompiledPart } from './system.js';

/** Compiles parts of an exchange; a stat can be neither paid nor received. */
export function compileParts(
  context: CompileContext,
  list: readonly { attribute: string; amount: AmountSource }[],
  path: Path,
  compileAmount: (source: AmountSource, at: Path) => Amount = (source, at) => context.amount(source, at, ['source', 'target']),
): readonly CompiledPart[] {
  return list.map(({ attribute, amount: written }, k) => {
    const entry = context.fields<{ label: string; kind: string }, 'label' | 'kind'>('attributes', attribute, 'label', 'kind');
    if (entry?.kind === 'stat')
      context.problem([...path, k, 'attribute'], `${entry.label} is a stat: what changes hands is a pool or a counter.`);
    return { attribute: context.index('attributes', attribute), amount: compileAmount(written, [...path, k, 'amount']) };
  });
}
