import type { Provider, Type } from '@angular/core';
import type { Evidence } from '@eager-ember/core';
import type { RulesetJson } from '../shared/api';
import type { CoreClient } from '../shared/core-client';
import type { EntryJson } from './entries';
import type { ExchangedFile } from './file-exchange';

/** A component of a page, with what it is given. */
export interface Piece {
  readonly type: Type<unknown>;
  readonly inputs?: Readonly<Record<string, unknown>>;
  /** Whether it is given the id of the entry that is open. */
  readonly takesId?: true;
}

/** What a chapter's page is made of: known once the book is open. */
export interface PagePieces {
  /** The sentences of an entry, and what else belongs on its page. */
  readonly spec: readonly Piece[];
  /** What stands on the other page, above the evidence. */
  readonly beside?: Piece;
  /** What stands over the chart of the evidence, which is the lesser part of it then: a component of `now` and `before`. */
  readonly strip?: Type<unknown>;
  /** What stands below what the evidence comes to. */
  readonly after?: Piece;
  /** What stands on the page while there is no entry. */
  readonly empty?: Piece;
  /** What stands in the place of its index, and of the evidence, where those are its own. */
  readonly index?: Piece;
  readonly evidence?: Piece;
  /** What its pieces share. */
  readonly providers?: readonly Provider[];
}

/** How the evidence of a chapter's entries looks, where it is not a chart with a stretch below it for all that lasts. */
export interface EvidenceLook {
  /** It is told step by step: what happened is read, not looked for on a chart. */
  readonly told?: true;
  /** Its first curve is its own, and the others are beside the point. */
  readonly alone?: true;
  /** Statuses stand behind its curve, or have stretches below it; else they are left out. */
  readonly statuses?: 'behind' | 'below';
  /** What lasts has no stretches below the chart: it is shown elsewhere. */
  readonly bare?: true;
  /** What can be looked at instead: more than one version of an entry at once. */
  readonly comparison?: {
    /** What the button says. */
    readonly act: string;
    readonly hint: string;
    /** What is said above it. */
    readonly title: string;
    /** Whether an entry has one. */
    readonly of: (entry: EntryJson | undefined) => boolean;
    readonly ask: (client: CoreClient, document: RulesetJson, id: string) => Promise<Evidence>;
  };
}

/** Groups of an index that are worked out, in their order, and the one that an entry belongs to. */
export interface WorkedOutGroups {
  readonly order: readonly string[];
  readonly of: (document: RulesetJson | undefined, id: string) => string;
}

/** A chapter that has a page of its own. Whoever shows chapters asks this, and none of them by its name. */
export interface ChapterPage {
  readonly key: string;
  readonly title: string;
  /** What one of its entries is called. */
  readonly one: string;
  /** What a new entry begins as. */
  readonly fresh: () => Record<string, unknown>;
  /** It has a workplace of its own: no tab of the book, and no place among its chapters. */
  readonly workplace?: true;
  /** Its entries may speak of what is not there: they are in the way of no deletion. */
  readonly ahead?: true;
  /** What its tab says, where it is not its title. */
  readonly tab?: string;
  /** What else is listed in its index. */
  readonly also?: readonly string[];
  /** That stands above its own entries, which are many. */
  readonly alsoFirst?: true;
  /** Files in which its entries come and go, with what the button in its index says. */
  readonly files?: { readonly act: string; readonly of: ExchangedFile };
  /** Groups of its index, where they are not those that entries name. */
  readonly groups?: WorkedOutGroups;
  /** What is said above the evidence of an entry. */
  readonly evidence?: string;
  readonly look?: EvidenceLook;
}
