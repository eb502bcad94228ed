import { withoutRefill } from '../../attributes/index.js';
import { onBareGround, withoutMinds } from '../../situations/ground.js';
import type { Rules } from '../../../ruleset/rules.js';
import { type Snapshot, World } from '../../../world/world.js';
import type { CheckEntry } from '../schema.js';

/** A world to run a check in, and one in which its beginning is set up: no time passes for anybody there. */
export interface Ground {
  readonly world: World;
  readonly setting: World;
}

interface Kept extends Ground {
  /** As it is when nobody is there yet, with room for as many as were ever in it. */
  start: Snapshot;
}

/** The grounds that checks are run on, under some rules: each is made once, and is as new for whoever asks for it. */
export class Grounds {
  private readonly kept = new Map<string, Kept>();

  constructor(readonly rules: Rules) {}

  for(check: Pick<CheckEntry, 'ground' | 'given' | 'seed'>): Ground {
    const still = [...new Set(check.given.flatMap(({ still, actor }) => (still && actor !== undefined ? [actor] : [])))].sort();
    const key = [check.ground, check.seed, ...still].join(' ');
    const known = this.kept.get(key);
    if (known) {
      if (!known.world.liesAs(known.start)) {
        known.world.rewind(known.start, true);
        known.start = known.world.snapshot();
      }
      known.setting.rewind(known.start);
      return known;
    }
    const own = check.ground === 'bare' ? onBareGround(this.rules) : this.rules;
    const rules = still.length === 0 ? own : withoutMinds(own, (actor) => still.includes(actor));
    const setting = World.start(withoutRefill(withoutMinds(rules, () => true)), check.seed);
    const made = { setting, world: World.start(rules, check.seed), start: setting.snapshot() };
    this.kept.set(key, made);
    return made;
  }
}
