import { computed, inject, Injectable, signal } from '@angular/core';
import type { Problem } from '@eager-ember/core';
import type { Operation } from 'fast-json-patch';
import type { RulesetJson } from '../../shared/api';
import { Editor } from '../../store/editor';
import { fieldAt } from '../spec/described';
import { asRevision, type EditAt, type Revision, SpecContext } from '../spec/spec-context';
import { arenaOf, type Item, nameOf } from './things';

type Json = Readonly<Record<string, unknown>>;

/** The thing of the arena that is chosen, as the parts of sentences read and change it. */
@Injectable()
export class PlacedContext extends SpecContext {
  private readonly edits = inject(Editor);
  readonly item = signal<Item | undefined>(undefined);
  readonly arena = computed(() => arenaOf(this.document()));
  readonly thing = computed(() => {
    const item = this.item();
    return item === undefined ? undefined : (this.arena()[item.list][item.index] as unknown as Json | undefined);
  });
  readonly called = computed(() => {
    const [item, thing] = [this.item(), this.thing()];
    if (!item || !thing) return '';
    return item.list === 'placed' ? nameOf(this.document(), thing as never) : item.list === 'walls' ? 'Wall' : 'Start point';
  });

  protected override shape() {
    const item = this.item();
    return item && fieldAt(this.descriptions.of('arena'), this.arena(), `${item.list}/0`);
  }

  protected override whole(): unknown {
    return this.thing();
  }

  override changeAt(at: string, make: EditAt): Promise<readonly Problem[]> {
    return this.revise(at, asRevision(make));
  }

  /** Makes a field below the chosen thing anew. What it stands in comes and goes with it. */
  override revise(at: string, make: Revision): Promise<readonly Problem[]> {
    const item = this.item();
    const thing = this.thing();
    if (!item || !thing) return Promise.resolve([]);
    return this.putList(`${this.called()}: ${at.replace(/\//g, ' ')}`, item.list, (list) =>
      list.map((one, i) => (i === item.index ? withField(one, at.split('/'), make) : one)),
    );
  }

  /** Changes one of the arena's lists in one step. */
  putList(label: string, list: Item['list'], make: (before: readonly Json[]) => readonly Json[]): Promise<readonly Problem[]> {
    return this.edits.propose((document) => listPatch(document, list, make), label);
  }

  /** Changes a field of the arena itself. */
  putArena(label: string, field: string, value: unknown): Promise<readonly Problem[]> {
    return this.edits.propose(
      (document) =>
        document['arena'] === undefined
          ? [{ op: 'add', path: '/arena', value: { [field]: value } }]
          : [{ op: 'add', path: `/arena/${field}`, value }],
      label,
    );
  }
}

function listPatch(document: RulesetJson, list: Item['list'], make: (before: readonly Json[]) => readonly Json[]): readonly Operation[] {
  const before = arenaOf(document)[list] as unknown as readonly Json[];
  const after = make(before);
  if (JSON.stringify(after) === JSON.stringify(before)) return [];
  if (document['arena'] === undefined) return [{ op: 'add', path: '/arena', value: { [list]: after } }];
  // One thing that changed is one operation: others may have edited the rest meanwhile.
  const moved = after.flatMap((one, i) => (JSON.stringify(one) === JSON.stringify(before[i]) ? [] : [i]));
  if (after.length === before.length && moved.length === 1)
    return [{ op: 'replace', path: `/arena/${list}/${moved[0]}`, value: after[moved[0]] }];
  return [{ op: 'add', path: `/arena/${list}`, value: after }];
}

/** A value with a field below it made anew, or taken out; holders that are empty then go too. */
function withField(value: unknown, path: readonly string[], make: Revision): Json {
  const [key, ...rest] = path;
  const own = Array.isArray(value) ? [...(value as unknown[])] : { ...(value as Json) };
  const holder = own as Record<string, unknown>;
  if (rest.length > 0) {
    const inner = withField(holder[key] ?? {}, rest, make);
    const bare = !Array.isArray(inner) && Object.keys(inner).length === 0;
    if (bare) Reflect.deleteProperty(holder, key);
    else holder[key] = inner;
  } else {
    const field = make(holder[key]);
    if (field === undefined) Reflect.deleteProperty(holder, key);
    else holder[key] = field;
  }
  return own as Json;
}
