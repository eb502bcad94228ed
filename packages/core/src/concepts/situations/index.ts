import { z } from 'zod';
import { duration, entryFields, finite, reference, toMilliseconds } from '../../ruleset/fields.js';
import { registry, type Then } from '../../ruleset/registry.js';
import { placedActions } from '../../ruleset/actions.js';
import { defineConcept } from '../../world/concept.js';
import { situations } from './state.js';

export { situations } from './state.js';
export const MOST_PINS = 40;

const schema = z.strictObject({
  ...entryFields(),
  /** The entry that it tries out: one of these. */
  attribute: reference('attributes').optional(),
  effect: reference('effects').optional(),
  ability: reference('abilities').optional(),
  /** Seconds to be shown. */
  seconds: finite().min(1, 'A situation is 1 to 300 s long.').max(300, 'A situation is 1 to 300 s long.').optional(),
  /** What is done from outside, and when. */
  pins: z
    .array(
      z.strictObject({
        at: duration(),
        action: z.lazy(() => registry().action),
        /** It comes from another actor rather than from nowhere: that one is its source. */
        from: z.enum(['other'], 'Only "other" can be said here.').optional(),
      }),
    )
    .max(MOST_PINS, `A situation has at most ${MOST_PINS} pins.`)
    .default([]),
});
export type SituationEntry = z.infer<typeof schema>;

/** Situations: what entries are tried out with beside their specs. No game knows of them. */
export const situationsConcept = defineConcept(situations, {
  sections: { situations: { kind: 'chapter', title: 'Situations', entry: schema } },
  compile: (context) => {
    context.entries<SituationEntry>('situations').forEach((situation, i) => {
      const about = [situation.attribute, situation.effect, situation.ability].filter((id) => id !== undefined);
      if (about.length !== 1)
        context.problem(['situations', i], 'A situation tries out one thing: say an attribute, an effect, or an ability.');
      situation.pins.forEach((pin, k) => {
        const length = situation.seconds ?? 60;
        if (toMilliseconds(pin.at) > length * 1000)
          context.problem(['situations', i, 'pins', k, 'at'], `The situation is ${length} s long, and this comes after its end.`);
        const list: Then = [pin.action as Then[number]];
        if (placedActions(list, []).some(({ action }) => action.do === 'wait'))
          context.problem(['situations', i, 'pins', k, 'action'], 'A pin happens at once: it can’t wait.');
      });
    });
    return undefined;
  },
});
