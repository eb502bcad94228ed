import { labelOf, type Rules } from '../ruleset/rules.js';
import { seconds, type Speaker } from '../world/events.js';

/** The words of a ruleset's own entries. */
export function speakerOf(rules: Rules): Speaker {
  return {
    label: (chapter, id) => (typeof id === 'string' ? labelOf(rules, chapter, id) : 'Something'),
    time: (ticks) => seconds(ticks, rules.tickRate),
  };
}
