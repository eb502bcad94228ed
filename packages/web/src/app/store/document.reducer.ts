import { createActionGroup, createFeature, createReducer, emptyProps, on, props, createSelector } from '@ngrx/store';
import jsonPatch, { type Operation } from 'fast-json-patch';
import { create } from 'mutative';
import type { RulesetJson } from '../shared/api';
import { applied } from '../shared/patched';

/** A change to the document, with the way back. */
export interface Edit {
  /** What was done, for Undo's tooltip. */
  readonly label: string;
  readonly patch: readonly Operation[];
  readonly inverse: readonly Operation[];
}

/** The first of the pending edits that were sent as one: sent again as they were until it is known what came of them. */
export interface Batch {
  /** By which the server knows them again. */
  readonly key: string;
  readonly count: number;
}

/** Where the document stands towards the server. */
export type SaveState = 'saved' | 'unsaved' | 'saving' | 'offline' | 'conflict' | 'losing' | 'refused';

export interface DocumentState {
  readonly id: string | undefined;
  readonly document: RulesetJson | undefined;
  readonly revision: number;
  /** Edits that the server has not acknowledged; those of the batch are on their way, or may have come through. */
  readonly pending: readonly Edit[];
  readonly batch: Batch | undefined;
  readonly undo: readonly Edit[];
  readonly redo: readonly Edit[];
  readonly save: SaveState;
  /** What stands in the way of saving, in words. */
  readonly obstacle: string;
  /** Why the ruleset could not be opened. */
  readonly failure: string;
}

export const documentActions = createActionGroup({
  source: 'Document',
  events: {
    Open: props<{ id: string }>(),
    Opened: props<{ id: string; document: RulesetJson; revision: number; batch?: Batch }>(),
    'Open Failed': props<{ message: string }>(),
    Edit: props<{ edit: Edit }>(),
    Undo: emptyProps(),
    Redo: emptyProps(),
    Sending: props<{ batch: Batch }>(),
    /** The batch of this key is stored. Another ruleset may be open by then, or the same one anew. */
    Saved: props<{ key: string; revision: number }>(),
    /** `pending` where the edits in question are not in the state yet. */
    'Save Failed': props<{ id: string; save: SaveState; obstacle: string; pending?: readonly Edit[] }>(),
    /** Try to save again what could not be saved. */
    Retry: emptyProps(),
    /** The ruleset was edited elsewhere: put this session's edits on top of that. */
    Reapply: emptyProps(),
    /** Or drop them. */
    'Drop Mine': emptyProps(),
    /** Saved players lose something by the edits: have it so. */
    'Accept Losses': emptyProps(),
    Rebased: props<{ id: string; document: RulesetJson; revision: number; pending: readonly Edit[] }>(),
  },
});

const EMPTY: DocumentState = {
  id: undefined,
  document: undefined,
  revision: 0,
  pending: [],
  batch: undefined,
  undo: [],
  redo: [],
  save: 'saved',
  obstacle: '',
  failure: '',
};
const MOST_UNDO = 200;

/** An edit from a patch, its inverse worked out. @throws where the patch does not fit */
export function editOf(document: RulesetJson, patch: readonly Operation[], label: string): Edit {
  const [, , inverse] = create(document, (draft) => void jsonPatch.applyPatch(draft, structuredClone([...patch]), true, true), {
    enablePatches: { pathAsArray: false, arrayLengthAssignment: false },
  });
  return { label, patch, inverse: inverse as readonly Operation[] };
}

const reversed = ({ label, patch, inverse }: Edit): Edit => ({ label, patch: inverse, inverse: patch });

function perform(state: DocumentState, edit: Edit, undo: readonly Edit[], redo: readonly Edit[]): DocumentState {
  if (!state.document) return state;
  const save = state.save === 'conflict' || state.save === 'offline' || state.save === 'saving' ? state.save : 'unsaved';
  return {
    ...state,
    document: applied(state.document, edit.patch),
    pending: [...state.pending, edit],
    undo: undo.slice(-MOST_UNDO),
    redo,
    save,
  };
}

export const documentFeature = createFeature({
  name: 'document',
  reducer: createReducer(
    EMPTY,
    on(documentActions.open, (state, { id }) => (state.id === id && state.document ? state : { ...EMPTY, id })),
    on(documentActions.opened, (_, { id, document, revision, batch }) => ({ ...EMPTY, id, document, revision, batch })),
    on(documentActions.openFailed, (state, { message }) => ({ ...state, failure: message })),
    on(documentActions.edit, (state, { edit }) => perform(state, edit, [...state.undo, edit], [])),
    on(documentActions.undo, (state) => {
      const last = state.undo.at(-1);
      return last ? perform(state, reversed(last), state.undo.slice(0, -1), [...state.redo, last]) : state;
    }),
    on(documentActions.redo, (state) => {
      const next = state.redo.at(-1);
      return next ? perform(state, next, [...state.undo, next], state.redo.slice(0, -1)) : state;
    }),
    on(documentActions.sending, (state, { batch }) => ({ ...state, batch, save: 'saving' as const })),
    on(documentActions.saved, (state, { key, revision }) => {
      if (state.batch?.key !== key) return state;
      const pending = state.pending.slice(state.batch.count);
      return {
        ...state,
        revision,
        pending,
        batch: undefined,
        obstacle: '',
        save: pending.length > 0 ? ('unsaved' as const) : ('saved' as const),
      };
    }),
    on(documentActions.saveFailed, (state, { id, save, obstacle, pending }) =>
      state.id !== id
        ? state
        : {
            ...state,
            // What got no answer may have come through; what was refused did not.
            batch: save === 'offline' ? state.batch : undefined,
            save,
            obstacle,
            pending: pending ?? state.pending,
          },
    ),
    on(documentActions.rebased, (state, { id, document, revision, pending }) =>
      state.id !== id
        ? state
        : {
            ...state,
            document,
            revision,
            pending,
            batch: undefined,
            obstacle: '',
            save: pending.length > 0 ? ('unsaved' as const) : ('saved' as const),
            undo: pending.length > 0 ? state.undo : [],
            redo: [],
          },
    ),
  ),
  extraSelectors: ({ selectUndo, selectRedo, selectDocument }) => ({
    selectUndoLabel: createSelector(selectUndo, (undo) => undo.at(-1)?.label),
    selectRedoLabel: createSelector(selectRedo, (redo) => redo.at(-1)?.label),
    selectName: createSelector(selectDocument, (document) => (document?.['name'] as string | undefined) ?? ''),
  }),
});
