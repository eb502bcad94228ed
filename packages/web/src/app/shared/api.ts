import { HttpClient, type HttpErrorResponse, type HttpInterceptorFn } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import type { SavedSheet, Problem, SavedPlayer } from '@eager-ember/core';
import type { Operation } from 'fast-json-patch';
import { firstValueFrom, map, type Observable } from 'rxjs';

export type RulesetJson = Record<string, unknown>;

export interface RulesetSummary {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly updatedAt: string;
  readonly entries: Readonly<Record<string, number>>;
}

export interface StoredRuleset {
  readonly id: string;
  readonly revision: number;
  readonly document: RulesetJson;
}

/**
 * Who plays in a room: guests, who begin with it and end with it, or the ruleset's saved players, who begin with what they
 * have kept and keep what they get.
 */
export type Players = 'guests' | 'saved';

export interface RoomInfo {
  readonly id: string;
  readonly ruleset: string;
  readonly players: Players;
  readonly seats: readonly SeatInfo[];
}

/** A seat of a room; `join` is the path of its join link, which ends at `until`, both null where it has none. */
export interface SeatInfo {
  readonly name: string;
  readonly team: string | null;
  readonly join: string | null;
  readonly until: string | null;
}

/** A room as it is listed. */
export interface RoomSummary {
  readonly id: string;
  readonly createdAt: string;
  readonly players: Players;
  readonly open: boolean;
}

/** Where somebody is signed in; `here` is this very browser. */
export interface SessionInfo {
  readonly key: string;
  readonly agent: string;
  readonly createdAt: string;
  readonly seenAt: string;
  readonly expiresAt: string;
  readonly here: boolean;
}

/** A note of who did what; `about` depends on what it is. */
export interface TrailNote {
  readonly id: number;
  readonly at: string;
  readonly who: 'author' | 'terminal';
  readonly what: string;
  readonly about: Readonly<Record<string, unknown>>;
}

/** A part of a list, and where the next one begins; null after the last. */
export interface Part<T> {
  readonly items: readonly T[];
  readonly next: string | null;
}

/** The parameters that ask for the part of a list that begins there. */
const from = (after: string | null): { readonly after?: string } => (after === null ? {} : { after });

/** Something that a saved player would lose by an edit. */
export interface PlayerLoss {
  readonly player: string;
  readonly table: string;
  readonly label: string;
  readonly had: number | string;
  readonly has?: number | string;
}

/** A saved player as it is listed; `room` is where they play just now. */
export interface PlayerInfo {
  readonly name: string;
  readonly revision: number;
  readonly updatedAt: string;
  readonly room: string | null;
}

export interface SetAsideInfo {
  readonly id: string;
  readonly name: string;
  readonly reason: string;
  readonly at: string;
  readonly saved: unknown;
}

export interface StoredPlayer {
  readonly name: string;
  readonly revision: number;
  readonly updatedAt: string;
  readonly saved: SavedPlayer;
  readonly problems: readonly Problem[];
  readonly sheet: SavedSheet;
  readonly etag: string;
}

/** What a failed request said. `status` 0 is no answer at all. */
export interface Failure {
  readonly status: number;
  readonly title: string;
  readonly detail: string;
  readonly problems: readonly Problem[];
  readonly revision: number | undefined;
  readonly losses: readonly PlayerLoss[];
}

export function failureOf({ status, error }: HttpErrorResponse): Failure {
  const body = (typeof error === 'string' ? parsed(error) : error) as Partial<Failure> | null;
  return {
    status,
    title: body?.title ?? (status === 0 ? 'The server can’t be reached' : 'The request failed'),
    detail: body?.detail ?? '',
    problems: body?.problems ?? [],
    revision: body?.revision,
    losses: body?.losses ?? [],
  };
}

/** Why what is asked for is gone for good; nothing where it is there, or can't be had only now. */
export async function whyGone(asked: Observable<unknown>): Promise<string> {
  try {
    await firstValueFrom(asked);
    return '';
  } catch (error) {
    const { status, title } = failureOf(error as HttpErrorResponse);
    if (status === 401) return 'You are signed out.';
    return status === 404 ? `${title}.` : '';
  }
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

/** Marks writes as this application's own: a page of another site can't send this header. */
export const writeHeader: HttpInterceptorFn = (request, next) => next(request.clone({ setHeaders: { 'x-eager-ember': '1' } }));

@Injectable({ providedIn: 'root' })
export class Api {
  private readonly http = inject(HttpClient);

  rulesets(after: string | null = null): Observable<Part<RulesetSummary>> {
    return this.http
      .get<{ rulesets: RulesetSummary[]; next: string | null }>('/api/rulesets', { params: from(after) })
      .pipe(map(({ rulesets, next }) => ({ items: rulesets, next })));
  }

  create(body: { name: string } | { document: RulesetJson }): Observable<StoredRuleset> {
    return this.http.post<StoredRuleset>('/api/rulesets', body);
  }

  ruleset(id: string): Observable<StoredRuleset> {
    return this.http.get<StoredRuleset>(`/api/rulesets/${encodeURIComponent(id)}`);
  }

  /** @param acceptLosses what saved players lose by it has been shown */
  /** @param key by which the server knows it again, should it be sent twice */
  patch(id: string, revision: number, patch: readonly Operation[], key: string, acceptLosses = false): Observable<{ revision: number }> {
    return this.http.patch<{ revision: number }>(`/api/rulesets/${encodeURIComponent(id)}`, patch, {
      headers: { 'If-Match': `"${revision}"`, 'Idempotency-Key': `"${key}"`, ...(acceptLosses && { 'X-Losses': 'accept' }) },
    });
  }

  players(ruleset: string, after: string | null = null): Observable<Part<PlayerInfo> & { all: number; aside: readonly SetAsideInfo[] }> {
    return this.http
      .get<{ all: number; players: PlayerInfo[]; aside: SetAsideInfo[]; next: string | null }>(this.playersAt(ruleset), {
        params: from(after),
      })
      .pipe(map(({ players, ...rest }) => ({ items: players, ...rest })));
  }

  player(ruleset: string, name: string): Observable<StoredPlayer> {
    return this.http
      .get<Omit<StoredPlayer, 'etag'>>(this.playersAt(ruleset, name), { observe: 'response' })
      .pipe(map((response) => ({ ...response.body!, etag: response.headers.get('ETag') ?? '' })));
  }

  /** Keeps something of a player; without the ETag of what was read, of one who is not there yet. */
  keepPlayer(ruleset: string, name: string, saved: unknown, etag?: string): Observable<unknown> {
    return this.http.put(this.playersAt(ruleset, name), { saved }, { headers: etag === undefined ? {} : { 'If-Match': etag } });
  }

  deletePlayer(ruleset: string, name: string): Observable<unknown> {
    return this.http.delete(this.playersAt(ruleset, name));
  }

  deleteAside(ruleset: string, id: string): Observable<unknown> {
    return this.http.delete(`${this.playersAt(ruleset)}/aside/${encodeURIComponent(id)}`);
  }

  private playersAt(ruleset: string, name?: string): string {
    const all = `/api/rulesets/${encodeURIComponent(ruleset)}/players`;
    return name === undefined ? all : `${all}/${encodeURIComponent(name)}`;
  }

  rooms(ruleset: string, after: string | null = null): Observable<Part<RoomSummary>> {
    return this.http
      .get<{ rooms: RoomSummary[]; next: string | null }>('/api/rooms', { params: { ruleset, ...from(after) } })
      .pipe(map(({ rooms, next }) => ({ items: rooms, next })));
  }

  /** Closes a room for good, its join links with it. */
  closeRoom(id: string): Observable<unknown> {
    return this.http.delete(`/api/rooms/${encodeURIComponent(id)}`);
  }

  /** Gives a seat a new join link; the old one opens nothing any more. */
  renewLink(room: string, seat: string): Observable<SeatInfo> {
    return this.http.post<SeatInfo>(this.linkAt(room, seat), null);
  }

  /** Ends the join link of a seat. */
  endLink(room: string, seat: string): Observable<SeatInfo> {
    return this.http.delete<SeatInfo>(this.linkAt(room, seat));
  }

  private linkAt(room: string, seat: string): string {
    return `/api/rooms/${encodeURIComponent(room)}/seats/${encodeURIComponent(seat)}/link`;
  }

  createRoom(ruleset: string, seats = 2, party: readonly string[] = [], players: Players = 'guests'): Observable<RoomInfo> {
    return this.http.post<RoomInfo>('/api/rooms', { ruleset, seats, players, ...(party.length > 0 && { party }) });
  }

  room(id: string): Observable<RoomInfo> {
    return this.http.get<RoomInfo>(`/api/rooms/${encodeURIComponent(id)}`);
  }

  /** Who did what with a ruleset, the last first; without one, what is about none. */
  trail(ruleset: string | undefined, after: string | null = null): Observable<Part<TrailNote>> {
    return this.http
      .get<{ notes: TrailNote[]; next: string | null }>(this.trailAt(ruleset), { params: from(after) })
      .pipe(map(({ notes, next }) => ({ items: notes, next })));
  }

  /** The address of all of it as JSON lines. */
  trailLines(ruleset: string | undefined): string {
    return `${this.trailAt(ruleset)}/lines`;
  }

  private trailAt(ruleset: string | undefined): string {
    return ruleset === undefined ? '/api/trail' : `/api/rulesets/${encodeURIComponent(ruleset)}/trail`;
  }

  sessions(): Observable<readonly SessionInfo[]> {
    return this.http.get<{ sessions: SessionInfo[] }>('/api/sessions').pipe(map((body) => body.sessions));
  }

  endSession(key: string): Observable<unknown> {
    return this.http.delete(`/api/sessions/${encodeURIComponent(key)}`);
  }

  /** Signs this browser out. */
  signOut(): Observable<unknown> {
    return this.http.delete('/api/session');
  }

  seat(token: string): Observable<{ room: string; seat: string }> {
    return this.http.get<{ room: string; seat: string }>(`/api/join/${encodeURIComponent(token)}`);
  }
}
