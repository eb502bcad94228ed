import type { Parties } from '../../formula/index.js';
import type { World } from '../../world/world.js';
import { teams } from '../teams/index.js';

/** Who or what a text can name, in braces, as of the moment at which it is shown. */
const NAMED: Readonly<Record<string, (world: World, parties: Parties) => string>> = {
  self: (world, { owner }) => world.nameOf(owner),
  source: (world, { source }) => world.nameOf(source),
  target: (world, { target }) => world.nameOf(target),
  /** Whom the event is about that is answered; in all other lists whose it is. */
  subject: (world, { subject, owner }) => world.nameOf(subject ?? owner),
  team: (world, { subject, owner }) => teamOf(world, subject ?? owner),
};

function teamOf(world: World, actor: number): string {
  const row = world.actors.rowOf(actor);
  return row < 0 ? '' : (teams.of(world.rules)[world.actors.cells.team[row]]?.label ?? '');
}

const PLACES = /\{([^{}]*)\}/g;

/** What a text names in braces that it can't; undefined where there is nothing. */
export function unknownName(text: string): string | undefined {
  return [...text.matchAll(PLACES)].map(([, name]) => name).find((name) => !Object.hasOwn(NAMED, name));
}

export const NAMES: readonly string[] = Object.keys(NAMED).map((name) => `{${name}}`);

/** A text with the names in it filled in. */
export function filled(text: string): (world: World, parties: Parties) => string {
  if (!text.includes('{')) return () => text;
  return (world, parties) => text.replace(PLACES, (whole, name: string) => NAMED[name]?.(world, parties) ?? whole);
}
