import { computed, inject, Injectable, signal } from '@angular/core';
import { Router } from '@angular/router';
import { Store } from '@ngrx/store';
import { patched } from '../../shared/patched';
import { documentFeature } from '../../store/document.reducer';
import type { FieldDescription, Problem, WordOption } from '@eager-ember/core';
import type { Operation } from 'fast-json-patch';
import { Editor } from '../../store/editor';
import type { RulesetJson } from '../../shared/api';
import { entriesOf, type EntryJson, isGiven, writtenIn } from '../entries';
import { Descriptions, fieldAt } from './described';
import { meantPath, valueAt } from './meant-path';

/** A field's next value, from the one that it has. */
export type Revision = (now: unknown) => unknown;
/** An edit at a field: where that is, and what it has. */
export type EditAt = (path: string, now: unknown) => readonly Operation[];

/** What an edit makes of a field, for who keeps what is edited in one piece. */
export const asRevision =
  (make: EditAt): Revision =>
  (now) => {
    const operations = make('/value', now);
    return operations.length === 0
      ? now
      : (patched({ value: now } as Partial<RulesetJson> as RulesetJson, operations) as { value?: unknown }).value;
  };

/** The entry that a spec speaks of, and how its parts read and change it. Provided by the page. */
@Injectable()
export class SpecContext {
  private readonly editor = inject(Editor);
  private readonly router = inject(Router);
  protected readonly descriptions = inject(Descriptions);
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
    return valueAt(this.whole(), at);
  }

  /** What it is that the parts speak of, as the schema describes it. */
  protected shape(): FieldDescription | undefined {
    return this.descriptions.of(this.chapter());
  }

  /** All of what the parts speak of. */
  protected whole(): unknown {
    return this.entry();
  }

  /** What can stand at a path, as the schema says; undefined until that is known. */
  described(at: string): FieldDescription | undefined {
    return fieldAt(this.shape(), this.whole(), at);
  }

  /** The words that can stand in a place, or in each of a list. */
  options(at: string): readonly WordOption[] {
    const field = this.described(at);
    const one = field?.kind === 'list' ? field.of : field;
    return one?.kind === 'word' || one?.kind === 'shapes' ? one.options : [];
  }

  /** Sets a field, or takes it out where the value is undefined. Resolves with what is wrong with that. */
  set(at: string, value: unknown): Promise<readonly Problem[]> {
    return this.revise(at, () => value);
  }

  /** Makes a field's value from the one that is there once the edits before this one are through; undefined takes it out. */
  revise(at: string, make: Revision): Promise<readonly Problem[]> {
    return this.changeAt(at, (path, now): readonly Operation[] => {
      const value = make(now);
      if (value === undefined) return now === undefined ? [] : [{ op: 'remove', path }];
      if (JSON.stringify(now) === JSON.stringify(value)) return [];
      return [{ op: now === undefined ? 'add' : 'replace', path, value }];
    });
  }

  /** Proposes an edit at a field: where that is by then, and what it has. */
  changeAt(at: string, make: EditAt): Promise<readonly Problem[]> {
    const [entry, place] = [this.entry(), meantPath(this.entry(), at)];
    return this.change(`${entry?.label ?? this.id()}: ${at.replace(/\//g, ' ')}`, (base, _, now) => {
      const where = place(now);
      if (where === undefined) throw new Error(`${at} is gone`);
      return make(`${base}/${where}`, valueAt(now, where));
    });
  }

  /**
   * The id under which an entry that is meant now stands in a document later. An edit waits its turn, and a renaming before
   * it may have given the entry another id: it is then the one in its place that is called the same.
   */
  private meant(): (document: RulesetJson) => string {
    const [chapter, id, index, label] = [this.chapter(), this.id(), this.index(), this.entry()?.label];
    return (document) => {
      const entries = entriesOf(document, chapter);
      const there = entries.some((entry) => entry.id === id) ? undefined : entries[index];
      return there?.label === label && there !== undefined ? there.id : id;
    };
  }

  /** Proposes any edit of this entry, by operations whose paths begin at the entry. It gets the entry as it is by then. */
  change(
    label: string,
    make: (base: string, document: RulesetJson, entry: EntryJson) => readonly Operation[],
  ): Promise<readonly Problem[]> {
    const [chapter, meant] = [this.chapter(), this.meant()];
    return this.editor.propose((document) => {
      const id = meant(document);
      const entry = entriesOf(document, chapter).find((one) => one.id === id);
      const { index, written } = placeOf(document, chapter, id);
      if (index < 0 || !entry) return [];
      const operations = make(`/${chapter}/${index}`, document, entry);
      return operations.length === 0 ? [] : [...written, ...operations];
    }, label);
  }
}

/** Where an entry stands, and what writes it down first where it is only given. */
function placeOf(document: RulesetJson, chapter: string, id: string): { readonly index: number; readonly written: readonly Operation[] } {
  const own = writtenIn(document, chapter);
  if (!isGiven(document, chapter, id)) return { index: own.findIndex((entry) => entry.id === id), written: [] };
  const value = entriesOf(document, chapter).find((entry) => entry.id === id)!;
  return {
    index: own.length,
    written: [chapter in document ? { op: 'add', path: `/${chapter}/-`, value } : { op: 'add', path: `/${chapter}`, value: [value] }],
  };
}
