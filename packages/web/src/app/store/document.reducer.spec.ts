import * as fc from 'fast-check';
import type { Operation } from 'fast-json-patch';
import { applied } from '../shared/patched';
import { documentActions, documentFeature, type DocumentState, editOf } from './document.reducer';
import { pendingStore } from './pending-store';

const DOCUMENT = { name: 'Trial', attributes: [{ id: 'suit', max: 100 }] };
const reduce = (state: DocumentState | undefined, ...actions: Parameters<typeof documentFeature.reducer>[1][]) =>
  actions.reduce(documentFeature.reducer, state!);
const opened = () =>
  reduce(undefined, documentActions.open({ id: 'r' }), documentActions.opened({ id: 'r', document: DOCUMENT, revision: 7 }));
const setMax = (state: DocumentState, value: number) =>
  documentActions.edit({ edit: editOf(state.document!, [{ op: 'replace', path: '/attributes/0/max', value }], `max ${value}`) });
const max = (state: DocumentState) => (state.document!['attributes'] as { max: number }[])[0].max;

describe('The document', () => {
  it('is edited, undone and redone', () => {
    let state = opened();
    state = reduce(state, setMax(state, 80));
    state = reduce(state, setMax(state, 60));
    expect([max(state), state.save, state.pending.length]).toEqual([60, 'unsaved', 2]);
    state = reduce(state, documentActions.undo());
    expect([max(state), state.undo.length, state.redo.length]).toEqual([80, 1, 1]);
    state = reduce(state, documentActions.redo(), documentActions.undo(), documentActions.undo(), documentActions.undo());
    expect([max(state), state.undo.length]).toEqual([100, 0]);
    state = reduce(state, setMax(state, 10));
    expect(state.redo).toEqual([]);
  });

  it('does not change what others hold of it', () => {
    const state = opened();
    reduce(state, setMax(state, 80));
    expect(DOCUMENT.attributes[0].max).toBe(100);
  });

  it('keeps edits made while others were on their way', () => {
    let state = opened();
    state = reduce(state, setMax(state, 80), documentActions.sending({ batch: { key: 'first', count: 1 } }));
    state = reduce(state, setMax(state, 60), documentActions.saved({ key: 'first', revision: 8 }));
    expect([state.revision, state.pending.length, state.save]).toEqual([8, 1, 'unsaved']);
    state = reduce(
      state,
      documentActions.sending({ batch: { key: 'second', count: 1 } }),
      documentActions.saved({ key: 'second', revision: 9 }),
    );
    expect([state.pending.length, state.save]).toEqual([0, 'saved']);
  });

  it('keeps all of them when saving fails, and says why', () => {
    let state = opened();
    state = reduce(
      state,
      setMax(state, 80),
      documentActions.sending({ batch: { key: 'first', count: 1 } }),
      documentActions.saveFailed({ id: 'r', save: 'conflict', obstacle: 'edited elsewhere' }),
    );
    state = reduce(state, setMax(state, 60));
    expect([state.pending.length, state.batch, state.save, state.obstacle]).toEqual([2, undefined, 'conflict', 'edited elsewhere']);
    const rebased = reduce(state, documentActions.rebased({ id: 'r', document: { name: 'Newer' }, revision: 12, pending: state.pending }));
    expect([rebased.revision, rebased.save, rebased.undo.length]).toEqual([12, 'unsaved', 2]);
    const dropped = reduce(state, documentActions.rebased({ id: 'r', document: { name: 'Newer' }, revision: 12, pending: [] }));
    expect([dropped.save, dropped.undo.length]).toEqual(['saved', 0]);
  });

  it('is not touched by what came of the edits of a ruleset that was left', () => {
    const sent = documentActions.sending({ batch: { key: 'first', count: 1 } });
    const other = reduce(
      opened(),
      documentActions.open({ id: 'other' }),
      documentActions.opened({ id: 'other', document: DOCUMENT, revision: 3 }),
    );
    const edited = reduce(other, setMax(other, 80), sent);
    for (const late of [
      documentActions.saved({ key: 'before', revision: 8 }),
      documentActions.saveFailed({ id: 'r', save: 'conflict', obstacle: 'edited elsewhere' }),
      documentActions.rebased({ id: 'r', document: { name: 'Newer' }, revision: 12, pending: [] }),
    ])
      expect(reduce(edited, late)).toBe(edited);
  });

  it('shares what an edit leaves as it is', () => {
    const document = { name: 'Trial', attributes: [{ id: 'suit' }], effects: [{ id: 'silt' }] };
    const edited = applied(document, [{ op: 'add', path: '/attributes/-', value: { id: 'oxygen' } }]);
    expect(edited['effects']).toBe(document.effects);
    expect(edited['attributes']).toEqual([{ id: 'suit' }, { id: 'oxygen' }]);
  });

  it('comes back to what it was by the inverse of any edit', () => {
    const entry = fc.record({ id: fc.string({ maxLength: 3 }), list: fc.array(fc.integer(), { maxLength: 3 }) });
    const step = fc.record({ kind: fc.constantFrom('add', 'remove', 'move', 'replace', 'inside'), from: fc.nat(9), to: fc.nat(9), entry });
    fc.assert(
      fc.property(fc.array(entry, { minLength: 1, maxLength: 5 }), fc.array(step, { minLength: 1, maxLength: 4 }), (entries, steps) => {
        const document = { name: 'Trial', entries };
        let count = entries.length;
        const patch = steps.flatMap(({ kind, from, to, entry: value }): Operation[] => {
          const at = `/entries/${from % Math.max(1, count)}`;
          if (kind === 'add' || count === 0) return [{ op: 'add', path: `/entries/${to % (count++ + 1)}`, value }];
          if (kind === 'remove') return [{ op: 'remove', path: `/entries/${from % count--}` }];
          if (kind === 'move') return [{ op: 'move', from: at, path: `/entries/${to % count}` }];
          return kind === 'replace' ? [{ op: 'replace', path: at, value }] : [{ op: 'add', path: `${at}/list/-`, value: to }];
        });
        const { inverse } = editOf(document, patch, 'any');
        expect(applied(applied(document, patch), inverse)).toEqual(document);
      }),
    );
  });

  it('refuses patches that do not fit', () => {
    expect(() => applied(DOCUMENT, [{ op: 'replace', path: '/attributes/3/max', value: 1 }])).toThrow();
  });
});

describe('Edits that are not saved yet', () => {
  it('outlive the page', () => {
    const edit = editOf(DOCUMENT, [{ op: 'replace', path: '/name', value: 'Other' }], 'rename');
    pendingStore.write('trial', { revision: 3, pending: [edit] });
    expect(pendingStore.read('trial')).toEqual({ revision: 3, pending: [edit] });
    pendingStore.write('trial', { revision: 4, pending: [] });
    expect(pendingStore.read('trial')).toBeUndefined();
    localStorage.setItem('eager-ember.pending.trial', 'not json');
    expect(pendingStore.read('trial')).toBeUndefined();
    localStorage.removeItem('eager-ember.pending.trial');
  });
});
