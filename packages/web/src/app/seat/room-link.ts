import { computed, signal } from '@angular/core';
import {
  type Announcement,
  type ServerMessage,
  Copy,
  encodeMessage,
  type Pace,
  Prediction,
  readServerMessage,
  SUBPROTOCOL,
  type Welcome,
} from '@eager-ember/core';

export type WhyAnswer = Extract<ServerMessage, { t: 'why' }>;
export type AbilitiesAnswer = Extract<ServerMessage, { t: 'abilities' }>;
export type LinkState = 'connecting' | 'open' | 'lost' | 'closed';

const FIRST_RETRY_MS = 300;
const LONGEST_RETRY_MS = 4000;
const MOST_NEWS = 400;
/** Ticks a second up to which a seat lives along with its room. */
const MOST_LIVED = 60;
/** How long a refusal stays on the screen. */
const SHOWN_SECONDS = 3;

/** A socket to a room, with the copy that it keeps. Comes back by itself; what was known before is then thrown away. */
export class RoomLink {
  readonly state = signal<LinkState>('connecting');
  readonly welcome = signal<Welcome | undefined>(undefined);
  readonly news = signal<readonly Announcement[]>([]);
  /** Why values are what they are, as last answered. */
  readonly answer = signal<WhyAnswer | undefined>(undefined);
  /** Abilities with today's numbers, as last answered. */
  readonly abilities = signal<AbilitiesAnswer | undefined>(undefined);
  /** How many times its own rate the room runs at. */
  readonly speed = signal<Pace>(1);
  /** Up to here the room is stored: a crash loses none of it. */
  readonly stored = signal(0);
  /** Why it can't be had just now, where the server has said so: it is tried again all the same. */
  readonly later = signal('');
  /** What is wrong with the room for the moment, and at which tick that was over. */
  private readonly trouble = signal<{ readonly text: string; readonly until: number | undefined }>({ text: '', until: undefined });
  /** What a player should know of how the room fares: what is wrong with it, and for a while that it is put right. */
  readonly word = computed(() => {
    const { text, until } = this.trouble();
    if (this.state() !== 'open' || text === '' || until === undefined) return this.state() === 'open' ? text : '';
    this.tick();
    return this.isRecent(until) ? 'That is over: the room runs as it should, and all that happened is saved.' : '';
  });
  /** Why there is no connection, and what comes of it. */
  readonly lostWords = computed(() => `${this.later() || 'The connection to the room is lost.'} Trying to get back …`);
  /** Milliseconds that everything is held up on its way there and back, to see how it is played from afar. */
  readonly delay = signal(0);
  /** What the server last complained of, and at which tick. */
  readonly complaint = signal<{ readonly text: string; readonly tick: number } | undefined>(undefined);
  /** Bytes received in the last whole second. */
  readonly bytesPerSecond = signal(0);
  /** The tick of the last frame taken in. */
  readonly tick = signal(0);
  copy: Copy | undefined;
  /** What this seat expects of its own actor before it is told. */
  prediction: Prediction | undefined;
  private living: ReturnType<typeof setInterval> | undefined;
  /** The direction that is held: told again with every tick, so that each tick has a number of its own. */
  private held: { readonly x: number; readonly y: number } | undefined;
  /** When the last of what is held up gets through: nothing overtakes anything. */
  private through = { out: 0, back: 0 };
  /** Rises with every frame taken in. */
  frames = 0;
  /** Rises with whatever a picture of it may show: what it was told, and what is expected besides. */
  readonly changes = signal(0);
  private expected = false;
  private socket: WebSocket | undefined;
  private inputs = 0;
  private wait = FIRST_RETRY_MS;
  private retry: ReturnType<typeof setTimeout> | undefined;
  private counted = { second: 0, bytes: 0 };
  private ended = false;
  /** It was connected, and not welcomed since. */
  private anew = false;

  /**
   * `shutFor` says why there is nothing to come back to, or nothing where there may be: a socket that is refused at the door
   * is not told why.
   */
  constructor(
    private readonly address: string,
    private readonly shutFor: () => Promise<string>,
  ) {
    // A page that is left may be held ready for coming back, its sockets with it: its players would be taken for ever.
    addEventListener('pagehide', this.leave);
    addEventListener('pageshow', this.comeBack);
    this.open();
  }

  private readonly leave = (): void => {
    clearTimeout(this.retry);
    clearInterval(this.living);
    const left = this.socket;
    this.socket = undefined;
    left?.close();
    if (!this.ended) this.state.set('lost');
  };

  private readonly comeBack = ({ persisted }: PageTransitionEvent): void => {
    if (persisted && !this.ended) this.open();
  };

  /** The address of a room's socket: the truth's, a seat's by the token of its join link, or that of a seat shown beside the truth. */
  static address(room: string, seat: { readonly token?: string; readonly beside?: string } = {}): string {
    const url = new URL(`/ws/rooms/${room}`, location.href);
    url.protocol = url.protocol.replace('http', 'ws');
    if (seat.token !== undefined) url.searchParams.set('seat', seat.token);
    if (seat.beside !== undefined) url.searchParams.set('beside', seat.beside);
    return url.href;
  }

  private open(): void {
    const socket = new WebSocket(this.address, SUBPROTOCOL);
    let refused = true;
    socket.binaryType = 'arraybuffer';
    socket.onopen = () => {
      if (socket !== this.socket) return socket.close();
      refused = false;
      this.anew = true;
      this.trouble.set({ text: '', until: undefined });
      this.state.set('open');
    };
    socket.onmessage = ({ data }: MessageEvent<ArrayBuffer>) => this.late('back', () => this.hear(new Uint8Array(data)));
    socket.onclose = () => {
      if (socket !== this.socket) return;
      this.lost();
      if (refused) void this.askWhyShut(socket);
    };
    this.socket = socket;
  }

  private async askWhyShut(refused: WebSocket): Promise<void> {
    const words = await this.shutFor();
    // By now it may have been let in.
    if (words !== '' && this.socket === refused) this.endWith(words);
  }

  private endWith(words: string): void {
    this.complaint.set({ text: words, tick: this.tick() });
    this.close('closed');
  }

  private lost(): void {
    if (this.ended) return;
    clearInterval(this.living);
    this.held = undefined;
    this.state.set('lost');
    this.retry = setTimeout(() => this.open(), this.wait);
    this.wait = Math.min(LONGEST_RETRY_MS, this.wait * 1.7);
  }

  private hear(bytes: Uint8Array): void {
    this.count(bytes.length);
    this.changed();
    const heard = readServerMessage(bytes);
    if ('frame' in heard) {
      if (!this.copy?.applyDecoded(heard.frame)) return;
      this.frames++;
      this.prediction?.confirmed();
      this.tick.set(this.copy.tick);
      this.send({ t: 'ack', frame: this.copy.frame });
      return;
    }
    const { message } = heard;
    switch (message.t) {
      case 'welcome':
        // Who is let in and sent away at once comes back less and less often.
        this.wait = FIRST_RETRY_MS;
        this.later.set('');
        this.copy = new Copy(message.schema);
        this.prediction = message.row === undefined ? undefined : new Prediction(this.copy, message.row);
        this.speed.set(message.speed);
        this.live();
        this.welcome.set(message);
        // A seat's announcements are counted from 1 by each connection.
        if (this.anew && message.seat !== undefined) this.news.set([]);
        this.anew = false;
        return;
      case 'pace':
        this.speed.set(message.speed);
        return this.live();
      case 'stored':
        return this.stored.set(message.tick);
      case 'later':
        return this.later.set(message.message);
      case 'trouble':
        return this.trouble.update(({ text }) =>
          message.message === '' ? { text, until: this.tick() } : { text: message.message, until: undefined },
        );
      case 'abilities':
        return this.abilities.set(message);
      case 'seats':
        this.welcome.update((welcome) => welcome && { ...welcome, seats: message.seats });
        return;
      case 'news':
        this.prediction?.heard(message.items);
        this.news.update((news) => [...news, ...message.items].slice(-MOST_NEWS));
        return;
      case 'why':
        return this.answer.set(message);
      case 'error':
        if (message.final) this.endWith(message.message);
        else this.complaint.set({ text: message.message, tick: this.tick() });
    }
  }

  private count(bytes: number): void {
    const second = Math.floor(performance.now() / 1000);
    if (second !== this.counted.second) {
      this.bytesPerSecond.set(this.counted.bytes);
      this.counted = { second, bytes: 0 };
    }
    this.counted.bytes += bytes;
  }

  /** What a player should still see of refusals and complaints: those of the last few seconds. */
  refusal(): string {
    // Others' casts break in sight of everybody; what concerns this player is its own.
    const own = this.welcome()?.seat;
    const refused = this.news().findLast((item) => item.refusal && (own === undefined || item.who === own));
    return refused && this.isRecent(refused.tick) ? refused.text : this.recentComplaint();
  }

  /** What the server lately complained of; that which closed the room stays. */
  recentComplaint(): string {
    const complaint = this.complaint();
    return complaint && (this.state() === 'closed' || this.isRecent(complaint.tick)) ? complaint.text : '';
  }

  private isRecent(tick: number): boolean {
    return this.copy !== undefined && tick > this.tick() - SHOWN_SECONDS * this.copy.schema.tickRate;
  }

  private send(message: Parameters<typeof encodeMessage>[0]): void {
    const bytes = encodeMessage(message) as Uint8Array<ArrayBuffer>;
    this.late('out', () => this.socket?.readyState === WebSocket.OPEN && this.socket.send(bytes));
  }

  /** Does something after half of the delay, and after all that went the same way before. */
  private late(way: 'out' | 'back', work: () => void): void {
    const now = performance.now();
    const due = Math.max(this.through[way], now + this.delay() / 2);
    if (due <= now) return work();
    this.through[way] = due;
    setTimeout(work, due - now);
  }

  /** Lives through the room's ticks here as well: what is expected goes on between frames. */
  private live(): void {
    clearInterval(this.living);
    const rate = (this.copy?.schema.tickRate ?? 20) * this.speed();
    // What runs faster than a hand can follow is not expected, only shown.
    if (!this.prediction || rate === 0 || rate > MOST_LIVED) return;
    this.living = setInterval(() => {
      if (this.held) this.tell({ do: 'move', ...this.held });
      this.prediction?.step();
      // Where no more is expected, that is to be seen as well.
      const expects = this.prediction?.expects ?? false;
      if (expects || this.expected) this.changed();
      this.expected = expects;
    }, 1000 / rate);
  }

  private changed(): void {
    this.changes.update((n) => n + 1);
  }

  ask(input: { readonly do: string; readonly [argument: string]: unknown }): void {
    if (input.do === 'move') this.held = { x: Number(input['x']), y: Number(input['y']) };
    else if (input.do === 'stop' || input.do === 'moveTo') this.held = undefined;
    this.tell(input);
  }

  private tell(input: { readonly do: string; readonly [argument: string]: unknown }): void {
    const n = ++this.inputs;
    this.prediction?.sent(n, input);
    this.changed();
    this.send({ t: 'input', n, input });
  }

  /** Asks for the abilities of an actor with today's numbers; the answer comes as {@link abilities}. */
  askAbilities(row: number): void {
    this.send({ t: 'abilities', row });
  }

  pace(speed: Pace): void {
    this.send({ t: 'pace', speed });
  }

  poke(seat: string, action: { readonly do: string; readonly [argument: string]: unknown }, from?: string): void {
    this.send({ t: 'poke', seat, action, ...(from !== undefined && { from }) });
  }

  /** Asks why an actor's values are what they are; the answer comes as {@link answer}. */
  askWhy(row: number, attribute: string): void {
    this.send({ t: 'why', row, attribute });
  }

  /** What the game's client is to show and sound at the moment. */
  flourishes(): readonly Announcement[] {
    return this.news()
      .slice(-40)
      .filter((item) => (item.event === 'flourish' || item.event === 'achievementUnlocked') && this.isRecent(item.tick));
  }

  close(state: LinkState = 'closed'): void {
    this.ended = true;
    removeEventListener('pagehide', this.leave);
    removeEventListener('pageshow', this.comeBack);
    clearTimeout(this.retry);
    clearInterval(this.living);
    this.socket?.close();
    this.state.set(state);
  }
}
