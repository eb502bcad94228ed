import type { AbilityEntry } from '../concepts/abilities/index.js';
import type { Rules } from '../ruleset/rules.js';
import { holderOf, play, SEAT, seriesOf } from './play.js';
import { EVIDENCE_SECONDS, type Evidence, inWords, NONE } from './types.js';

/** An ability asked for every quarter of a second for a minute: how often it comes to be used, and what it drains. */
export function abilityEvidence(rules: Rules, id: string): Evidence {
  const entry = (rules.chapters.get('abilities')?.entries as unknown as readonly AbilityEntry[]).find((e) => e.id === id);
  const actor = holderOf(rules, (type) => type.abilities.includes(id));
  if (!entry || !actor) return NONE;
  const inputs = Array.from({ length: EVIDENCE_SECONDS * 4 - 4 }, (_, i) => ({ at: 1 + i / 4, seat: SEAT, do: 'use', ability: id }));
  const watch = [...new Set(entry.costs.map((cost) => cost.attribute))];
  const { values, moments } = play(rules, { actor, inputs, watch });
  const used = moments.filter((m) => !m.refusal && m.text.includes(' uses '));
  const refused = moments.filter((m) => m.refusal);
  const gaps = used.slice(1).map((m, i) => m.t - used[i].t);
  return {
    actor: actor.label,
    seconds: EVIDENCE_SECONDS,
    perSecond: rules.tickRate,
    series: watch.map((cost) => seriesOf(rules, cost, values.get(cost)!)),
    spans: used.map((m, i) => ({
      from: m.t,
      to: Math.min(EVIDENCE_SECONDS, used[i + 1]?.t ?? EVIDENCE_SECONDS),
      label: `use ${i + 1}`,
      kind: 'use',
    })),
    pins: [],
    moments: used,
    facts: [
      { label: 'Uses in a minute', value: String(used.length) },
      { label: 'Shortest time between two', value: gaps.length > 0 ? `${inWords(Math.min(...gaps))} s` : 'only one use' },
      { label: 'First refusal', value: refused[0] ? `${refused[0].text}` : 'none' },
    ],
    situation: undefined,
  };
}
