import { possibleUnder } from '../attributes/possible.js';
import { placements } from '../arena/index.js';
import type { Rules } from '../../ruleset/rules.js';
import { type Evidence, NONE } from '../../workbench/evidence.js';
import { AWAY, MIDDLE, perform, playerOf, put, span, staged, VISITOR } from '../situations/stage.js';
import { zoneChapter } from './schema.js';

const [SECONDS, ENTERS, LEAVES] = [20, 2, 12];

/** Somebody who enters a zone after 2 s and leaves it 10 s later. */
export function zoneEvidence(rules: Rules, id: string): Evidence {
  const entry = zoneChapter.of(rules).find((one) => one.id === id);
  const player = playerOf(rules);
  if (!entry || !player) return NONE;
  const { moments, lines, events } = perform(staged(rules, [{ zone: id, ...MIDDLE, radius: 60 }]), SECONDS, [
    { at: ENTERS, commands: [put(VISITOR, MIDDLE)] },
    { at: LEAVES, commands: [put(VISITOR, AWAY)] },
  ]);
  const [entered, left] = ['zoneEntered', 'zoneLeft'].map((name) => events.find((event) => event.name === name)?.t);
  const may =
    entry.who === undefined
      ? undefined
      : possibleUnder(rules)
          .whoCan(entry.who)
          .map(({ label }) => label);
  const places = placements(rules, 'zone').filter(({ thing }) => thing.zone === id);
  return {
    ...NONE,
    actor: player.label,
    seconds: SECONDS,
    perSecond: rules.tickRate,
    series: lines,
    spans: entered === undefined ? [] : [span(entered, left ?? SECONDS, `in ${entry.label.toLowerCase()}`, 'part')],
    moments,
    facts: [
      { label: 'It is one for', value: may === undefined ? 'anyone' : may.length === 0 ? 'nobody, ever' : may.join(', ') },
      { label: 'Placed', value: places.length === 0 ? 'nowhere' : places.map(({ thing }) => `at ${thing.x}, ${thing.y}`).join('; ') },
      ...(entered === undefined
        ? [{ label: 'On entering', value: `nothing: it is none for a ${player.label.toLowerCase()} who has just appeared` }]
        : []),
    ],
  };
}
