import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { DomSanitizer } from '@angular/platform-browser';
import air from '@material-symbols/svg-400/outlined/air.svg' with { loader: 'text' };
import bolt from '@material-symbols/svg-400/outlined/bolt.svg' with { loader: 'text' };
import tool from '@material-symbols/svg-400/outlined/build.svg' with { loader: 'text' };
import heart from '@material-symbols/svg-400/outlined/favorite.svg' with { loader: 'text' };
import spark from '@material-symbols/svg-400/outlined/flare.svg' with { loader: 'text' };
import flame from '@material-symbols/svg-400/outlined/local_fire_department.svg' with { loader: 'text' };
import coin from '@material-symbols/svg-400/outlined/paid.svg' with { loader: 'text' };
import shield from '@material-symbols/svg-400/outlined/shield.svg' with { loader: 'text' };
import gauge from '@material-symbols/svg-400/outlined/speed.svg' with { loader: 'text' };
import star from '@material-symbols/svg-400/outlined/star.svg' with { loader: 'text' };
import drop from '@material-symbols/svg-400/outlined/water_drop.svg' with { loader: 'text' };
import weight from '@material-symbols/svg-400/outlined/weight.svg' with { loader: 'text' };

const SIGNS: Readonly<Record<string, string>> = { air, bolt, coin, drop, flame, gauge, heart, shield, spark, star, tool, weight };

/** The sign that an author gave a value. It always stands beside the value's name, so it says nothing by itself. */
@Component({
  selector: 'ee-sign',
  template: '<span aria-hidden="true" [innerHTML]="picture()"></span>',
  styles: `
    :host,
    span {
      display: inline-flex;
      width: 15px;
      height: 15px;
      fill: currentColor;
      vertical-align: -2px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Sign {
  readonly name = input.required<string>();
  private readonly sanitizer = inject(DomSanitizer);
  // What is bundled is trusted; a name that is none of ours draws nothing.
  protected readonly picture = computed(() =>
    this.sanitizer.bypassSecurityTrustHtml((SIGNS[this.name()] ?? '').replace(/width="\d+" height="\d+"/, 'width="15" height="15"')),
  );
}
