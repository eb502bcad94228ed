import { amount } from '../../world/event-fields.js';
import { defineEvents } from '../../world/events.js';

export const events = defineEvents({
  clockSetBack: {
    label: 'the server’s clock is set back',
    when: 'It is earlier than it was, by more than clocks differ; what waits by the clock has to wait no longer than it would have had to.',
    arises: 'core',
    fields: { seconds: amount() },
    see: 'server',
    sentence: (e) => `the server’s clock was set back by ${e.data['seconds']} s`,
  },
});
