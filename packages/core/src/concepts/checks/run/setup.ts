import { actorChapter } from '../../actors/schema.js';
import { attributeChapter, type AttributeEntry } from '../../attributes/schema.js';
import { attributes, hasAttribute, highOf, lowOf } from '../../attributes/index.js';
import { actorOfSeat, seatProblems } from '../../seats/index.js';
import { roundTo } from '../../../math/grid.js';
import { checkAction } from '../../../ruleset/requests.js';
import { labelOf, positionOf, type Rules } from '../../../ruleset/rules.js';
import type { Command } from '../../../world/commands.js';
import { type SavedPlayer, savePlayer } from '../../../world/saved.js';
import type { World } from '../../../world/world.js';
import type { Given } from '../schema.js';
import { actorNamed } from './cast.js';
import { askedOf } from './formulas.js';
import { Mistake } from './mistake.js';

/** How far apart those stand of whom nothing is said, and how many of them in a line. */
const APART = 190;
const IN_LINE = 10;

/** Where somebody stands: where it is said, or at a spot of its own. */
const spotOf = ({ x, y }: Given, i: number) => ({
  x: x ?? APART * (1 + (i % IN_LINE)),
  y: y ?? APART * (1 + Math.floor(i / IN_LINE)),
});

/** An action from outside, as a command. @throws Mistake where it is not sound under these rules */
export function pokeOf(rules: Rules, action: unknown, seats: { readonly on?: string; readonly from?: string }, path: string): Command {
  const { value, problems } = checkAction(rules, action);
  if (!value) throw new Mistake(`${path}${problems[0].path}`, problems[0].message);
  const { on, from } = seats;
  return { kind: 'poke', args: { ...(on !== undefined && { seat: on }), ...(from !== undefined && { from }), action: value } };
}

/** The attribute that says how much an attribute can be at most, where one does. */
const boundOf = (rules: Rules, attribute: string): string | undefined => {
  const { max } = attributeChapter.find(rules, attribute) as AttributeEntry;
  return typeof max === 'string' && attributeChapter.find(rules, max) ? max : undefined;
};

/**
 * Sets up what is given, as commands of one tick.
 * @param only the names of those who are set up; all where nothing is said
 * @throws Mistake where it speaks of what is not there
 */
export function settingOf(rules: Rules, given: readonly Given[], bare: boolean, only?: readonly string[]): readonly Command[] {
  const kinds = actorChapter.of(rules);
  const names = given.map(({ name }) => name);
  const commands: Command[] = [];
  given.forEach((one, i) => {
    const path = `given/${i}`;
    const { name, actor, team } = one;
    if (names.indexOf(name) < i) throw new Mistake(`${path}/name`, `${name} is given twice: call this one otherwise.`);
    if (only && !only.includes(name)) return;
    const kind = actor === undefined ? kinds.find((type) => type.kind === 'player') : kinds.find(({ id }) => id === actor);
    if (kind?.kind === 'player' || kind === undefined) {
      const [problem] = seatProblems(rules, { team, actor });
      if (problem) throw new Mistake(`${path}/${problem.argument}`, problem.message);
      commands.push({ kind: 'join', args: { seat: name, ...(team && { team }), ...(actor && { actor }) } });
      if (bare || one.x !== undefined || one.y !== undefined) {
        commands.push(pokeOf(rules, { do: 'place', ...spotOf(one, i) }, { on: name }, path));
      }
    } else {
      commands.push({ kind: 'bring', args: { actor: kind.id, name, ...spotOf(one, i), ...(team && { team }) } });
    }
  });
  given.forEach((one, i) => {
    if (only && !only.includes(one.name)) return;
    const path = `given/${i}`;
    const on = one.name;
    const poke = (action: Record<string, unknown>, at: string) => void commands.push(pokeOf(rules, action, { on }, at));
    one.effects?.forEach((effect, k) => {
      poke({ do: 'apply', effect }, `${path}/effects/${k}`);
    });
    one.statuses?.forEach((status, k) => {
      poke({ do: 'grant', status }, `${path}/statuses/${k}`);
    });
    one.with?.forEach(({ attribute, value, atMost }, k) => {
      const at = `${path}/with/${k}`;
      const bound = atMost === undefined ? undefined : boundOf(rules, attribute);
      if (bound !== undefined && atMost !== undefined) poke({ do: 'set', attribute: bound, value: atMost }, `${at}/atMost`);
      poke({ do: 'set', attribute, value }, `${at}/value`);
    });
  });
  return commands;
}

/** What is kept of somebody; nothing of who is no player, or not there. */
export function savedOf(world: World, name: string): SavedPlayer | undefined {
  const row = world.actors.rowOf(actorOfSeat(world, name));
  return row < 0 ? undefined : savePlayer(world, row);
}

/**
 * Looks whether what is given came about.
 * @param only of these, by name; of all where nothing is said
 * @throws Mistake where a value can't be what it is said to be
 */
export function confirm(world: World, given: readonly Given[], only?: readonly string[]): void {
  const { rules } = world;
  const { list } = attributes.of(rules);
  given.forEach((one, i) => {
    if (only && !only.includes(one.name)) return;
    const actor = actorNamed(world, one.name);
    const row = world.actors.rowOf(actor);
    if (row < 0) throw new Mistake(`given/${i}`, `${one.name} could not come in: there is no room for more.`);
    one.with?.forEach(({ attribute, value, atMost }, k) => {
      const path = `given/${i}/with/${k}`;
      const index = positionOf(rules, 'attributes', attribute);
      const called = labelOf(rules, 'attributes', attribute).toLowerCase();
      if (!hasAttribute(world, list[index], row)) throw new Mistake(`${path}/attribute`, `${one.name} has no ${called}.`);
      const low = lowOf(world, list[index], actor);
      const high = list[index].max ? highOf(world, list[index], actor, low) : Infinity;
      if (atMost !== undefined) {
        const most = askedOf(rules, atMost, 'amount', path).run(world, actor);
        if (most !== high)
          throw new Mistake(
            `${path}/atMost`,
            high === Infinity
              ? `${called} has no maximum: it can be more than ${most}.`
              : `${called} is at most ${roundTo(high, 4)} here, not ${most}.`,
          );
      }
      const wanted = askedOf(rules, value, 'amount', path).run(world, actor);
      const asStat = list[index].kind === 'stat';
      if (!asStat && (wanted < low || wanted > high))
        throw new Mistake(
          `${path}/value`,
          wanted > high
            ? `${one.name} can’t have ${wanted} ${called}: it is at most ${roundTo(high, 4)}.`
            : `${one.name} can’t have ${wanted} ${called}: it is at least ${roundTo(low, 4)}.`,
        );
    });
  });
}
