import { Injectable, type Type } from '@angular/core';
import { type ComponentFixture, TestBed } from '@angular/core/testing';
import { provideRouter, withComponentInputBinding, type Routes } from '@angular/router';
import { provideStore, Store } from '@ngrx/store';
import brinewick from '../../../../core/src/testing/recorded/brinewick.json';
import { createCore } from '../shared/core-api';
import { CoreClient } from '../shared/core-client';
import type { RulesetJson } from '../shared/api';
import { documentActions, documentFeature } from '../store/document.reducer';

/** The real core, answering as its worker does but without one. */
@Injectable()
export class CoreWithoutWorker extends CoreClient {
  /** What has gone to the core, as it would go to its worker. */
  readonly posted: (readonly [name: string, ...args: unknown[]])[] = [];

  protected override connect() {
    const core = createCore();
    const answering = Object.entries(core).map(([name, answer]) => [
      name,
      // As from a worker: an answer is a copy, and a mistake a promise that fails.
      (...args: unknown[]) => {
        this.posted.push([name, ...args]);
        const given = structuredClone(args);
        return (async () => structuredClone(await (answer as (...all: unknown[]) => unknown)(...given)))();
      },
    ]);
    return Object.fromEntries(answering) as ReturnType<CoreClient['connect']>;
  }
}

/** An open ruleset (the demo, unless another is given), with the store and the core behind it. */
export function openBench(
  document: RulesetJson = structuredClone(brinewick) as RulesetJson,
  routes: Routes = [],
  providers: unknown[] = [],
): Store {
  TestBed.configureTestingModule({
    providers: [
      provideStore({ [documentFeature.name]: documentFeature.reducer }),
      provideRouter(routes, withComponentInputBinding()),
      { provide: CoreClient, useClass: CoreWithoutWorker },
      ...(providers as []),
    ],
  });
  const store = TestBed.inject(Store);
  store.dispatch(documentActions.opened({ id: 'r', document, revision: 1 }));
  return store;
}

/** The document as it is now. */
export function documentNow(): RulesetJson & Record<string, Record<string, unknown>[]> {
  return TestBed.inject(Store).selectSignal(documentFeature.selectDocument)() as never;
}

/** How long a state is waited for: longer than any machine needs, so that what did not come is no matter of speed. */
const PATIENCE_MS = 120_000;

/**
 * Waits for a state that comes by itself.
 * @param what the state, in words
 * @param settle lets what is under way come to rest
 */
export async function until(
  what: string,
  holds: () => boolean,
  settle = () => new Promise<void>((done) => setTimeout(done)),
): Promise<void> {
  for (const end = performance.now() + PATIENCE_MS; !holds(); await settle())
    if (performance.now() > end) throw new Error(`Waited in vain until ${what}; there is: ${document.body.innerText}`);
}

/** A component on the page, with words for what a person sees and does. */
export class Seen<T> {
  private constructor(readonly fixture: ComponentFixture<T>) {}

  static async of<T>(component: Type<T>, inputs: Record<string, unknown> = {}): Promise<Seen<T>> {
    const fixture = TestBed.createComponent(component);
    for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
    const seen = new Seen(fixture);
    await seen.settle();
    return seen;
  }

  get element(): HTMLElement {
    return this.fixture.nativeElement as HTMLElement;
  }

  /** Waits until promises and what they change have come to rest. */
  async settle(): Promise<void> {
    for (let i = 0; i < 6; i++) {
      await new Promise((done) => setTimeout(done));
      await this.fixture.whenStable();
    }
  }

  text(selector: string): string {
    return words(this.element.querySelector(selector));
  }

  texts(selector: string): string[] {
    return [...this.element.querySelectorAll(selector)].map(words);
  }

  async click(text: string, within = 'button, a'): Promise<void> {
    const found = [...this.element.querySelectorAll<HTMLElement>(within)].find((e) => words(e) === text);
    if (!found) throw new Error(`There is no ${text}; there is ${this.texts(within).join(' | ')}`);
    found.click();
    await this.settle();
  }

  /** Edits a part of a sentence. */
  async edit(label: string, text: string): Promise<void> {
    this.element.querySelector<HTMLElement>(`ee-part button[aria-label^="${label}: "]`)!.click();
    await this.settle();
    const field = this.element.querySelector<HTMLInputElement>(`ee-part input[aria-label="${label}"]`)!;
    field.value = text;
    field.dispatchEvent(new Event('input'));
    await this.settle();
    field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }));
    await this.settle();
  }
}

function words(element: Element | null): string {
  return (element as HTMLElement | null)?.innerText.replace(/\s+/g, ' ').trim() ?? '';
}
