import { Injectable } from '@angular/core';
import type { ActionDescription, EventDescription, FieldDescription, WorkbenchQuestion } from '@eager-ember/core';
import { type Remote, wrap } from 'comlink';
import type { RulesetJson } from './api';
import type { Core, CoreApi, Question } from './core-api';
import { LastUsed } from './last-used';
import { type Derivation, derivationOf, forgetDerivation } from './patched';

/** Questions as they are asked from here: of a document instead of compiled rules, and answered later. */
export type Asked<Q> = {
  readonly [K in keyof Q]: Q[K] extends (rules: never, ...args: infer A) => infer R
    ? (document: RulesetJson, ...args: A) => Promise<Awaited<R>>
    : never;
};

/** What is worked out in parts, as it is asked from here. */
export type Awaiting<B> = {
  readonly [K in keyof B]: B[K] extends (rules: never, ...args: infer A) => Generator<void, infer R>
    ? (document: RulesetJson, ...args: A) => Promise<R | undefined>
    : never;
};

/** What is asked about no document, each by its own name. */
const OTHERS: readonly Exclude<keyof Core, Question>[] = [
  'repeatedNames',
  'upgraded',
  'checkText',
  'readText',
  'evidenceCsv',
  'sections',
  'actions',
  'events',
  'inputs',
];

/** More edits than this that the worker has not heard of are a document of their own. */
const MOST_STEPS = 4;

/** The core in its worker, which owns the documents: it is told of each once, and of an edited one what the edit has changed. */
@Injectable({ providedIn: 'root' })
export class CoreClient {
  private worker: Remote<CoreApi> | undefined;
  private heard: Promise<readonly EventDescription[]> | undefined;
  private described: Promise<readonly ActionDescription[]> | undefined;
  private askable: Promise<readonly ActionDescription[]> | undefined;
  private held: Promise<Readonly<Record<string, FieldDescription>>> | undefined;
  private readonly numbers = new WeakMap<RulesetJson, number>();
  /** The numbers that the worker has a document under. */
  private readonly there = new LastUsed<true>();
  private last = 0;

  protected connect(): Remote<CoreApi> {
    return wrap<CoreApi>(new Worker(new URL('./core.worker', import.meta.url), { type: 'module' }));
  }

  private get remote(): Remote<CoreApi> {
    return (this.worker ??= this.connect());
  }

  readonly core: Core = new Proxy({} as Core, {
    get: (_, name) => {
      const other = OTHERS.find((one) => one === name);
      if (other) return this.remote[other];
      return (document: RulesetJson, ...args: readonly unknown[]) => this.remote.answer(this.numberOf(document), name as Question, args);
    },
  });

  /** The number under which the worker has a document; it is told what it does not have. What is sent comes there in order. */
  private numberOf(document: RulesetJson): number {
    const known = this.numberThere(document);
    if (known !== undefined) return known;
    const steps = this.stepsTo(document);
    if (!steps) this.remember(document, (number) => void this.remote.hold(number, document));
    for (const { from, patch, to } of steps ?? []) {
      const before = this.numberThere(from)!;
      this.remember(to, (number) => void this.remote.derive(number, before, patch));
    }
    return this.numbers.get(document)!;
  }

  private numberThere(document: RulesetJson): number | undefined {
    const number = this.numbers.get(document);
    return number !== undefined && this.there.use(number) ? number : undefined;
  }

  /** The edits from a document that the worker has to this one; undefined where there is none. */
  private stepsTo(document: RulesetJson): readonly (Derivation & { readonly to: RulesetJson })[] | undefined {
    const steps: (Derivation & { readonly to: RulesetJson })[] = [];
    for (let to = document; this.numberThere(to) === undefined;) {
      const derivation = derivationOf(to);
      if (!derivation || steps.length >= MOST_STEPS) return undefined;
      steps.unshift({ ...derivation, to });
      to = derivation.from;
    }
    return steps;
  }

  private remember(document: RulesetJson, tell: (number: number) => void): void {
    const number = ++this.last;
    tell(number);
    this.numbers.set(document, number);
    this.there.put(number, true);
    forgetDerivation(document);
  }

  /** The questions of a concept's page, each a function of the document. */
  of<Q extends Readonly<Record<string, WorkbenchQuestion>>>(concept: string): Asked<Q> {
    return new Proxy({} as Asked<Q>, {
      get:
        (_, name) =>
        (document: RulesetJson, ...args: readonly unknown[]) =>
          this.core.ask(document, concept, String(name), args),
    });
  }

  /** What every section can hold; the same for all rulesets. */
  sections(): Promise<Readonly<Record<string, FieldDescription>>> {
    return (this.held ??= this.core.sections());
  }

  /** Every action there is; the same for all rulesets. */
  actions(): Promise<readonly ActionDescription[]> {
    return (this.described ??= this.core.actions());
  }

  /** What a concept works out behind everything else, each a function of the document; undefined where an edit came first. */
  behind<B extends Readonly<Record<string, (rules: never, ...args: never[]) => Generator<void, unknown>>>>(concept: string): Awaiting<B> {
    return new Proxy({} as Awaiting<B>, {
      get:
        (_, name) =>
        (document: RulesetJson, ...args: readonly unknown[]) =>
          this.core.background(document, concept, String(name), args),
    });
  }

  /** Everything that a seat can ask for; the same for all rulesets. */
  inputs(): Promise<readonly ActionDescription[]> {
    return (this.askable ??= this.core.inputs());
  }

  /** Every event that can be waited for; the same for all rulesets. */
  events(): Promise<readonly EventDescription[]> {
    return (this.heard ??= this.core.events());
  }
}
