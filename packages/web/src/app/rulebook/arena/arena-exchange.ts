import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import type { TableReading } from '@eager-ember/core';
import { download } from '../../shared/download';
import { Editor } from '../../store/editor';
import { EXCHANGE_STYLES, FileExchange } from '../file-exchange';
import { TableMistakes } from '../table-mistakes';

/** The arena out as JSON and its placed things as CSV, and in from either. What comes in is looked at first. */
@Component({
  selector: 'ee-arena-exchange',
  imports: [MatDialogModule, TableMistakes],
  template: `
    <h2 mat-dialog-title>The arena as a file</h2>
    <mat-dialog-content>
      <p>
        JSON holds all of the arena: size, walls, start points and placed things. CSV holds the placed things alone, a line for each: kind, entry, id, team, x, y, radius, width, height,
        and points, along and with as JSON. What is read takes the place of what is there, in one step that can be undone.
      </p>
      <p>
        <button type="button" class="act" (click)="saveJson()">Save as JSON</button>{{ ' ' }}
        <button type="button" class="act" (click)="save()">Save placed things as CSV</button>
        <label class="act file">Read a JSON or CSV file<input #file type="file" accept=".csv,.json,text/csv,application/json" (change)="read(file)" /></label>
      </p>
      @if (reading(); as read) {
        <ee-table-mistakes [name]="name()" [reading]="read" [taken]="taken()" (take)="take(read)" />
      }
    </mat-dialog-content>
  `,
  styles: EXCHANGE_STYLES,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ArenaExchange extends FileExchange {
  private readonly document = inject(Editor).document;
  protected readonly file = 'placed.csv';

  protected write(document: Readonly<Record<string, unknown>>): Promise<string> {
    return this.core.toPlaced(document);
  }

  protected async saveJson(): Promise<void> {
    download('arena.json', new Blob([await this.core.toArena(this.document()!)], { type: 'application/json' }));
  }

  protected understand(text: string, name: string, document: Readonly<Record<string, unknown>>): Promise<TableReading> {
    return this.core.fromArena(text, /\.json$/i.test(name) ? 'json' : 'csv', document);
  }
}
