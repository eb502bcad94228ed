import { z } from 'zod';
import type { Ability } from './compile.js';
import { abilities } from './state.js';
import { fillTooltip, wrapText } from './tooltip.js';
import { numbersOf } from './numbers.js';
import { ownedRow } from './tables.js';
import { pricesOf } from './charge.js';
import { refusalNow } from './casts.js';
import { refusalWords } from './refusals.js';
import { knownTo } from '../../replication/hearing.js';
import type { Viewer } from '../../replication/publisher.js';
import { speakerOf } from '../../replication/speaker.js';
import { visibilityOf } from '../../ruleset/visible.js';
import type { World } from '../../world/world.js';

/** An ability as it is for one actor at one moment. */
export const abilityNow = z.strictObject({
  id: z.string(),
  label: z.string(),
  /** The tooltip's lines, and the box that its author means it to fit; none where it has no tooltip. */
  lines: z.array(z.string()),
  box: z.strictObject({ width: z.int(), lines: z.int() }).optional(),
  /** Seconds, but for the range. */
  numbers: z.record(z.string(), z.number()),
  costs: z.array(z.strictObject({ attribute: z.string(), amount: z.number() })),
  /** What keeps it from being used now, in words. */
  refusal: z.string().optional(),
});
export type AbilityNow = z.infer<typeof abilityNow>;

/**
 * The abilities of an actor with today's numbers, as what is on it makes them; none where it has gone.
 * @param viewer who is told of them: its own player learns nothing that only the server knows
 */
export function abilitiesNow(world: World, actor: number, viewer: Viewer = 'truth'): readonly AbilityNow[] {
  const state = abilities.in(world);
  if (world.actors.rowOf(actor) < 0) return [];
  return state.list
    .filter((ability) => ownedRow(state, actor, ability.index) >= 0)
    .map((ability) => abilityFor(world, ability, actor, viewer));
}

function abilityFor(world: World, ability: Ability, actor: number, viewer: Viewer): AbilityNow {
  const numbers = numbersOf(world, ability, actor);
  const { tooltip } = ability;
  const refusal = refusalNow(world, ability, actor);
  const prices = pricesOf(world, ability, actor);
  const refused = { name: 'abilityRefused', subject: actor, source: 0, target: 0, data: { ability: ability.id, ...refusal } };
  const data = viewer === 'truth' ? refused.data : knownTo(world, refused, viewer);
  const isTold = ({ id }: { readonly id: string }) => viewer === 'truth' || visibilityOf(world.rules, 'attributes', id) !== 'server';
  return {
    id: ability.id,
    label: ability.label,
    lines: tooltip ? [...wrapText(fillTooltip(tooltip, world, actor, numbers), tooltip.width)] : [],
    ...(tooltip && { box: { width: tooltip.width, lines: tooltip.lines } }),
    numbers,
    costs: ability.costs.flatMap((cost, i) => (isTold(cost) ? [{ attribute: cost.id, amount: prices[i] }] : [])),
    ...(refusal && { refusal: refusalWords({ who: world.nameOf(actor), data }, speakerOf(world.rules)) }),
  };
}
