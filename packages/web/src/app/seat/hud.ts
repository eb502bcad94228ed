import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { PredictedUse } from '@eager-ember/core';
import { Sign } from '../shared/sign';
import { Figures } from './figures';
import type { OwnCast } from './casting';
import type { EffectView, HudView } from './display';
import type { SeatPanel } from './panel';
import { hudOf } from './display';

/** A seat's heads-up display: bars, abilities with their cooldowns, what is on and for how long. */
@Component({
  selector: 'ee-hud',
  imports: [Figures, Sign],
  template: `
    @if (view(); as hud) {
      <div class="bars">
        @for (bar of hud.bars; track bar.id) {
          <span class="what">@if (bar.icon) {<ee-sign [name]="bar.icon" />} {{ bar.label }}</span>
          <span class="bar" role="meter" [attr.aria-label]="bar.label" aria-valuemin="0" [attr.aria-valuemax]="bar.max" [attr.aria-valuenow]="bar.value"><i [style.width.%]="bar.share * 100" [style.background]="bar.colour"></i></span>
          <span class="mono" [attr.data-attribute]="bar.id">{{ bar.text }}</span>
        }
      </div>
      <div class="cast {{ cast()?.look ?? 'none' }}" role="progressbar" aria-label="Cast" [attr.aria-valuenow]="cast() ? Math.round(cast()!.share * 100) : 0" aria-valuemin="0" aria-valuemax="100">
        @if (cast(); as now) {
          <i [style.width.%]="now.share * 100"></i><span>{{ now.text }}</span>
        }
      </div>
      <div class="abilities">
        @for (ability of hud.abilities; track ability.id) {
          <button type="button" [title]="ability.label" (click)="use.emit(ability.id)" [class.waits]="ability.left > 0" [class.expected]="stateOf(ability.id) === 'waiting'" [class.back]="stateOf(ability.id) === 'takenBack'" [attr.data-ability]="ability.id">
            <i [style.width.%]="ability.left > 0 ? ability.passed * 100 : 0"></i>
            <kbd>{{ $index + 1 }}</kbd>
            <span
              ><span class="label">{{ ability.label }}<br /></span><span class="mono state" [class.bad]="ability.lacks && ability.left <= 0">{{ stateOf(ability.id) === 'takenBack' ? 'taken back' : ability.left > 0 ? ability.left.toFixed(1) + ' s' : ability.lacks || (ability.store ? ability.store : 'ready') }}</span></span
            >
          </button>
        }
      </div>
      <p class="on">
        @if (hud.state) {
          <span class="doing">{{ hud.state.toLowerCase() }}</span>
        }
        @for (effect of hud.effects; track effect.row) {
          <span class="effect" [class.muted]="effect.waits" [attr.data-effect]="effect.label">{{ effect.label }}{{ effect.stacks > 1 ? ' ×' + effect.stacks : '' }} <span class="mono">{{ leftOf(effect) }}</span></span>
        }
        @for (status of hud.statuses; track status) {
          <span class="status">{{ status.toLowerCase() }}</span>
        }
      </p>
      @if (figures()) {
        <ee-figures [of]="hud.figures" />
      }
    }
  `,
  styleUrl: './hud.scss',
  host: { '[class.compact]': 'compact()' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Hud {
  readonly view = input<HudView>();
  /** What its actor is casting, or expects to be. */
  readonly cast = input<OwnCast>();
  /** Uses that were asked for and are not confirmed, or lately taken back. */
  readonly uses = input<readonly PredictedUse[]>([]);
  readonly compact = input(false);
  /** Whether what is no bar stands here too. */
  readonly figures = input(true);
  readonly use = output<string>();
  protected readonly Math = Math;

  protected stateOf(ability: string): string {
    return this.uses().find((use) => use.ability === ability)?.state ?? '';
  }

  /** When an effect ends, in few letters. */
  protected leftOf({ left, uses, waits }: EffectView): string {
    const parts = [
      ...(left === undefined ? [] : [`${left.toFixed(1)} s`]),
      ...(uses > 0 ? [`${uses} ${uses === 1 ? 'use' : 'uses'}`] : []),
    ];
    return [...parts, ...(waits ? ['waits'] : [])].join(', ');
  }
}

export const hudPanel: SeatPanel = {
  place: 'side',
  type: Hud,
  inputs: (seat, layout) => ({
    view: seat.shown(hudOf),
    cast: seat.cast(),
    uses: seat.uses(),
    compact: layout === 'quarter',
    figures: layout === 'whole',
  }),
};
