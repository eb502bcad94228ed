import type { EventSpec } from '../../world/events.js';

export const events: Readonly<Record<string, EventSpec>> = {
  attributeChanged: {
    label: 'an attribute changes',
    see: (data, seeEntry) => seeEntry('attributes', String(data['attribute'])),
    sentence: (e, speak) => {
      const { attribute, from, to, lost } = e.data;
      const label = speak.label('attributes', String(attribute)).toLowerCase();
      const over = Number(lost) !== 0 ? `, ${Math.abs(Number(lost))} lost` : '';
      const by = e.source !== 0 && e.source !== e.subject ? `${e.by}: ` : '';
      return `${by}${e.who}’s ${label} ${from} → ${to}${over}`;
    },
  },
};
