import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import type { WordOption } from '@eager-ember/core';

/** One of a few ways in which something can be: what changes with the choice is more than one value. */
export type Way = WordOption;

/** A live word of a sentence that is picked from a list; the page brings about what the choice takes. */
@Component({
  selector: 'ee-choose',
  imports: [MatMenuModule],
  template: `
    <button type="button" class="part word" [matMenuTriggerFor]="menu" [attr.aria-label]="label() + ': ' + shown()">{{ shown() }}</button>
    <mat-menu #menu="matMenu" class="ways">
      @for (way of ways(); track way.value) {
        <button mat-menu-item (click)="chosen.emit(way.value)" [attr.aria-current]="way.value === value() ? 'true' : null">
          <span>{{ way.label }}</span>@if (way.hint) {<span class="soft">{{ ' – ' + way.hint }}</span>}
        </button>
      }
    </mat-menu>
  `,
  styleUrl: './part.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Choose {
  readonly ways = input.required<readonly Way[]>();
  readonly value = input.required<string>();
  /** What the part is, for who hears the page. */
  readonly label = input.required<string>();
  readonly chosen = output<string>();
  protected readonly shown = computed(() => this.ways().find((way) => way.value === this.value())?.label ?? this.value());
}
