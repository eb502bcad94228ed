import { z } from 'zod';
import { duration, reference, word } from '../../ruleset/fields.js';
import { actionList } from '../../ruleset/registry.js';
import { described } from '../../ruleset/described.js';

/** How an actor comes to be, falls, and comes back: fields of its kind. */
export const lifeFields = () => ({
  /** The pool that it falls at the bottom of. */
  life: described(reference('attributes', ['pool']), { absent: 'nothing: it never does' }).optional(),
  onSpawn: actionList().optional(),
  /** When it falls: its source is who did it, and `helpers` are those who had a part in it. */
  onDefeat: actionList().optional(),
  /** How long after it fell it comes back; where nothing is said, players stay down and all others go. */
  respawn: z
    .strictObject({
      after: duration(),
      at: word(['start', 'place'], { start: 'where it belongs', place: 'where it fell' }).default('start'),
    })
    .optional(),
});
