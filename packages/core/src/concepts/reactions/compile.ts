import type { CompileContext } from '../../ruleset/context.js';
import type { Path } from '../../ruleset/problem.js';
import type { Pattern, Then } from '../../ruleset/registry.js';
import { type OwnReaction } from './schema.js';
import { type Bearer, type Reaction } from './state.js';

export function compileReaction(context: CompileContext, { on, then, atMost: most }: OwnReaction, path: Path, bearer: Bearer): Reaction {
  const { who = 'subject' } = on as Pattern;
  return {
    bearer,
    // Whoever the event is about is the one that the actions of the ruleset's own call self.
    pattern: context.pattern(bearer.of === 'all' ? { ...(on as Pattern), who: 'anyone' } : (on as Pattern)),
    who,
    then: context.then(then as Then, [...path, 'then']),
    purpose: context.purpose(path),
    rule: context.ruleAt(path),
    times: most?.times ?? 0,
    ticks: most?.every === undefined ? 0 : context.ticks(most.every),
    perActor: most?.per === 'actor',
  };
}
