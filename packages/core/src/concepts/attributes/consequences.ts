import type { Consequence } from '../../world/concept.js';

/** That something raises an attribute. */
export const raised = (id: string): Consequence => ({ chapter: 'attributes', id, is: 'raised' });
/** That something else moves an attribute from where it is. */
export const moved = (id: string): Consequence => ({ chapter: 'attributes', id, is: 'moved' });
/** That something hurts an attribute. */
export const hurt = (id: string): Consequence => ({ chapter: 'attributes', id, is: 'hurt' });
