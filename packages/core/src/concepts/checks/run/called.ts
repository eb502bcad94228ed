import type { CheckEntry } from '../schema.js';

/**
 * Whether a check or a hunt is one that somebody asks for: by its id, or by what its label or group has in it, small or large.
 * @param words what is asked for; all are where nothing is
 */
export const isCalled = ({ id, label, group = '' }: Pick<CheckEntry, 'id' | 'label' | 'group'>, words: string | undefined): boolean =>
  words === undefined || id === words || [label, group].some((text) => text.toLowerCase().includes(words.toLowerCase()));
