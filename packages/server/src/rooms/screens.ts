import {
  actorOfSeat,
  Announcer,
  encodeMessage,
  encodeWelcome,
  type GameEvent,
  type Pace,
  Publisher,
  type Rules,
  type ServerMessage,
  type Viewer,
  type World,
} from '@eager-ember/core';
import type { Client } from './client.js';
import { type Unreadable, unreadableWords } from './unreadable.js';

interface Connection {
  readonly client: Client;
  readonly announcer: Announcer;
  acknowledged: number;
  /** The numbers of the last input that it sent, and of the last that was run. */
  asked: number;
  heard: number;
}

/** What screens are shown: a world, the rules that it runs by, and how fast. */
export interface Shown {
  readonly id: string;
  readonly world: World;
  readonly rules: Rules;
  readonly revision: number;
  readonly speed: Pace;
  readonly seats: readonly { readonly name: string }[];
  /** The players of whom what was kept can't be read. */
  readonly unreadable: readonly Unreadable[];
}

/** The screens that look at a room: who is connected, and what each of them has been told. */
export class Screens {
  private readonly connections = new Map<Client, Connection>();
  private publisher: Publisher;
  /** Acknowledgements of frames before this one speak of a copy that was thrown away. */
  private firstFrame = 1;
  /** What is wrong with the room for the moment. */
  private readonly troubles = new Map<string, string>();

  constructor(private readonly shown: () => Shown) {
    this.publisher = new Publisher(shown().world);
  }

  get any(): boolean {
    return this.connections.size > 0;
  }

  /** Whether somebody who is signed in looks on, rather than only who has a link to a seat. */
  get anyAuthor(): boolean {
    return [...this.connections.keys()].some(({ link }) => link === undefined);
  }

  has(client: Client): boolean {
    return this.connections.has(client);
  }

  isDriven(seat: string): boolean {
    return [...this.connections.keys()].some((client) => client.seat === seat && client.drives);
  }

  connect(client: Client): void {
    this.connections.set(client, { client, announcer: new Announcer(), acknowledged: 0, asked: 0, heard: 0 });
    this.welcome(client);
    this.tellSeats(client);
    for (const message of unreadableWords(this.shown().unreadable, client.seat))
      client.send(encodeMessage({ t: 'error', message, final: false }));
    if (this.trouble !== '') client.send(encodeMessage({ t: 'trouble', message: this.trouble }));
  }

  /** Returns whether it was there. */
  disconnect(client: Client): boolean {
    const was = this.connections.delete(client);
    if (was) this.tellSeats();
    return was;
  }

  /** Those who are there, of whom that is said. */
  those(which: (client: Client) => boolean): readonly Client[] {
    return [...this.connections.keys()].filter(which);
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

  /** Whether a client asks for this for the first time: what was sent twice counts once, as `n` rises from one to the next. */
  isNew(client: Client, n: number): boolean {
    const connection = this.connections.get(client);
    if (!connection || n <= connection.asked) return false;
    connection.asked = n;
    return true;
  }

  /** What was asked for so far has been run. */
  ran(): void {
    for (const connection of this.connections.values()) connection.heard = connection.asked;
  }

  /** Tells every screen what it may know of a tick. A picture of it is sent, unless it is one of many that nobody would see. */
  show(events: readonly GameEvent[], picture: boolean): void {
    if (picture) this.publisher.capture([...this.connections.keys()].some(({ seat }) => seat === undefined));
    for (const { client, announcer, acknowledged, heard } of this.connections.values()) {
      const viewer = this.viewerOf(client);
      if (picture && !client.congested) client.send(this.publisher.frameFor(viewer, acknowledged, heard));
      const items = [...announcer.tell(this.shown().world, events, viewer)];
      if (items.length > 0) client.send(encodeMessage({ t: 'news', items }));
    }
  }

  /** The world is another one from now on: what was told of the old one does not hold. */
  turn(): void {
    const { frame } = this.publisher;
    this.publisher = new Publisher(this.shown().world);
    this.publisher.frame = frame;
    this.firstFrame = frame + 1;
    for (const connection of this.connections.values()) connection.acknowledged = 0;
  }

  viewerOf({ seat }: Client): Viewer {
    if (seat === undefined) return 'truth';
    const { world } = this.shown();
    const actor = actorOfSeat(world, seat);
    const row = world.actors.rowOf(actor);
    return { actor, team: row < 0 ? -1 : world.actors.cells.team[row] };
  }

  welcomeAll(): void {
    for (const client of this.connections.keys()) this.welcome(client);
  }

  private welcome(client: Client): void {
    const { id, world, rules, revision, speed } = this.shown();
    const viewer = this.viewerOf(client);
    const row = viewer === 'truth' ? -1 : world.actors.rowOf(viewer.actor);
    const welcome = {
      room: id,
      ruleset: String(rules.document.name),
      revision,
      ...(client.seat !== undefined && { seat: client.seat }),
      ...(row >= 0 && { row }),
      speed,
      seats: this.seatStates(),
    };
    client.send(encodeWelcome(welcome, rules, viewer === 'truth'));
  }

  private seatStates() {
    return this.shown().seats.map(({ name }) => ({ name, driven: this.isDriven(name) }));
  }

  private tellSeats(except?: Client): void {
    const bytes = encodeMessage({ t: 'seats', seats: this.seatStates() });
    for (const client of this.connections.keys()) if (client !== except) client.send(bytes);
  }

  tell(message: ServerMessage): void {
    const bytes = encodeMessage(message);
    for (const client of this.connections.keys()) client.send(bytes);
  }
}
