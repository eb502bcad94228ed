import { z } from 'zod';
import { CompileContext } from '../../ruleset/context.js';
import { registry, type Then } from '../../ruleset/registry.js';
import type { Problem } from '../../ruleset/problem.js';
import { checkAction, checkInput } from '../../ruleset/requests.js';
import type { Rules } from '../../ruleset/rules.js';
import { didYouMean } from '../../ruleset/suggest.js';
import { command, defineConcept } from '../../world/concept.js';
import { text } from '../../world/event-fields.js';
import { defineEvents } from '../../world/events.js';
import { loadPlayer, savedPlayer, type SavedPlayer } from '../../world/players.js';
import type { World } from '../../world/world.js';
import { noteParty, teamForJoining } from '../crews/index.js';
import { actors, removeActor, spawnActor } from '../actors/index.js';
import { seatsTable } from './tables.js';
import { seats } from './state.js';

export { seats } from './state.js';

/** The name of a seat: what its player is called. */
export const seatName = () =>
  z
    .string('A seat has a name.')
    .regex(/^[A-Za-z][A-Za-z0-9 _-]{0,23}$/, 'A seat has a name of at most 24 letters, digits, spaces, - or _, beginning with a letter.');

const events = defineEvents({
  seatTaken: {
    label: 'a seat is taken',
    when: 'A player’s actor is in the arena, with all that was kept of the player.',
    arises: 'core',
    fields: { seat: text() },
    patterns: [],
    see: 'everyone',
    sentence: (e) => `${e.who} takes the seat`,
  },
  seatLeft: {
    label: 'a seat is left',
    when: 'A player’s actor has gone from the arena, with all that it owned.',
    arises: 'core',
    fields: { seat: text() },
    patterns: [],
    see: 'everyone',
    sentence: (e) => `${e.data['seat']} leaves the seat`,
  },
  asked: {
    label: 'a player asks for something',
    when: 'Before what a player asked for is looked at.',
    arises: 'core',
    fields: { do: text(), words: text() },
    see: 'server',
    sentence: (e) => `${e.who} asks: ${[e.data['do'], e.data['words']].filter((part) => part !== '').join(' ')}`,
  },
  poked: {
    label: 'a poke',
    when: 'Before an action from outside is run.',
    arises: 'core',
    fields: { what: text() },
    see: 'server',
    sentence: (e) => `poke: ${e.data['what']}${e.who ? ` on ${e.who}` : ''}${e.by ? `, from ${e.by}` : ''}`,
  },
});

/** Seats: whose inputs drive which actor. Commands from outside come through here. */
export const seatsConcept = defineConcept(seats, {
  tables: () => [seatsTable],
  attach: (world) => ({ table: seatsTable.in(world) }),
  events,
  commands: {
    join: command({
      args: {
        seat: seatName(),
        team: z.string().optional(),
        party: z.string().max(48).optional(),
        actor: z.string().optional(),
        saved: savedPlayer.optional(),
      },
      run: (world, args) => join(world, args),
    }),
    leave: { args: { seat: seatName() }, run: (world, args) => leave(world, String(args['seat'])) },
    input: {
      args: { seat: seatName(), input: z.unknown().optional() },
      actor: (world, args) => actorOfSeat(world, String(args['seat'])),
      check: (_, { input }) => within('input', checkInput(input).problems),
      run: (world, args) => runInput(world, String(args['seat']), args['input'] as InputRequest),
    },
    poke: command({
      args: { seat: seatName().optional(), from: seatName().optional(), action: z.unknown().optional() },
      check: (rules, { action }) => within('action', checkAction(rules, action).problems),
      run: (world, args) => poke(world, { ...args, action: args.action as PokeArgs['action'] }),
    }),
  },
});

/** Problems of what stands in an argument, by its place among the arguments. */
const within = (argument: string, problems: readonly Problem[]): readonly Problem[] =>
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

function join(world: World, { seat, team, party, actor: typeId, saved }: JoinArgs): void {
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

function leave(world: World, seat: string): void {
  const row = rowOfSeat(world, seat);
  if (row < 0) return;
  removeActor(world, actorOfSeat(world, seat));
  world.emit(events.seatLeft, {}, { seat });
}

function runInput(world: World, seat: string, input: InputRequest): void {
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

interface PokeArgs {
  readonly seat?: string;
  readonly from?: string;
  readonly action: Then[number];
}

/** Runs an action from outside, on the actor of a seat or, without one, on nobody in particular; `from` is the seat that it comes from. */
function poke(world: World, { seat, from, action }: PokeArgs): void {
  const actor = seat === undefined ? 0 : actorOfSeat(world, seat);
  const source = from === undefined ? 0 : actorOfSeat(world, from);
  const { do: what, to: _to, ...args } = action;
  world.follow(events.poked, { subject: actor, source }, { what: [what, ...scalars(args)].join(' ') }, () =>
    compilePoke(world.rules, action)(world, { owner: actor, source, target: actor }),
  );
}

/** Compiles an action that stands in no ruleset. The action has been checked with {@link checkAction}. */
function compilePoke(rules: Rules, action: Then[number]) {
  const context = new CompileContext(rules.registry, rules.document, rules.chapters, rules.vocabulary);
  return context.then([action], ['poke']);
}
