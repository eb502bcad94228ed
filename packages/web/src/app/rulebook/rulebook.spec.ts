import { provideHttpClient } from '@angular/common/http';
import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { RouterTestingHarness } from '@angular/router/testing';
import { Store } from '@ngrx/store';
import { documentActions } from '../store/document.reducer';
import { documentNow, openBench } from '../testing/bench';
import { Rulebook } from './rulebook';

const ROUTES = [
  { path: 'r/:id/rulebook/:chapter', component: Rulebook },
  { path: 'r/:id/rulebook/:chapter/:entry', component: Rulebook },
];

describe('The Rulebook page', () => {
  let harness: RouterTestingHarness | undefined;
  const page = () => harness!.routeNativeElement!;
  const settle = async () => {
    for (let i = 0; i < 8; i++) {
      await new Promise((done) => setTimeout(done));
      await harness!.fixture.whenStable();
    }
  };
  const go = async (path: string) => {
    if (harness) await harness.navigateByUrl(path);
    else harness = await RouterTestingHarness.create(path);
    await settle();
  };
  const click = async (text: string) => {
    [...page().querySelectorAll<HTMLElement>('button')].find((b) => b.textContent!.trim() === text)!.click();
    await settle();
  };

  beforeEach(() => {
    harness = undefined;
    openBench(undefined, ROUTES, [provideHttpClient()]);
  });

  it('opens a chapter at its first entry and lists the rest by group', async () => {
    await go('/r/r/rulebook/attributes');
    expect(TestBed.inject(Router).url).toBe('/r/r/rulebook/attributes/oxygen');
    expect([...page().querySelectorAll('.index h2')].map((h) => h.textContent)).toEqual(['Breathing', 'Suit', 'Work', 'Purse', 'Statuses']);
    expect(page().querySelector<HTMLInputElement>('.title')!.value).toBe('Oxygen');
  });

  it('shows evidence beside the spec, and the version before as a ghost after an edit', async () => {
    await go('/r/r/rulebook/effects/slipstream');
    const facts = () => [...page().querySelectorAll('tbody tr')].map((row) => [...row.children].map((c) => c.textContent!.trim()));
    expect(facts()[1]).toEqual(['with one', '168']);
    TestBed.inject(Store).dispatch(
      documentActions.edit({
        edit: {
          label: 'e',
          patch: [{ op: 'replace', path: '/effects/0/modifiers/0/amount', value: 50 }],
          inverse: [{ op: 'replace', path: '/effects/0/modifiers/0/amount', value: 40 }],
        },
      }),
    );
    await settle();
    expect(facts()[1]).toEqual(['with one', '168', '180']);
    expect([...page().querySelectorAll('.lane')].length).toBe(2);
    expect(page().querySelector('.users')!.textContent).toContain('Slipstream pod');
  });

  it('begins entries with ids of their own', async () => {
    await go('/r/r/rulebook/abilities/sonarPing');
    await click('+ ability');
    await click('+ ability');
    expect(documentNow()['abilities'].map((a) => a['id'])).toEqual(['sonarPing', 'newAbility', 'newAbility2']);
    expect(TestBed.inject(Router).url).toBe('/r/r/rulebook/abilities/newAbility2');
  });

  it('deletes what nobody speaks of, and names the places of what somebody does', async () => {
    await go('/r/r/rulebook/effects/marked');
    await click('Delete');
    expect(page().querySelector('[role="alert"]')!.textContent).toContain('Marked is in use and stays: abilities 0 then 0 effect.');
    await go('/r/r/rulebook/statuses/inBell');
    await click('+ status');
    expect(documentNow()['statuses'].length).toBe(4);
    await click('Delete');
    expect(documentNow()['statuses'].map((s) => s['id'])).toEqual(['inBell', 'silted', 'marked']);
    TestBed.inject(Store).dispatch(documentActions.undo());
    expect(documentNow()['statuses'].length).toBe(4);
  });

  it('renames what an entry is called, and keeps the old name where none is given', async () => {
    await go('/r/r/rulebook/effects/silt');
    const title = page().querySelector<HTMLInputElement>('.title')!;
    title.value = 'Thick silt';
    title.dispatchEvent(new Event('change'));
    await settle();
    expect(documentNow()['effects'][1]['label']).toBe('Thick silt');
    title.value = '  ';
    title.dispatchEvent(new Event('change'));
    await settle();
    expect(title.value).toBe('Thick silt');
  });

  it('goes to the stats from a chapter that does not exist', async () => {
    await go('/r/r/rulebook/weather');
    expect(TestBed.inject(Router).url).toContain('/rulebook/attributes');
  });

  it('says what to do first in an empty chapter', async () => {
    TestBed.inject(Store).dispatch(
      documentActions.opened({ id: 'r', document: { format: 'eager-ember/ruleset', version: 1, name: 'New' }, revision: 1 }),
    );
    await go('/r/r/rulebook/abilities');
    expect(page().querySelector('h1')!.textContent).toBe('No ability yet');
    await click('Begin the first ability');
    expect(documentNow()['abilities']).toEqual([{ id: 'newAbility', label: 'New ability', cooldown: '5s' }]);
  });

  it('shows the source of an entry, and takes it where it is sound', async () => {
    await go('/r/r/rulebook/effects/marked');
    await click('Source');
    for (let i = 0; i < 40 && !page().querySelector('.cm-content'); i++) await settle();
    expect(page().querySelector('.cm-content')!.textContent).toContain('"lasts": "5s"');
  });
});
