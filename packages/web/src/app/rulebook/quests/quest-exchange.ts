import { ChangeDetectionStrategy, Component } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import type { TableReading } from '@eager-ember/core';
import { EXCHANGE_STYLES, FileExchange } from '../file-exchange';
import { TableMistakes } from '../table-mistakes';

/** All quests out as CSV, and in from CSV. */
@Component({
  selector: 'ee-quest-exchange',
  imports: [MatDialogModule, TableMistakes],
  template: `
    <h2 mat-dialog-title>Quests as a table</h2>
    <mat-dialog-content>
      <p>
        CSV, a line for each goal, under the ids of its quest and step. An event stands as <code>pickupTaken pickup=manifestPage</code>. A quest that is there keeps what
        a table has no column for, such as what it gives; others are added.
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
export class QuestExchange extends FileExchange {
  protected readonly file = 'quests.csv';

  protected write(document: Readonly<Record<string, unknown>>): Promise<string> {
    return this.core.toQuests(document);
  }

  protected understand(text: string, _name: string, document: Readonly<Record<string, unknown>>): Promise<TableReading> {
    return this.core.fromQuests(text, document);
  }
}
