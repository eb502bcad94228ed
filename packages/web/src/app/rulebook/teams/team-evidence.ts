import { ChangeDetectionStrategy, Component, effect, inject, signal, untracked } from '@angular/core';
import type { TeamEvidence, TeamQuestions } from '@eager-ember/core';
import type { RulesetJson } from '../../shared/api';
import { CoreClient } from '../../shared/core-client';
import { Editor } from '../../store/editor';

/** Who goes where: players that join one after the other, and what becomes of who asks for another team. */
@Component({
  selector: 'ee-team-evidence',
  template: `
    @if (failure()) {
      <p class="refusal" role="alert">The evidence could not be made: {{ failure() }}</p>
    }
    @if (now(); as evidence) {
      <h2>Where {{ evidence.joined.length }} players go, one after the other</h2>
      <div class="teams">
        @for (team of evidence.teams; track team.id) {
          <section [attr.data-team]="team.id">
            <h3><span class="mark {{ team.pattern }}" [style.--own]="team.colour">{{ team.mark }}</span> {{ team.label }} <span class="mono soft">{{ team.members.length }}{{ team.capacity === undefined ? '' : ' of ' + team.capacity }}</span></h3>
            <p>@for (member of team.members; track member) {<span class="who">{{ member }}</span>{{ " " }}} @empty {<span class="soft">{{ team.open ? 'nobody' : 'nobody is assigned here' }}</span>}</p>
          </section>
        }
        @if (evidence.alone.length > 0) {
          <section>
            <h3>No team</h3>
            <p>@for (member of evidence.alone; track member) {<span class="who">{{ member }}</span>{{ " " }}}</p>
          </section>
        }
      </div>
      <h2>Who asks for another</h2>
      <table aria-label="Who asks for another team">
        <tbody>
          @for (one of evidence.asked; track $index) {
            <tr>
              <th scope="row">{{ one.who }} asks for {{ one.team }}</th>
              <td [class.no]="!one.granted">{{ one.says }}</td>
            </tr>
          }
        </tbody>
      </table>
    }
  `,
  styles: `
    h2 {
      font: 700 13.5px var(--sans);
      margin: 8px 0 4px;
    }
    .teams {
      display: grid;
      gap: 4px;
    }
    section {
      border-bottom: 1px solid var(--hair);
      padding-bottom: 4px;
    }
    h3 {
      font: 600 14px var(--sans);
      margin: 4px 0 2px;
    }
    p {
      margin: 0;
    }
    .mark {
      display: inline-block;
      min-width: 22px;
      text-align: center;
      border-radius: 11px;
      border: 2px solid var(--own);
      color: var(--ink);
      font: 700 12px/18px var(--sans);
    }
    .stripes {
      background: repeating-linear-gradient(45deg, transparent 0 4px, color-mix(in srgb, var(--own) 35%, transparent) 4px 8px);
    }
    .dots {
      background: radial-gradient(color-mix(in srgb, var(--own) 45%, transparent) 1.5px, transparent 2px) 0 0 / 6px 6px;
    }
    .checks {
      background: conic-gradient(color-mix(in srgb, var(--own) 30%, transparent) 25%, transparent 0 50%, color-mix(in srgb, var(--own) 30%, transparent) 0 75%, transparent 0) 0 0 / 8px 8px;
    }
    .who {
      margin-right: 12px;
      font: 15px var(--serif);
    }
    table {
      border-collapse: collapse;
      font-size: 13px;
    }
    th {
      font-weight: 400;
      text-align: left;
      padding: 2px 16px 2px 0;
      white-space: nowrap;
    }
    .no {
      color: var(--bad);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TeamEvidencePage {
  private readonly client = inject(CoreClient);
  private readonly document = inject(Editor).document;
  protected readonly now = signal<TeamEvidence | undefined>(undefined);
  protected readonly failure = signal('');
  private turn = 0;

  constructor() {
    effect(() => {
      const document = this.document();
      if (document) untracked(() => void this.compute(document));
    });
  }

  private async compute(document: RulesetJson): Promise<void> {
    const turn = ++this.turn;
    try {
      const next = await this.client.of<TeamQuestions>('teams').crews(document);
      if (turn !== this.turn) return;
      this.now.set(next);
      this.failure.set('');
    } catch (error) {
      if (turn === this.turn) this.failure.set(error instanceof Error ? error.message : String(error));
    }
  }
}
