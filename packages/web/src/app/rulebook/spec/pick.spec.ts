import { MatDialogRef } from '@angular/material/dialog';
import type { RulesetJson } from '../../shared/api';
import { Search } from '../../shell/search';
import { documentNow, openBench, Seen, until } from '../../testing/bench';
import { spec } from '../../testing/specs';
import { Carriers } from './carriers';
import { Pick } from './pick';
import { SpecContext } from './spec-context';
import { TestBed } from '@angular/core/testing';

const kinds = (count: number) => Array.from({ length: count }, (_, i) => ({ id: `kind${i}`, label: `Kind ${i}` }));
const options = () => [...document.querySelectorAll<HTMLElement>('mat-option')];

/** What somebody types into the one field there is. */
async function type(seen: Seen<unknown>, text: string): Promise<HTMLInputElement> {
  const field = seen.element.querySelector('input')!;
  field.value = text;
  field.dispatchEvent(new Event('input'));
  await seen.settle();
  return field;
}
const press = (field: HTMLElement, key: string, keyCode: number) =>
  field.dispatchEvent(new KeyboardEvent('keydown', { key, keyCode, bubbles: true, cancelable: true }));

describe('One of many', () => {
  const seen = async (count: number) => {
    openBench();
    const pick = await Seen.of(Pick, { options: kinds(count), label: 'Add a kind' });
    document.body.append(pick.element);
    const picked: string[] = [];
    pick.fixture.componentInstance.picked.subscribe((id) => picked.push(id));
    await pick.click('+');
    return { pick, picked };
  };

  it('is picked by a part of its name, with the keyboard alone', async () => {
    const { pick, picked } = await seen(600);
    const field = await type(pick, '59');
    expect(options()[0].innerText).toContain('Kind 59');
    press(field, 'ArrowDown', 40);
    press(field, 'Enter', 13);
    await pick.settle();
    expect(picked.length).toBe(1);
    expect(document.activeElement?.getAttribute('aria-label')).toBe('Add a kind');
    pick.element.remove();
  });

  it('is drawn as one comes to it, and not all hundreds at once', async () => {
    const { pick } = await seen(600);
    expect(options().length).toBeLessThan(200);
    const panel = document.querySelector<HTMLElement>('.mat-mdc-autocomplete-panel')!;
    for (let pages = 0; pages < 40 && options().length < 600; pages++) {
      const before = options().length;
      panel.scrollTop = panel.scrollHeight;
      await until('more is drawn', () => options().length > before);
    }
    expect(options().length).toBe(600);
    // 12, 112 to 512, and 120 to 129.
    await type(pick, 'kind 12');
    expect(options().length).toBe(16);
    pick.element.remove();
  });

  it('is nothing where nothing is called so, and Escape leaves it', async () => {
    const { pick, picked } = await seen(30);
    const field = await type(pick, 'nix');
    expect(options().map(({ innerText }) => innerText)).toEqual(['Nothing is called that.']);
    press(field, 'Escape', 27);
    press(field, 'Escape', 27);
    await pick.settle();
    expect([pick.element.querySelector('input'), picked]).toEqual([null, []]);
    pick.element.remove();
  });
});

describe('Who carries something', () => {
  it('lists those who do where there are many, and another is picked', async () => {
    const seen = await spec(Carriers, 'attributes', 'scrip');
    const before = seen.texts('[role="checkbox"]');
    expect(before.length).toBe(documentNow()['actors'].length);
    const context = TestBed.inject(SpecContext);
    await context.change('many', (_, now) => [
      { op: 'replace', path: '/actors', value: [...(now['actors'] as unknown[]), ...kinds(30).map((kind) => ({ ...kind, kind: 'prop' }))] },
    ]);
    await seen.settle();
    expect(seen.texts('[role="checkbox"]')).toEqual(['☑ Diver']);
    seen.element.querySelector<HTMLElement>('ee-pick button')!.click();
    await seen.settle();
    await type(seen, 'kind 7');
    options()[0].click();
    await seen.settle();
    expect(seen.texts('[role="checkbox"]')).toEqual(['☑ Diver', '☑ Kind 7']);
    expect(documentNow()['actors'].find(({ id }) => id === 'kind7')!['attributes']).toEqual([{ attribute: 'scrip' }]);
  });
});

describe('The search', () => {
  it('says how many there are, and finds what is called so before what only has it', async () => {
    const entries = kinds(300).map(({ id, label }) => ({ id, label: `${label} of status` }));
    const document = {
      format: 'eager-ember/ruleset',
      name: 'Many',
      statuses: [...entries, { id: 'last', label: 'Of' }],
    } as unknown as RulesetJson;
    openBench(document, [], [{ provide: MatDialogRef, useValue: { close: () => undefined } }]);
    const seen = await Seen.of(Search);
    // Some entries every ruleset has.
    const all = Number(seen.text('[role="status"]').replace(' entries', ''));
    expect(all).toBeGreaterThan(300);
    await type(seen, 'of');
    expect(seen.fixture.componentInstance.hits()[0].id).toBe('last');
    await type(seen, 'status 299');
    expect(seen.text('[role="status"]')).toBe(`1 of ${all} entries`);
  });
});
