import { actors } from '../actors/index.js';
import { aliveOf } from './system.js';
import { spawners } from './state.js';
import type { Rules } from '../../ruleset/rules.js';
import { type Evidence, inWords, NONE } from '../../workbench/evidence.js';
import { MIDDLE, perform, playerOf, put, poke, staged, VISITOR } from '../situations/stage.js';
import { spawnerChapter } from './schema.js';

const SECONDS = 120;
/** How often all that it made is felled. */
const FELLED_EVERY = 20;

/** What a spawner makes in two minutes while a player stands near, and how many of it are there; all foes fall every 20 s. */
export function spawnerEvidence(rules: Rules, id: string): Evidence {
  const entry = spawnerChapter.of(rules).find((one) => one.id === id);
  const player = playerOf(rules);
  if (!entry || !player) return NONE;
  const stage = staged(quiet(rules), [{ spawner: id, ...MIDDLE }]);
  const alive: number[] = [];
  const near = { x: MIDDLE.x - Math.min(80, (entry.near ?? 80) / 2), y: MIDDLE.y };
  const fells = Array.from({ length: SECONDS / FELLED_EVERY - 1 }, (_, i) => ({
    at: (i + 1) * FELLED_EVERY,
    commands: [poke(VISITOR, { do: 'fell', to: { nearby: 2000, who: 'foes' } })],
  }));
  const { events, moments } = perform(stage, SECONDS, [{ at: 1, commands: [put(VISITOR, near)] }, ...fells], {
    each: (world) => void alive.push(spawners.of(world.rules).list.reduce((sum, { index }) => sum + aliveOf(world, index), 0)),
  });
  const times = events.filter(({ name }) => name === 'waveBegan');
  const made = times.reduce((sum, { data }) => sum + Number(data['made']), 0);
  return {
    ...NONE,
    actor: actors.of(rules).find(({ id: own }) => own === player.id)!.label,
    seconds: SECONDS,
    perSecond: rules.tickRate,
    series: [{ id: 'alive', label: 'there', decimals: 0, values: alive }],
    moments: moments.filter(({ text }) => text.startsWith(entry.label) || text.includes('falls')),
    facts: [
      ...(entry.when.is === 'on'
        ? [{ label: 'It makes something', value: 'when its event happens, which nothing in this scene leads to' }]
        : []),
      { label: 'First after', value: times.length === 0 ? `not within ${SECONDS} s` : `${inWords(times[0].t)} s` },
      { label: `Times in ${SECONDS} s`, value: String(times.length) },
      { label: 'Made in all', value: String(made) },
      { label: 'Times it made nothing', value: String(times.filter(({ data }) => data['made'] === 0).length) },
      { label: 'Most at once', value: String(Math.max(0, ...alive)) },
    ],
  };
}

/** Nobody does anything to anybody: the scene is about what is made. */
function quiet(rules: Rules): Rules {
  const list = (rules.document['actors'] as readonly Record<string, unknown>[]).map(({ behaviour: _behaviour, ...entry }) => entry);
  return { ...rules, document: { ...rules.document, actors: list } };
}
