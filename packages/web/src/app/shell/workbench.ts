import type { HttpErrorResponse } from '@angular/common/http';
import { ChangeDetectionStrategy, Component, computed, DestroyRef, effect, inject, input, signal } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { MatTooltip } from '@angular/material/tooltip';
import { Router, RouterLink, RouterLinkActive, RouterOutlet } from '@angular/router';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { Api, failureOf } from '../shared/api';
import { isTyping } from '../shared/keys';
import { Theme } from '../shared/theme';
import { KeptRefusals } from '../rulebook/spec/kept-refusals';
import { documentActions, documentFeature } from '../store/document.reducer';
import { Editor } from '../store/editor';
import { Findings } from '../store/findings';
import { CheckResults } from '../checks/check-results';
import { OpenRoom } from '../playtest/open-room';

/** The frame: one thin bar above, one strip below, a workplace between them. */
@Component({
  selector: 'ee-workbench',
  imports: [RouterOutlet, RouterLink, RouterLinkActive, MatTooltip],
  templateUrl: './workbench.html',
  styleUrl: './workbench.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(document:keydown)': 'key($event)' },
})
export class Workbench {
  readonly id = input.required<string>();
  private readonly store = inject(Store);
  private readonly dialog = inject(MatDialog);
  private readonly router = inject(Router);
  private readonly api = inject(Api);
  protected readonly theme = inject(Theme);
  protected readonly findings = inject(Findings);
  protected readonly checks = inject(CheckResults);
  protected readonly openRoom = inject(OpenRoom);
  protected readonly room = computed(() => this.openRoom.of(this.id()));
  protected readonly state = this.store.selectSignal(documentFeature.selectDocumentState);
  protected readonly name = this.store.selectSignal(documentFeature.selectName);
  protected readonly undoLabel = this.store.selectSignal(documentFeature.selectUndoLabel);
  protected readonly redoLabel = this.store.selectSignal(documentFeature.selectRedoLabel);
  private readonly editor = inject(Editor);
  /** Why no room could be opened. */
  protected readonly playRefusal = signal('');

  protected readonly saveWords = computed(() => {
    const { save, revision, pending } = this.state();
    switch (save) {
      case 'saved':
        return `saved · rev ${revision}`;
      case 'saving':
      case 'unsaved':
        return 'saving …';
      case 'offline':
        return `${pending.length} ${pending.length === 1 ? 'edit' : 'edits'} not saved yet`;
      case 'conflict':
        return 'edited elsewhere';
      case 'losing':
      case 'refused':
        return 'not saved';
    }
  });

  constructor() {
    const kept = inject(KeptRefusals);
    effect(() => {
      this.store.dispatch(documentActions.open({ id: this.id() }));
      kept.clear();
    });
    inject(DestroyRef).onDestroy(() => this.openRoom.close());
  }

  protected undo(): void {
    this.store.dispatch(documentActions.undo());
  }

  protected redo(): void {
    this.store.dispatch(documentActions.redo());
  }

  protected reapply(): void {
    this.store.dispatch(documentActions.reapply());
  }

  protected drop(): void {
    this.store.dispatch(documentActions.dropMine());
  }

  protected acceptLosses(): void {
    this.store.dispatch(documentActions.acceptLosses());
  }

  protected retry(): void {
    this.store.dispatch(documentActions.retry());
  }

  protected openAgain(): void {
    this.store.dispatch(documentActions.open({ id: this.id() }));
  }

  protected async search(): Promise<void> {
    const { Search } = await import('./search');
    this.dialog.open(Search, { autoFocus: '[cdkFocusInitial]' });
  }

  protected async openFindings(): Promise<void> {
    const { FindingsList } = await import('./findings-list');
    this.dialog.open(FindingsList);
  }

  protected async help(): Promise<void> {
    const { Help } = await import('./help');
    this.dialog.open(Help);
  }

  protected async rename(name: string): Promise<void> {
    const wanted = name.trim();
    if (wanted !== '' && wanted !== this.name())
      await this.editor.propose(() => [{ op: 'replace', path: '/name', value: wanted }], 'rename the ruleset');
  }

  protected leave(): void {
    this.openRoom.close();
    if (this.router.url.includes('/playtest/')) void this.router.navigate(['/r', this.id(), 'playtest']);
  }

  protected async play(): Promise<void> {
    try {
      const room = this.room() ?? (await firstValueFrom(this.api.createRoom(this.id()))).id;
      this.playRefusal.set('');
      await this.router.navigate(['/r', this.id(), 'playtest', room]);
    } catch (error) {
      const { title, detail } = failureOf(error as HttpErrorResponse);
      this.playRefusal.set(`${title}. ${detail}`);
    }
  }

  protected key(event: KeyboardEvent): void {
    const control = event.ctrlKey || event.metaKey;
    const letter = event.key.toLowerCase();
    if (control && letter === 'k') {
      event.preventDefault();
      void this.search();
    } else if (isTyping(event)) return;
    else if (control && letter === 'z') {
      event.preventDefault();
      if (event.shiftKey) this.redo();
      else this.undo();
    } else if (control && letter === 'y') {
      event.preventDefault();
      this.redo();
    } else if (control || event.altKey) return;
    else if (event.key === '?') void this.help();
    else if (letter === 'p' && !this.router.url.includes('/playtest/')) void this.play();
  }
}
