import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { documentActions } from '../../store/document.reducer';
import { documentNow, openBench, Seen } from '../../testing/bench';
import { ArenaPage } from './arena-page';
import { arenaOf } from './things';
import { Wiring } from '../wiring/wiring';

describe('The arena by hand', () => {
  let seen: Seen<ArenaPage>;
  const placed = () => arenaOf(documentNow()).placed;
  const item = (label: string) => seen.element.querySelector<SVGElement>(`[aria-label^="${label}, "]`)!;
  const press = async (target: Element, key: string, more: KeyboardEventInit = {}) => {
    target.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more }));
    await seen.settle();
  };
  const focus = async (label: string) => {
    item(label).dispatchEvent(new FocusEvent('focus'));
    await seen.settle();
  };

  beforeEach(async () => {
    openBench();
    seen = await Seen.of(ArenaPage);
    document.body.append(seen.element);
  });
  afterEach(() => seen.element.remove());

  it('is read as sentences, and moved by keys', async () => {
    await focus('Strongbox');
    expect(seen.text('[aria-label="Chosen"]')).toContain('A strongbox at 545, 425, in no team.');
    await press(item('Strongbox'), 'ArrowRight');
    await press(item('Strongbox'), 'ArrowUp', { shiftKey: true });
    expect(seen.text('[aria-label="Chosen"]')).toContain('at 550, 400');
    expect(placed().find((thing) => thing.actor === 'strongbox')).toEqual({ actor: 'strongbox', x: 550, y: 400 });
  });

  it('copies, takes out and undoes', async () => {
    const before = placed().length;
    await focus('Broker');
    await press(item('Broker'), 'd', { ctrlKey: true });
    expect(placed().length).toBe(before + 1);
    expect(placed().at(-1)).toEqual({ actor: 'broker', x: 935, y: 315 });
    await press(item('Broker'), 'Delete');
    expect(placed().length).toBe(before);
    TestBed.inject(Store).dispatch(documentActions.undo());
    await seen.settle();
    expect(placed().length).toBe(before + 1);
  });

  it('says what is other about one thing, adds to it, and takes it back', async () => {
    await focus('Night quartermaster');
    expect(seen.text('[aria-label="Chosen"]')).toContain('For rest and refill this one asks 60 scrip.');
    await seen.click('reach of rest and refill', '.chip');
    const asks = () => (placed().find(({ id }) => id === 'nightShift')!.with!['asks'] as Record<string, unknown>[])[0];
    expect(asks()['reach']).toBe(50);
    await seen.edit('price of rest and refill', '75');
    expect((asks()['price'] as { amount: number }).amount).toBe(75);
    for (const clause of ['price of rest and refill', 'reach of rest and refill']) {
      seen.element.querySelector<HTMLElement>(`[aria-label="Take out: ${clause}"]`)!.click();
      await seen.settle();
    }
    expect(placed().find(({ id }) => id === 'nightShift')!.with).toEqual({ label: 'Night quartermaster' });
    await focus('Quartermaster');
    await seen.click('price of pawn a pearl', '.chip');
    expect(seen.text('[aria-label="Chosen"]')).toContain('For pawn a pearl this one asks 1 tide-pearls.');
  });

  it('places what is picked, without a pointer too, and turns a zone’s shape', async () => {
    await seen.click('Diving bell', '.palette button');
    await seen.click('put it in the middle');
    expect(placed().at(-1)).toEqual({ zone: 'divingBell', x: 480, y: 270, radius: 50 });
    await seen.click('make it a rectangle');
    expect(placed().at(-1)).toEqual({ zone: 'divingBell', x: 480, y: 270, width: 120, height: 80 });
    await seen.click('Wall', '.palette button');
    await seen.click('put it in the middle');
    expect(arenaOf(documentNow()).walls.length).toBe(4);
    expect(seen.text('[aria-label="Chosen"]')).toContain('80 wide and 20 high');
  });

  it('refuses a size that leaves things outside, and says which', async () => {
    const wide = seen.element.querySelector<HTMLInputElement>('[aria-label="Width of the arena"]')!;
    wide.value = '300';
    wide.dispatchEvent(new Event('change'));
    await seen.settle();
    expect(seen.text('.refusal')).toContain('lies outside the arena');
    expect(wide.value).toBe('960');
  });
});

describe('Wiring', () => {
  it('shows who announces and who waits, and every loose end with what is missing', async () => {
    const store = openBench();
    const seen = await Seen.of(Wiring, { event: 'zoneEntered' });
    expect(seen.texts('ee-wires [aria-label="Who can announce it"] a')).toEqual(['Diving bell', 'The wreck', 'Cold current']);
    expect(seen.texts('ee-wires [aria-label="Who waits for it"] a')).toEqual([
      'First Descent',
      'The Manifest',
      'Into the wreck',
      'First in the wreck',
    ]);
    expect(seen.text('section')).toContain('No loose ends');
    const arena = { ...arenaOf(documentNow()), placed: placedWithout('wreck') };
    const document = { ...documentNow(), arena } as never;
    store.dispatch(documentActions.opened({ id: 'r', document, revision: 2 }));
    await seen.settle();
    expect(seen.texts('.dangling a')).toEqual(['The Manifest', 'Into the wreck', 'First in the wreck', 'The wreck']);
    expect(seen.text('ee-wires .loose .words')).toBe('nothing brings it about');
    seen.fixture.componentRef.setInput('event', undefined);
    seen.fixture.componentRef.setInput('entry', 'spawners/kelpBed');
    await seen.settle();
    expect(seen.texts('ee-wires [aria-label="What it causes"] button')).toEqual(['a spawner makes something']);
  });

  const placedWithout = (zone: string) => arenaOf(documentNow()).placed.filter((thing) => thing.zone !== zone);
});
