import { z } from 'zod';
import { registry, type Then } from '../../ruleset/registry.js';
import type { Problem } from '../../ruleset/problem.js';
import type { Rules } from '../../ruleset/rules.js';
import { didYouMean } from '../../ruleset/suggest.js';
import { loadPlayer, type SavedPlayer } from '../../world/saved.js';
import type { World } from '../../world/world.js';
import { noteParty, teamForJoining } from '../crews/index.js';
import { actorCalled, actors, removeActor, spawnActor } from '../actors/index.js';
import { seats } from './state.js';
import { compilePoke } from './compile.js';
import { events } from './events.js';

/** The name of a seat: what its player is called. */
export const seatName = () =>
  z
    .string('A seat has a name.')
    .regex(/^[A-Za-z][A-Za-z0-9 _-]{0,23}$/, 'A seat has a name of at most 24 letters, digits, spaces, - or _, beginning with a letter.');

/** Problems of what stands in an argument, by its place among the arguments. */
export const within = (argument: string, problems: readonly Problem[]): readonly Problem[] =>
  problems.map((problem) => ({ ...problem, path: `/${argument}${problem.path}` }));

interface JoinArgs {
  readonly seat: string;
  readonly team?: string;
  /** Who comes together is kept together, where there is room. */
  readonly party?: string;
  readonly actor?: string;
  readonly saved?: SavedPlayer;
}

/** What keeps somebody from taking a seat of this kind under these rules, by argument; nothing where they may. */
export function seatProblems(
  rules: Rules,
  { team, actor }: { readonly team?: string; readonly actor?: string },
): readonly { readonly argument: string; readonly message: string }[] {
  const unknown = (argument: string, chapter: string, id: string | undefined) => {
    const known = rules.chapters.get(chapter)?.ids ?? [];
    return id === undefined || known.includes(id) ? [] : [{ argument, message: `No ${argument} is called ${id}.${didYouMean(id, known)}` }];
  };
  const nobody = actor === undefined && !actors.of(rules).some((type) => type.kind === 'player');
  return [
    ...unknown('team', 'teams', team),
    ...unknown('actor', 'actors', actor),
    ...(nobody ? [{ argument: 'actor', message: 'The ruleset has no actor of kind player for a seat to drive.' }] : []),
  ];
}

/** The ids of the teams that seats can belong to. */
export function teamIds(rules: Rules): readonly string[] {
  return rules.chapters.get('teams')?.ids ?? [];
}

/** What a player asks for: the name of an input and its arguments, already checked. */
export interface InputRequest {
  readonly do: string;
  readonly [argument: string]: unknown;
}

/** The handle of the actor that a seat drives, or 0. */
export function actorOfSeat(world: World, seat: string): number {
  const row = rowOfSeat(world, seat);
  return row < 0 ? 0 : seats.in(world).table.cells.actor[row];
}

function rowOfSeat(world: World, seat: string): number {
  const { table } = seats.in(world);
  const names = table.cells.name;
  for (const row of table.rows()) if (world.text(names[row]) === seat) return row;
  return -1;
}

export function join(world: World, { seat, team, party, actor: typeId, saved }: JoinArgs): void {
  if (rowOfSeat(world, seat) >= 0) return;
  const types = actors.in(world).types;
  const type = typeId === undefined ? types.findIndex((t) => t.kind === 'player') : types.findIndex((t) => t.id === typeId);
  if (type < 0) return;
  const actor = spawnActor(world, type, teamFor(world, team, party), seat);
  if (party !== undefined) noteParty(world, world.actors.rowOf(actor), party);
  const { table } = seats.in(world);
  table.insert({ actor, name: world.textIndex(seat) });
  if (saved) loadPlayer(world, world.actors.rowOf(actor), saved);
  world.emit(events.seatTaken, { subject: actor }, { seat });
}

/** The team asked for, or the one that who joins is assigned to; -1 where there is none for them. */
function teamFor(world: World, team: string | undefined, party: string | undefined): number {
  return team === undefined ? teamForJoining(world, party) : teamIds(world.rules).indexOf(team);
}

export function leave(world: World, seat: string): void {
  const row = rowOfSeat(world, seat);
  if (row < 0) return;
  removeActor(world, actorOfSeat(world, seat));
  world.emit(events.seatLeft, {}, { seat });
}

export function runInput(world: World, seat: string, input: InputRequest): void {
  const row = rowOfSeat(world, seat);
  const actor = actorOfSeat(world, seat);
  const spec = registry().inputs.get(input.do);
  if (row < 0 || !spec || world.actors.rowOf(actor) < 0) return;
  const { do: name, ...args } = input;
  const traced = typeof spec.traced === 'function' ? spec.traced(world, actor, args) : spec.traced;
  const asked = traced ? world.announce(events.asked, { subject: actor }, { do: name, words: scalars(args).join(' ') }) : undefined;
  world.because(asked, () => spec.run(world, actor, args));
}

/** The texts, numbers and truths among what was asked for. */
const scalars = (args: Record<string, unknown>): readonly unknown[] =>
  Object.values(args).filter((value) => ['string', 'number', 'boolean'].includes(typeof value));

export interface PokeArgs {
  readonly seat?: string;
  readonly from?: string;
  readonly action: Then[number];
}

const ofSeatOrName = (world: World, name: string): number => actorOfSeat(world, name) || actorCalled(world, name);

/** Runs an action from outside, on the actor of a seat, or of that name, or, without one, on nobody in particular; `from` is whom it comes from. */
export function poke(world: World, { seat, from, action }: PokeArgs): void {
  const actor = seat === undefined ? 0 : ofSeatOrName(world, seat);
  const source = from === undefined ? 0 : ofSeatOrName(world, from);
  const { do: what, to: _to, ...args } = action;
  world.follow(events.poked, { subject: actor, source }, { what: [what, ...scalars(args)].join(' ') }, () =>
    compilePoke(world.rules, action)(world, { owner: actor, source, target: actor }),
  );
}
