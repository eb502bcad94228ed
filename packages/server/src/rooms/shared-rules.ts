import { RulesetCompiler, type Rules, sharingInParts } from '@eager-ember/core';
import { Unsound } from '../errors.js';
import type { LoopTurns } from './loop-turns.js';

type Document = Readonly<Record<string, unknown>>;

/** Rulesets whose rules are at hand. */
const MOST_RULESETS = 16;
/** Revisions of one that are: rooms that sleep were stored under earlier ones. */
const MOST_REVISIONS = 3;

/** What is at hand of one ruleset. */
class Shelf {
  private readonly compiler = new RulesetCompiler();
  private readonly revisions = new Map<number, Promise<Rules>>();
  /** What was read last, of which what comes is little else. */
  private before: Document | undefined;
  private last: Promise<unknown> = Promise.resolve();

  constructor(private readonly loop: LoopTurns) {}

  of(revision: number, document: Document): Promise<Rules> {
    const rules = this.revisions.get(revision) ?? this.inTurn(revision, document);
    this.revisions.delete(revision);
    this.revisions.set(revision, rules);
    if (this.revisions.size > MOST_REVISIONS) this.revisions.delete([...this.revisions.keys()][0]);
    return rules;
  }

  /** One document is read at a time. */
  private inTurn(revision: number, document: Document): Promise<Rules> {
    const rules = this.last.then(() => this.read(document));
    this.last = rules.catch(() => this.revisions.delete(revision));
    return rules;
  }

  private async read(document: Document): Promise<Rules> {
    const shared = await this.loop.through(sharingInParts(this.before, document));
    const { rules, problems } = await this.loop.through(this.compiler.readInParts(shared));
    if (!rules) throw new Unsound(problems, 'Mend it in the Rulebook first.');
    this.before = shared;
    return rules;
  }
}

/**
 * The rules that rooms run under: one for each revision of a ruleset in this process, however many rooms run under it, and of an
 * edit no more is compiled than it reaches. It is done a part at a time; between two rooms tick.
 */
export class SharedRules {
  private readonly shelves = new Map<string, Shelf>();

  constructor(private readonly loop: LoopTurns) {}

  /** @throws Unsound where the document is not sound, as one of an earlier version may be */
  of(rulesetId: string, revision: number, document: Document): Promise<Rules> {
    const shelf = this.shelves.get(rulesetId) ?? new Shelf(this.loop);
    this.shelves.delete(rulesetId);
    this.shelves.set(rulesetId, shelf);
    if (this.shelves.size > MOST_RULESETS) this.shelves.delete([...this.shelves.keys()][0]);
    return shelf.of(revision, document);
  }
}
