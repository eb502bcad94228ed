import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';
import type { TableReading } from '@eager-ember/core';
import type { CoreClient } from '../shared/core-client';
import { EXCHANGE_STYLES, FileExchange } from './file-exchange';
import { TableMistakes } from './table-mistakes';

type Core = CoreClient['core'];
type Document = Readonly<Record<string, unknown>>;

/** What goes out as a CSV file and comes in from one. */
export interface CsvTable {
  readonly title: string;
  /** How a line is written and what stays; what stands between backticks is shown as it is typed. */
  readonly says: string;
  /** What the file is called that is saved. */
  readonly file: string;
  readonly write: (core: Core, document: Document) => Promise<string>;
  readonly read: (core: Core, text: string, document: Document) => Promise<TableReading>;
}

export const ATTRIBUTES: CsvTable = {
  title: 'Attributes as a table',
  says: 'CSV, a line for each attribute. Lines with an id that is there change that attribute, others add one; what a table has no column for, such as thresholds, stays.',
  file: 'attributes.csv',
  write: (core, document) => core.toTable(document),
  read: (core, text, document) => core.fromTable(text, document),
};

export const QUESTS: CsvTable = {
  title: 'Quests as a table',
  says: 'CSV, a line for each goal, under the ids of its quest and step. An event stands as `pickupTaken pickup=manifestPage`. A quest that is there keeps what a table has no column for, such as what it gives; others are added.',
  file: 'quests.csv',
  write: (core, document) => core.toQuests(document),
  read: (core, text, document) => core.fromQuests(text, document),
};

export const LOOT: CsvTable = {
  title: 'Loot tables as CSV',
  says: 'A line for each entry, under the id of its table; `always` for a weight is what every opening gives. A range stands as `5 to 12`. A table that is there keeps its streak breaker and what happens besides; others are added.',
  file: 'loot.csv',
  write: (core, document) => core.toLoot(document),
  read: (core, text, document) => core.fromLoot(text, document),
};

export const PRICES: CsvTable = {
  title: 'Prices as CSV',
  says: 'A line for each good of a `market`, with the least and the most that it pays and, where the price walks, its start and step; and a line for each thing that an `offer` costs. What a table has no column for, such as needs, stays as it is.',
  file: 'prices.csv',
  write: (core, document) => core.toPrices(document),
  read: (core, text, document) => core.fromPrices(text, document),
};

/** The table of one track. */
export const levelsOf = (track: string): CsvTable => ({
  title: 'Levels from a file',
  says: 'CSV with the columns level and needs: a line for each level from 1 upwards, with what it takes to get to the next. The track has one level more than there are lines.',
  file: `${track}.csv`,
  write: (core, document) => core.toLevels(document, track),
  read: (core, text, document) => core.fromLevels(text, document, track),
});

/** A part of the ruleset out as CSV, and in from CSV: looked at first, and taken in one step or not at all. */
@Component({
  selector: 'ee-csv-exchange',
  imports: [MatDialogModule, TableMistakes],
  template: `
    <h2 mat-dialog-title>{{ table.title }}</h2>
    <mat-dialog-content>
      <p>
        @for (words of says; track $index) {@if ($odd) {<code>{{ words }}</code>} @else {<span>{{ words }}</span>}}
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
export class CsvExchange extends FileExchange {
  protected readonly table = inject<CsvTable>(MAT_DIALOG_DATA);
  protected readonly says = this.table.says.split('`');
  protected readonly file = this.table.file;

  protected write(document: Document): Promise<string> {
    return this.table.write(this.core, document);
  }

  protected understand(text: string, _name: string, document: Document): Promise<TableReading> {
    return this.table.read(this.core, text, document);
  }
}
