import { inject, Injectable } from '@angular/core';
import type { Problem, Renaming } from '@eager-ember/core';
import { Store } from '@ngrx/store';
import { Mutex } from 'async-mutex';
import type { Operation } from 'fast-json-patch';
import type { RulesetJson } from '../shared/api';
import { CoreClient } from '../shared/core-client';
import { applied } from '../shared/patched';
import { documentActions, documentFeature, editOf } from './document.reducer';

/** Works out an edit from a document; it may be asked again, where the document changed meanwhile. */
export type Patch = (document: RulesetJson) => readonly Operation[] | Promise<readonly Operation[]>;

/** Thrown by who works out an edit, where there is none: it says why, to who proposed it. */
export class Refused extends Error {}

/** What a renaming comes to, as an edit. */
export function patchOf({ patch, problem }: Renaming): readonly Operation[] {
  if (!patch) throw new Refused(problem);
  return patch as readonly Operation[];
}

/** The one way to edit the document: an edit that would leave it unsound is refused, and the old value keeps working. */
@Injectable({ providedIn: 'root' })
export class Editor {
  private readonly store = inject(Store);
  private readonly client = inject(CoreClient);
  readonly document = this.store.selectSignal(documentFeature.selectDocument);
  private readonly turns = new Mutex();

  /** Proposes an edit, made from the document as it is by then. Resolves with what is wrong with it; nothing means that it is done. */
  propose(make: Patch, label: string): Promise<readonly Problem[]> {
    return this.turns.runExclusive(() => this.tryOut(make, label));
  }

  /** Resolves when every edit that was proposed before has been decided: for who works out an edit from the whole document. */
  async settled(): Promise<void> {
    await this.turns.runExclusive(() => undefined);
  }

  private async tryOut(make: Patch, label: string): Promise<readonly Problem[]> {
    const document = this.document();
    if (!document) return [{ path: '', message: 'No ruleset is open.' }];
    let patch: readonly Operation[];
    let edited: RulesetJson;
    try {
      patch = await make(document);
      if (patch.length === 0) return [];
      edited = applied(document, patch);
    } catch (error) {
      return [{ path: '', message: error instanceof Refused ? error.message : 'What was to be changed is not there any more.' }];
    }
    const problems = await this.client.core.check(edited);
    // An undo may have come in between: then the patch was checked against a document that is no more.
    if (this.document() !== document) return this.tryOut(make, label);
    if (problems.length === 0) this.store.dispatch(documentActions.edit({ edit: editOf(document, patch, label) }));
    return problems;
  }
}
