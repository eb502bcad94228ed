import { entry, text } from '../../world/event-fields.js';
import { defineEvents } from '../../world/events.js';

export const events = defineEvents({
  teamChanged: {
    label: 'a team changes',
    when: 'At the thresholds’ turn of a tick, once for each whose team is another than was announced last, the one that they come into as they join included; however often it moved in between. At once where a player leaves the game.',
    fields: { team: entry('teams'), before: entry('teams') },
    arises: { from: 'teams', field: 'team' },
    patterns: ['team', 'before'],
    see: 'everyone',
    announced: true,
    sentence: (e, speak) => {
      const [team, before] = [e.data['team'], e.data['before']].map((id) => (id === '' ? '' : speak.label('teams', id)));
      if (team === '') return `${e.who} leaves ${before}`;
      return before === '' ? `${e.who} joins ${team}` : `${e.who} goes from ${before} to ${team}`;
    },
  },
  switchRefused: {
    label: 'a change of teams is refused',
    when: 'Somebody asked for another team, or was to be put into one, and something stands against it; nothing was changed.',
    fields: { team: entry('teams'), says: text() },
    patterns: ['team'],
    see: 'owner',
    announced: true,
    refusal: true,
    sentence: (e) => String(e.data['says']),
  },
});
