import { type Evidence, type Reading, RulesetCompiler, RulesetError, type Rules, sharing } from '@eager-ember/core';
import type { Operation } from 'fast-json-patch';
import type { RulesetJson } from './api';
import { LastUsed } from './last-used';
import { patched } from './patched';

/** A document that the worker has, and what was made of it: it is read once, whatever is asked of it. */
export class HeldDocument {
  private known: Reading | undefined;
  /** What is still to be worked out of the evidence that was asked for last, and whose it is. */
  further: { readonly of: string; readonly facts: Evidence['further'] } | undefined;

  constructor(
    readonly document: RulesetJson,
    private readonly compiler: RulesetCompiler,
  ) {}

  get reading(): Reading {
    return (this.known ??= this.compiler.read(this.document));
  }

  /** @throws RulesetError where the document is not sound */
  get rules(): Rules {
    const { rules, problems } = this.reading;
    if (!rules) throw new RulesetError(problems);
    return rules;
  }
}

/** The documents that are worked on, by the numbers that the page gives them. One compiler reads them: they are much the same. */
export class HeldDocuments {
  readonly compiler = new RulesetCompiler();
  private readonly held = new LastUsed<HeldDocument>();
  private last: RulesetJson | undefined;

  /** Takes a whole document. */
  hold(number: number, document: RulesetJson): void {
    this.take(number, sharing(this.last, document));
  }

  /** Takes the document that a patch makes of another one. */
  derive(number: number, from: number, patch: readonly Operation[]): void {
    this.take(number, patched(this.of(from).document, patch));
  }

  private take(number: number, document: RulesetJson): void {
    this.last = document;
    this.held.put(number, new HeldDocument(document, this.compiler));
  }

  /** @throws where there is none of that number: a mistake of ours */
  of(number: number): HeldDocument {
    const held = this.held.use(number);
    if (!held) throw new Error(`No document ${number} is held`);
    return held;
  }
}
