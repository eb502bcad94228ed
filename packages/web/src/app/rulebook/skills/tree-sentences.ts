import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { type TreeQuestions } from '@eager-ember/core';
import { CoreClient } from '../../shared/core-client';
import { Editor, patchOf } from '../../store/editor';
import { entriesOf } from '../entries';
import { Choose } from '../spec/choose';
import { type Clause, Clauses } from '../spec/clauses';
import { choice } from '../spec/choices';
import { IdBox } from '../spec/id-box';
import { Note, NOTE } from '../spec/note';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { SpecFields } from '../spec/spec-fields';
import { ChosenNode, type NodeJson } from './chosen-node';
import { withoutNode } from './layout';

type Json = Readonly<Record<string, unknown>>;
interface NeedJson {
  readonly node: string;
}

/** What says something of all that could be said; nothing, where nothing does. */
function saying(all: Json): Json | undefined {
  const left = Object.entries(all).filter(([, one]) => one !== undefined && !(Array.isArray(one) && one.length === 0));
  return left.length > 0 ? Object.fromEntries(left) : undefined;
}

/** A skill tree in sentences: what holds for all of it, then the node that is chosen. */
@Component({
  selector: 'ee-tree-sentences',
  imports: [Part, Sentence, Clauses, Note, Choose, IdBox],
  templateUrl: './tree-sentences.html',
  styleUrl: './tree-sentences.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TreeSentences extends SpecFields {
  private readonly chosen = inject(ChosenNode);
  private readonly editor = inject(Editor);
  private readonly client = inject(CoreClient);
  protected readonly how = computed(() => String((this.context.value('respec') as { how?: string } | undefined)?.how ?? 'free'));
  protected readonly nodes = computed(() => this.list<NodeJson>('nodes'));
  /** A node of this tree, picked by its label. */
  protected readonly node = computed(() => choice(Object.fromEntries(this.nodes().map(({ id, label }) => [id, label]))));
  protected readonly index = computed(() => {
    const found = this.nodes().findIndex(({ id }) => id === this.chosen.id());
    return found < 0 && this.nodes().length > 0 ? 0 : found;
  });
  protected readonly current = computed(() => this.nodes()[this.index()]);
  protected readonly at = computed(() => `nodes/${this.index()}`);
  protected readonly clauses: readonly Clause[] = [{ at: 'see', name: 'who sees it', begins: 'everyone' }, NOTE];

  protected here(field: string): boolean {
    return this.has(`${this.at()}/${field}`);
  }

  protected respec(how: string): void {
    const [first] = entriesOf(this.context.document(), 'attributes').filter((one) => one['kind'] === 'counter');
    if (how === 'paid' && !first) return this.refusal.set('There is no counter that the price could be paid from.');
    void this.put('respec', how === 'paid' ? { how, price: { attribute: first.id, amount: 50 } } : { how });
  }

  protected addNode(): void {
    const from = this.current();
    // Below the one that is chosen, in the first place that is free there.
    const y = Math.min(40, (from?.y ?? -1) + 1);
    let x = from?.x ?? 1;
    while (this.nodes().some((node) => (node.y ?? 0) === y && Math.abs((node.x ?? 0) - x) < 2)) x += 2;
    const node = { label: 'New node', x: Math.min(40, x), y, ...(from && { needs: { all: [{ node: from.id }] } }) };
    void this.addNamed('nodes', 'New node', node).then((id) => this.chosen.id.set(id));
  }

  /** A new id for the node, followed by what needs it and by the ranks that players have. */
  protected readonly rename = async (to: string): Promise<boolean> => {
    const [tree, node] = [this.context.id(), this.current()];
    const problems = await this.editor.propose(
      async (document) => patchOf(await this.client.of<TreeQuestions>('trees').renameNode(document, tree, node.id, to)),
      `rename ${node.label}: ${node.id} to ${to}`,
    );
    this.told(problems);
    if (problems.length > 0) return false;
    this.chosen.id.set(to);
    return true;
  };

  protected removeNode(): void {
    const id = this.current()?.id;
    if (id === undefined) return;
    void this.putAll(withoutNode(this.nodes(), this.list<readonly string[]>('exclusive'), id));
  }

  protected addNeed(kind: 'all' | 'any'): void {
    const known = new Set([this.current()?.id, ...this.list<{ node: string }>(`${this.at()}/needs/${kind}`).map(({ node }) => node)]);
    const first = this.nodes().find(({ id }) => !known.has(id));
    if (!first) return this.refusal.set('There is no other node that it could need.');
    void this.need<readonly NeedJson[]>(kind, (needs = []) => [...needs.filter(({ node }) => node !== first.id), { node: first.id }]);
  }

  /** One of its needs made anew, or none of it any more; needs that say nothing are taken out. */
  protected need<T>(kind: string, make: (now: T | undefined) => unknown): Promise<void> {
    return this.revise<Json | undefined>(`${this.at()}/needs`, (needs) =>
      saying({ ...needs, [kind]: make(needs?.[kind] as T | undefined) }),
    );
  }

  protected without(kind: string): void {
    void this.need(kind, () => undefined);
  }

  protected removeNeed(kind: 'all' | 'any', index: number): void {
    const gone = this.list<NeedJson>(`${this.at()}/needs/${kind}`)[index].node;
    void this.need<readonly NeedJson[]>(kind, (needs = []) => needs.filter(({ node }) => node !== gone));
  }

  protected addLevel(): void {
    const [first] = entriesOf(this.context.document(), 'tracks');
    if (!first) return this.refusal.set('There is no level track yet: begin one under Levels.');
    void this.need('level', () => ({ track: first.id, at: 5 }));
  }

  protected addSpent(): void {
    void this.need('spent', () => 5);
  }

  protected gives<T>(kind: string, make: (now: T | undefined) => unknown): Promise<void> {
    return this.revise<Json | undefined>(`${this.at()}/gives`, (gives) =>
      saying({ ...gives, [kind]: make(gives?.[kind] as T | undefined) }),
    );
  }

  protected givesNo(kind: string): void {
    void this.gives(kind, () => undefined);
  }

  protected addGift(kind: 'effect' | 'ability' | 'numbers'): void {
    const chapter = kind === 'effect' ? 'effects' : 'abilities';
    const first = entriesOf(this.context.document(), chapter).find((one) => kind !== 'effect' || one['lifetime'] === 'lasting');
    if (!first)
      return this.refusal.set(kind === 'effect' ? 'There is no lasting effect yet: begin one under Effects.' : 'There is no ability yet.');
    void this.gives<readonly Json[]>(kind, (now = []) =>
      kind === 'numbers' ? [...now, { ability: first.id, number: 'cooldown', amount: -10 }] : first.id,
    );
  }

  protected removeNumber(index: number): void {
    const gone = JSON.stringify(this.list(`${this.at()}/gives/numbers`)[index]);
    void this.gives<readonly Json[]>('numbers', (now = []) => now.filter((one, i) => i !== index || JSON.stringify(one) !== gone));
  }

  protected addChoice(): void {
    const [a, b] = [this.current(), this.nodes().find(({ id }) => id !== this.current()?.id)];
    if (!a || !b) return this.refusal.set('A choice is between two nodes: there is only one.');
    void this.add('exclusive', [a.id, b.id]);
  }
}
