import { provideHttpClient } from '@angular/common/http';
import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { RouterTestingHarness } from '@angular/router/testing';
import { Store } from '@ngrx/store';
import { OpenRoom } from '../playtest/open-room';
import { documentActions } from '../store/document.reducer';
import { Editor } from '../store/editor';
import { documentNow, openBench, until } from '../testing/bench';
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
    expect([...page().querySelectorAll('.index .group .name')].map((h) => h.textContent)).toEqual([
      'Breathing',
      'Suit',
      'Work',
      'Purse',
      'Hold',
      'Statuses',
    ]);
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
    const ids = documentNow()['abilities'].map((a) => a['id']);
    expect(ids.slice(-2)).toEqual(['newAbility', 'newAbility2']);
    expect(TestBed.inject(Router).url).toBe('/r/r/rulebook/abilities/newAbility2');
  });

  it('begins two where it is asked twice before the first is there', async () => {
    await go('/r/r/rulebook/abilities/sonarPing');
    const begin = [...page().querySelectorAll<HTMLElement>('button')].find((b) => b.textContent!.trim() === '+ ability')!;
    begin.click();
    begin.click();
    await settle();
    const ids = documentNow()['abilities'].map((a) => a['id']);
    expect(ids.slice(-2)).toEqual(['newAbility', 'newAbility2']);
  });

  it('takes nothing half-typed or refused along to another entry', async () => {
    await go('/r/r/rulebook/abilities/cuttingTorch');
    const before = documentNow()['abilities'];
    const part = () => page().querySelector<HTMLElement>('ee-part button[aria-label^="cooldown: "]')!;
    part().click();
    await settle();
    const field = page().querySelector<HTMLInputElement>('ee-part input')!;
    field.value = 'soon';
    field.dispatchEvent(new Event('input'));
    field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }));
    await settle();
    expect(page().querySelector('ee-sentence [role="alert"]')).not.toBeNull();
    await go('/r/r/rulebook/abilities/sonarPing');
    expect(page().querySelector('ee-part input, ee-sentence [role="alert"]')).toBeNull();
    expect(part()).not.toBeNull();
    expect(documentNow()['abilities']).toEqual(before);
  });

  it('gives the id that follows a label to the entry that it was meant for, although another one is open by then', async () => {
    await go('/r/r/rulebook/abilities/sonarPing');
    await click('+ ability');
    const title = page().querySelector<HTMLInputElement>('.title')!;
    title.value = 'Arc torch';
    title.dispatchEvent(new Event('change'));
    await harness!.navigateByUrl('/r/r/rulebook/abilities/cuttingTorch');
    await settle();
    const named = documentNow()['abilities'].map(({ id, label }) => `${String(id)}: ${String(label)}`);
    expect(named).toContain('arcTorch: Arc torch');
    expect(named).toContain('cuttingTorch: Cutting torch');
    expect(TestBed.inject(Router).url).toBe('/r/r/rulebook/abilities/cuttingTorch');
  });

  it('deletes what nobody speaks of, and names the places of what somebody does', async () => {
    await go('/r/r/rulebook/effects/marked');
    await click('Delete');
    const alert = page().querySelector<HTMLElement>('[role="alert"]')!;
    expect(alert.innerText.replace(/\s+/g, ' ')).toBe(
      'Marked is used in 2 places and stays: Sonar ping ability, then 1 effect Hit with and without a bubble situation, pins 4 action effect Take it out there first.',
    );
    expect([...alert.querySelectorAll('a')].map((link) => link.getAttribute('href'))).toEqual(['/r/r/rulebook/abilities/sonarPing']);
    await go('/r/r/rulebook/statuses/inBell');
    await click('+ status');
    expect(documentNow()['statuses'].length).toBe(7);
    await click('Delete');
    expect(documentNow()['statuses'].map((s) => s['id'])).toEqual(['inBell', 'winded', 'bubbled', 'silted', 'marked', 'stunned']);
    TestBed.inject(Store).dispatch(documentActions.undo());
    expect(documentNow()['statuses'].length).toBe(7);
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

  it('deletes what is only carried and tried out, with that', async () => {
    await go('/r/r/rulebook/attributes');
    await click('+ attribute');
    const carry = () =>
      [...page().querySelectorAll<HTMLElement>('ee-carriers [role="checkbox"]')].find((box) => box.textContent!.includes('Diver'))!;
    carry().click();
    await settle();
    expect(JSON.stringify(documentNow()['actors'])).toContain('newAttribute');
    await click('Delete');
    expect(documentNow()['attributes'].some((a) => a['id'] === 'newAttribute')).toBeFalse();
    expect(JSON.stringify(documentNow()['actors'])).not.toContain('newAttribute');
    await go('/r/r/rulebook/effects/bubble');
    await click('Delete');
    expect(page().querySelector('.spec [role="alert"]')!.textContent).toContain('Bubble is used in 3 places');
    // Nothing but a situation speaks of it any more.
    const document = {
      ...documentNow(),
      dialogues: [],
      interactions: [],
      achievements: [],
      shops: [],
      offers: [],
      economy: undefined,
      markets: [],
      actors: documentNow()['actors'].map(({ interactions: _gone, ...actor }) => actor),
    };
    const arena = { ...(documentNow()['arena'] as unknown as object), placed: [] };
    TestBed.inject(Store).dispatch(
      documentActions.opened({ id: 'r', document: JSON.parse(JSON.stringify({ ...document, arena })) as never, revision: 2 }),
    );
    await go('/r/r/rulebook/effects/keenEye');
    await click('Delete');
    expect(documentNow()['situations'].map((s) => s['id'])).toEqual(['suitUnderFire', 'twoHits', 'outOfAir']);
    TestBed.inject(Store).dispatch(documentActions.undo());
    expect(documentNow()['situations'].length).toBe(4);
  });

  it('renames an id everywhere in one step, and says why it can’t', async () => {
    await go('/r/r/rulebook/attributes/finSpeed');
    const type = async (to: string) => {
      const box = page().querySelector<HTMLInputElement>('input[aria-label="Id"]')!;
      box.value = to;
      box.dispatchEvent(new Event('change'));
      await settle();
      await settle();
      return box;
    };
    expect((await type('suit')).value).toBe('finSpeed');
    expect(page().querySelector('[role="alert"]')!.textContent).toContain('suit is taken by another entry');
    await type('swimSpeed');
    expect(TestBed.inject(Router).url).toBe('/r/r/rulebook/attributes/swimSpeed');
    const now = JSON.stringify(documentNow());
    expect(now.match(/finSpeed/g)!.length).toBe(1);
    expect(now).toContain('"formerly":["finSpeed"]');
    TestBed.inject(Store).dispatch(documentActions.undo());
    expect(JSON.stringify(documentNow())).not.toContain('swimSpeed');
  });

  /** Makes an attribute and calls it something. Returns it as it then stands. */
  const newAttribute = async (label: string) => {
    await go('/r/r/rulebook/attributes/oxygen');
    await click('+ attribute');
    const title = page().querySelector<HTMLInputElement>('.title')!;
    title.value = label;
    title.dispatchEvent(new Event('change'));
    await settle();
    await settle();
    return documentNow()['attributes'].at(-1)!;
  };

  it('takes the id of a new entry from what it is called first', async () => {
    const entry = await newAttribute('Hull strength');
    expect([entry['id'], entry['label'], entry['formerly']]).toEqual(['hullStrength', 'Hull strength', undefined]);
  });

  it('notes the id that it had where somebody plays meanwhile: they have something under it', async () => {
    spyOn(TestBed.inject(OpenRoom), 'of').and.returnValue('slate-heron');
    const entry = await newAttribute('Hull strength');
    expect([entry['id'], entry['formerly']]).toEqual(['hullStrength', ['newAttribute']]);
  });

  it('moves entries among themselves, and nothing shifts', async () => {
    await go('/r/r/rulebook/effects/silt');
    await click('↑');
    const ids = () => documentNow()['effects'].map((entry) => entry['id']);
    expect(ids().slice(0, 2)).toEqual(['silt', 'slipstream']);
    await click('↑');
    expect(documentNow()['effects'][0]['id']).toBe('silt');
    expect(TestBed.inject(Router).url).toBe('/r/r/rulebook/effects/silt');
  });

  it('shows findings beside the spec and in the index, and mends them', async () => {
    await go('/r/r/rulebook/effects/silt');
    await TestBed.inject(Editor).propose(() => [{ op: 'replace', path: '/effects/1/modifiers/0/amount', value: 0 }], 'nothing left');
    await until('a finding is shown', () => page().querySelector('.finding') !== null, settle);
    expect(page().querySelector('.finding')!.textContent).toContain('Times 0 makes fin speed 0');
    expect(page().querySelector('.index .here .badge')!.textContent).toContain('1');
    await click('Set it to 0 instead');
    expect(documentNow()['effects'][1]['modifiers']).toEqual([{ attribute: 'finSpeed', operation: 'set', amount: 0 }] as never);
    await until('no finding is left', () => page().querySelector('.finding') === null, settle);
  });

  for (const path of ['weather', 'economy', 'arena/starts', 'name'])
    it(`goes to the stats from ${path}, which is no chapter`, async () => {
      await go(`/r/r/rulebook/${path}`);
      expect(TestBed.inject(Router).url).toContain('/rulebook/attributes');
    });

  it('says what to do first in an empty chapter', async () => {
    TestBed.inject(Store).dispatch(
      documentActions.opened({ id: 'r', document: { format: 'eager-ember/ruleset', version: 2, name: 'New' }, revision: 1 }),
    );
    await go('/r/r/rulebook/abilities');
    expect(page().querySelector('h1')!.textContent).toBe('No ability yet');
    await click('Begin the first ability');
    expect(documentNow()['abilities']).toEqual([{ id: 'newAbility', label: 'New ability', cooldown: '5s' }]);
  });

  it('shows the source of an entry, and takes it where it is sound', async () => {
    await go('/r/r/rulebook/effects/marked');
    await click('Source');
    await until('the source is shown', () => page().querySelector('.cm-content') !== null, settle);
    expect(page().querySelector('.cm-content')!.textContent).toContain('"lasts": "5s"');
  });
});
