import { ApplicationRef, createComponent, createEnvironmentInjector, EnvironmentInjector, getDebugNode } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import brinewick from '../../../../../examples/brinewick.json';
import { openBench } from '../testing/bench';
import type { RulesetJson } from '../shared/api';
import { CHAPTERS } from './chapters';
import { entriesOf } from './entries';
import { PAGE_PIECES } from './page-pieces';
import { Descriptions } from './spec/described';
import { Part } from './spec/part';
import { SpecContext } from './spec/spec-context';

describe('A part of a page', () => {
  /** The parts of the sentences of every entry, and those of them that neither their schema nor their page says anything of. */
  async function partsOf(key: string): Promise<{ readonly entries: number; readonly parts: number; readonly unknown: string[] }> {
    const pieces = PAGE_PIECES[key];
    const context = TestBed.inject(SpecContext);
    context.chapter.set(key);
    const injector = createEnvironmentInjector([...(pieces.providers ?? [])], TestBed.inject(EnvironmentInjector));
    const unknown: string[] = [];
    let parts = 0;
    const entries = entriesOf(brinewick as RulesetJson, key);
    for (const { id } of entries) {
      context.id.set(id);
      for (const { type, inputs, takesId } of pieces.spec) {
        const made = createComponent(type, { environmentInjector: injector });
        for (const [name, value] of Object.entries({ ...inputs, ...(takesId && { id }) })) made.setInput(name, value);
        TestBed.inject(ApplicationRef).attachView(made.hostView);
        await TestBed.inject(ApplicationRef).whenStable();
        const element = made.location.nativeElement as HTMLElement;
        for (const host of element.querySelectorAll('ee-part')) {
          const part: unknown = getDebugNode(host)?.componentInstance;
          if (!(part instanceof Part)) throw new Error('This is no part of a page.');
          parts++;
          if (!part.isKnown()) unknown.push(`${key}/${id}: ${part.at()}`);
        }
        made.destroy();
      }
    }
    injector.destroy();
    return { entries: entries.length, parts, unknown };
  }

  beforeEach(async () => {
    openBench(undefined, [], [SpecContext]);
    await TestBed.inject(Descriptions).known();
    await TestBed.inject(ApplicationRef).whenStable();
  });

  for (const { key } of CHAPTERS)
    it(`is described by the schema or by its page, in every entry of the demo's ${key}`, async () => {
      const { entries, parts, unknown } = await partsOf(key);
      expect(unknown).toEqual([]);
      expect(parts).toBeGreaterThanOrEqual(entries);
    });
});
