import {
  answerTo,
  type Asked,
  actorOfSeat,
  Announcer,
  checkAction,
  checkInput,
  type ClientMessage,
  type Command,
  encodeMessage,
  encodeWelcome,
  followSaved,
  History,
  unplacedOf,
  loadPlayer,
  mergeSaved,
  type Pace,
  Publisher,
  type Rules,
  savePlayer,
  type SavedPlayer,
  type ServerMessage,
  storeSnapshot,
  type Viewer,
  World,
} from '@eager-ember/core';
import type { Client, Goodbye } from './client.js';
import { type Unreadable, unreadableWords } from './unreadable.js';

/** A room as it stands, to be stored, with the rules that it stands under. */
export interface RoomState {
  readonly world: Uint8Array;
  readonly revision: number;
  readonly document: Readonly<Record<string, unknown>>;
  readonly tick: number;
}

interface Connection {
  readonly client: Client;
  readonly announcer: Announcer;
  acknowledged: number;
  /** The numbers of the last input that it sent, and of the last that was run. */
  asked: number;
  heard: number;
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

/** A running game: a world, its seats, and the screens that look on. It knows no sockets and no database. */
export class Room {
  private world: World;
  private publisher: Publisher;
  /** Acknowledgements of frames before this one speak of a copy that was thrown away. */
  private firstFrame = 1;
  private current: RoomRules;
  private next: RoomRules | undefined;
  private readonly history = new History();
  private readonly waiting: Command[] = [];
  /** How many times its own rate it runs at. */
  private speed: Pace = 1;
  /** Told when it is to run at another rate from now on. */
  repaced: () => void = () => undefined;
  private readonly connections = new Map<Client, Connection>();
  private saved = new Map<string, string>();
  /** What of that the rules of now have no place for, by player, once it was asked for. */
  private readonly unplaced = new Map<string, SavedPlayer>();
  /** What is wrong with it for the moment. */
  private readonly troubles = new Map<string, string>();
  constructor(
    readonly id: string,
    rules: RoomRules,
    readonly seed: number,
    readonly seats: readonly RoomSeat[],
    players: ReadonlyMap<string, SavedPlayer>,
    /** The world as it stood when the room was last stored, already under these rules. */
    stood?: World,
    /** The players of whom what was kept can't be read. */
    private readonly unreadable: readonly Unreadable[] = [],
  ) {
    this.current = rules;
    this.world = stood ?? World.start(rules.rules, seed);
    this.publisher = new Publisher(this.world);
    // Nothing happens to who has a seat already; their player may have been elsewhere meanwhile.
    for (const seat of seats) this.waiting.push(joining(seat, players.get(seat.name)));
    if (stood) for (const { name } of seats) this.catchUp(name, players.get(name));
    for (const [name, saved] of players) this.saved.set(name, JSON.stringify(saved));
    this.setClock();
    this.tick();
    for (const [name, saved] of this.players()) this.saved.set(name, JSON.stringify(saved));
  }

  /** Tells the world what time it is: it has no clock of its own. */
  setClock(now = Date.now()): void {
    this.waiting.push({ kind: 'clock', args: { now: Math.floor(now / 1000) } });
  }

  /** Gives a player of a world that stood still what another room has stored of them since. */
  private catchUp(seat: string, saved: SavedPlayer | undefined): void {
    const row = this.world.actors.rowOf(actorOfSeat(this.world, seat));
    if (row >= 0 && saved && JSON.stringify(savePlayer(this.world, row)) !== JSON.stringify(saved)) loadPlayer(this.world, row, saved);
  }

  stands(): RoomState {
    const { rules, revision } = this.current;
    return { world: storeSnapshot(this.world.snapshot()), revision, document: rules.document, tick: this.world.tick };
  }

  get rulesetId(): string {
    return this.current.rulesetId;
  }

  get tickRate(): number {
    return this.current.rules.tickRate;
  }

  /** Ticks in a second of the clock; 0 where it stands still. */
  get ticksPerSecond(): number {
    return this.tickRate * this.speed;
  }

  get watched(): boolean {
    return this.connections.size > 0;
  }

  /** Whether somebody who is signed in looks at it, rather than only who has a link to a seat. */
  get watchedByAuthor(): boolean {
    return [...this.connections.keys()].some(({ link }) => link === undefined);
  }

  get hash(): string {
    return this.world.hash();
  }

  get tickNumber(): number {
    return this.world.tick;
  }

  /** Takes edited rules over at the next tick, unless it has those of a later edit. */
  edited(rules: RoomRules): void {
    if (rules.revision > (this.next ?? this.current).revision) this.next = rules;
  }

  connect(client: Client): void {
    this.connections.set(client, { client, announcer: new Announcer(), acknowledged: 0, asked: 0, heard: 0 });
    this.welcome(client);
    this.tellSeats(client);
    for (const message of unreadableWords(this.unreadable, client.seat)) client.send(encodeMessage({ t: 'error', message, final: false }));
    if (this.trouble !== '') client.send(encodeMessage({ t: 'trouble', message: this.trouble }));
  }

  /** Returns whether it was there. */
  disconnect(client: Client): boolean {
    if (!this.connections.delete(client)) return false;
    // Nobody holds the stick any more: a body must not drift on for ever.
    if (client.drives && client.seat !== undefined && !this.isDriven(client.seat))
      this.enqueue({ kind: 'input', args: { seat: client.seat, input: { do: 'stop' } } });
    this.tellSeats();
    return true;
  }

  /** Has everybody go, or those of whom that is said. */
  dismissAll(goodbye: Goodbye, which: (client: Client) => boolean = () => true): void {
    for (const client of [...this.connections.keys()].filter(which)) {
      this.disconnect(client);
      client.dismiss(goodbye);
    }
  }

  /** Says what is wrong with the room for the moment, in words, each thing by a name of its own; nothing where that is well. */
  setTrouble(about: string, words: string): void {
    const before = this.trouble;
    if (words === '') this.troubles.delete(about);
    else this.troubles.set(about, words);
    if (this.trouble !== before) this.tell({ t: 'trouble', message: this.trouble });
  }

  private get trouble(): string {
    return [...this.troubles.values()].join(' ');
  }

  acknowledge(client: Client, frame: number): void {
    const connection = this.connections.get(client);
    if (connection && frame >= this.firstFrame && frame <= this.publisher.frame && frame > connection.acknowledged)
      connection.acknowledged = frame;
  }

  /**
   * What a seat asks for. What was sent twice counts once: `n` rises from one input of a connection to the next.
   * Returns what is wrong with it, or undefined.
   */
  input(client: Client, n: number, value: unknown): string | undefined {
    const connection = this.connections.get(client);
    if (client.seat === undefined || !connection) return 'Who watches the truth has no seat to move.';
    if (n <= connection.asked) return undefined;
    connection.asked = n;
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
    const answer = answerTo({ world: this.world, history: this.history, viewer: this.viewerOf(client) }, asked);
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
    for (const connection of this.connections.values()) connection.heard = connection.asked;
    this.history.note(this.current.rules, events);
    if (edited) for (const { client } of this.connections.values()) this.welcome(client);
    // A room that runs faster is told of no more often: a screen shows twenty pictures of it a second all the same.
    const told = edited || this.speed <= 1 || this.world.tick % this.speed === 0;
    if (told) this.publisher.capture([...this.connections.keys()].some(({ seat }) => seat === undefined));
    for (const connection of this.connections.values()) {
      const { client } = connection;
      const viewer = this.viewerOf(client);
      if (told && !client.congested) client.send(this.publisher.frameFor(viewer, connection.acknowledged, connection.heard));
      const items = [...connection.announcer.tell(this.world, events, viewer)];
      if (items.length > 0) client.send(encodeMessage({ t: 'news', items }));
    }
  }

  private adopt(next: RoomRules): void {
    this.next = undefined;
    const before = this.current.rules;
    this.current = next;
    this.world = this.world.adopt(next.rules);
    this.followPlayers(before);
    // A poke that waits was checked against the old rules; what it speaks of may be gone.
    const still = this.waiting.filter(
      (command) => command.kind !== 'poke' || checkAction(next.rules, command.args['action']).problems.length === 0,
    );
    this.waiting.splice(0, this.waiting.length, ...still);
    const { frame } = this.publisher;
    this.publisher = new Publisher(this.world);
    this.publisher.frame = frame;
    this.firstFrame = frame + 1;
    for (const connection of this.connections.values()) connection.acknowledged = 0;
    // Nobody is thrown out: a seat whose kind of actor was deleted takes what the rules have now.
    for (const seat of this.seats) if (actorOfSeat(this.world, seat.name) === 0) this.waiting.unshift(joining(seat, this.kept(seat.name)));
  }

  /** What is kept of players goes by the new names; what had no place under the old rules and has one again comes back. */
  private followPlayers(before: Rules): void {
    const { rules } = this.current;
    for (const { name } of this.seats) {
      const kept = this.kept(name);
      if (!kept) continue;
      const followed = followSaved(before, rules, kept);
      this.saved.set(name, JSON.stringify(followed));
      const unplaced = unplacedOf(before, kept);
      const row = this.world.actors.rowOf(actorOfSeat(this.world, name));
      if (row >= 0 && Object.keys(unplaced).length > 0) loadPlayer(this.world, row, unplaced);
    }
    this.unplaced.clear();
  }

  private unplacedNow(seat: string): SavedPlayer {
    const known = this.unplaced.get(seat) ?? unplacedOf(this.current.rules, this.kept(seat) ?? {});
    this.unplaced.set(seat, known);
    return known;
  }

  private kept(seat: string): SavedPlayer | undefined {
    const text = this.saved.get(seat);
    return text === undefined ? undefined : (JSON.parse(text) as SavedPlayer);
  }

  private viewerOf({ seat }: Client): Viewer {
    if (seat === undefined) return 'truth';
    const actor = actorOfSeat(this.world, seat);
    const row = this.world.actors.rowOf(actor);
    return { actor, team: row < 0 ? -1 : this.world.actors.cells.team[row] };
  }

  private welcome(client: Client): void {
    const viewer = this.viewerOf(client);
    const row = viewer === 'truth' ? -1 : this.world.actors.rowOf(viewer.actor);
    const welcome = {
      room: this.id,
      ruleset: String(this.current.rules.document.name),
      revision: this.current.revision,
      ...(client.seat !== undefined && { seat: client.seat }),
      ...(row >= 0 && { row }),
      speed: this.speed,
      seats: this.seatStates(),
    };
    client.send(encodeWelcome(welcome, this.current.rules, viewer === 'truth'));
  }

  isDriven(seat: string): boolean {
    return [...this.connections.keys()].some((client) => client.seat === seat && client.drives);
  }

  private seatStates() {
    return this.seats.map(({ name }) => ({ name, driven: this.isDriven(name) }));
  }

  private tellSeats(except?: Client): void {
    const bytes = encodeMessage({ t: 'seats', seats: this.seatStates() });
    for (const client of this.connections.keys()) if (client !== except) client.send(bytes);
  }

  tell(message: ServerMessage): void {
    const bytes = encodeMessage(message);
    for (const client of this.connections.keys()) client.send(bytes);
  }

  private *players(): Iterable<readonly [string, SavedPlayer]> {
    for (const { name } of this.seats) {
      const row = this.world.actors.rowOf(actorOfSeat(this.world, name));
      if (row < 0) continue;
      // What these rules have no place for is kept for the day that a deletion is undone.
      yield [name, mergeSaved(this.unplacedNow(name), savePlayer(this.world, row))];
    }
  }

  /** The players whose saved state has changed since it was last kept. Call `kept` once it is stored. */
  changedPlayers(): readonly { readonly name: string; readonly saved: SavedPlayer; readonly kept: () => void }[] {
    return [...this.players()].flatMap(([name, saved]) => {
      const text = JSON.stringify(saved);
      return this.saved.get(name) === text ? [] : [{ name, saved, kept: () => void this.saved.set(name, text) }];
    });
  }
}
