import { valuesOf } from '../attributes/index.js';
import { withoutFalls } from '../lives/index.js';
import { bodyRadius, placeActor, placeOf } from '../movement/index.js';
import { roundTo } from '../../math/grid.js';
import { labelOf, type Rules } from '../../ruleset/rules.js';
import { play } from '../situations/play.js';
import { type Evidence, inWords, NONE } from '../../workbench/evidence.js';
import { actorChapter } from './schema.js';

const SECONDS = 30;
/** Where the two are put: in the middle of wide ground, and so far apart where the behaviour says nothing. */
const [MIDDLE, APART] = [1000, 160];
/** The most values of its own that are listed. */
const MOST_VALUES = 8;

/** A kind of actor left to itself near somebody who stands still: how near it gets, and what it does to them. */
export function actorEvidence(rules: Rules, id: string): Evidence {
  const types = actorChapter.of(rules);
  const actor = types.find((type) => type.id === id);
  if (!actor) return NONE;
  const other = types.find((type) => type.kind === (actor.kind === 'player' ? 'foe' : 'player') && type.id !== id) ?? actor;
  const { behaviour } = actor;
  const apart = behaviour && 'within' in behaviour && behaviour.do !== 'wander' ? Math.min(600, behaviour.within * 0.75) : APART;
  const distances: number[] = [];
  let values: Readonly<Record<string, number>> = {};
  const { events, moments } = play(withoutFalls(rules), {
    actor,
    other,
    company: true,
    minds: behaviour !== undefined,
    seconds: SECONDS,
    watch: [],
    drive: (world, own, beside) => {
      const [row, them] = [world.actors.rowOf(own), world.actors.rowOf(beside)];
      if (row < 0 || them < 0) return [];
      if (world.tick === 1) {
        values = valuesOf(world, own);
        placeActor(world, row, MIDDLE, MIDDLE);
        placeActor(world, them, MIDDLE + apart, MIDDLE);
      }
      const [from, to] = [placeOf(world, row), placeOf(world, them)];
      const gap = Math.sqrt((from.x - to.x) * (from.x - to.x) + (from.y - to.y) * (from.y - to.y));
      distances.push(Math.max(0, gap - bodyRadius(world, row) - bodyRadius(world, them)));
      return [];
    },
  });
  const moves = distances.some((distance) => distance !== distances[0]);
  const hurt = events.filter(
    (event) => event.name === 'attributeChanged' && event.data['how'] === 'hurt' && event.subject !== event.source,
  );
  const damage = hurt.reduce((sum, { data }) => sum - Number(data['given']) - Number(data['lost']), 0);
  const first = hurt[0];
  const who = other.label.toLowerCase();
  return {
    ...NONE,
    actor: actor.label,
    seconds: SECONDS,
    perSecond: rules.tickRate,
    series: moves ? [{ id: 'distance', label: `to ${who}`, decimals: 0, values: distances }] : [],
    moments,
    facts: [
      ...(behaviour
        ? [
            {
              label: `First harm to a ${who} who stands ${inWords(apart)} away`,
              value: first ? `after ${inWords(first.tick / rules.tickRate)} s` : 'none',
            },
          ]
        : []),
      ...(hurt.length > 0 ? [{ label: `Damage a minute, on one ${who}`, value: inWords(roundTo((damage * 60) / SECONDS, 1)) }] : []),
      ...Object.entries(values)
        .slice(0, MOST_VALUES)
        .map(([attribute, value]) => ({ label: `${labelOf(rules, 'attributes', attribute)}, as it appears`, value: inWords(value) })),
    ],
  };
}
