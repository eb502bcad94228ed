import { Injectable, signal } from '@angular/core';

/** The node of a skill tree that is looked at: the drawn tree and the sentences speak of the same one. */
@Injectable()
export class ChosenNode {
  readonly id = signal('');
}

/** A node as authored. */
export interface NodeJson {
  readonly id: string;
  readonly label: string;
  readonly formerly?: readonly string[];
  readonly note?: string;
  readonly x?: number;
  readonly y?: number;
  readonly ranks?: number;
  readonly cost?: number | string;
  readonly needs?: {
    readonly all?: readonly { readonly node: string; readonly rank?: number }[];
    readonly any?: readonly { readonly node: string; readonly rank?: number }[];
    readonly level?: { readonly track: string; readonly at: number };
    readonly spent?: number;
  };
  readonly gives?: {
    readonly effect?: string;
    readonly ability?: string;
    readonly numbers?: readonly {
      readonly ability: string;
      readonly number: string;
      readonly change?: string;
      readonly amount: number | string;
    }[];
  };
}
