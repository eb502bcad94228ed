import { toMilliseconds } from '../../ruleset/fields.js';
import { type Then } from '../../ruleset/registry.js';
import { placedActions } from '../../ruleset/actions.js';
import { defineConcept } from '../../world/concept.js';
import { situations } from './state.js';
import { schema, type SituationEntry } from './schema.js';

export { situations } from './state.js';
export { MOST_PINS, type SituationEntry } from './schema.js';

/** Situations: what entries are tried out with beside their specs. No game knows of them. */
export const situationsConcept = defineConcept(situations, {
  sections: {
    situations: {
      kind: 'chapter',
      title: 'Situations',
      entry: schema,
      ownConditions: true,
      tries: ({ attribute, effect, ability }) =>
        attribute !== undefined
          ? ['attributes', String(attribute)]
          : effect !== undefined
            ? ['effects', String(effect)]
            : ability !== undefined
              ? ['abilities', String(ability)]
              : undefined,
    },
  },
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
