import { MatDialogModule } from '@angular/material/dialog';
import { importProvidersFrom } from '@angular/core';
import { documentNow, openBench, Seen } from '../testing/bench';
import { TableExchange } from './table-exchange';

describe('The table of attributes', () => {
  let seen: Seen<TableExchange>;
  beforeEach(async () => {
    openBench(undefined, [], [importProvidersFrom(MatDialogModule)]);
    seen = await Seen.of(TableExchange);
  });

  const choose = async (text: string) => {
    const field = seen.element.querySelector<HTMLInputElement>('input[type="file"]')!;
    const files = new DataTransfer();
    files.items.add(new File([text], 'stats.csv'));
    field.files = files.files;
    field.dispatchEvent(new Event('change'));
    for (let i = 0; i < 20 && !seen.element.querySelector('[role="status"], [role="alert"]'); i++) await seen.settle();
    await seen.settle();
  };

  it('is looked at first, then taken in one step', async () => {
    await choose('id,label,kind,start,refill\nfinSpeed,Fin speed,stat,150,\nlantern,Lantern,pool,5,1\n');
    expect(seen.text('[role="status"]')).toBe('stats.csv is sound: 1 changed, 1 new. Take it');
    expect(documentNow()['attributes'][6]['start']).toBe(120);
    await seen.click('Take it');
    expect(documentNow()['attributes'][6]['start']).toBe(150);
    expect(documentNow()['attributes'].at(-1)).toEqual({ id: 'lantern', label: 'Lantern', kind: 'pool', start: 5, refill: { rate: 1 } });
  });

  it('takes nothing where anything is wrong, and says line and column', async () => {
    await choose('id,start\nfinSpeed,150\noxygen,"1,5"\n');
    expect(seen.text('[role="alert"]')).toBe('Nothing was taken from stats.csv: 1 mistake.');
    expect(seen.texts('td')).toEqual(['3', '2 start', 'Write decimals with a point: 1.5.']);
    expect(documentNow()['attributes'][6]['start']).toBe(120);
  });
});
