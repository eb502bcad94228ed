import { ChangeDetectionStrategy, Component } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import type { TableReading } from '@eager-ember/core';
import { EXCHANGE_STYLES, FileExchange } from './file-exchange';
import { TableMistakes } from './table-mistakes';

/** Attributes as a table: out as a file, in from one. What comes in is looked at first, and taken in one step or not at all. */
@Component({
  selector: 'ee-table-exchange',
  imports: [MatDialogModule, TableMistakes],
  template: `
    <h2 mat-dialog-title>Attributes as a table</h2>
    <mat-dialog-content>
      <p>
        CSV, a line for each attribute. Lines with an id that is there change that attribute, others add one; what a table has no column for, such
        as thresholds, stays.
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
export class TableExchange extends FileExchange {
  protected readonly file = 'attributes.csv';

  protected write(document: Readonly<Record<string, unknown>>): Promise<string> {
    return this.core.toTable(document);
  }

  protected understand(text: string, _name: string, document: Readonly<Record<string, unknown>>): Promise<TableReading> {
    return this.core.fromTable(text, document);
  }
}
