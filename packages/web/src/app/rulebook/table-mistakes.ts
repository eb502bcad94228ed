import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { TableReading } from '@eager-ember/core';

/** What reading a file came to: its mistakes, each with its place, or what it would change. */
@Component({
  selector: 'ee-table-mistakes',
  template: `
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
          {{ name() }} is sound: {{ words(read) }}. <button type="button" class="act" (click)="take.emit()">Take it</button>
        </p>
      }
    }
  `,
  styles: `
    p {
      max-width: 560px;
      margin-bottom: 10px;
      color: var(--ink);
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
export class TableMistakes {
  readonly name = input.required<string>();
  readonly reading = input.required<TableReading>();
  readonly taken = input(false);
  readonly take = output<void>();

  protected words(reading: TableReading): string {
    if (!reading.patch) return '';
    const parts = [...(reading.changed > 0 ? [`${reading.changed} changed`] : []), ...(reading.added > 0 ? [`${reading.added} new`] : [])];
    return parts.join(', ');
  }
}
