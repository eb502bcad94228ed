import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { SpecContext } from '../spec/spec-context';

/** The colour that a value is drawn in, as a piece of a sentence. Alt with Delete, or its ×, takes it out. */
@Component({
  selector: 'ee-colour',
  template: `
    <input #field type="color" aria-label="colour" [value]="colour()" (change)="set(field.value)" (keydown.alt.delete)="set(undefined)" />
    <button type="button" class="out" (click)="set(undefined)" aria-label="Take out: colour">×</button>
  `,
  styles: `
    input {
      width: 30px;
      height: 17px;
      padding: 0;
      border: 1px solid var(--hair);
      border-radius: 3px;
      background: none;
      vertical-align: -2px;
      cursor: pointer;
    }
    .out {
      color: var(--soft);
      font: 14px var(--sans);
      padding: 0 3px;
      opacity: 0.55;
    }
    .out:hover,
    .out:focus-visible {
      color: var(--bad);
      opacity: 1;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Colour {
  private readonly context = inject(SpecContext);
  protected readonly colour = computed(() => String(this.context.value('colour') ?? '#000000'));

  protected set(value: string | undefined): void {
    void this.context.set('colour', value);
  }
}
