import { wiringOf } from '../../analysis/wiring.js';
import type { Rules } from '../../ruleset/rules.js';
import { type Evidence, NONE } from '../../workbench/evidence.js';

/** Who can set a reaction off, what it leads to, and who hears of that. */
export function reactionEvidence(rules: Rules, id: string): Evidence {
  const { entries, events } = wiringOf(rules);
  const wires = entries.find((one) => one.chapter === 'reactions' && one.id === id);
  if (!wires) return NONE;
  const [heard] = wires.hears;
  const event = events.find((one) => one.event === heard?.event);
  const from = [...new Set((heard?.from ?? []).map(({ label }) => label))];
  const causes = [
    ...new Set(
      wires.causes.map(
        ({ words, heardBy }) => `${words}${heardBy.length > 0 ? `, heard by ${heardBy.map(({ label }) => label).join(', ')}` : ''}`,
      ),
    ),
  ];
  return {
    ...NONE,
    actor: wires.label,
    facts: [
      { label: 'It waits for', value: heard?.words ?? 'nothing' },
      { label: 'Announced', value: event?.when ?? '' },
      {
        label: 'Set off by',
        value:
          heard?.missing ?? (from.length > 0 ? from.join(', ') : event?.core ? 'the core itself, whatever the ruleset says' : 'nothing'),
      },
      ...causes.map((value) => ({ label: 'Leads to', value })),
    ],
  };
}
