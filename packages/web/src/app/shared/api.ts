import { HttpClient, type HttpErrorResponse, type HttpInterceptorFn } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import type { KeptSheet, Problem, SavedPlayer } from '@eager-ember/core';
import type { Operation } from 'fast-json-patch';
import { map, type Observable } from 'rxjs';

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

export interface RoomInfo {
  readonly id: string;
  readonly ruleset: string;
  readonly seats: readonly { readonly name: string; readonly team: string | null; readonly join: string }[];
}

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
  readonly sheet: KeptSheet;
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

  rulesets(): Observable<readonly RulesetSummary[]> {
    return this.http.get<{ rulesets: RulesetSummary[] }>('/api/rulesets').pipe(map((body) => body.rulesets));
  }

  create(body: { name: string } | { document: RulesetJson }): Observable<StoredRuleset> {
    return this.http.post<StoredRuleset>('/api/rulesets', body);
  }

  ruleset(id: string): Observable<StoredRuleset> {
    return this.http.get<StoredRuleset>(`/api/rulesets/${encodeURIComponent(id)}`);
  }

  /** @param acceptLosses what saved players lose by it has been shown */
  patch(id: string, revision: number, patch: readonly Operation[], acceptLosses = false): Observable<{ revision: number }> {
    return this.http.patch<{ revision: number }>(`/api/rulesets/${encodeURIComponent(id)}`, patch, {
      headers: { 'If-Match': `"${revision}"`, ...(acceptLosses && { 'X-Losses': 'accept' }) },
    });
  }

  players(ruleset: string): Observable<{ all: number; players: readonly PlayerInfo[]; aside: readonly SetAsideInfo[] }> {
    return this.http.get<{ all: number; players: PlayerInfo[]; aside: SetAsideInfo[] }>(this.playersAt(ruleset));
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

  rooms(ruleset: string): Observable<readonly { id: string; createdAt: string; open: boolean }[]> {
    return this.http
      .get<{ rooms: { id: string; createdAt: string; open: boolean }[] }>('/api/rooms', { params: { ruleset } })
      .pipe(map((body) => body.rooms));
  }

  createRoom(ruleset: string, seats = 2, party: readonly string[] = []): Observable<RoomInfo> {
    return this.http.post<RoomInfo>('/api/rooms', { ruleset, seats, ...(party.length > 0 && { party }) });
  }

  room(id: string): Observable<RoomInfo> {
    return this.http.get<RoomInfo>(`/api/rooms/${encodeURIComponent(id)}`);
  }

  seat(token: string): Observable<{ room: string; seat: string }> {
    return this.http.get<{ room: string; seat: string }>(`/api/join/${encodeURIComponent(token)}`);
  }
}
