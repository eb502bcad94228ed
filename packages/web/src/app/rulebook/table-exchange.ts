import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import type { Operation } from 'fast-json-patch';
import type { TableReading } from '@eager-ember/core';
import { CoreClient } from '../shared/core-client';
import { download } from '../shared/download';
import { Editor } from '../store/editor';

/** Attributes as a table: out as a file, in from one. What comes in is looked at first, and taken in one step or not at all. */
@Component({
  selector: 'ee-table-exchange',
  imports: [MatDialogModule],
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
        @if (read.problems.length > 0) {
          <p class="refusal" role="alert">Nothing was taken from {{ name() }}: {{ read.problems.length }} {{ read.problems.length === 1 ? 'mistake' : 'mistakes' }}.</p>
          <table aria-label="Mistakes">
            <tr>
              <th scope="col">line</th>
              <th scope="col">column</th>
              <th scope="col">what is wrong</th>
            </tr>
            @for (problem of read.problems.slice(0, 30); track $index) {
              <tr>
                <td class="mono">{{ problem.line }}</td>
                <td>
                  <span class="mono">{{ problem.column }}</span> {{ problem.name }}
                </td>
                <td>{{ problem.message }}</td>
              </tr>
            }
          </table>
        } @else if (read.patch?.length === 0) {
          <p role="status">{{ name() }} says what the ruleset says already.</p>
        } @else if (taken()) {
          <p role="status">Taken from {{ name() }}: {{ words(read) }}. It can be undone in one step.</p>
        } @else {
          <p role="status">
            {{ name() }} is sound: {{ words(read) }}. <button type="button" class="act" (click)="take(read)">Take it</button>
          </p>
        }
      }
    </mat-dialog-content>
  `,
  styles: `
    p {
      max-width: 560px;
      margin-bottom: 10px;
      color: var(--ink);
    }
    .file {
      margin-left: 20px;
      cursor: pointer;
    }
    .file:focus-within {
      outline: 2px solid var(--ember);
      outline-offset: 2px;
    }
    .file input {
      position: absolute;
      opacity: 0;
      width: 1px;
    }
    table {
      border-collapse: collapse;
    }
    th,
    td {
      text-align: left;
      padding: 3px 14px 3px 0;
      border-bottom: 1px solid var(--hair);
    }
    th {
      color: var(--soft);
      font-weight: 400;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TableExchange {
  private readonly editor = inject(Editor);
  private readonly client = inject(CoreClient);
  protected readonly name = signal('');
  protected readonly reading = signal<TableReading | undefined>(undefined);
  protected readonly taken = signal(false);

  protected async save(): Promise<void> {
    const text = await this.client.core.toTable(this.editor.document()!);
    download('attributes.csv', new Blob([text], { type: 'text/csv' }));
  }

  protected async read(field: HTMLInputElement): Promise<void> {
    const file = field.files?.[0];
    if (!file) return;
    this.name.set(file.name);
    this.taken.set(false);
    const text = await file.text();
    // The same file, mended, can be chosen again.
    field.value = '';
    this.reading.set(await this.client.core.fromTable(text, this.editor.document()!));
  }

  protected words(reading: TableReading): string {
    if (!reading.patch) return '';
    const parts = [...(reading.changed > 0 ? [`${reading.changed} changed`] : []), ...(reading.added > 0 ? [`${reading.added} new`] : [])];
    return parts.join(', ');
  }

  protected async take(reading: TableReading): Promise<void> {
    const problems = await this.editor.propose(() => (reading.patch ?? []) as readonly Operation[], `read ${this.name()}`);
    if (problems.length === 0) return this.taken.set(true);
    this.reading.set({ problems: problems.map(({ path, message }) => ({ line: 1, column: 1, name: path, message })) });
  }
}
