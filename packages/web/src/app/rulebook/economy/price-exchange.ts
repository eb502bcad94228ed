import { ChangeDetectionStrategy, Component } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import type { TableReading } from '@eager-ember/core';
import { EXCHANGE_STYLES, FileExchange } from '../file-exchange';
import { TableMistakes } from '../table-mistakes';

/** Prices of goods and offers out as CSV, and in from CSV. */
@Component({
  selector: 'ee-price-exchange',
  imports: [MatDialogModule, TableMistakes],
  template: `
    <h2 mat-dialog-title>Prices as CSV</h2>
    <mat-dialog-content>
      <p>
        A line for each good of a <code>market</code>, with the least and the most that it pays and, where the price walks, its start and step; and a line for each thing that an
        <code>offer</code> costs. What a table has no column for, such as needs, stays as it is.
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
export class PriceExchange extends FileExchange {
  protected readonly file = 'prices.csv';

  protected write(document: Readonly<Record<string, unknown>>): Promise<string> {
    return this.core.toPrices(document);
  }

  protected understand(text: string, _name: string, document: Readonly<Record<string, unknown>>): Promise<TableReading> {
    return this.core.fromPrices(text, document);
  }
}
