import { described } from '../../ruleset/described.js';
import { word } from '../../ruleset/fields.js';

/** Who counts, seen from an actor: see {@link counts} of the actors. */
export const WHO = ['foes', 'allies', 'crew', 'others', 'anyone'] as const;
/**
 * Who counts, seen from an actor, as a sentence says it behind “every”. An opponent is whoever is on another side, a player of
 * another team as well: a foe is a kind of actor, whatever side it is on.
 */
export const counted = () =>
  described(word(WHO, { foes: 'opponent', allies: 'ally', crew: 'of the crew', others: 'not of the crew', anyone: 'body' }), {
    absent: 'opponent',
  });
export type Who = (typeof WHO)[number];
