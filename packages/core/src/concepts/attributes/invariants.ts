import { roundTo } from '../../math/grid.js';
import type { Breach, Invariant } from '../../world/invariant.js';
import type { World } from '../../world/world.js';
import type { Attribute } from './compile.js';
import { attributes } from './state.js';
import { has, highOf, lowOf } from './values.js';

/** How far off a number may be and still be the same: amounts lie on a grid of one millionth. */
const SLACK = 1e-6;

/** Looks at every value of everybody: the first that something is wrong with is told. */
function ofEach(world: World, wrong: (one: Attribute, value: number, actor: number) => string | undefined): Breach | undefined {
  const { cells, compiled } = attributes.in(world);
  const { actors } = world;
  for (let row = 0; row < actors.high; row++) {
    if (actors.live[row] === 0) continue;
    const actor = actors.handle(row);
    for (let i = 0; i < compiled.list.length; i++) {
      const one = compiled.list[i];
      if (!has(world, one, row)) continue;
      const says = wrong(one, cells[i].value.data[row], actor);
      if (says !== undefined) {
        const who = world.nameOf(actor);
        return { who, says: `${who}’s ${one.label.toLowerCase()} ${says}`, about: { actor, attribute: one.id } };
      }
    }
  }
  return undefined;
}

const shown = (value: number) => String(roundTo(value, 3));

export const invariants: Readonly<Record<string, Invariant>> = {
  bounds: {
    label: 'every value is within its bounds',
    watch: () => ({
      onTick: (world) =>
        ofEach(world, (one, value, actor) => {
          if (!Number.isFinite(value)) return `is ${value}.`;
          const low = lowOf(world, one, actor);
          if (value < low - SLACK) return `is ${shown(value)}, and can’t be below ${shown(low)}.`;
          const high = one.max ? highOf(world, one, actor, low) : Infinity;
          return value > high + SLACK ? `is ${shown(value)}, and can’t be above ${shown(high)}.` : undefined;
        }),
    }),
  },
  wholeNumbers: {
    label: 'what is counted in whole things stays whole',
    watch: () => ({
      onTick: (world) =>
        ofEach(world, (one, value) =>
          one.whole && value !== Math.floor(value) ? `is ${value}, and is counted in whole things.` : undefined,
        ),
    }),
  },
};
