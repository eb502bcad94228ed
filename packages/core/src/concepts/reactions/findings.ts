import { unheardIn } from '../../analysis/wiring.js';
import { placedActions } from '../../ruleset/actions.js';
import { type Finding, pointer } from '../../ruleset/problem.js';
import { type Pattern, registry, type Then } from '../../ruleset/registry.js';
import type { Rules } from '../../ruleset/rules.js';
import { reactionChapter } from './schema.js';

/** Whatever waits for an event that nobody can announce: reactions, and every other place that an event stands in. */
export function findings(_: unknown, rules: Rules): readonly Finding[] {
  return [
    ...unheardIn(rules).map(({ place, message }) => ({ kind: 'neverHeard', path: place.path, message })),
    ...settingOffThemselves(rules),
  ];
}

/** Reactions that announce in the same breath what they wait for, without a condition or a limit. */
function settingOffThemselves(rules: Rules): readonly Finding[] {
  const entries = reactionChapter.of(rules);
  return entries.flatMap(({ label, on, then, atMost }, i): readonly Finding[] => {
    const pattern = on as Pattern & Readonly<Record<string, unknown>>;
    if (pattern.where !== undefined || atMost !== undefined) return [];
    const again = placedActions(then as Then, ['reactions', i, 'then']).find(
      ({ action, later }) => !later && (action.to ?? 'self') === 'self' && causes(action).some((cause) => fits(cause, pattern)),
    );
    if (!again) return [];
    return [
      {
        kind: 'loop',
        path: pointer(again.path),
        message: `${label} sets itself off again by this, without end: while a game runs it is cut after a number of rounds. Say where it stops, or wait in between.`,
      },
    ];
  });
}

const causes = ({ do: name, to: _to, ...args }: Then[number]) => registry().actions.get(name)?.causes?.(args) ?? [];

const fits = (
  { event, fields = {} }: { readonly event: string; readonly fields?: Readonly<Record<string, unknown>> },
  { on, who: _who, where: _where, ...wanted }: Pattern & Readonly<Record<string, unknown>>,
): boolean =>
  event === on &&
  Object.entries(wanted).every(([field, value]) => value === undefined || fields[field] === undefined || fields[field] === value);
