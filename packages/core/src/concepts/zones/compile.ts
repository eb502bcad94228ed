import type { CompileContext } from '../../ruleset/context.js';
import type { Path } from '../../ruleset/problem.js';
import { type ZoneEntry } from './schema.js';
import { type ZoneRules } from './state.js';

export function compileZone(context: CompileContext, entry: ZoneEntry, own: Partial<ZoneEntry>, at: Path, placed: Path): ZoneRules {
  const all = { ...entry, ...own };
  // What is not said anew keeps its place, and with it its luck.
  const path = (field: keyof ZoneEntry) => [...(field in own ? placed : at), field];
  const ticks = all.every === undefined ? 0 : context.ticks(all.every.time);
  return {
    id: entry.id,
    rule: context.ruleAt(at),
    who: all.who === undefined ? undefined : context.condition(all.who),
    onEnter: context.then(all.onEnter, path('onEnter')),
    onLeave: context.then(all.onLeave, path('onLeave')),
    every: all.every === undefined ? 0 : Math.max(1, ticks),
    inside: context.then(all.every?.then ?? [], [...path('every'), 'then']),
  };
}
