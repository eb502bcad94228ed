import { amount, text as words } from '../../world/event-fields.js';
import { defineEvents } from '../../world/events.js';

export const events = defineEvents({
  flourish: {
    label: 'a flourish',
    when: 'At its place in a list of actions; no state changes by it.',
    fields: { text: words(), sound: words(), shake: amount(), fade: amount() },
    see: 'owner',
    announced: true,
    sentence: (e) => {
      const { text, sound, shake, fade } = e.data;
      const parts = [
        ...(text === undefined ? [] : [`“${text}”`]),
        ...(sound === undefined ? [] : [`sound ${sound}`]),
        ...(shake === undefined ? [] : ['the screen shakes']),
        ...(fade === undefined ? [] : ['the screen fades']),
      ];
      return `${e.who} is shown: ${parts.join(', ') || 'nothing'}`;
    },
  },
});
