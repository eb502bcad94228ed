import { z } from 'zod';
import { defineConcept } from '../../world/concept.js';
import { didYouMean } from '../../ruleset/suggest.js';
import { filled, NAMES, unknownName } from './words.js';
import { flourishes } from './state.js';
import { events } from './events.js';
import { secondsOf } from './system.js';
import { findings } from './findings.js';

export { flourishes } from './state.js';

/** Flourishes: hints to the game's clients to show or sound something. No rule depends on them; each is told to its party alone. */
export const flourishesConcept = defineConcept(flourishes, {
  findings,
  alsoCalled: { names: { message: ['flourish'], sound: ['flourish'] } },
  events,
  actions: {
    flourish: {
      label: 'show or sound something',
      sentence: 'show {to} the text {text}, sound {sound}, shake {shake} s, fade {fade} s',
      causes: () => [{ event: 'flourish' }],
      args: {
        /** May name {self}, {source}, {target}, {subject} and {team}, as they are called when it is shown. */
        text: z.string().min(1).max(160).optional(),
        /** The id of a sound that the game's client knows. */
        sound: z.string().min(1).max(60).optional(),
        shake: secondsOf('Seconds of shaking').optional(),
        fade: secondsOf('Seconds of fading').optional(),
      },
      compile: ({ text, sound, shake, fade }, context, path) => {
        const unknown = unknownName(String(text ?? ''));
        if (unknown !== undefined)
          context.problem(
            [...path, 'text'],
            `A text can't name {${unknown}}.${didYouMean(`{${unknown}}`, NAMES)} It names one of ${NAMES.join(', ')}.`,
          );
        const words = text === undefined ? undefined : filled(String(text));
        const data = {
          ...(sound !== undefined && { sound: String(sound) }),
          ...(shake !== undefined && { shake: Number(shake) }),
          ...(fade !== undefined && { fade: Number(fade) }),
        };
        return (world, actor, parties) =>
          world.emit(
            events.flourish,
            { subject: actor, source: parties.source },
            { ...(words && { text: words(world, parties) }), ...data },
          );
      },
    },
  },
});
