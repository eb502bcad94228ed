import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatAutocompleteModule } from '@angular/material/autocomplete';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { Router } from '@angular/router';
import { Store } from '@ngrx/store';
import { CHAPTERS } from '../rulebook/chapters';
import { entriesOf } from '../rulebook/entries';
import { matching } from '../shared/matching';
import { EndOf, Growing } from '../shared/growing';
import { documentFeature } from '../store/document.reducer';

interface Hit {
  readonly label: string;
  readonly id: string;
  readonly chapter: string;
  readonly title: string;
}

/** Finds an entry by a part of its label or id, and goes there. */
@Component({
  selector: 'ee-search',
  imports: [MatDialogModule, MatAutocompleteModule, EndOf],
  template: `
    <mat-dialog-content>
      <input #box type="search" placeholder="Search entries" aria-label="Search entries" [value]="text()" (input)="find(box.value)" [matAutocomplete]="list" cdkFocusInitial />
      <span class="soft" role="status">{{ text().trim() === '' ? all().length + ' entries' : hits().length + ' of ' + all().length + ' entries' }}</span>
      <mat-autocomplete #list="matAutocomplete" [autoActiveFirstOption]="true" [displayWith]="shown" (optionSelected)="go($event.option.value)">
        @for (hit of hits().slice(0, growing.drawn()); track hit.chapter + '/' + hit.id) {
          <mat-option [value]="hit"
            ><span>{{ hit.label }}</span> <span class="mono soft">{{ hit.id }}</span> <span class="soft">{{ hit.title }}</span></mat-option
          >
        } @empty {
          <mat-option disabled>Nothing is called that.</mat-option>
        }
        @if (hits().length > growing.drawn()) {
          <span [eeEndOf]="growing"></span>
        }
      </mat-autocomplete>
    </mat-dialog-content>
  `,
  styles: `
    input {
      width: min(480px, 80vw);
      border: 0;
      border-bottom: 2px solid var(--ember);
      background: none;
      padding: 6px 120px 6px 2px;
      box-sizing: border-box;
      font: 18px var(--serif);
      outline: none;
    }
    input::-webkit-search-cancel-button {
      display: none;
    }
    [role='status'] {
      position: absolute;
      right: 30px;
      top: 30px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Search {
  private readonly document = inject(Store).selectSignal(documentFeature.selectDocument);
  private readonly ruleset = inject(Store).selectSignal(documentFeature.selectId);
  private readonly router = inject(Router);
  private readonly dialog = inject(MatDialogRef<Search>);
  readonly text = signal('');
  readonly shown = () => '';

  protected readonly growing = new Growing();

  protected readonly all = computed<readonly Hit[]>(() =>
    CHAPTERS.flatMap(({ key, title }) => entriesOf(this.document(), key).map(({ id, label }) => ({ id, label, chapter: key, title }))),
  );
  readonly hits = computed<readonly Hit[]>(() => matching(this.all(), this.text()));

  protected find(text: string): void {
    this.text.set(text);
    this.growing.restart();
  }

  go(hit: Hit): void {
    this.dialog.close();
    void this.router.navigate(['/r', this.ruleset(), 'rulebook', hit.chapter, hit.id]);
  }
}
