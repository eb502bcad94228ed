import { TestBed } from '@angular/core/testing';
import { provideStore, Store } from '@ngrx/store';
import { CoreClient } from '../shared/core-client';
import { documentActions, documentFeature } from './document.reducer';
import { Editor } from './editor';

describe('The editor', () => {
  const DOCUMENT = { name: 'Trial' };
  let editor: Editor;
  let store: Store;
  let answer: (document: { name: string }) => { path: string; message: string }[];

  beforeEach(() => {
    answer = () => [];
    const core = { check: (document: { name: string }) => Promise.resolve(answer(document)) };
    TestBed.configureTestingModule({
      providers: [provideStore({ [documentFeature.name]: documentFeature.reducer }), { provide: CoreClient, useValue: { core } }],
    });
    store = TestBed.inject(Store);
    editor = TestBed.inject(Editor);
    store.dispatch(documentActions.opened({ id: 'r', document: DOCUMENT, revision: 1 }));
  });
  const rename = (name: string) => editor.propose(() => [{ op: 'replace', path: '/name', value: name }], 'rename');

  it('does what is sound', async () => {
    expect(await rename('Other')).toEqual([]);
    expect(editor.document()!['name']).toBe('Other');
  });

  it('refuses what is not, and leaves the document as it was', async () => {
    answer = () => [{ path: '/name', message: 'No.' }];
    expect(await rename('Other')).toEqual([{ path: '/name', message: 'No.' }]);
    expect(editor.document()).toEqual(DOCUMENT);
  });

  it('takes one edit after the other, each on what the one before left', async () => {
    const add = (letter: string) =>
      editor.propose((document) => [{ op: 'replace', path: '/name', value: String(document['name']) + letter }], 'add');
    await Promise.all([add('a'), add('b'), add('c')]);
    expect(editor.document()!['name']).toBe('Trialabc');
  });

  it('tries again on the new document when an undo came in between', async () => {
    await rename('First');
    answer = () => {
      answer = () => [];
      store.dispatch(documentActions.undo());
      return [];
    };
    await editor.propose((document) => [{ op: 'replace', path: '/name', value: `${String(document['name'])} again` }], 'add');
    expect(editor.document()!['name']).toBe('Trial again');
  });
});
