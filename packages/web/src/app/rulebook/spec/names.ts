import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { entriesOf } from '../entries';
import { Part } from './part';
import { MANY, Pick } from './pick';
import { SpecContext } from './spec-context';

/** A list of names in a sentence: each can be changed, emptied to take it out, and others picked to join it. */
@Component({
  selector: 'ee-names',
  imports: [MatMenuModule, Part, Pick],
  template: `
    @for (id of list(); track $index) {
      <ee-part [at]="at() + '/' + $index" [label]="label()" empty="none" />{{ $last ? '' : ', ' }}
    }
    @if (others().length > MANY) {
      &ngsp;<ee-pick [options]="others()" [label]="(list().length === 0 ? 'pick: add ' : 'Add ') + label()" [says]="list().length === 0 ? 'pick' : '+'" (picked)="add($event)" />
    } @else if (others().length > 0) {
      &ngsp;<button type="button" class="more" [matMenuTriggerFor]="menu" [attr.aria-label]="(list().length === 0 ? 'pick: add ' : 'Add ') + label()">{{ list().length === 0 ? 'pick' : '+' }}</button>
      <mat-menu #menu="matMenu">
        @for (other of others(); track other.id) {
          <button mat-menu-item (click)="add(other.id)">{{ other.label }}</button>
        }
      </mat-menu>
    }
  `,
  styles: `
    .more {
      color: var(--ember);
      font: 600 13px var(--sans);
      padding: 0 4px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Names {
  readonly at = input.required<string>();
  readonly label = input.required<string>();
  protected readonly MANY = MANY;
  private readonly context = inject(SpecContext);
  private readonly chapter = computed(() => {
    const field = this.context.described(this.at());
    return field?.kind === 'list' && field.of.kind === 'reference' ? field.of.chapter : '';
  });
  protected readonly list = computed(() => (this.context.value(this.at()) as readonly string[] | undefined) ?? []);
  protected readonly others = computed(() =>
    entriesOf(this.context.document(), this.chapter()).filter(({ id }) => !this.list().includes(id)),
  );

  protected add(id: string): void {
    void this.context.revise(this.at(), (now) => [...new Set([...((now as readonly string[] | undefined) ?? []), id])]);
  }
}
