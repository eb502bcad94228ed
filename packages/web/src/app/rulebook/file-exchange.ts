import { Directive, inject, signal } from '@angular/core';
import type { TableReading } from '@eager-ember/core';
import type { Operation } from 'fast-json-patch';
import { CoreClient } from '../shared/core-client';
import { download } from '../shared/download';
import { Editor } from '../store/editor';

/** A part of the document out as a file, and in from one. What comes in is looked at first, and taken in one step or not at all. */
@Directive()
export abstract class FileExchange {
  private readonly editor = inject(Editor);
  protected readonly core = inject(CoreClient).core;
  protected readonly name = signal('');
  protected readonly reading = signal<TableReading | undefined>(undefined);
  protected readonly taken = signal(false);

  /** What the file is called that is saved. */
  protected abstract readonly file: string;
  protected abstract write(document: Readonly<Record<string, unknown>>): Promise<string>;
  protected abstract understand(text: string, name: string, document: Readonly<Record<string, unknown>>): Promise<TableReading>;

  protected async save(): Promise<void> {
    const text = await this.write(this.editor.document()!);
    download(this.file, new Blob([text], { type: 'text/csv' }));
  }

  protected async read(field: HTMLInputElement): Promise<void> {
    const file = field.files?.[0];
    if (!file) return;
    this.name.set(file.name);
    this.taken.set(false);
    const text = await file.text();
    // The same file, mended, can be chosen again.
    field.value = '';
    this.reading.set(await this.understand(text, file.name, this.editor.document()!));
  }

  protected async take(reading: TableReading): Promise<void> {
    const problems = await this.editor.propose(() => (reading.patch ?? []) as readonly Operation[], `read ${this.name()}`);
    if (problems.length === 0) return this.taken.set(true);
    this.reading.set({ problems: problems.map(({ path, message }) => ({ line: 1, column: 1, name: path, message })) });
  }
}

/** How such a dialog looks. */
export const EXCHANGE_STYLES = `
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
`;
