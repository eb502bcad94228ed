import { ChangeDetectionStrategy, Component } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { GivenAndAlways } from './given-and-always';

/** Adds something that always has to hold, to a check or a hunt. */
@Component({
  selector: 'ee-always-chip',
  imports: [MatMenuModule],
  template: `
    <button type="button" class="chip" [matMenuTriggerFor]="lasting">always</button>
    <mat-menu #lasting="matMenu">
      <button mat-menu-item (click)="addAlways(true)">a value stays so</button>
      <button mat-menu-item (click)="addAlways(false)">a condition holds</button>
      <button mat-menu-item (click)="addConserved()">something is conserved</button>
      <button mat-menu-item (click)="addNotTold()">a seat is not told a value</button>
      <button mat-menu-item (click)="addInvariant()">what holds of any ruleset</button>
    </mat-menu>
    @if (refusal()) {
      <p class="refusal" role="alert">{{ refusal() }}</p>
    }
  `,
  styles: `
    .chip {
      font-size: 12.5px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AlwaysChip extends GivenAndAlways {}
