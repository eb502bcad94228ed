import { possibleUnder } from '../attributes/possible.js';
import { type PickupEntry } from './schema.js';
import { toMilliseconds } from '../../ruleset/fields.js';
import { labelOf, type Rules } from '../../ruleset/rules.js';
import { type Evidence, inWords, NONE } from '../../workbench/evidence.js';
import { AWAY, MIDDLE, perform, playerOf, poke, put, span, staged, VISITOR } from '../situations/stage.js';
import { actorChapter } from '../actors/schema.js';
import { pickupChapter } from './schema.js';

const SECONDS = 30;
/** How often it is taken for its worth on average. */
const TAKES = 200;

/** A pickup that somebody walks onto, leaves and comes back to; who may take it; and what it is worth over many takes. */
export function pickupEvidence(rules: Rules, id: string): Evidence {
  const entry = pickupChapter.of(rules).find((one) => one.id === id);
  const player = playerOf(rules);
  if (!entry || !player) return NONE;
  const stage = staged(rules, [{ pickup: id, ...MIDDLE }]);
  const lasts = entry.lasts === undefined ? Infinity : toMilliseconds(entry.lasts) / 1000;
  const { events, moments, lines } = perform(stage, SECONDS, [
    { at: 2, commands: [put(VISITOR, MIDDLE)] },
    { at: 4, commands: [put(VISITOR, AWAY)] },
    { at: 6, commands: [put(VISITOR, MIDDLE)] },
    { at: 8, commands: [put(VISITOR, AWAY)] },
  ]);
  const appears = events.filter(({ name }) => name === 'pickupAppeared').map(({ t }) => t);
  const gone = events.filter(({ name }) => name === 'pickupTaken' || name === 'pickupFaded');
  const lying = [0, ...appears.filter((t) => t > 0)].map((from) => {
    const end = entry.gone === 'perPlayer' ? undefined : gone.find(({ t }) => t >= from);
    const how = end === undefined ? undefined : end.name === 'pickupTaken' ? 'taken' : 'unclaimed';
    return span(from, end?.t ?? SECONDS, `${entry.label} lies there`, 'part', how);
  });
  const possible = possibleUnder(rules);
  const may = entry.who === undefined ? undefined : possible.whoCan(entry.who).map(({ label }) => label);
  const types = actorChapter.of(rules);
  const never = types.filter(({ label, kind }) => kind !== 'prop' && may && !may.includes(label)).map(({ label }) => label);
  return {
    ...NONE,
    actor: player.label,
    seconds: SECONDS,
    perSecond: rules.tickRate,
    series: lines,
    spans: lying,
    moments,
    facts: [
      { label: 'May take it', value: may === undefined ? 'anyone' : may.length === 0 ? 'nobody, ever' : may.join(', ') },
      ...(never.length > 0 ? [{ label: 'Never', value: never.join(', ') }] : []),
      { label: 'Once it is taken it is gone', value: entry.gone === 'perPlayer' ? 'for its taker' : 'for everybody' },
      ...(lasts < Infinity ? [{ label: 'Gone unclaimed after', value: `${lasts} s` }] : []),
      ...worth(rules, entry),
    ],
  };
}

/** What its counters and pools come to, on average and between, over many takes by one who may take it. */
function worth(rules: Rules, { id }: PickupEntry): Evidence['facts'] {
  const stage = staged(rules, []);
  const acts = Array.from({ length: TAKES }, (_, i) => ({
    at: (i + 1) / stage.tickRate,
    commands: [poke(VISITOR, { do: 'spawn', pickup: id })],
  }));
  const { events } = perform(stage, TAKES / stage.tickRate + 1, acts);
  const taken = events.filter(({ name }) => name === 'pickupTaken');
  const gains = new Map<string, number[]>();
  for (const { serial } of taken)
    for (const { name, cause, data } of events)
      if (name === 'attributeChanged' && cause === serial)
        gains.set(String(data['attribute']), [...(gains.get(String(data['attribute'])) ?? []), Number(data['asked'])]);
  return [...gains].map(([attribute, list]) => {
    const [least, most] = [Math.min(...list), Math.max(...list)];
    const mean = list.reduce((sum, value) => sum + value, 0) / Math.max(1, taken.length);
    return {
      label: `${labelOf(rules, 'attributes', attribute)}, over ${taken.length} takes`,
      value: least === most ? inWords(least) : `${inWords(least)} to ${inWords(most)}, on average ${inWords(mean)}`,
    };
  });
}
