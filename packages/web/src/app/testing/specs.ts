import type { Type } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { SpecContext } from '../rulebook/spec/spec-context';
import type { RulesetJson } from '../shared/api';
import { openBench, Seen } from './bench';

let host: HTMLElement | undefined;
afterEach(() => host?.remove());

/** The sentences of an entry of the demo, or of another ruleset, on a page. */
export async function spec<T>(
  component: Type<T>,
  chapter: string,
  id: string,
  inputs: Record<string, unknown> = {},
  ruleset?: RulesetJson,
): Promise<Seen<T>> {
  openBench(ruleset, [], [SpecContext]);
  const context = TestBed.inject(SpecContext);
  context.chapter.set(chapter);
  context.id.set(id);
  const seen = await Seen.of(component, inputs);
  host = seen.element;
  document.body.append(host);
  await seen.settle();
  return seen;
}

/** Picks something from the menu that was opened last: one before it may still be closing. */
export async function pick(seen: Seen<unknown>, what: string): Promise<void> {
  const menu = [...document.querySelectorAll('.mat-mdc-menu-panel')].at(-1)!;
  [...menu.querySelectorAll<HTMLElement>('.mat-mdc-menu-item')].find((item) => item.innerText.trim().startsWith(what))!.click();
  await seen.settle();
}

/** Picks another way in a sentence, from a list. */
export async function choose(seen: Seen<unknown>, from: string, to: string): Promise<void> {
  await seen.click(from, 'ee-choose button');
  await pick(seen, to);
}

/** A sentence without what takes it out, and what is offered behind it. */
export const bare = (text: string) =>
  text
    .replace(/( ?×)+$/, '')
    .replace(/( ?\+ ?\w+)+(↑↓)?( ×)?$/, '')
    .trim();
