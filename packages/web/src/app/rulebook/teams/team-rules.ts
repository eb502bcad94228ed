import { ChangeDetectionStrategy, Component, inject, Injectable } from '@angular/core';
import type { Problem } from '@eager-ember/core';
import { Editor } from '../../store/editor';
import { Choose, type Way } from '../spec/choose';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { asRevision, type EditAt, type Revision, SpecContext } from '../spec/spec-context';
import { entriesOf } from '../entries';

type Json = Readonly<Record<string, unknown>>;

/** What holds for all teams, as the parts of sentences read and change it. */
@Injectable()
class RulesContext extends SpecContext {
  private readonly edits = inject(Editor);

  protected override shape() {
    return this.descriptions.of('teamRules');
  }

  protected override whole(): unknown {
    return this.document()?.['teamRules'];
  }

  override changeAt(at: string, make: EditAt): Promise<readonly Problem[]> {
    return this.revise(at, asRevision(make));
  }

  override revise(at: string, make: Revision): Promise<readonly Problem[]> {
    return this.rewrite((rules) => ({ [at]: make(rules[at]) }));
  }

  put(fields: Json): Promise<readonly Problem[]> {
    return this.rewrite(() => fields);
  }

  private rewrite(make: (rules: Json) => Json): Promise<readonly Problem[]> {
    return this.edits.propose((document) => {
      const before = (document['teamRules'] ?? {}) as Json;
      const after = Object.fromEntries(Object.entries({ ...before, ...make(before) }).filter(([, one]) => one !== undefined));
      return [{ op: 'add', path: '/teamRules', value: after }];
    }, 'team rules');
  }
}

/** How players come into teams and change them, in sentences: the same for every team. */
@Component({
  selector: 'ee-team-rules',
  imports: [Choose, Part, Sentence],
  template: `
    <section aria-label="All teams">
      <h2>All teams</h2>
      <ee-sentence>
        Who joins goes with their party, or else into <ee-choose [ways]="options('assign')" [value]="of('assign', 'fewest')" label="where who joins goes" (chosen)="assign($event)" />@if (of('assign', 'fewest') === 'lowest') {{{ ' ' }}<ee-part at="stat" label="what is compared" />}.
      </ee-sentence>
      <ee-sentence>
        Players may change teams <ee-choose [ways]="options('switching')" [value]="of('switching', 'balanced')" label="when players may change" (chosen)="switching($event)" />@if (of('switching', 'balanced') === 'after') {{{ ' ' }}<ee-part at="after" label="after how long" />}; <ee-part at="neutral" label="no team" />.
      </ee-sentence>
      <ee-sentence>When somebody leaves, <ee-part at="rebalance" label="when somebody leaves" />.</ee-sentence>
    </section>
  `,
  styles: `
    section {
      border-top: 1px solid var(--hair);
      margin-top: 10px;
      padding-top: 6px;
    }
    h2 {
      font: 700 13.5px var(--sans);
      margin: 0 0 4px;
    }
  `,
  providers: [RulesContext, { provide: SpecContext, useExisting: RulesContext }],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TeamRulesPart {
  private readonly context = inject(RulesContext);

  protected options(at: string): readonly Way[] {
    return this.context.options(at);
  }

  protected of(field: string, otherwise: string): string {
    return String(this.context.value(field) ?? otherwise);
  }

  protected assign(assign: string): void {
    const [first] = entriesOf(this.context.document(), 'attributes').filter((one) => one['kind'] !== 'pool');
    void this.context.put({ assign, stat: assign === 'lowest' ? first?.id : undefined });
  }

  protected switching(switching: string): void {
    void this.context.put({ switching, after: switching === 'after' ? '30s' : undefined });
  }
}
