import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';
import type { TableReading } from '@eager-ember/core';
import type { Operation } from 'fast-json-patch';
import { CoreClient } from '../shared/core-client';
import { download } from '../shared/download';
import { Editor } from '../store/editor';
import { TableMistakes } from './table-mistakes';

type Format = 'csv' | 'json';
const TYPES: Readonly<Record<Format, string>> = { csv: 'text/csv', json: 'application/json' };

/** What of a concept goes out as a file, and comes in from one. */
export interface ExchangedFile {
  readonly title: string;
  /** How it is written and what stays; what stands between backticks is shown as it is typed. */
  readonly says: string;
  readonly concept: string;
  /** The entry that such a file is about, where it is about one. */
  readonly of?: string;
  /** The files that are saved, each with what its button says. */
  readonly saves: readonly { readonly format: Format; readonly file: string; readonly act: string }[];
  readonly reads: readonly Format[];
}

/** A part of the ruleset out as a file, and in from one. What comes in is looked at first, and taken in one step or not at all. */
@Component({
  selector: 'ee-file-exchange',
  imports: [MatDialogModule, TableMistakes],
  template: `
    <h2 mat-dialog-title>{{ exchanged.title }}</h2>
    <mat-dialog-content>
      <p>
        @for (words of says; track $index) {@if ($odd) {<code>{{ words }}</code>} @else {<span>{{ words }}</span>}}
      </p>
      <p>
        @for (one of exchanged.saves; track one.format) {
          <button type="button" class="act" (click)="save(one)">{{ one.act }}</button>{{ ' ' }}
        }
        <label class="act file">{{ reads }}<input #file type="file" [accept]="accepts" (change)="read(file)" /></label>
      </p>
      @if (reading(); as read) {
        <ee-table-mistakes [name]="name()" [reading]="read" [taken]="taken()" (take)="take(read)" />
      }
    </mat-dialog-content>
  `,
  styles: `
    p {
      max-width: 600px;
      margin-bottom: 10px;
      color: var(--ink);
    }
    code {
      font: 12.5px var(--mono);
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
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FileExchange {
  protected readonly exchanged = inject<ExchangedFile>(MAT_DIALOG_DATA);
  private readonly editor = inject(Editor);
  private readonly core = inject(CoreClient).core;
  protected readonly says = this.exchanged.says.split('`');
  protected readonly reads = `Read a ${this.exchanged.reads.map((format) => format.toUpperCase()).join(' or ')} file`;
  protected readonly accepts = this.exchanged.reads.flatMap((format) => [`.${format}`, TYPES[format]]).join(',');
  protected readonly name = signal('');
  protected readonly reading = signal<TableReading | undefined>(undefined);
  protected readonly taken = signal(false);

  protected async save({ format, file }: ExchangedFile['saves'][number]): Promise<void> {
    const { concept, of } = this.exchanged;
    const text = await this.core.writeFile(this.editor.document()!, concept, format, of);
    download(file, new Blob([text], { type: TYPES[format] }));
  }

  protected async read(field: HTMLInputElement): Promise<void> {
    const file = field.files?.[0];
    if (!file) return;
    this.name.set(file.name);
    this.taken.set(false);
    const text = await file.text();
    // The same file, mended, can be chosen again.
    field.value = '';
    const { concept, of, reads } = this.exchanged;
    const format = reads.find((one) => file.name.toLowerCase().endsWith(`.${one}`)) ?? 'csv';
    this.reading.set(await this.core.readFile(this.editor.document()!, concept, format, text, of));
  }

  protected async take(reading: TableReading): Promise<void> {
    const problems = await this.editor.propose(() => (reading.patch ?? []) as readonly Operation[], `read ${this.name()}`);
    if (problems.length === 0) return this.taken.set(true);
    this.reading.set({ problems: problems.map(({ path, message }) => ({ line: 1, column: 1, name: path, message })) });
  }
}
