import type { HttpErrorResponse } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { type Action, Store } from '@ngrx/store';
import type { Operation } from 'fast-json-patch';
import {
  catchError,
  concat,
  debounceTime,
  distinctUntilChanged,
  EMPTY,
  filter,
  from,
  map,
  mergeMap,
  type Observable,
  of,
  pairwise,
  switchMap,
  tap,
  timer,
  withLatestFrom,
} from 'rxjs';
import { Api, failureOf, type PlayerLoss, type RulesetJson, type StoredRuleset } from '../shared/api';
import { CoreClient } from '../shared/core-client';
import { applied } from '../shared/patched';
import { documentActions, documentFeature, type DocumentState, type Edit } from './document.reducer';
import { pendingStore } from './pending-store';

/** How long an edit waits for the next before both are sent. */
const GATHER_MS = 120;
const RETRY_MS = 2000;

/** Carries the document to the server and back. Edits are kept until the server has them, also over a reload. */
@Injectable()
export class DocumentEffects {
  private readonly actions = inject(Actions);
  private readonly api = inject(Api);
  private readonly client = inject(CoreClient);
  private readonly store = inject(Store);
  private readonly state = this.store.select(documentFeature.selectDocumentState);

  readonly open = createEffect(() =>
    this.actions.pipe(
      ofType(documentActions.open),
      withLatestFrom(this.state),
      filter(([, state]) => state.document === undefined),
      switchMap(([{ id }]) =>
        this.api.ruleset(id).pipe(
          switchMap((stored) => this.opened(stored)),
          catchError((error: HttpErrorResponse) => of(openFailed(error))),
        ),
      ),
    ),
  );

  /** What an earlier page could not save is put on top, or waits for a decision where the ruleset moved on meanwhile. */
  private opened({ id, document, revision }: StoredRuleset): Observable<Action> {
    const kept = pendingStore.read(id);
    if (!kept || kept.pending.length === 0) return of(documentActions.opened({ id, document, revision }));
    const { pending, batch } = kept;
    if (kept.revision === revision)
      return from([
        documentActions.opened({ id, document, revision, ...(batch && { batch }) }),
        ...pending.map((edit) => documentActions.edit({ edit })),
      ]);
    // It is opened together with what is put on top: what was kept is not forgotten in between.
    const onTop = (edits: readonly Edit[]) =>
      this.rebase({ id, document, revision }, edits).pipe(
        switchMap((result) => from([documentActions.opened({ id, document, revision }), result])),
      );
    if (!batch) return onTop(pending);
    // What was sent last may be what moved it on: the document has it then, and only what came after is to be put on top.
    const sentAgain = this.api.patch(id, kept.revision, operationsOf(pending.slice(0, batch.count)), batch.key).pipe(
      map(() => pending.slice(batch.count)),
      catchError(() => of(pending)),
    );
    return sentAgain.pipe(switchMap(onTop));
  }

  readonly save = createEffect(() =>
    this.actions.pipe(
      ofType(
        documentActions.edit,
        documentActions.undo,
        documentActions.redo,
        documentActions.saved,
        documentActions.retry,
        documentActions.rebased,
      ),
      debounceTime(GATHER_MS),
      withLatestFrom(this.state),
      // What is on its way of another ruleset holds nothing up.
      filter(([, state]) => state.pending.length > 0 && state.save !== 'conflict' && state.save !== 'saving'),
      mergeMap(([, state]) => this.send(state)),
    ),
  );

  /** What saved players lose has been shown, and is to be so. */
  readonly acceptLosses = createEffect(() =>
    this.actions.pipe(
      ofType(documentActions.acceptLosses),
      withLatestFrom(this.state),
      filter(([, state]) => state.pending.length > 0 && state.save === 'losing'),
      mergeMap(([, state]) => this.send(state, true)),
    ),
  );

  /** What got no answer is sent again as it was: the server may have stored it. */
  private send({ id, revision, pending, ...state }: DocumentState, acceptLosses = false): Observable<Action> {
    const batch = state.batch ?? { key: newKey(), count: pending.length };
    const sent = this.api.patch(id!, revision, operationsOf(pending.slice(0, batch.count)), batch.key, acceptLosses).pipe(
      map((answer) => documentActions.saved({ key: batch.key, revision: answer.revision })),
      catchError((error: HttpErrorResponse) => of(saveFailed(id!, error))),
    );
    return concat(of(documentActions.sending({ batch })), sent);
  }

  /** What was not saved yet of a ruleset as another one is opened is saved behind it. */
  readonly leave = createEffect(
    () =>
      this.state.pipe(
        pairwise(),
        filter(([left, { id }]) => left.id !== id && left.pending.length > 0 && ['unsaved', 'saving', 'offline'].includes(left.save)),
        mergeMap(([left]) => this.sendBehind(left)),
      ),
    { dispatch: false },
  );

  /** What comes of it stands in what is kept: there it is found where it did not come through, or the ruleset is opened again before. */
  private sendBehind({ id, revision, pending, ...left }: DocumentState): Observable<unknown> {
    const batch = left.batch ?? { key: newKey(), count: pending.length };
    pendingStore.write(id!, { revision, pending, batch });
    return this.api.patch(id!, revision, operationsOf(pending.slice(0, batch.count)), batch.key).pipe(
      withLatestFrom(this.state),
      filter(([, state]) => state.id !== id),
      switchMap(([answer]) => {
        const rest = { revision: answer.revision, pending: pending.slice(batch.count), batch: undefined };
        pendingStore.write(id!, rest);
        return rest.pending.length > 0 ? this.sendBehind({ ...left, id, ...rest }) : EMPTY;
      }),
      catchError(() => EMPTY),
    );
  }

  /** An edit made while another was on its way is sent when that one is through. */
  readonly retry = createEffect(() =>
    this.actions.pipe(
      ofType(documentActions.saveFailed),
      filter(({ save }) => save === 'offline'),
      switchMap(() => timer(RETRY_MS).pipe(map(() => documentActions.retry()))),
    ),
  );

  readonly reapply = createEffect(() =>
    this.actions.pipe(
      ofType(documentActions.reapply),
      withLatestFrom(this.state),
      switchMap(([, { id, pending }]) =>
        this.api.ruleset(id!).pipe(
          switchMap((stored) => this.rebase(stored, pending)),
          catchError((error: HttpErrorResponse) => of(saveFailed(id!, error))),
        ),
      ),
    ),
  );

  readonly drop = createEffect(() =>
    this.actions.pipe(
      ofType(documentActions.dropMine),
      withLatestFrom(this.state),
      switchMap(([, { id }]) =>
        this.api.ruleset(id!).pipe(
          map(({ document, revision }) => documentActions.rebased({ id: id!, document, revision, pending: [] })),
          catchError((error: HttpErrorResponse) => of(saveFailed(id!, error))),
        ),
      ),
    ),
  );

  /** Puts edits on a newer document, where they fit and leave it sound. */
  private rebase({ id, document, revision }: StoredRuleset, pending: readonly Edit[]): Observable<Action> {
    let rebased: RulesetJson;
    try {
      rebased = pending.reduce((doc, edit) => applied(doc, edit.patch), document);
    } catch {
      return of(
        documentActions.saveFailed({
          id,
          save: 'conflict',
          pending,
          obstacle: `Your edits don’t fit revision ${revision} any more: what they changed has moved or gone.`,
        }),
      );
    }
    return from(this.client.core.check(rebased)).pipe(
      map((problems) =>
        problems.length === 0
          ? documentActions.rebased({ id, document: rebased, revision, pending })
          : documentActions.saveFailed({
              id,
              save: 'conflict',
              pending,
              obstacle: `On revision ${revision} your edits would not be sound: ${problems[0].path}: ${problems[0].message}`,
            }),
      ),
    );
  }

  readonly keep = createEffect(
    () =>
      this.state.pipe(
        filter((state) => state.document !== undefined),
        distinctUntilChanged((a, b) => a.pending === b.pending && a.revision === b.revision && a.batch === b.batch),
        tap(({ id, revision, pending, batch }) => pendingStore.write(id!, { revision, pending, batch })),
      ),
    { dispatch: false },
  );
}

const operationsOf = (edits: readonly Edit[]) => edits.flatMap(({ patch }) => patch) as Operation[];

/** A key that no other edit has. */
const newKey = () => Array.from(crypto.getRandomValues(new Uint32Array(4)), (part) => part.toString(16).padStart(8, '0')).join('');

function openFailed(error: HttpErrorResponse): Action {
  const { status, title, detail } = failureOf(error);
  return documentActions.openFailed({
    message:
      status === 401
        ? 'You are not signed in. “npx ember link” on the machine of the server prints a link that signs you in.'
        : `${title}. ${detail}`,
  });
}

function saveFailed(id: string, error: HttpErrorResponse): Action {
  const { status, title, detail, revision, problems, losses } = failureOf(error);
  if (status === 412)
    return documentActions.saveFailed({
      id,
      save: 'conflict',
      obstacle: `This ruleset was edited elsewhere: it is at revision ${revision} now.`,
    });
  if (status === 409 && losses.length > 0) return documentActions.saveFailed({ id, save: 'losing', obstacle: lossWords(losses) });
  if (status === 503)
    return documentActions.saveFailed({
      id,
      save: 'offline',
      obstacle: 'The database can’t be reached. Your edits are kept here and are saved when it is back.',
    });
  if (status === 0 || status === 502 || status === 504 || status === 429)
    return documentActions.saveFailed({
      id,
      save: 'offline',
      obstacle: 'The server can’t be reached. Your edits are kept here and are saved when it is back.',
    });
  if (status === 401)
    return documentActions.saveFailed({
      id,
      save: 'offline',
      obstacle: 'You are signed out. Open the link that npm start prints; your edits are kept here.',
    });
  const first = problems[0] ? `${problems[0].path}: ${problems[0].message}` : detail;
  return documentActions.saveFailed({ id, save: 'refused', obstacle: `The server refused this: ${title}. ${first}` });
}

/** What players would lose, in a sentence: the first few, and how many there are. */
function lossWords(losses: readonly PlayerLoss[]): string {
  const players = new Set(losses.map(({ player }) => player));
  const said = losses
    .slice(0, 3)
    .map(({ player, label, had, has }) => `${player}: ${label} ${short(had)} → ${has === undefined ? 'nothing' : short(has)}`)
    .join('; ');
  const more = losses.length > 3 ? `; and ${losses.length - 3} more` : '';
  return `Not saved yet: ${players.size === 1 ? 'a saved player' : `${players.size} saved players`} would lose something by this. ${said}${more}.`;
}

const short = (value: number | string) => (typeof value === 'number' ? Math.round(value * 10) / 10 : value);
