import { attributesTable } from './tables.js';
import { didYouMean } from '../../ruleset/suggest.js';
import type { Copy } from '../../replication/copy.js';

/** What a display needs to know of one actor: its values by name, and when they change. Nothing of how they come about. */
export interface ActorSource {
  /** What the copy was told; undefined where it was told nothing, or there is nothing of that name. */
  value(attribute: string): number | undefined;
  /**
   * Hears of each change, once a frame, with old and new. Returns how to stop.
   * @throws RangeError where no attribute that a seat could be told of has this name
   */
  on(attribute: string, listener: (now: number | undefined, before: number | undefined) => void): () => void;
}

const asNumber = (value: unknown) => (typeof value === 'number' ? value : undefined);

/** The attributes that seats are told of under these rules; beside each stand columns of its own, behind a dot. */
const namesOf = ({ schema }: Copy): readonly string[] =>
  (schema.tables.find(({ name }) => name === attributesTable.name)?.columns ?? [])
    .map(({ name }) => name)
    .filter((name) => !name.includes('.'));

/** The values of the actor in a row of a copy. */
export function sourceOf(copy: Copy, row: number): ActorSource {
  return {
    value: (attribute) => copy.entries(attributesTable).value(row, attribute),
    on: (attribute, listener) => {
      const known = namesOf(copy);
      if (!known.includes(attribute))
        throw new RangeError(`No attribute is called ${attribute}, or none that seats are told of.${didYouMean(attribute, known)}`);
      return copy.entries(attributesTable).on(attribute, (changed, now, before) => {
        if (changed === row) listener(asNumber(now), asNumber(before));
      });
    },
  };
}
