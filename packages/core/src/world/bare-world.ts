import type { World } from './world.js';

/**
 * A world of which nothing can be asked but what is given here: for formulas that are known to read no more, before there is a
 * world to read. Whatever else they ask for is a mistake in the code.
 */
export function bareWorld(known: Partial<World> = {}): World {
  // The proxy answers for what is missing: it throws.
  return new Proxy(known as World, {
    get(of, key) {
      if (key in of) return Reflect.get(of, key);
      throw new Error(`A formula that reads nothing of a world asked one for ${String(key)}`);
    },
  });
}
