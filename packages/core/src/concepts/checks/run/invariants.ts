import type { Breach } from '../../../world/invariant.js';
import type { GameEvent } from '../../../world/events.js';
import type { Rules } from '../../../ruleset/rules.js';
import type { InvariantTest } from '../schema.js';
import type { Story } from './story.js';
import { NOTHING_WATCHED, type Test, type Verdict } from './verdicts.js';

const HOLDS: Verdict = { holds: true, says: 'all the while' };

const broken = ({ says, who, cause = 0, about }: Breach): Verdict => ({
  holds: false,
  says,
  failure: { says, expected: 'always', found: says, who, cause, ...(about && { about }) },
});

/** That something holds of any sound ruleset. */
export function invariantTest(rules: Rules, { invariant }: InvariantTest, path: string): Test {
  const { onEvent, onTick, atEnd, waitsFor } = rules.registry.invariants.get(invariant)!.watch(rules);
  let heard: Breach | undefined;
  const verdict = (found: Breach | undefined) => (found ? broken(found) : HOLDS);
  return {
    path,
    within: 0,
    waits: false,
    watches: NOTHING_WATCHED,
    ...(onEvent && {
      hear: ({ world }: Story, event: GameEvent) => {
        heard ??= onEvent(world, event);
      },
    }),
    look: ({ world }) => verdict(heard ?? onTick?.(world)),
    ...(atEnd && { end: ({ world }: Story) => verdict(atEnd(world)) }),
    ...(waitsFor && { waitsFor: ({ world }: Story) => waitsFor(world) }),
  };
}
