import brinewick from '../../testing/recorded/brinewick.json' with { type: 'json' };
import { arenaFromJson, arenaToJson, compileRuleset, placedFromCsv, placedToCsv } from '../../index.js';

const document = brinewick as unknown as Readonly<Record<string, unknown>>;
const valueOf = (reading: ReturnType<typeof placedFromCsv>) => (reading.patch![0] as { value: { placed: unknown[] } }).value;

describe('An arena as a file', () => {
  it('comes back as it went out, as JSON and as CSV', () => {
    expect(valueOf(arenaFromJson(arenaToJson(document), document))).toEqual(document['arena'] as never);
    const csv = placedToCsv(document);
    expect(csv.split('\r\n').length).toBe(brinewick.arena.placed.length + 2);
    expect(valueOf(placedFromCsv(csv, document))).toEqual(document['arena'] as never);
    const { arena: _none, ...without } = document;
    expect(placedFromCsv(placedToCsv(document), without).patch![0].op).toBe('add');
    expect(() => compileRuleset({ ...document, arena: valueOf(placedFromCsv(csv, document)) })).not.toThrow();
  });

  it('is not taken where anything in it is wrong; each mistake says its line', () => {
    const lines = (text: string) => placedFromCsv(text, document).problems.map(({ line, name, message }) => `${line} ${name}: ${message}`);
    expect(lines('kind,entry,x\r\npickup,copperToken,5\r\n')).toEqual(['1 : There is no column y.']);
    expect(lines('kind,entry,x,y,y\r\n')[0]).toBe('1 y: y stands here a second time.');
    expect(lines('kind,entri,x,y\r\n')[0]).toBe('1 entri: No column is called entri. Did you mean entry?');
    expect(lines('kind,entry,x,y\r\npickup,coperToken,5,5\r\nboat,x,1,1\r\n')[0]).toBe(
      '3 kind: One of pickup, actor, zone, spawner is expected.',
    );
    expect(lines('kind,entry,x,y\r\npickup,coperToken,5,5\r\n')[0]).toContain(
      '2 pickup: The pickups have no entry coperToken. Did you mean copperToken?',
    );
    expect(lines('kind,entry,x,y\r\npickup,copperToken,far,5\r\n')[0]).toBe('2 x: A number is expected. This is far.');
    expect(lines('kind,entry,x,y,with\r\npickup,copperToken,5,5,{\r\n')[0]).toBe('2 with: This is not JSON.');
    expect(lines('kind,entry,x,y\r\npickup,copperToken,5,50000\r\n')[0]).toContain('lies outside the arena');
  });

  it('says what is no arena', () => {
    const says = (text: string) => arenaFromJson(text, document).problems[0].message;
    expect(says('{')).toContain('This is not JSON');
    expect(says('{"format":"else"}')).toContain('eager-ember/arena');
    expect(says(JSON.stringify({ format: 'eager-ember/arena', version: 1, arena: { width: 5 } }))).toContain('A side is 100');
  });
});
