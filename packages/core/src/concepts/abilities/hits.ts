import type { World } from '../../world/world.js';
import type { Ability } from './compile.js';
import { events } from './events.js';

/** Does what an ability does to somebody that it met. Its user may have gone by then: what it sent on its way goes on. */
export function hit(world: World, ability: Ability, user: number, target: number): void {
  world.follow(events.abilityHit, { subject: target, source: user, target }, { ability: ability.id }, () =>
    ability.onHit?.(world, { owner: user, source: user, target }),
  );
}

/** Says that an ability met nobody. */
export function miss(world: World, ability: Ability, user: number): void {
  world.follow(events.abilityMissed, { subject: user, source: user }, { ability: ability.id }, () =>
    ability.onMiss?.(world, { owner: user, source: user, target: user }),
  );
}
