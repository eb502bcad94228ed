import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { documentFeature } from '../../store/document.reducer';
import { Editor } from '../../store/editor';
import { entriesOf, type EntryJson, isGiven } from '../entries';

interface Row {
  readonly id: string;
  readonly label: string;
  readonly given: boolean;
  readonly move: boolean;
  readonly use: boolean;
  readonly ends: string;
  /** Whether the state that the page is about may be entered from here, and left for here. */
  readonly from: boolean;
  readonly into: boolean;
}

/** All states side by side: what each allows, how it ends, and which may follow which. */
@Component({
  selector: 'ee-state-evidence',
  imports: [RouterLink],
  template: `
    <h2>What may be done, and what may follow</h2>
    <table aria-label="States">
      <thead>
        <tr>
          <th scope="col">state</th>
          <th scope="col">move</th>
          <th scope="col">use</th>
          <th scope="col">ends</th>
          <th scope="col">into {{ label().toLowerCase() }}</th>
          <th scope="col">out of it</th>
        </tr>
      </thead>
      <tbody>
        @for (row of rows(); track row.id) {
          <tr [class.here]="row.id === id()">
            <th scope="row"><a [routerLink]="['/r', ruleset(), 'rulebook', 'states', row.id]">{{ row.label }}</a>@if (row.given) {{{ ' ' }}<span class="soft">given</span>}</th>
            <td>{{ row.move ? 'yes' : '–' }}</td>
            <td>{{ row.use ? 'yes' : '–' }}</td>
            <td class="ends">{{ row.ends }}</td>
            <td [class.no]="!row.from">{{ row.id === id() ? '' : row.from ? 'may' : 'may not' }}</td>
            <td [class.no]="!row.into">{{ row.id === id() ? '' : row.into ? 'may' : 'may not' }}</td>
          </tr>
        }
      </tbody>
    </table>
    <h2>Its way</h2>
    <div class="way">
      <p class="side">@for (row of before(); track row.id) {<span>{{ row.label }}</span>} @empty {<span class="soft">nothing</span>}</p>
      <span class="arrow" aria-hidden="true">→</span>
      <p class="self"><b>{{ label() }}</b><br /><span class="soft">{{ allows() }}</span></p>
      <span class="arrow" aria-hidden="true">→</span>
      <p class="side">@for (row of after(); track row.id) {<span>{{ row.label }}</span>}<span class="soft">then what holds next</span></p>
    </div>
    <p class="soft">Whenever it ends by itself, its actor is in the state that a status of its holds it in, or idle. In Playtest the why sheet (Y) of an actor tells its states as they change.</p>
  `,
  styles: `
    h2 {
      font: 700 13.5px var(--sans);
    }
    .soft {
      font-size: 12.5px;
    }
    table {
      border-collapse: collapse;
      width: 100%;
      margin: 6px 0 20px;
    }
    th,
    td {
      text-align: left;
      padding: 5px 12px 5px 0;
      border-bottom: 1px solid var(--hair);
      font-weight: 400;
    }
    thead th {
      color: var(--soft);
      font-size: 12.5px;
    }
    tbody th {
      font: 15.5px var(--serif);
    }
    .here {
      background: var(--ember-wash);
    }
    .ends {
      font-size: 12.5px;
    }
    .no {
      color: var(--soft);
    }
    .way {
      display: flex;
      align-items: center;
      gap: 14px;
      margin: 8px 0 12px;
    }
    .side {
      display: grid;
      gap: 2px;
      font: 14.5px var(--serif);
    }
    .self {
      border: 1.5px solid var(--ember);
      border-radius: 5px;
      padding: 8px 14px;
      text-align: center;
      font: 16px var(--serif);
    }
    .arrow {
      color: var(--soft);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StateEvidence {
  readonly id = input.required<string>();
  protected readonly ruleset = inject(Store).selectSignal(documentFeature.selectId);
  private readonly document = inject(Editor).document;
  private readonly states = computed(() => entriesOf(this.document(), 'states'));
  private readonly state = computed(() => this.states().find(({ id }) => id === this.id()));
  protected readonly label = computed(() => this.state()?.label ?? '');
  protected readonly allows = computed(() => {
    const list = (this.state()?.['allows'] as readonly string[] | undefined) ?? [];
    return list.length === 0 ? 'nothing is allowed' : list.map((what) => (what === 'use' ? 'abilities' : 'moving')).join(' and ');
  });
  protected readonly rows = computed<readonly Row[]>(() =>
    this.states().map((entry) => {
      const allows = (entry['allows'] as readonly string[] | undefined) ?? [];
      const own = this.state();
      return {
        id: entry.id,
        label: entry.label,
        given: isGiven(this.document(), 'states', entry.id),
        move: allows.includes('move'),
        use: allows.includes('use'),
        ends: endsOf(entry),
        from: own !== undefined && mayFollow(entry, own),
        into: own !== undefined && mayFollow(own, entry),
      };
    }),
  );
  protected readonly before = computed(() => this.rows().filter((row) => row.from && row.id !== this.id()));
  protected readonly after = computed(() => this.rows().filter((row) => row.into && row.id !== this.id()));
}

function mayFollow(from: EntryJson, to: EntryJson): boolean {
  const [into, before] = [from['into'], to['from']] as (readonly string[] | undefined)[];
  return (into?.includes(to.id) ?? true) && (before?.includes(from.id) ?? true);
}

/** What ends a state that the core leads through by itself. */
const BY_ITSELF: Readonly<Record<string, string>> = {
  idle: 'when it moves',
  moving: 'when it stops',
  casting: 'with the cast',
  channelling: 'with the channel',
  recovering: 'with the recovery',
  down: 'when it comes back',
};

function endsOf(entry: EntryJson): string {
  const parts = [
    ...(entry['while'] === undefined ? [] : [`with ${String(entry['while'])}`]),
    ...(entry['lasts'] === undefined ? [] : [`after ${String(entry['lasts'])}`]),
    ...(entry['ends'] === undefined ? [] : ['on its event']),
  ];
  return parts.length > 0 ? parts.join(', ') : (BY_ITSELF[entry.id] ?? 'when something ends it');
}
