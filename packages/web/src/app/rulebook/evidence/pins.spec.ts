import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { Store } from '@ngrx/store';
import { documentActions } from '../../store/document.reducer';
import { documentNow, openBench, Seen, until } from '../../testing/bench';
import { EvidencePage } from './evidence-page';

/** Evidence is made in the background: waits until it says this. */
const says = (seen: Seen<unknown>, holds: () => boolean) => until('the evidence says so', holds, () => seen.settle());

async function evidence(chapter: string, id: string): Promise<Seen<EvidencePage>> {
  openBench(undefined, [], [provideRouter([])]);
  const seen = await Seen.of(EvidencePage, { chapter, id });
  document.body.append(seen.element);
  await says(seen, () => seen.element.querySelector('table') !== null);
  return seen;
}

const pins = (seen: Seen<EvidencePage>) => [...seen.element.querySelectorAll<HTMLElement>('.pin')];
const press = async (seen: Seen<EvidencePage>, element: HTMLElement, key: string, more: KeyboardEventInit = {}) => {
  element.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more }));
  await seen.settle();
};
const offered = (label: string) =>
  [...document.querySelectorAll<HTMLElement>('.mat-mdc-menu-panel [mat-menu-item]')].find((item) => item.innerText.trim() === label)!;

describe('The pins of a situation', () => {
  let seen: Seen<EvidencePage>;
  afterEach(() => seen.element.remove());

  it('are proposed first, and written down with the first edit', async () => {
    seen = await evidence('attributes', 'oxygen');
    expect(seen.texts('.pin')).toEqual(['in bell 20 s', 'no longer in bell 34 s']);
    expect(seen.text('h2')).toContain('proposed pins');
    await press(seen, pins(seen)[0], 'ArrowRight');
    await says(seen, () => seen.texts('.pin')[0] === 'in bell 20.5 s');
    const situation = documentNow()['situations'].at(-1)!;
    expect(situation).toEqual(jasmine.objectContaining({ id: 'oxygenTriedOut', attribute: 'oxygen', seconds: 60 }));
    expect(seen.text('h2')).toContain('your pins');
    TestBed.inject(Store).dispatch(documentActions.undo());
    await says(seen, () => seen.texts('.pin')[0] === 'in bell 20 s');
    expect(documentNow()['situations'].length).toBe(4);
  });

  it('are dragged along the axis, and stay within it', async () => {
    seen = await evidence('attributes', 'suit');
    const [first] = pins(seen);
    const at = (x: number, type: string) =>
      first.dispatchEvent(new PointerEvent(type, { clientX: x, bubbles: true, pointerId: 1, button: 0 }));
    spyOn(first, 'setPointerCapture');
    const width = seen.element.querySelector('ee-pins')!.clientWidth - 100;
    at(100, 'pointerdown');
    at(100 + width / 8, 'pointermove');
    await seen.settle();
    expect(seen.texts('.pin')[0]).toBe('lose 30 suit 7 s');
    at(100 + width / 8, 'pointerup');
    await seen.settle();
    const pinned = () => (documentNow()['situations'][0]['pins'] as { at: string }[]).map((pin) => pin.at);
    expect(pinned()[0]).toBe('7s');
    for (const x of [0, -9999]) at(x, x === 0 ? 'pointerdown' : 'pointermove');
    at(-9999, 'pointerup');
    await seen.settle();
    expect(pinned()[0]).toBe('0.1s');
  });

  it('are added from a menu, changed in a sentence, and taken out', async () => {
    seen = await evidence('attributes', 'oxygen');
    await seen.click('+ pin');
    offered('maximum + 20').click();
    await says(seen, () => seen.texts('.pin').length === 3 && seen.element.querySelector('ee-pin-editor ee-part') !== null);
    expect(seen.texts('.pin')[2]).toBe('lung capacity = lungCapacity + 20 36 s');
    expect(seen.text('ee-pin-editor')).toContain('At 36 s: set lung capacity to lungCapacity + 20 for');
    await seen.edit('moment', '6');
    await says(seen, () => seen.texts('.pin')[2] === 'lung capacity = lungCapacity + 20 6 s');
    await seen.edit('moment', '600');
    expect(seen.text('ee-pin-editor [role="alert"]')).toContain('The situation is 60 s long, and this comes after its end.');
    await press(seen, pins(seen)[2], 'Delete');
    await says(seen, () => seen.texts('.pin').length === 2);
  });

  it('say what was lost, and leave when they are forgotten', async () => {
    seen = await evidence('attributes', 'suit');
    expect(seen.texts('.pin').at(-1)).toBe('gain 90 suit 32 s 90 over-heal lost');
    await seen.click('forget pins');
    await says(seen, () => seen.texts('.pin').join() === 'lose 50 suit 5 s');
    expect(documentNow()['situations'].some((s) => s['attribute'] === 'suit')).toBeFalse();
  });
});

describe('Evidence', () => {
  let seen: Seen<EvidencePage>;
  afterEach(() => seen.element.remove());

  it('is read at a cursor that the arrow keys move', async () => {
    seen = await evidence('attributes', 'oxygen');
    const plot = seen.element.querySelector<HTMLElement>('.plot')!;
    for (let i = 0; i < 4; i++) await press(seen, plot, 'ArrowRight');
    expect(seen.texts('.reading tr')).toEqual(['At 2.0 s oxygen on', 'now 87.0 –']);
    await press(seen, plot, 'End');
    expect(seen.text('.reading')).toContain('At 60.0 s');
    await press(seen, plot, 'Escape');
    expect(seen.text('.reading')).toContain('Point at the chart');
  });

  it('compares the ways to follow a maximum, where there is one', async () => {
    seen = await evidence('attributes', 'oxygen');
    await seen.click('compare following');
    const chart = () => seen.element.querySelector('canvas')!.getAttribute('aria-label')!;
    await says(seen, () => chart().startsWith('keep:'));
    expect(seen.element.querySelector('[aria-pressed="true"]')!.textContent).toBe('itself');
  });

  it('shows instances with their ends, and what happened', async () => {
    seen = await evidence('effects', 'bubble');
    expect(seen.texts('.bar')).toEqual(['Bubble used up', 'Bubbled']);
    expect(seen.element.querySelector('.bar')!.getAttribute('title')).toBe('Bubble, 2 s to 6 s, used up');
    expect(seen.text('summary')).toBe('What happened, in 7 steps');
  });

  it('is taken away as a table and as a picture', async () => {
    seen = await evidence('attributes', 'oxygen');
    const names: string[] = [];
    const blobs: Blob[] = [];
    spyOn(HTMLAnchorElement.prototype, 'click').and.callFake(function (this: HTMLAnchorElement) {
      names.push(this.download);
    });
    spyOn(URL, 'createObjectURL').and.callFake((blob) => {
      blobs.push(blob as Blob);
      return 'blob:none';
    });
    await seen.click('CSV');
    expect((await blobs[0].text()).split('\r\n').slice(0, 2)).toEqual(['seconds,oxygen', '0.05,89.925']);
    await says(seen, () => seen.element.querySelector('canvas')!.dataset['drawn'] !== undefined);
    await seen.click('PNG');
    await says(seen, () => blobs.length === 2);
    expect([names, blobs[1].type]).toEqual([['oxygen.csv', 'oxygen.png'], 'image/png']);
  });
});
