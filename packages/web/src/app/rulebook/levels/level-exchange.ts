import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';
import type { TableReading } from '@eager-ember/core';
import { EXCHANGE_STYLES, FileExchange } from '../file-exchange';
import { TableMistakes } from '../table-mistakes';

/** The table of a track out as CSV, and in from CSV. */
@Component({
  selector: 'ee-level-exchange',
  imports: [MatDialogModule, TableMistakes],
  template: `
    <h2 mat-dialog-title>Levels from a file</h2>
    <mat-dialog-content>
      <p>CSV with the columns level and needs: a line for each level from 1 upwards, with what it takes to get to the next. The track has one level more than there are lines.</p>
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
export class LevelExchange extends FileExchange {
  private readonly track = inject<string>(MAT_DIALOG_DATA);
  protected readonly file = `${this.track}.csv`;

  protected write(document: Readonly<Record<string, unknown>>): Promise<string> {
    return this.core.toLevels(document, this.track);
  }

  protected understand(text: string, _name: string, document: Readonly<Record<string, unknown>>): Promise<TableReading> {
    return this.core.fromLevels(text, document, this.track);
  }
}
