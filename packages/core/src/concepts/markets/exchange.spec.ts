import brinewick from '../../testing/recorded/brinewick.json' with { type: 'json' };
import { lootFromCsv, lootToCsv, pricesFromCsv, pricesToCsv, readRuleset } from '../../index.js';
import { counter, rulesetWith } from '../../testing/rulesets.js';
import { HARBOUR } from '../../testing/harbour.js';

/** A document after an edit of whole chapters. */
const after = (document: object, { patch }: { patch?: readonly object[] }) => ({
  ...document,
  ...Object.fromEntries((patch as { path: string; value: unknown }[]).map(({ path, value }) => [path.slice(1), value])),
});

describe('Loot tables as CSV', () => {
  it('go out, a line for each entry, and come back as they were', () => {
    const csv = lootToCsv(brinewick);
    expect(csv.split('\r\n')[0]).toBe('table,title,rolled,rolls,putBack,entry,name,weight,kind,what,quantity,if');
    expect(csv).toContain('strongbox,Strongbox,,2,,pay,,always,gives,scrip,5 to 12,');
    expect(csv).toContain('strongbox,,,,,change,,40,table,smallChange,,');
    expect(lootFromCsv(csv, brinewick)).toEqual({ patch: [], changed: 0, added: 0, problems: [] });
  });

  it('change what they say, keep what they do not, and add tables', () => {
    const csv =
      lootToCsv(brinewick).replace('pearl,,2,gives,tidePearls', 'pearl,,5,gives,tidePearls') +
      'wreckage,Wreckage,,,,splinter,Splinter,1,gives,scrip,2,\r\n';
    const read = lootFromCsv(csv, brinewick);
    expect([read.problems, 'changed' in read && read.changed, 'added' in read && read.added]).toEqual([[], 1, 1]);
    const { loot } = after(brinewick, read) as unknown as {
      loot: { id: string; streak?: unknown; entries: { id: string; weight: number }[] }[];
    };
    const strongbox = loot.find(({ id }) => id === 'strongbox')!;
    expect(strongbox.streak).toEqual({ entry: 'pearl', after: 20, adds: 6 });
    expect(strongbox.entries.find(({ id }) => id === 'pearl')!.weight).toBe(5);
    expect(readRuleset(after(brinewick, read)).problems).toEqual([]);
  });

  it('are taken as a whole or not at all: every problem has its line', () => {
    const document = rulesetWith({ attributes: [counter('brass')] });
    const at = (text: string) => lootFromCsv(text, document).problems.map(({ line, name }) => `${line} ${name}`);
    expect(at('table,entry\n')).toEqual(['1 weight', '2 ']);
    expect(at('table,entry,weight,wat\nA,b,1,\n')).toEqual(['1 wat', '2 table']);
    expect(at('table,entry,weight,kind,what,rolled\nt,a,,givs,brass,all\nt,b,1,,brass,')).toEqual([
      '2 weight',
      '2 rolled',
      '2 kind',
      '3 what',
    ]);
    expect(at('table,entry,weight,kind,what\nt,a,1,gives,brass\nt,b,1,gives,bras')).toEqual(['3 /loot/0/entries/1/gives']);
    expect(at('table,entry,weight,kind,what\nt,a,1,table,t')).toEqual(['2 /loot/0/entries/0/table']);
  });
});

describe('A price list as CSV', () => {
  it('goes out, a line for each good and each cost, and comes back as it was', () => {
    const csv = pricesToCsv(brinewick);
    expect(csv).toContain('market,exchange,The Broker’s scales,brassFittings,,6,12,,,,,');
    expect(csv).toContain('market,exchange,,cutGlass,,8,30,18,4,,,');
    expect(csv).toContain('offer,winch,Winch,scrip,70 * tier,,,,,3,,7 * tier');
    expect(csv).toContain('offer,winch,,brassFittings,tier,,,,,,,');
    expect(pricesFromCsv(csv, brinewick)).toEqual({ patch: [], changed: 0, added: 0, problems: [] });
  });

  it('changes prices and keeps what it has no column for', () => {
    const read = pricesFromCsv(pricesToCsv(brinewick).replace('70 * tier', '75 * tier').replace(',6,12,', ',7,11,'), brinewick);
    expect([read.problems, 'changed' in read && read.changed]).toEqual([[], 2]);
    const edited = after(brinewick, read) as unknown as typeof brinewick;
    expect(edited.offers.find(({ id }) => id === 'winch')!.needs!.length).toBe(1);
    expect(edited.markets[0].at).toBe('broker');
  });

  it('is taken as a whole or not at all: every problem has its line', () => {
    const document = rulesetWith(HARBOUR);
    const at = (text: string) => pricesFromCsv(text, document).problems.map(({ line, name }) => `${line} ${name}`);
    expect(at('list,id,good,least,most\nmarkt,quay,brass,1,2\nmarket,Q,brass,x,')).toEqual(['2 list', '3 id', '3 least', '3 most']);
    expect(at('list,id,good,least,most,start,step\nmarket,quay,brass,1,2,1,')).toEqual(['2 step']);
    expect(at('list,id,good,least,most\nmarket,quay,brass,5,2')).toEqual(['2 /markets/0/goods/0/price']);
    expect(at('list,id,good,price\noffer,slip,scrip,40\noffer,slip,sut,2')).toEqual(['3 /offers/0/costs/1/attribute']);
    expect(at('list,id,good,price\noffer,slip,scrip,')).toEqual(['2 price']);
  });
});
