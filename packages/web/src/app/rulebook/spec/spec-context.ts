import { computed, inject, Injectable, signal } from '@angular/core';
import { Router } from '@angular/router';
import { Store } from '@ngrx/store';
import { documentFeature } from '../../store/document.reducer';
import type { Problem } from '@eager-ember/core';
import type { Operation } from 'fast-json-patch';
import { Editor } from '../../store/editor';
import type { RulesetJson } from '../../shared/api';
import { entriesOf } from '../chapters';

/** The entry that a spec speaks of, and how its parts read and change it. Provided by the page. */
@Injectable()
export class SpecContext {
  private readonly editor = inject(Editor);
  private readonly router = inject(Router);
  private readonly ruleset = inject(Store).selectSignal(documentFeature.selectId);
  readonly chapter = signal('');
  readonly id = signal('');
  readonly document = this.editor.document;
  readonly index = computed(() => entriesOf(this.document(), this.chapter()).findIndex((entry) => entry.id === this.id()));
  readonly entry = computed(() => entriesOf(this.document(), this.chapter())[this.index()]);

  /** Opens another entry. */
  go(chapter: string, id: string): void {
    void this.router.navigate(['/r', this.ruleset(), 'rulebook', chapter, id]);
  }

  /** The value at a path below the entry: `refill/rate`. */
  value(at: string): unknown {
    return at.split('/').reduce<unknown>((value, key) => (value as Record<string, unknown> | undefined)?.[key], this.entry());
  }

  /** Sets a field, or takes it out where the value is undefined. Resolves with what is wrong with that. */
  set(at: string, value: unknown): Promise<readonly Problem[]> {
    const [chapter, id] = [this.chapter(), this.id()];
    return this.editor.propose(
      (document) => patchFor(document, chapter, id, at, value),
      `${this.entry()?.label ?? id}: ${at.replace(/\//g, ' ')}`,
    );
  }

  /** Proposes any edit of this entry, by operations whose paths begin at the entry. */
  change(label: string, make: (base: string, document: RulesetJson) => readonly Operation[]): Promise<readonly Problem[]> {
    const [chapter, id] = [this.chapter(), this.id()];
    return this.editor.propose((document) => {
      const index = entriesOf(document, chapter).findIndex((entry) => entry.id === id);
      return index < 0 ? [] : make(`/${chapter}/${index}`, document);
    }, label);
  }
}

function patchFor(document: RulesetJson, chapter: string, id: string, at: string, value: unknown): readonly Operation[] {
  const index = entriesOf(document, chapter).findIndex((entry) => entry.id === id);
  if (index < 0) return [];
  const path = `/${chapter}/${index}/${at}`;
  const present = at
    .split('/')
    .reduce<unknown>((v, key) => (v as Record<string, unknown> | undefined)?.[key], entriesOf(document, chapter)[index]);
  if (value === undefined) return present === undefined ? [] : [{ op: 'remove', path }];
  if (JSON.stringify(present) === JSON.stringify(value)) return [];
  return [{ op: present === undefined ? 'add' : 'replace', path, value }];
}
