import type { Rules } from '../ruleset/rules.js';
import type { World } from './world.js';

/** What a concept has at hand, by itself: a file of a concept asks for it without knowing the whole declaration. */
export interface ConceptState<C, R> {
  readonly id: string;
  /** The concept's compiled form in these rules; while rules are compiled, for concepts that come after it. */
  of(rules: Pick<Rules, 'compiled'>): C;
  /** What the concept keeps at hand of this world: its tables and compiled form, nothing that the tables do not say. */
  in(world: World): R;
}

/** What the concept of an id has at hand. Its declaration says how that comes about: by `compile`, and by `attach`. */
export function conceptState<C = undefined, R = undefined>(id: string): ConceptState<C, R> {
  // A rule asks for its concept many times before anybody asks for another ruleset's or another world's.
  let [compiledBefore, compiled, worldBefore, state]: [Rules['compiled']?, C?, World?, R?] = [];
  return {
    id,
    of: (rules) => {
      // Asked each time: a compilation notes who asks it.
      const { compiled: all } = rules;
      if (all !== compiledBefore || compiled === undefined) [compiledBefore, compiled] = [all, all.get(id) as C];
      return compiled as C;
    },
    in: (world) => {
      if (world !== worldBefore || state === undefined) [worldBefore, state] = [world, world.attached.get(id) as R];
      return state as R;
    },
  };
}
