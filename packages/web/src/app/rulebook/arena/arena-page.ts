import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { MatTooltip } from '@angular/material/tooltip';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { documentFeature } from '../../store/document.reducer';
import { Findings } from '../../store/findings';
import { isTyping } from '../../shared/keys';
import { ChapterTabs } from '../chapter-tabs';
import { entriesOf } from '../entries';
import { EntryFindings } from '../entry-findings';
import { Part } from '../spec/part';
import { Sentence } from '../spec/sentence';
import { SpecContext } from '../spec/spec-context';
import { ArenaMap, type Moved, sizeFrom } from './arena-map';
import { type Override, overridesOf } from './overrides';
import { PlacedContext } from './placed-context';
import { CHAPTER_OF, type Item, type Kind, kindOf, type PlacedJson, type Point } from './things';
import { ARENA_FILES } from './arena-files';

type Json = Readonly<Record<string, unknown>>;

/** What can be put into the arena: an entry, a wall, or a start point. */
interface Placing {
  readonly kind: Kind | 'wall' | 'start';
  readonly id: string;
}

const SNAPS = [1, 5, 10, 20];
/** What a zone's shape begins as, and a wall's. */
const [ZONE, WALL] = [{ radius: 50 }, { width: 80, height: 20 }];

const ROUTES = [
  { at: 'points', name: 'point', says: 'What it makes appears in turn at', empty: 'its own place.' },
  { at: 'along', name: 'stop', says: 'Those who follow points go along', empty: 'their own.' },
];

/** The arena by hand: what it places, its walls and start points, each with what is other about it, and how far it reaches. */
@Component({
  selector: 'ee-arena-page',
  imports: [ArenaMap, ChapterTabs, EntryFindings, MatTooltip, Part, RouterLink, Sentence],
  templateUrl: './arena-page.html',
  styleUrl: './arena-page.scss',
  providers: [PlacedContext, { provide: SpecContext, useExisting: PlacedContext }],
  host: { '(document:keydown)': 'key($event)' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ArenaPage {
  /** The placed thing that is chosen, from the address. */
  readonly thing = input<string>();
  /** What is to be placed, from the address: `zone:divingBell`. */
  readonly place = input<string>();
  protected readonly context = inject(PlacedContext);
  private readonly dialog = inject(MatDialog);
  private readonly findings = inject(Findings);
  protected readonly ruleset = inject(Store).selectSignal(documentFeature.selectId);
  protected readonly snaps = SNAPS;
  protected readonly snap = signal(5);
  protected readonly placing = signal<Placing | undefined>(undefined);
  protected readonly refusal = signal('');
  /** The lists of points that a spawner has. */
  protected readonly routes = ROUTES;
  protected readonly item = this.context.item;
  protected readonly chosen = computed(() =>
    this.item()?.list === 'placed' ? (this.context.thing() as PlacedJson | undefined) : undefined,
  );
  protected readonly kind = computed(() => {
    const thing = this.chosen();
    return thing && kindOf(thing);
  });
  protected readonly page = computed(() => {
    const [thing, kind] = [this.chosen(), this.kind()];
    return thing && kind ? ['/r', this.ruleset() ?? '', 'rulebook', CHAPTER_OF[kind], String(thing[kind])] : [];
  });
  protected readonly all = computed(() => {
    const thing = this.chosen();
    return thing ? overridesOf(this.context.document(), thing) : [];
  });
  protected readonly said = computed(() => this.all().filter(({ at }) => this.context.value(at) !== undefined));
  protected readonly unsaid = computed(() => this.all().filter(({ at }) => this.context.value(at) === undefined));
  protected readonly palette = computed(() => {
    const document = this.context.document();
    const of = (kind: Kind, title: string, fits: (one: Json) => boolean = () => true) => ({
      title,
      kind,
      entries: entriesOf(document, CHAPTER_OF[kind])
        .filter(fits)
        .map(({ id, label }) => ({ id, label })),
    });
    return [
      of('pickup', 'Pickups'),
      of('actor', 'Characters', (one) => one['kind'] === 'character'),
      of('actor', 'Props', (one) => one['kind'] === 'prop'),
      of('actor', 'Foes', (one) => one['kind'] === 'foe'),
      of('zone', 'Zones'),
      of('spawner', 'Spawners'),
    ].filter(({ entries }) => entries.length > 0);
  });
  protected readonly found = computed(() => this.findings.all().filter(({ chapter }) => chapter === 'arena'));
  protected readonly badges = computed(
    () =>
      new Set(
        this.found().flatMap(({ path }) => [/^\/arena\/placed\/(\d+)/.exec(path)?.[1]].filter((one) => one !== undefined).map(Number)),
      ),
  );

  constructor() {
    effect(() => {
      const [thing, place] = [this.thing(), this.place()];
      untracked(() => {
        if (thing !== undefined) this.item.set({ list: 'placed', index: Number(thing) });
        const [kind, id] = place?.split(':') ?? [];
        if (kind !== undefined && kind in CHAPTER_OF && id) this.placing.set({ kind: kind as Kind, id });
      });
    });
    // What was chosen may have gone with an undo.
    effect(() => {
      if (this.item() && this.context.thing() === undefined && this.context.document()) untracked(() => this.item.set(undefined));
    });
  }

  private async change(label: string, list: Item['list'], make: (before: readonly Json[]) => readonly Json[]): Promise<boolean> {
    const problems = await this.context.putList(label, list, make);
    this.refusal.set(problems.map((problem) => problem.message).join(' '));
    return problems.length === 0;
  }

  protected async put({ item, to, how }: Moved): Promise<void> {
    const { list, index } = item;
    if (how === 'copy') return this.copy(item, to);
    const name = this.context.called().toLowerCase();
    await this.change(`${how} ${name}`, list, (before) =>
      before.map((one, i) =>
        i !== index ? one : how === 'move' ? { ...one, ...to } : { ...one, ...sizeFrom({ item, to, how }, one as never) },
      ),
    );
  }

  /** Puts a copy of a thing beside it, or where it was dragged to. What names the one names no other. */
  protected async copy({ list, index }: Item, to?: Point): Promise<void> {
    const source = this.context.arena()[list][index] as unknown as Json & Point;
    const { id: _id, ...own } = source as Json;
    const { width, height } = this.context.arena();
    const at = to ?? { x: Math.min(width, source.x + 30), y: Math.min(height, source.y + 30) };
    const next = this.context.arena()[list].length;
    if (await this.change(`copy ${this.context.called().toLowerCase()}`, list, (before) => [...before, { ...own, ...at }]))
      this.item.set({ list, index: next });
  }

  protected async remove({ list, index }: Item): Promise<void> {
    const name = this.context.called().toLowerCase();
    this.item.set(undefined);
    await this.change(`take out ${name}`, list, (before) => before.filter((_, i) => i !== index));
  }

  protected begin(kind: Placing['kind'], id: string): void {
    const same = this.placing()?.kind === kind && this.placing()?.id === id;
    this.placing.set(same ? undefined : { kind, id });
  }

  protected async placeAt(point: Point): Promise<void> {
    const placing = this.placing();
    if (!placing) return;
    const { kind, id } = placing;
    const list: Item['list'] = kind === 'wall' ? 'walls' : kind === 'start' ? 'starts' : 'placed';
    const fresh: Json =
      kind === 'wall'
        ? { ...point, ...WALL }
        : kind === 'start'
          ? { ...point, ...(id !== '' && { team: id }) }
          : { [kind]: id, ...point, ...(kind === 'zone' && ZONE) };
    const index = this.context.arena()[list].length;
    this.placing.set(undefined);
    if (await this.change(`place ${kind === 'wall' || kind === 'start' ? kind : id}`, list, (before) => [...before, fresh]))
      this.item.set({ list, index });
  }

  /** Without a pointer: puts what waits into the middle, from where the arrow keys move it. */
  protected placeInMiddle(): void {
    const { width, height } = this.context.arena();
    void this.placeAt({ x: Math.round(width / 2), y: Math.round(height / 2) });
  }

  /** Says something otherwise of this one, to begin with as its entry says it. */
  protected async say({ at, begins, ask }: Override): Promise<void> {
    const asked = ask && { interaction: ask.interaction, [ask.field]: ask.value };
    const problems = !asked
      ? await this.context.set(at, begins)
      : await this.context.revise('with/asks', (now) => {
          const asks = (now as readonly Json[] | undefined) ?? [];
          const known = asks.some(({ interaction }) => interaction === asked.interaction);
          return known ? asks.map((one) => (one['interaction'] === asked.interaction ? { ...one, ...asked } : one)) : [...asks, asked];
        });
    this.refusal.set(problems.map((problem) => problem.message).join(' '));
  }

  /** Takes out what was said otherwise; an interaction of which nothing is left to say goes with it. */
  protected async unsay({ at }: Override): Promise<void> {
    const asks = /^with\/asks\/(\d+)\/([^/]+)/.exec(at);
    if (!asks) return void (await this.context.set(at, undefined));
    const meant = (this.context.value('with/asks') as readonly Json[])[Number(asks[1])];
    await this.context.revise('with/asks', (now) => {
      const left = ((now as readonly Json[] | undefined) ?? []).flatMap((one) => {
        if (one['interaction'] !== meant['interaction']) return [one];
        const { [asks[2]]: _gone, ...rest } = one;
        return Object.keys(rest).length > 1 ? [rest] : [];
      });
      return left.length > 0 ? left : undefined;
    });
  }

  protected pointsOf(at: string): readonly Point[] {
    return (this.context.value(at) as readonly Point[] | undefined) ?? [];
  }

  protected addPoint(at: string): void {
    const here = this.chosen() as Point;
    void this.context.revise(at, (now) => {
      const points = (now as readonly Point[] | undefined) ?? [];
      const last = points.at(-1) ?? here;
      return [...points, { x: last.x + 40, y: last.y }];
    });
  }

  protected dropPoint(at: string, index: number): void {
    const meant = JSON.stringify(this.pointsOf(at)[index]);
    void this.context.revise(at, (now) => {
      const rest = (now as readonly Point[]).filter((one, i) => i !== index || JSON.stringify(one) !== meant);
      return rest.length > 0 ? rest : undefined;
    });
  }

  protected async resize(field: 'width' | 'height', box: HTMLInputElement): Promise<void> {
    const value = Number(box.value);
    const problems = Number.isFinite(value)
      ? await this.context.putArena(`arena ${field}`, field, value)
      : [{ path: '', message: 'A number is expected.' }];
    this.refusal.set(problems.map((problem) => problem.message).join(' '));
    if (problems.length > 0) box.value = String(this.context.arena()[field]);
  }

  protected async shape(to: 'circle' | 'rectangle'): Promise<void> {
    const item = this.item()!;
    await this.change(`shape of ${this.context.called().toLowerCase()}`, 'placed', (before) =>
      before.map((one, i) => {
        if (i !== item.index) return one;
        const { radius: _r, width: _w, height: _h, ...rest } = one;
        return { ...rest, ...(to === 'circle' ? { radius: 50 } : { width: 120, height: 80 }) };
      }),
    );
  }

  protected async exchange(): Promise<void> {
    const { FileExchange } = await import('../file-exchange');
    this.dialog.open(FileExchange, { data: ARENA_FILES });
  }

  protected key(event: KeyboardEvent): void {
    if (event.key === 'Escape' && !isTyping(event)) {
      this.placing.set(undefined);
      this.item.set(undefined);
    }
    if (event.key === 'Enter' && this.placing() && !isTyping(event) && !(event.target as HTMLElement).closest('.palette'))
      this.placeInMiddle();
  }
}
