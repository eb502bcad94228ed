import type { ActorEntry } from '../actors/index.js';
import { type EffectEntry } from './schema.js';
import { placedActions } from '../../ruleset/actions.js';
import { isDuration, toMilliseconds } from '../../ruleset/fields.js';
import type { Then } from '../../ruleset/registry.js';
import { labelOf, type Rules } from '../../ruleset/rules.js';
import { holderOf, play, seriesOf } from '../situations/play.js';
import { pinsOf, pokesOf, secondsOf, situationOf } from '../situations/situations.js';
import { type Evidence, inWords, NONE, type ProposedSituation } from '../../workbench/evidence.js';
import { effectChapter } from './schema.js';

const MOST_SERIES = 4;

/** What an effect is seen by: the stats that it modifies, then what its actions change on its bearer. */
function touched(entry: EffectEntry): readonly string[] {
  const lists = [entry.periodic?.then, entry.onStart, entry.onStack, ...entry.onEnd.map((end) => end.then)];
  const changed = lists.flatMap((list) =>
    placedActions(list as Then | undefined, []).flatMap(({ action }) =>
      typeof action['attribute'] === 'string' && (action.to ?? 'self') === 'self' ? [action['attribute']] : [],
    ),
  );
  const used = (entry.used?.by as { attribute?: string } | undefined)?.attribute;
  return [...new Set([...entry.modifiers.map((m) => m.attribute), ...changed, ...(used === undefined ? [] : [used])])].slice(
    0,
    MOST_SERIES,
  );
}

/** Twice, so that its stacking is seen; then what ends it, where its time does not. */
function propose(entry: EffectEntry): Omit<ProposedSituation, 'authored'> {
  const apply = { do: 'apply', effect: entry.id };
  const lasts = isDuration(entry.lasts) ? toMilliseconds(entry.lasts) / 1000 : typeof entry.lasts === 'number' ? entry.lasts : 6;
  const pins: ProposedSituation['pins'][number][] = [
    { at: '2s', action: apply },
    { at: '4s', action: apply, ...(entry.per === 'source' && { from: 'other' as const }) },
  ];
  const hurt = entry.used?.by as { on: string; attribute?: string } | undefined;
  if (entry.lifetime === 'lasting') pins.push({ at: '12s', action: { do: 'end', effect: entry.id } });
  if (hurt?.on === 'attributeChanged' && hurt.attribute !== undefined)
    for (const at of ['8s', '10s']) pins.push({ at, action: { do: 'hurt', attribute: hurt.attribute, amount: 10 } });
  // Two lengths behind the second application: where time is added up, the end is still seen.
  return { seconds: Math.min(300, Math.max(20, Math.ceil((4 + 2 * lasts + 2) / 5) * 5)), pins };
}

const TIMES = ['one', 'two', 'three', 'four', 'five', 'six'];

/** An effect in its situation: what it does to the stats it modifies, and each instance with its own end. */
export function effectEvidence(rules: Rules, id: string): Evidence {
  const entry = effectChapter.of(rules).find((e) => e.id === id);
  const actor = entry && bearerOf(rules, entry);
  if (!entry || !actor) return NONE;
  const watch = touched(entry).filter((stat) => actor.attributes.some((a) => a.attribute === stat));
  const situation = situationOf(rules, 'effect', id, () => propose(entry));
  const { seconds } = situation;
  const company = situation.pins.some((pin) => pin.from);
  const played = play(rules, { actor, pokes: pokesOf(situation), seconds, watch, company });
  const at = (stat: string, t: number) => {
    const values = played.values.get(stat)!;
    return inWords(values[Math.max(0, Math.min(values.length - 1, Math.round(t * rules.tickRate) - 1))]);
  };
  const pins = pinsOf(rules, situation, played.events);
  let count = 0;
  const after = [...situation.pins.keys()]
    .sort((a, b) => secondsOf(situation.pins[a].at) - secondsOf(situation.pins[b].at))
    .map((i) => {
      const { action, at: moment } = situation.pins[i];
      const again = action.do === 'apply' && action['effect'] === id;
      const label = again && count < TIMES.length ? `with ${TIMES[count++]}` : `then ${pins[i].label}`;
      return { label, t: secondsOf(moment) + 1.5 / rules.tickRate };
    });
  const first = situation.pins[0] ? secondsOf(situation.pins[0].at) : 1;
  const names = watch.map((stat, i) => (i === 0 ? labelOf(rules, 'attributes', stat) : labelOf(rules, 'attributes', stat).toLowerCase()));
  const all = (t: number) => watch.map((stat) => at(stat, t)).join(' · ');
  const facts =
    watch.length === 0
      ? []
      : [
          { label: `${names.join(' · ')} without it`, value: all(Math.max(0.05, first - 0.5)) },
          ...after.map(({ label, t }) => ({ label, value: all(t) })),
          { label: 'at the end', value: all(seconds) },
        ];
  return {
    actor: actor.label,
    seconds,
    perSecond: rules.tickRate,
    series: watch.map((stat) => seriesOf(rules, stat, played.values.get(stat)!)),
    spans: played.spans.filter((span) => span.kind === 'effect' || isGranted(rules, entry, span.label)),
    pins,
    moments: played.moments,
    facts,
    situation,
  };
}

function isGranted(rules: Rules, entry: EffectEntry, label: string): boolean {
  return entry.grants.some((status) => labelOf(rules, 'statuses', status) === label);
}

/** Whoever has most of what the effect touches. */
function bearerOf(rules: Rules, entry: EffectEntry): ActorEntry | undefined {
  const wanted = touched(entry);
  const stats = [...new Set(entry.modifiers.map((m) => m.attribute))];
  const has = (type: ActorEntry, ids: readonly string[]) => ids.every((stat) => type.attributes.some((a) => a.attribute === stat));
  return holderOf(rules, (type) => has(type, wanted)) ?? holderOf(rules, (type) => has(type, stats));
}
