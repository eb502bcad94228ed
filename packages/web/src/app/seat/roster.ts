import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Copy } from '@eager-ember/core';
import { actorsOf, displayOf, type TeamDisplay } from './display';
import type { Ask } from './controls';
import type { SeatPanel } from './panel';

/** A team with the players that are in it, as a copy was told. */
export interface RosterView {
  readonly team: TeamDisplay | undefined;
  readonly own: boolean;
  readonly members: readonly string[];
}

/** Who is in which team: those that have players or take some, then who is in none. */
export function rosterOf(copy: Copy, row: number): readonly RosterView[] {
  const { teams } = displayOf(copy.schema);
  const players = actorsOf(copy).filter(({ kind }) => kind === 'player');
  const own = players.find((player) => player.row === row);
  const of = (team: TeamDisplay | undefined) => players.filter((player) => player.team?.id === team?.id).map(({ name }) => name);
  const listed = teams.map((team) => ({ team, own: own?.team?.id === team.id, members: of(team) }));
  const alone = of(undefined);
  return teams.length === 0
    ? []
    : [
        ...listed.filter(({ team, members }) => team.open || members.length > 0),
        ...(alone.length > 0 ? [{ team: undefined, own: own?.team === undefined, members: alone }] : []),
      ];
}

/** The roster of each team, by mark, pattern and colour; a team can be asked for. */
@Component({
  selector: 'ee-roster',
  template: `
    @for (one of view(); track one.team?.id) {
      <span class="team" [class.own]="one.own" [attr.data-roster]="one.team?.id ?? 'none'">
        @if (one.team; as team) {
          <i class="mark {{ team.pattern }}" [style.--own]="team.colour" [title]="team.label">{{ team.mark }}</i>{{ ' ' }}
          <b>{{ team.label }}</b>
        } @else {
          <b>No team</b>
        }
        {{ one.members.join(', ') || 'nobody' }}
        @if (one.team && !one.own && one.team.open) {
          <button type="button" class="soft" [attr.aria-label]="'Ask to join ' + one.team.label" (click)="ask.emit({ do: 'switch', team: one.team.id })">join</button>
        }
      </span>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      gap: 2px 12px;
      font-size: 12px;
    }
    .own b {
      color: var(--copy);
    }
    .mark {
      display: inline-block;
      min-width: 19px;
      text-align: center;
      border-radius: 10px;
      border: 1.5px solid var(--own);
      font: 700 10.5px/14px var(--sans);
      margin-right: 4px;
    }
    .stripes {
      background: repeating-linear-gradient(45deg, transparent 0 3px, color-mix(in srgb, var(--own) 35%, transparent) 3px 6px);
    }
    .dots {
      background: radial-gradient(color-mix(in srgb, var(--own) 45%, transparent) 1.2px, transparent 1.6px) 0 0 / 5px 5px;
    }
    .checks {
      background: conic-gradient(color-mix(in srgb, var(--own) 30%, transparent) 25%, transparent 0 50%, color-mix(in srgb, var(--own) 30%, transparent) 0 75%, transparent 0) 0 0 / 6px 6px;
    }
    button {
      font-size: 12px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Roster {
  readonly view = input<readonly RosterView[]>([]);
  readonly ask = output<Ask>();
}

export const rosterPanel: SeatPanel = { place: 'standing', type: Roster, inputs: (seat) => ({ view: seat.shown(rosterOf) ?? [] }) };
