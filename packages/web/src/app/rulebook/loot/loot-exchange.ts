import { ChangeDetectionStrategy, Component } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import type { TableReading } from '@eager-ember/core';
import { EXCHANGE_STYLES, FileExchange } from '../file-exchange';
import { TableMistakes } from '../table-mistakes';

/** All loot tables out as CSV, and in from CSV. */
@Component({
  selector: 'ee-loot-exchange',
  imports: [MatDialogModule, TableMistakes],
  template: `
    <h2 mat-dialog-title>Loot tables as CSV</h2>
    <mat-dialog-content>
      <p>
        A line for each entry, under the id of its table; <code>always</code> for a weight is what every opening gives. A range stands as <code>5 to 12</code>. A table that is
        there keeps its streak breaker and what happens besides; others are added.
      </p>
      <p>
        <button type="button" class="act" (click)="save()">Save as CSV</button>
        <label class="act file">Read a CSV file<input #file type="file" accept=".csv,text/csv" (change)="read(file)" /></label>
      </p>
      @if (reading(); as read) {
        <ee-table-mistakes [name]="name()" [reading]="read" [taken]="taken()" (take)="take(read)" />
      }
    </mat-dialog-content>
  `,
  styles: EXCHANGE_STYLES,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LootExchange extends FileExchange {
  protected readonly file = 'loot.csv';

  protected write(document: Readonly<Record<string, unknown>>): Promise<string> {
    return this.core.toLoot(document);
  }

  protected understand(text: string, _name: string, document: Readonly<Record<string, unknown>>): Promise<TableReading> {
    return this.core.fromLoot(text, document);
  }
}
