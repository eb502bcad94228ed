import { json, jsonParseLinter } from '@codemirror/lang-json';
import { HighlightStyle, syntaxHighlighting } from '@codemirror/language';
import { linter, type Diagnostic } from '@codemirror/lint';
import { EditorState, type Extension } from '@codemirror/state';
import { EditorView } from '@codemirror/view';
import { tags } from '@lezer/highlight';
import { basicSetup } from 'codemirror';

const look = EditorView.theme({
  '&': { fontSize: '12.5px', height: '100%', background: 'transparent', color: 'var(--ink)' },
  '.cm-scroller': { fontFamily: 'var(--mono)', lineHeight: '1.55' },
  '.cm-gutters': { background: 'transparent', color: 'var(--soft)', border: 'none' },
  '&.cm-focused': { outline: 'none' },
  '.cm-activeLine, .cm-activeLineGutter': { background: 'color-mix(in srgb, var(--leaf) 70%, transparent)' },
  '.cm-cursor': { borderLeftColor: 'var(--ember)' },
  '&.cm-focused .cm-selectionBackground, .cm-selectionBackground': { background: 'var(--ember-wash) !important' },
  '.cm-tooltip': { background: 'var(--paper)', border: '1px solid var(--hair)', color: 'var(--ink)' },
});

const colours = HighlightStyle.define([
  { tag: tags.propertyName, color: 'var(--ink)' },
  { tag: tags.string, color: 'var(--copy)' },
  { tag: tags.number, color: 'var(--ember)' },
  { tag: [tags.bool, tags.null], color: 'var(--brass)' },
  { tag: tags.invalid, color: 'var(--bad)' },
]);

/**
 * A JSON editor in a host element. `changed` hears of every edit by a person.
 * @public it is asked for by its module, which is loaded when it is needed
 */
export function jsonEditor(
  parent: HTMLElement,
  text: string,
  label: string,
  changed: (text: string) => void,
  more: Extension = [],
): EditorView {
  const parse = jsonParseLinter();
  const state = EditorState.create({
    doc: text,
    extensions: [
      basicSetup,
      json(),
      look,
      syntaxHighlighting(colours),
      EditorView.lineWrapping,
      EditorView.contentAttributes.of({ 'aria-label': label }),
      linter((view): Diagnostic[] => (view.state.doc.length === 0 ? [] : [...parse(view)])),
      EditorView.updateListener.of((update) => {
        if (update.docChanged && !update.transactions.some((t) => t.isUserEvent('ember.load'))) changed(update.state.doc.toString());
      }),
      more,
    ],
  });
  return new EditorView({ state, parent });
}

/**
 * Puts another text in, as something that was loaded rather than typed.
 * @public it is asked for by its module, which is loaded when it is needed
 */
export function load(view: EditorView, text: string): void {
  if (view.state.doc.toString() !== text)
    view.dispatch({ changes: { from: 0, to: view.state.doc.length, insert: text }, userEvent: 'ember.load' });
}
