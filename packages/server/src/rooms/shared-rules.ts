import { RulesetCompiler, type Rules, sharingInParts, upgradeDocument } from '@eager-ember/core';
import type { Operation } from 'fast-json-patch';
import type { RulesetHead } from '../database/rulesets.js';
import { patchedAsSent } from '../drafts/patching.js';
import { Unsound } from '../errors.js';
import type { LoopTurns } from './loop-turns.js';

type Document = Readonly<Record<string, unknown>>;

/** A ruleset as it is stored, whose text is read where its rules are not at hand. */
export type Stored = Pick<RulesetHead, 'id' | 'revision' | 'read'>;

/** Rules, and of which revision of their ruleset they are. */
export interface RevisionRules {
  readonly rules: Rules;
  readonly revision: number;
}

/** A document, and which revision it is. */
interface Found {
  readonly document: Document;
  readonly revision: number;
}

/** Rulesets whose rules are at hand. */
const MOST_RULESETS = 16;
/** Revisions of one that are: rooms that sleep were stored under earlier ones. */
const MOST_REVISIONS = 3;

/** What is at hand of one ruleset. */
class Shelf {
  private readonly compiler = new RulesetCompiler();
  private readonly revisions = new Map<number, Promise<RevisionRules>>();
  /** What was read last, of which what comes is little else. */
  private before: Found | undefined;
  private last: Promise<unknown> = Promise.resolve();

  constructor(private readonly loop: LoopTurns) {}

  of(revision: number, find: (before: Found | undefined) => Promise<Found>): Promise<RevisionRules> {
    const rules = this.revisions.get(revision) ?? this.inTurn(revision, find);
    this.revisions.delete(revision);
    this.revisions.set(revision, rules);
    if (this.revisions.size > MOST_REVISIONS) this.revisions.delete([...this.revisions.keys()][0]);
    return rules;
  }

  /** One document is read at a time. */
  private inTurn(revision: number, find: (before: Found | undefined) => Promise<Found>): Promise<RevisionRules> {
    const rules = this.last.then(async () => this.read(await find(this.before)));
    this.last = rules.catch(() => this.revisions.delete(revision));
    return rules;
  }

  private async read({ document, revision }: Found): Promise<RevisionRules> {
    const shared = await this.loop.through(sharingInParts(this.before?.document, document));
    const { rules, problems } = await this.loop.through(this.compiler.readInParts(shared));
    if (!rules) throw new Unsound(problems, 'Mend it in the Rulebook first.');
    this.before = { document: shared, revision };
    return { rules, revision };
  }
}

/**
 * The rules that rooms run under: one for each revision of a ruleset in this process, however many rooms run under it. A document
 * is read once; after that edits come as patches, and of each no more is compiled than it reaches. It is done a part at a time;
 * between two rooms tick.
 */
export class SharedRules {
  private readonly shelves = new Map<string, Shelf>();

  constructor(private readonly loop: LoopTurns) {}

  /**
   * The rules of a ruleset as it is stored: of its revision, or of a later one where it was edited meanwhile.
   * @throws Unsound where the document is not sound, as one of an earlier version may be
   */
  of(ruleset: Stored): Promise<RevisionRules> {
    return this.shelfOf(ruleset.id).of(ruleset.revision, () => readWhole(ruleset));
  }

  /** The same once a patch has led to its revision. */
  edited(ruleset: Stored, patch: readonly Operation[]): Promise<RevisionRules> {
    return this.shelfOf(ruleset.id).of(ruleset.revision, async (before) =>
      before?.revision === ruleset.revision - 1
        ? { document: upgraded(patchedAsSent(before.document, patch)), revision: ruleset.revision }
        : readWhole(ruleset),
    );
  }

  /** The rules of an earlier revision, which whoever was stored under it keeps. */
  async earlier(rulesetId: string, revision: number, document: Document): Promise<Rules> {
    return (await this.shelfOf(rulesetId).of(revision, () => Promise.resolve({ document, revision }))).rules;
  }

  private shelfOf(rulesetId: string): Shelf {
    const shelf = this.shelves.get(rulesetId) ?? new Shelf(this.loop);
    this.shelves.delete(rulesetId);
    this.shelves.set(rulesetId, shelf);
    if (this.shelves.size > MOST_RULESETS) this.shelves.delete([...this.shelves.keys()][0]);
    return shelf;
  }
}

const upgraded = (document: unknown): Document => upgradeDocument(document) as Document;

async function readWhole(ruleset: Stored): Promise<Found> {
  const { revision, text } = await ruleset.read();
  return { document: upgraded(JSON.parse(text)), revision };
}
