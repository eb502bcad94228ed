import type { Amount, CompileContext, CompiledPattern } from '../../ruleset/context.js';
import { grouped } from '../../ruleset/grouped.js';
import type { Pattern } from '../../ruleset/registry.js';
import type { StateEntry } from './schema.js';

export interface State {
  readonly id: string;
  readonly mayMove: boolean;
  readonly mayUse: boolean;
  /** The status that it goes with; -1 for none. */
  readonly status: number;
  /** Seconds. */
  readonly lasts: Amount | undefined;
  readonly ends: CompiledPattern | undefined;
  readonly from: readonly number[] | undefined;
  readonly into: readonly number[] | undefined;
}

export interface CompiledStates {
  readonly entries: readonly StateEntry[];
  readonly list: readonly State[];
  /** Positions of the states that the core itself puts actors in. */
  readonly idle: number;
  readonly moving: number;
  readonly down: number;
  /** By event: the states that it may end. */
  readonly endedBy: ReadonlyMap<string, readonly number[]>;
  /** Statuses that a state goes with. */
  readonly held: ReadonlySet<number>;
}

export function* compileStates(context: CompileContext): Generator<void, CompiledStates> {
  const entries = context.entries<StateEntry>('states');
  const position = (id: string) => context.index('states', id);
  const list = yield* context.each('states', entries, (entry, i): State => {
    const path = ['states', i];
    if ((entry.id === 'idle' || entry.id === 'moving') && (entry.while ?? entry.lasts ?? entry.ends) !== undefined)
      context.problem(path, `${entry.label} is what an actor is when nothing else holds: it has no time, status or event of its own.`);
    return {
      id: entry.id,
      mayMove: entry.allows.includes('move'),
      mayUse: entry.allows.includes('use'),
      status: entry.while === undefined ? -1 : context.index('statuses', entry.while),
      lasts: entry.lasts === undefined ? undefined : context.seconds(entry.lasts, [...path, 'lasts']),
      ends: entry.ends && context.pattern(entry.ends as Pattern),
      from: entry.from?.map(position),
      into: entry.into?.map(position),
    };
  });
  const endedBy = grouped(list.keys(), (i) => list[i].ends?.event);
  return {
    entries,
    list,
    idle: position('idle'),
    moving: position('moving'),
    down: position('down'),
    endedBy,
    held: new Set(list.map((state) => state.status).filter((status) => status >= 0)),
  };
}
