import { ChangeDetectionStrategy, Component } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import type { TableReading } from '@eager-ember/core';
import { EXCHANGE_STYLES, FileExchange } from '../file-exchange';
import { TableMistakes } from '../table-mistakes';

/** Clips out as CSV, and in from CSV or JSON. What comes in is looked at first, and taken in one step or not at all. */
@Component({
  selector: 'ee-clip-exchange',
  imports: [MatDialogModule, TableMistakes],
  template: `
    <h2 mat-dialog-title>Clips from a file</h2>
    <mat-dialog-content>
      <p>
        CSV with the columns clip, label, length, mark, at – a line for each mark – or JSON, a list of <code>{{ '{ id, label, length, marks: [{ mark, at }] }' }}</code
        >. Times are such as 1.8s or 250ms; a plain number is seconds. Clips with an id that is there are changed, others added.
      </p>
      <p>
        <button type="button" class="act" (click)="save()">Save as CSV</button>
        <label class="act file">Read a CSV or JSON file<input #file type="file" accept=".csv,.json,text/csv,application/json" (change)="read(file)" /></label>
      </p>
      @if (reading(); as read) {
        <ee-table-mistakes [name]="name()" [reading]="read" [taken]="taken()" (take)="take(read)" />
      }
    </mat-dialog-content>
  `,
  styles: EXCHANGE_STYLES,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ClipExchange extends FileExchange {
  protected readonly file = 'clips.csv';

  protected write(document: Readonly<Record<string, unknown>>): Promise<string> {
    return this.core.toClips(document);
  }

  protected understand(text: string, name: string, document: Readonly<Record<string, unknown>>): Promise<TableReading> {
    return this.core.fromClips(text, /\.json$/i.test(name) ? 'json' : 'csv', document);
  }
}
