import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';
import { importProvidersFrom } from '@angular/core';
import { documentNow, openBench, Seen, until } from '../testing/bench';
import { ATTRIBUTE_FILES } from './attributes/attribute-files';
import { CLIP_FILES } from './clips/clip-files';
import { FileExchange } from './file-exchange';

describe('The table of attributes', () => {
  let seen: Seen<FileExchange>;
  beforeEach(async () => {
    openBench(undefined, [], [importProvidersFrom(MatDialogModule), { provide: MAT_DIALOG_DATA, useValue: ATTRIBUTE_FILES }]);
    seen = await Seen.of(FileExchange);
  });

  const choose = async (text: string) => {
    const field = seen.element.querySelector<HTMLInputElement>('input[type="file"]')!;
    const files = new DataTransfer();
    files.items.add(new File([text], 'stats.csv'));
    field.files = files.files;
    field.dispatchEvent(new Event('change'));
    await until('the file is read', () => seen.element.querySelector('[role="status"], [role="alert"]') !== null);
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

describe('Clips from a file', () => {
  const exchange = async () => {
    openBench(undefined, [], [importProvidersFrom(MatDialogModule), { provide: MAT_DIALOG_DATA, useValue: CLIP_FILES }]);
    return Seen.of(FileExchange);
  };
  const give = async (seen: Seen<FileExchange>, name: string, text: string) => {
    const files = new DataTransfer();
    files.items.add(new File([text], name));
    const field = seen.element.querySelector<HTMLInputElement>('input[type="file"]')!;
    field.files = files.files;
    field.dispatchEvent(new Event('change'));
    await seen.settle();
  };

  it('are looked at first, and taken in one step', async () => {
    const seen = await exchange();
    await give(seen, 'clips.csv', 'clip,length,mark,at\nnetThrow,1.2,loose,0.4\n');
    expect(seen.text('[role="status"]')).toContain('clips.csv is sound: 1 new.');
    await seen.click('Take it');
    expect(documentNow()['clips'].at(-1)).toEqual({
      id: 'netThrow',
      label: 'netThrow',
      length: '1.2s',
      marks: [{ mark: 'loose', at: '0.4s' }],
    });
  });

  it('may be JSON, and say where they are wrong', async () => {
    const seen = await exchange();
    await give(seen, 'clips.json', '[{"id":"netThrow","length":"soon"}]');
    expect(seen.text('[role="alert"]')).toBe('Nothing was taken from clips.json: 1 mistake.');
    expect(seen.text('table')).toContain('A time is expected');
    expect(documentNow()['clips'].length).toBe(3);
  });
});
