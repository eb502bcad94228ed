import { Injectable } from '@angular/core';
import type { ActionDescription, EventDescription, FieldDescription, WorkbenchQuestion } from '@eager-ember/core';
import { type Remote, wrap } from 'comlink';
import type { CoreApi } from './core-api';

/** Questions as they are asked from here: of a document instead of compiled rules, and answered later. */
export type Asked<Q> = {
  readonly [K in keyof Q]: Q[K] extends (rules: never, ...args: infer A) => infer R
    ? (document: unknown, ...args: A) => Promise<Awaited<R>>
    : never;
};

/** The questions of a concept's page, as they are asked of the core wherever that is. */
export function questionsOf<Q>(ask: (...asked: Parameters<CoreApi['ask']>) => Promise<unknown>, concept: string): Asked<Q> {
  const question =
    (name: string) =>
    (document: unknown, ...args: readonly unknown[]) =>
      ask(document, concept, name, args);
  return new Proxy({}, { get: (_, name) => question(String(name)) }) as Asked<Q>;
}

/** The core in its worker. */
@Injectable({ providedIn: 'root' })
export class CoreClient {
  private worker: Remote<CoreApi> | undefined;
  private heard: Promise<readonly EventDescription[]> | undefined;
  private described: Promise<readonly ActionDescription[]> | undefined;
  private held: Promise<Readonly<Record<string, FieldDescription>>> | undefined;

  get core(): Remote<CoreApi> {
    return (this.worker ??= wrap<CoreApi>(new Worker(new URL('./core.worker', import.meta.url), { type: 'module' })));
  }

  /** The questions of a concept's page, each a function of the document. */
  of<Q extends Readonly<Record<string, WorkbenchQuestion>>>(concept: string): Asked<Q> {
    return questionsOf<Q>((...asked) => this.core.ask(...asked), concept);
  }

  /** What every section can hold; the same for all rulesets. */
  sections(): Promise<Readonly<Record<string, FieldDescription>>> {
    return (this.held ??= this.core.sections());
  }

  /** Every action there is; the same for all rulesets. */
  actions(): Promise<readonly ActionDescription[]> {
    return (this.described ??= this.core.actions());
  }

  /** Every event that can be waited for; the same for all rulesets. */
  events(): Promise<readonly EventDescription[]> {
    return (this.heard ??= this.core.events());
  }
}
