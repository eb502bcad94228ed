import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import type { TreeWalk, TreeQuestions } from '@eager-ember/core';
import type { RulesetJson } from '../../shared/api';
import { CoreClient } from '../../shared/core-client';
import { Editor } from '../../store/editor';
import { entriesOf } from '../entries';
import { SpecContext } from '../spec/spec-context';
import { ChosenNode, type NodeJson } from './chosen-node';
import { layOut } from './layout';

/** A place of the grid in units of the drawing, and the room around. */
const [CELL_X, CELL_Y, EDGE_X, EDGE_Y] = [48, 98, 44, 26];

/** The drawn tree: laid out by hand or by itself, and walked with so many points. */
@Component({
  selector: 'ee-tree-plan',
  templateUrl: './tree-plan.html',
  styleUrl: './tree-plan.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TreePlan {
  readonly id = input.required<string>();
  private readonly client = inject(CoreClient);
  private readonly context = inject(SpecContext);
  private readonly document = inject(Editor).document;
  protected readonly chosen = inject(ChosenNode);
  private readonly plan = viewChild<ElementRef<SVGSVGElement>>('plan');
  protected readonly walking = signal(false);
  protected readonly points = signal(10);
  protected readonly level = signal(10);
  protected readonly ranks = signal<Readonly<Record<string, number>>>({});
  protected readonly walk = signal<TreeWalk | undefined>(undefined);
  /** What was refused last, or what happened. */
  protected readonly says = signal('');
  private readonly drag = signal<{ readonly id: string; readonly x: number; readonly y: number; readonly moved: boolean } | undefined>(
    undefined,
  );
  private turn = 0;
  private of = '';

  private readonly tree = computed(() => entriesOf(this.document(), 'trees').find(({ id }) => id === this.id()));
  private readonly nodes = computed(() => (this.tree()?.['nodes'] as readonly NodeJson[] | undefined) ?? []);

  protected readonly drawn = computed(() => {
    const walk = new Map(this.walk()?.nodes.map((node) => [node.id, node]));
    const drag = this.drag();
    return this.nodes().map((node) => {
      const at = drag?.id === node.id ? drag : { x: node.x ?? 0, y: node.y ?? 0 };
      const state = walk.get(node.id);
      const rank = this.walking() ? (state?.rank ?? 0) : 0;
      const locked = this.walking() ? state?.locked : undefined;
      return {
        id: node.id,
        label: node.label,
        lines: linesOf(node.label),
        x: EDGE_X + at.x * CELL_X,
        y: EDGE_Y + at.y * CELL_Y,
        ranks: node.ranks ?? 1,
        rank,
        open: this.walking() && locked === undefined,
        learned: rank > 0,
        words: this.walking()
          ? `${node.label}, ${rank} of ${node.ranks ?? 1}. ${locked ?? `Open, for ${state?.cost ?? 1}.`}`
          : `${node.label}, at ${node.x ?? 0}, ${node.y ?? 0}`,
      };
    });
  });

  protected readonly links = computed(() => {
    const at = new Map(this.drawn().map((node) => [node.id, node]));
    return this.nodes().flatMap((node) =>
      (['all', 'any'] as const).flatMap((kind) =>
        (node.needs?.[kind] ?? []).flatMap(({ node: id, rank = 1 }) => {
          const [from, to] = [at.get(id), at.get(node.id)];
          return from && to ? [{ kind, from, to, met: from.rank >= rank, rank: rank > 1 ? String(rank) : '' }] : [];
        }),
      ),
    );
  });

  protected readonly choices = computed(() => {
    const at = new Map(this.drawn().map((node) => [node.id, node]));
    return ((this.tree()?.['exclusive'] as readonly (readonly string[])[] | undefined) ?? []).flatMap((group) =>
      group.slice(1).flatMap((id, i) => {
        const [from, to] = [at.get(group[i]), at.get(id)];
        return from && to ? [{ from, to }] : [];
      }),
    );
  });

  protected readonly box = computed(() => {
    const right = Math.max(4, ...this.nodes().map(({ x = 0 }) => x));
    const low = Math.max(1, ...this.nodes().map(({ y = 0 }) => y));
    return `0 0 ${right * CELL_X + 2 * EDGE_X} ${low * CELL_Y + 2 * EDGE_Y + 36}`;
  });

  /** Why the chosen node can't be learned now, or that it can; while the tree is walked. */
  protected readonly about = computed(() => {
    const state = this.walk()?.nodes.find(({ id }) => id === this.chosen.id());
    const node = this.nodes().find(({ id }) => id === this.chosen.id());
    if (!state || !node || !this.walking()) return '';
    return state.locked ?? `${node.label} is open, for ${state.cost} ${state.cost === 1 ? 'point' : 'points'}.`;
  });

  constructor() {
    effect(() => {
      const [document, id, ranks, points, level] = [this.document(), this.id(), this.ranks(), this.points(), this.level()];
      if (document) untracked(() => void this.compute(document, id, ranks, points, level));
    });
  }

  private async compute(
    document: RulesetJson,
    id: string,
    ranks: Readonly<Record<string, number>>,
    points: number,
    level: number,
  ): Promise<void> {
    const turn = ++this.turn;
    if (this.of !== id) {
      this.of = id;
      this.ranks.set({});
      this.says.set('');
    }
    const walk = await this.client
      .of<TreeQuestions>('trees')
      .walk(document, id, ranks, points, level)
      .catch(() => undefined);
    if (turn !== this.turn) return;
    const before = this.walk();
    this.walk.set(walk);
    // An edit may have made what was walked illegal: what is left of it is what is walked on.
    const lost = Object.entries(ranks).reduce(
      (sum, [node, rank]) => sum + Math.max(0, rank - (walk?.nodes.find((one) => one.id === node)?.rank ?? 0)),
      0,
    );
    if (walk && lost > 0) {
      this.ranks.set(Object.fromEntries(walk.nodes.filter(({ rank }) => rank > 0).map(({ id: node, rank }) => [node, rank])));
      this.says.set(`The tree has changed: ${Math.max(0, (before?.spent ?? 0) - walk.spent)} points came back.`);
    }
  }

  protected learn(id: string): void {
    const node = this.walk()?.nodes.find((one) => one.id === id);
    this.chosen.id.set(id);
    if (!node) return;
    if (node.locked !== undefined) return this.says.set(node.locked);
    this.says.set('');
    this.ranks.update((ranks) => ({ ...ranks, [id]: node.rank + 1 }));
  }

  protected giveBack(id: string): void {
    const node = this.walk()?.nodes.find((one) => one.id === id);
    this.chosen.id.set(id);
    if (!node) return;
    if (node.held !== undefined) return this.says.set(node.held);
    this.says.set('');
    this.ranks.update((ranks) => ({ ...ranks, [id]: node.rank - 1 }));
  }

  protected begin(walking: boolean): void {
    this.walking.set(walking);
    this.says.set('');
  }

  protected anew(): void {
    this.ranks.set({});
    this.says.set('');
  }

  protected type(field: HTMLInputElement, into: 'points' | 'level'): void {
    const value = Number(field.value);
    if (field.value.trim() !== '' && Number.isInteger(value) && value >= 0 && value <= 1000) this[into].set(value);
    field.value = String(this[into]());
  }

  protected clicked(event: MouseEvent, id: string): void {
    this.chosen.id.set(id);
    if (!this.walking()) return;
    if (event.shiftKey) this.giveBack(id);
    else this.learn(id);
  }

  protected key(event: KeyboardEvent, id: string): void {
    const steps: Readonly<Record<string, readonly [number, number]>> = {
      ArrowLeft: [-1, 0],
      ArrowRight: [1, 0],
      ArrowUp: [0, -1],
      ArrowDown: [0, 1],
    };
    const step = steps[event.key];
    if (step) {
      event.preventDefault();
      if (this.walking()) this.goto(id, step);
      else this.move(id, (node) => ({ x: (node.x ?? 0) + step[0], y: (node.y ?? 0) + step[1] }));
    } else if (event.key === 'Enter' || event.key === ' ') {
      event.preventDefault();
      this.chosen.id.set(id);
      if (this.walking()) this.learn(id);
    } else if (this.walking() && (event.key === 'Backspace' || event.key === 'Delete')) {
      event.preventDefault();
      this.giveBack(id);
    }
  }

  /** The nearest node that way gets the focus. */
  private goto(id: string, [dx, dy]: readonly [number, number]): void {
    const all = this.drawn();
    const from = all.find((node) => node.id === id)!;
    const ahead = all
      .filter((node) => node.id !== id && (node.x - from.x) * dx + (node.y - from.y) * dy > 0)
      .map((node) => ({
        node,
        away: Math.hypot(node.x - from.x, node.y - from.y) + 2 * Math.abs(dx === 0 ? node.x - from.x : node.y - from.y),
      }))
      .sort((a, b) => a.away - b.away);
    const next = ahead[0]?.node;
    if (!next) return;
    this.chosen.id.set(next.id);
    this.plan()?.nativeElement.querySelector<SVGGElement>(`[data-node="${next.id}"]`)?.focus();
  }

  private move(id: string, to: (node: NodeJson) => { x: number; y: number }): void {
    const hold = (value: number) => Math.max(0, Math.min(40, value));
    const index = this.nodes().findIndex((node) => node.id === id);
    if (index < 0) return;
    const { x, y } = to(this.nodes()[index]);
    void this.context.change(`${this.nodes()[index].label} is moved`, (base) => [
      { op: 'add', path: `${base}/nodes/${index}/x`, value: hold(x) },
      { op: 'add', path: `${base}/nodes/${index}/y`, value: hold(y) },
    ]);
  }

  protected layOut(): void {
    const places = layOut(this.nodes());
    void this.context.change('the tree is laid out', (base) =>
      places.flatMap(({ x, y }, i) => [
        { op: 'add' as const, path: `${base}/nodes/${i}/x`, value: x },
        { op: 'add' as const, path: `${base}/nodes/${i}/y`, value: y },
      ]),
    );
  }

  private pointAt(event: PointerEvent): { x: number; y: number } {
    const plan = this.plan()!.nativeElement;
    const matrix = plan.getScreenCTM();
    if (!matrix) return { x: 0, y: 0 };
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
    const hold = (value: number) => Math.max(0, Math.min(40, Math.round(value)));
    return { x: hold((x - EDGE_X) / CELL_X), y: hold((y - EDGE_Y) / CELL_Y) };
  }

  protected take(event: PointerEvent, id: string): void {
    if (this.walking() || event.button !== 0) return;
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    this.drag.set({ id, ...this.pointAt(event), moved: false });
  }

  protected pull(event: PointerEvent): void {
    const drag = this.drag();
    if (!drag) return;
    const at = this.pointAt(event);
    if (at.x !== drag.x || at.y !== drag.y) this.drag.set({ id: drag.id, ...at, moved: true });
  }

  protected drop(): void {
    const drag = this.drag();
    this.drag.set(undefined);
    if (drag?.moved) this.move(drag.id, () => ({ x: drag.x, y: drag.y }));
  }
}

/** A label in two lines where it has several words. */
function linesOf(label: string): readonly string[] {
  const words = label.split(' ');
  if (words.length < 2 || label.length < 11) return [label];
  const middle = Math.ceil(words.length / 2);
  return [words.slice(0, middle).join(' '), words.slice(middle).join(' ')];
}
