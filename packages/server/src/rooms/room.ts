import {
  actorOfSeat,
  answerTo,
  type Asked,
  checkAction,
  checkInput,
  type ClientMessage,
  type Command,
  encodeMessage,
  History,
  type Pace,
  type Rules,
  type SavedPlayer,
  type ServerMessage,
  type Snapshot,
  World,
} from '@eager-ember/core';
import type { Client, Goodbye } from './client.js';
import { type ChangedPlayer, KeptPlayers } from './kept-players.js';
import { Screens } from './screens.js';
import type { Unreadable } from './unreadable.js';

/** A room as it stands, to be stored, with the rules that it stands under. */
export interface RoomState {
  readonly world: Snapshot;
  readonly revision: number;
  readonly document: Readonly<Record<string, unknown>>;
  readonly tick: number;
}

export interface RoomSeat {
  readonly name: string;
  readonly team: string | null;
  readonly party?: string | null;
}

export interface RoomRules {
  readonly rules: Rules;
  readonly rulesetId: string;
  readonly revision: number;
}

type Said<T extends ClientMessage['t']> = Extract<ClientMessage, { t: T }>;

/** Commands that wait for the next tick; more are refused. */
const MOST_WAITING = 500;
/** Inputs of one seat that wait for the next tick; more are too many, whatever they ask for. */
const MOST_OF_A_SEAT = 30;

function joining({ name, team, party }: RoomSeat, saved: SavedPlayer | undefined): Command {
  return { kind: 'join', args: { seat: name, ...(team !== null && { team }), ...(party && { party }), ...(saved && { saved }) } };
}

/**
 * A running game: a world, what is asked of it between its ticks, the screens that look on, and what its players keep. It knows
 * no sockets and no database.
 */
export class Room {
  private world: World;
  private current: RoomRules;
  private next: RoomRules | undefined;
  private readonly history = new History();
  private readonly waiting: Command[] = [];
  /** How many times its own rate it runs at. */
  private speed: Pace = 1;
  /** Told when it is to run at another rate from now on. */
  repaced: () => void = () => undefined;
  private readonly screens: Screens;
  private readonly players: KeptPlayers;

  constructor(
    readonly id: string,
    rules: RoomRules,
    readonly seed: number,
    readonly seats: readonly RoomSeat[],
    players: ReadonlyMap<string, SavedPlayer>,
    /** The world as it was last stored, already under these rules. */
    stored?: World,
    /** The players of whom what was kept can't be read. */
    unreadable: readonly Unreadable[] = [],
  ) {
    this.current = rules;
    this.world = stored ?? World.start(rules.rules, seed);
    this.screens = new Screens(() => {
      const { rules: now, revision } = this.current;
      return { id, world: this.world, rules: now, revision, speed: this.speed, seats, unreadable };
    });
    this.players = new KeptPlayers(
      seats.map(({ name }) => name),
      players,
    );
    // Nothing happens to who has a seat already; their player may have been elsewhere meanwhile.
    for (const seat of seats) this.waiting.push(joining(seat, players.get(seat.name)));
    if (stored) for (const { name } of seats) this.players.catchUp(this.world, name, players.get(name));
    this.setClock();
    this.tick();
    this.players.settle(this.world);
  }

  /** Tells the world what time it is: it has no clock of its own. */
  setClock(now = Date.now()): void {
    this.waiting.push({ kind: 'clock', args: { now: Math.floor(now / 1000) } });
  }

  /** The room as it is now, to be stored. */
  snapshot(): RoomState {
    const { rules, revision } = this.current;
    return { world: this.world.snapshot(), revision, document: rules.document, tick: this.world.tick };
  }

  get rulesetId(): string {
    return this.current.rulesetId;
  }

  /** Under which revision it runs, or is about to. */
  get revision(): number {
    return (this.next ?? this.current).revision;
  }

  get tickRate(): number {
    return this.current.rules.tickRate;
  }

  /** Ticks in a second of the clock; 0 where it stands still. */
  get ticksPerSecond(): number {
    return this.tickRate * this.speed;
  }

  get watched(): boolean {
    return this.screens.any;
  }

  /** Whether somebody who is signed in looks at it, rather than only who has a link to a seat. */
  get watchedByAuthor(): boolean {
    return this.screens.anyAuthor;
  }

  get hash(): string {
    return this.world.hash();
  }

  get tickNumber(): number {
    return this.world.tick;
  }

  /** Takes edited rules over at the next tick, unless it has those of a later edit. */
  edited(rules: RoomRules): void {
    if (rules.revision > this.revision) this.next = rules;
  }

  connect(client: Client): void {
    this.screens.connect(client);
  }

  /** Returns whether it was there. */
  disconnect(client: Client): boolean {
    if (!this.screens.disconnect(client)) return false;
    // Nobody holds the stick any more: a body must not drift on for ever.
    if (client.drives && client.seat !== undefined && !this.isDriven(client.seat))
      this.enqueue({ kind: 'input', args: { seat: client.seat, input: { do: 'stop' } } });
    return true;
  }

  /** Has everybody go, or those of whom that is said. */
  dismissAll(goodbye: Goodbye, which: (client: Client) => boolean = () => true): void {
    for (const client of this.screens.those(which)) {
      this.disconnect(client);
      client.dismiss(goodbye);
    }
  }

  /** Says what is wrong with the room for the moment, in words, each thing by a name of its own; nothing where that is well. */
  setTrouble(about: string, words: string): void {
    this.screens.setTrouble(about, words);
  }

  acknowledge(client: Client, frame: number): void {
    this.screens.acknowledge(client, frame);
  }

  isDriven(seat: string): boolean {
    return this.screens.isDriven(seat);
  }

  tell(message: ServerMessage): void {
    this.screens.tell(message);
  }

  /**
   * What a seat asks for. What was sent twice counts once: `n` rises from one input of a connection to the next.
   * Returns what is wrong with it, or undefined.
   */
  input(client: Client, n: number, value: unknown): string | undefined {
    if (client.seat === undefined || !this.screens.has(client)) return 'Who watches the truth has no seat to move.';
    if (!this.screens.isNew(client, n)) return undefined;
    const { value: input, problems } = checkInput(value);
    if (!input) return `${problems[0].path.slice(1)}: ${problems[0].message}`;
    const waiting = this.waiting.filter((command) => command.kind === 'input' && command.args['seat'] === client.seat).length;
    if (waiting >= MOST_OF_A_SEAT) return `More than ${MOST_OF_A_SEAT} things at once are too many for one seat.`;
    return this.enqueue({ kind: 'input', args: { seat: client.seat, input } });
  }

  /** A change from outside the rules. Returns what is wrong with it, or undefined. */
  poke(client: Client, { seat, from, action: value }: Said<'poke'>): string | undefined {
    if (client.seat !== undefined) return 'Only who watches the truth may poke.';
    for (const name of [seat, from])
      if (name !== undefined && !this.seats.some((s) => s.name === name)) return `This room has no seat ${name}.`;
    const { value: action, problems } = checkAction(this.current.rules, value);
    if (!action) return `${problems[0].path.slice(1) || 'poke'}: ${problems[0].message}`;
    return this.enqueue({ kind: 'poke', args: { ...(seat !== undefined && { seat }), ...(from !== undefined && { from }), action } });
  }

  /** Answers what a client asks of the world. Returns what is wrong with the question, or undefined. */
  answer(client: Client, asked: Asked): string | undefined {
    const answer = answerTo({ world: this.world, history: this.history, viewer: this.screens.viewerOf(client) }, asked);
    if ('refused' in answer) return answer.refused;
    client.send(encodeMessage(answer));
    return undefined;
  }

  /** Has the room run faster, slower, or stand still. Returns what is wrong with that, or undefined. */
  pace(client: Client, { speed }: Said<'pace'>): string | undefined {
    if (client.seat !== undefined) return 'Only who watches the truth may set the pace.';
    this.run(speed);
    return undefined;
  }

  /** Runs at so many times its own rate from now on; 0 stands still. */
  run(speed: Pace): void {
    this.speed = speed;
    this.repaced();
    this.tell({ t: 'pace', speed });
  }

  private enqueue(command: Command): string | undefined {
    if (this.waiting.length >= MOST_WAITING) return 'Too much is asked of this room at once.';
    this.waiting.push(command);
    return undefined;
  }

  /** Runs one tick and tells every screen what it may know of it. */
  tick(): void {
    const edited = this.next !== undefined;
    if (this.next) this.adopt(this.next);
    const order = new Map(this.seats.map((seat, i) => [seat.name, i]));
    const commands = this.waiting.splice(0);
    commands.sort((a, b) => (order.get(String(a.args['seat'])) ?? -1) - (order.get(String(b.args['seat'])) ?? -1));
    const events = this.world.step(commands);
    this.screens.ran();
    this.history.note(this.current.rules, events);
    if (edited) this.screens.welcomeAll();
    // A room that runs faster is told of no more often: a screen shows twenty pictures of it a second all the same.
    this.screens.show(events, edited || this.speed <= 1 || this.world.tick % this.speed === 0);
  }

  private adopt(next: RoomRules): void {
    this.next = undefined;
    const before: Rules = this.current.rules;
    this.current = next;
    this.world = this.world.adopt(next.rules);
    this.players.follow(this.world, before);
    // A poke that waits was checked against the old rules; what it speaks of may be gone.
    const still = this.waiting.filter(
      (command) => command.kind !== 'poke' || checkAction(next.rules, command.args['action']).problems.length === 0,
    );
    this.waiting.splice(0, this.waiting.length, ...still);
    this.screens.turn();
    // Nobody is thrown out: a seat whose kind of actor was deleted takes what the rules have now.
    for (const seat of this.seats)
      if (actorOfSeat(this.world, seat.name) === 0) this.waiting.unshift(joining(seat, this.players.of(seat.name)));
  }

  /** The players whose saved state has changed since it was last kept. Call `kept` once it is stored. */
  changedPlayers(): readonly ChangedPlayer[] {
    return this.players.changed(this.world);
  }
}
