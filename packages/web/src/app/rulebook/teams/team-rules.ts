import { ChangeDetectionStrategy, Component, inject, Injectable } from '@angular/core';
import type { Problem } from '@eager-ember/core';
import { Editor } from '../../store/editor';
import { duration, entry, flag } from '../spec/formats';
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

  override value(at: string): unknown {
    return (this.document()?.['teamRules'] as Json | undefined)?.[at];
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

const ASSIGNS: readonly Way[] = [
  { value: 'fewest', label: 'the team with the fewest players', hint: 'the first of equals' },
  { value: 'lowest', label: 'the team that has the least of', hint: 'a stat or a counter, added up' },
];
const SWITCHES: readonly Way[] = [
  { value: 'free', label: 'whenever they ask', hint: 'as long as there is room' },
  { value: 'balanced', label: 'unless that would unbalance the teams', hint: 'more than one apart' },
  { value: 'after', label: 'again after', hint: 'a time' },
  { value: 'never', label: 'never', hint: 'teams are kept' },
];

/** How players come into teams and change them, in sentences: the same for every team. */
@Component({
  selector: 'ee-team-rules',
  imports: [Choose, Part, Sentence],
  template: `
    <section aria-label="All teams">
      <h2>All teams</h2>
      <ee-sentence>
        Who joins goes with their party, or else into <ee-choose [ways]="assigns" [value]="of('assign', 'fewest')" label="where who joins goes" (chosen)="assign($event)" />@if (of('assign', 'fewest') === 'lowest') {{{ ' ' }}<ee-part at="stat" [format]="stat" label="what is compared" />}.
      </ee-sentence>
      <ee-sentence>
        Players may change teams <ee-choose [ways]="switches" [value]="of('switching', 'balanced')" label="when players may change" (chosen)="switching($event)" />@if (of('switching', 'balanced') === 'after') {{{ ' ' }}<ee-part at="after" [format]="duration" label="after how long" />}; <ee-part at="neutral" [format]="neutral" label="no team" empty="everybody is in a team" />.
      </ee-sentence>
      <ee-sentence>When somebody leaves, <ee-part at="rebalance" [format]="rebalance" label="when somebody leaves" empty="nobody is moved" />.</ee-sentence>
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
  protected readonly assigns = ASSIGNS;
  protected readonly switches = SWITCHES;
  protected readonly duration = duration;
  protected readonly stat = entry('attributes', (one) => one['kind'] !== 'pool');
  protected readonly neutral = flag({ true: 'who asks is in no team', false: 'everybody is in a team' });
  protected readonly rebalance = flag({ true: 'who came last is moved over where that keeps them even', false: 'nobody is moved' });

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
