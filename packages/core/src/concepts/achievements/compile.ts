import type { CompileContext } from '../../ruleset/context.js';
import type { Pattern, Then } from '../../ruleset/registry.js';
import { type AchievementEntry } from './schema.js';
import { type Achievement } from './state.js';
import { CHAPTER, isUnlockedByAction } from './system.js';

export function compileOne(context: CompileContext, entry: AchievementEntry, index: number): Achievement {
  const path = [CHAPTER, index];
  const { on, if: wanted, holds, count } = entry;
  if (on !== undefined && wanted !== undefined)
    context.problem([...path, 'if'], `${entry.label} waits for one thing: an event that is counted, or a condition.`);
  if (on === undefined && wanted === undefined && !isUnlockedByAction(context.document, entry.id))
    context.problem(
      [...path, 'on'],
      `${entry.label} waits for nothing: say which event is counted, or which condition has to be so, or unlock it by an action.`,
    );
  if (holds !== undefined && wanted === undefined)
    context.problem([...path, 'holds'], 'Only a condition holds for a time: say which, or take the time out.');
  if (count > 1 && on === undefined) context.problem([...path, 'count'], 'Only an event is counted: a condition is met once.');
  return {
    index,
    id: entry.id,
    pattern: on && context.pattern(on as Pattern),
    who: (on as Pattern | undefined)?.who ?? 'subject',
    count,
    test: wanted === undefined ? undefined : context.condition(wanted),
    ticks: holds === undefined ? 0 : Math.max(1, context.ticks(holds)),
    backwards: entry.backwards === undefined ? undefined : context.amount(entry.backwards, [...path, 'backwards']),
    then: context.then(entry.then as Then, [...path, 'then']),
  };
}
