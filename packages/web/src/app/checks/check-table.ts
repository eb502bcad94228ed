import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { SpecFields } from '../rulebook/spec/spec-fields';
import { CheckResults } from './check-results';
import { pastedInto, type TableJson } from './pasted';

/** Most that is told of what is wrong with rows. */
const MOST_TOLD = 4;
const NOTHING: TableJson = { columns: [], rows: [] };
/** A column is named in letters and digits. */
const COLUMN = /^[A-Za-z][A-Za-z0-9]{0,31}$/;

/** The rows that a check is run for, each by itself: typed, or pasted from a spreadsheet. */
@Component({
  selector: 'ee-check-table',
  template: `
    <p class="head"><b>For each of</b>&ngsp;<span class="soft">a cell is spoken of as row.{{ table().columns[0] ?? 'name' }}; cells of a spreadsheet can be pasted</span> <button type="button" class="drop" aria-label="Take out the table" (click)="put('each', undefined)">×</button></p>
    <table aria-label="Rows" (paste)="paste($event)">
      <thead>
        <tr>
          <td></td>
          @for (column of table().columns; track $index) {
            <th scope="col"><input #head [attr.aria-label]="'Name of column ' + ($index + 1)" [attr.data-column]="$index" [value]="column" (change)="rename($index, head)" (keydown.enter)="head.blur()" /><button type="button" class="drop" [attr.aria-label]="'Take out column ' + column" (click)="dropColumn($index)">×</button></th>
          }
          <td><button type="button" class="more" (click)="addColumn()">+ column</button></td>
        </tr>
      </thead>
      <tbody>
        @for (row of table().rows; track $index; let r = $index) {
          <tr [class.fails]="states()[r] === false" [class.holds]="states()[r] === true">
            <th scope="row"><span class="dot"></span><span class="visually-hidden">{{ states()[r] === false ? 'fails' : states()[r] === true ? 'holds' : 'not run yet' }}: </span>{{ r + 1 }}</th>
            @for (cell of row; track $index) {
              <td><input #box [attr.aria-invalid]="wrongCells().has('each/rows/' + r + '/' + $index)" [attr.aria-label]="(table().columns[$index] ?? 'cell') + ' of row ' + (r + 1)" [attr.data-row]="r" [attr.data-column]="$index" [value]="cell" (change)="write(r, $index, box.value)" (keydown.enter)="box.blur()" /></td>
            }
            <td><button type="button" class="drop" [attr.aria-label]="'Take out row ' + (r + 1)" (click)="dropRow(r)">×</button></td>
          </tr>
        }
      </tbody>
    </table>
    <button type="button" class="more" (click)="addRow()">+ row</button>
    @for (message of wrongs(); track message) {
      <p class="wrong">{{ message }}</p>
    }
    @if (refusal()) {
      <p class="refusal" role="alert">{{ refusal() }}</p>
    }
  `,
  styleUrls: ['./lines.scss', './check-table.scss'],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CheckTable extends SpecFields {
  private readonly results = inject(CheckResults);
  protected readonly table = computed(() => (this.context.value('each') as TableJson | undefined) ?? NOTHING);
  /** What is wrong with rows themselves, by place; the same is wrong with many of them at times. */
  private readonly mistakes = computed(() => {
    const { mistakes = [], rows } = this.results.result(this.context.id()) ?? {};
    return (rows?.flatMap((row) => row.mistakes) ?? mistakes).filter(({ path }) => path === 'each' || path.startsWith('each/'));
  });
  protected readonly wrongCells = computed(() => new Set(this.mistakes().map(({ path }) => path)));
  protected readonly wrongs = computed(() => [...new Set(this.mistakes().map(({ message }) => message))].slice(0, MOST_TOLD));
  /** By row, whether it holds. */
  protected readonly states = computed(() => (this.results.result(this.context.id())?.rows ?? []).map(({ ok }) => ok));

  private edit(make: (table: TableJson) => TableJson): void {
    void this.revise<TableJson>('each', make);
  }

  protected write(row: number, column: number, typed: string): void {
    this.edit((table) => pastedInto(table, { row, column }, typed));
  }

  protected rename(column: number, box: HTMLInputElement): void {
    const name = box.value.trim();
    if (!COLUMN.test(name) || this.table().columns.some((other, i) => i !== column && other === name)) {
      this.refusal.set(
        COLUMN.test(name) ? `There is a column ${name} already.` : 'A column is named in letters and digits, beginning with a letter.',
      );
      box.value = this.table().columns[column];
      return;
    }
    const before = this.table().columns[column];
    void this.renameColumn(column, before, name);
  }

  /** What the check asks of the column follows it. */
  private async renameColumn(column: number, before: string, name: string): Promise<void> {
    const said = new RegExp(`\\brow\\.${before}\\b`, 'g');
    const follow = (value: unknown): unknown => {
      if (typeof value === 'string') return value.replace(said, `row.${name}`);
      if (Array.isArray(value)) return value.map(follow);
      if (typeof value !== 'object' || value === null) return value;
      return Object.fromEntries(Object.entries(value).map(([key, part]) => [key, follow(part)]));
    };
    const each = { ...this.table(), columns: this.table().columns.map((other, i) => (i === column ? name : other)) };
    const parts = ['given', 'stages', 'always', 'changes'].filter((part) => this.has(part));
    await this.putAll({ each, ...Object.fromEntries(parts.map((part) => [part, follow(this.context.value(part))])) });
  }

  protected addColumn(): void {
    this.edit(({ columns, rows }) => {
      let n = columns.length + 1;
      while (columns.includes(`column${n}`)) n++;
      return { columns: [...columns, `column${n}`], rows: rows.map((row) => [...row, 0]) };
    });
  }

  protected dropColumn(column: number): void {
    if (this.table().columns.length === 1) return void this.put('each', undefined);
    this.edit(({ columns, rows }) => ({
      columns: columns.filter((_, i) => i !== column),
      rows: rows.map((row) => row.filter((_, i) => i !== column)),
    }));
  }

  protected addRow(): void {
    this.edit(({ columns, rows }) => ({ columns, rows: [...rows, rows.at(-1) ?? columns.map(() => 0)] }));
  }

  protected dropRow(row: number): void {
    this.edit(({ columns, rows }) => ({ columns, rows: rows.filter((_, i) => i !== row) }));
  }

  /** Cells of a spreadsheet take the place of those from here on; names above them are those of the columns. */
  protected paste(event: ClipboardEvent): void {
    const text = event.clipboardData?.getData('text/plain') ?? '';
    if (!/[\t\n]/.test(text.trim())) return;
    const box = event.target as HTMLElement;
    event.preventDefault();
    const row = box.dataset['row'];
    this.edit((table) =>
      pastedInto(table, { row: row === undefined ? -1 : Number(row), column: Number(box.dataset['column'] ?? 0) }, text),
    );
  }
}
