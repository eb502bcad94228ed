import * as fc from 'fast-check';
import jsonPatch, { type Operation } from 'fast-json-patch';
import { LARGEST_DOCUMENT, patched, patchedAsSent } from './patching.js';
import { Impossible } from '../errors.js';

describe('A patch', () => {
  const document = { name: 'A', list: [1, 2, 3], deep: { a: { b: 'c' } } };
  const detail = (patch: readonly Operation[], of: Record<string, unknown> = document) => {
    try {
      patched(of, patch);
      return 'it fits';
    } catch (error) {
      return error instanceof Impossible ? error.detail! : String(error);
    }
  };

  it('does what the standard says, and leaves the document and itself alone', () => {
    const patch: Operation[] = [
      { op: 'add', path: '/list/0', value: { new: true } },
      { op: 'replace', path: '/list/0/new', value: false },
      { op: 'copy', from: '/deep', path: '/copied' },
      { op: 'move', from: '/deep/a', path: '/moved' },
      { op: 'test', path: '/moved/b', value: 'c' },
      { op: 'remove', path: '/name' },
    ];
    const [before, sent] = [structuredClone(document), structuredClone(patch)];
    const after = { list: [{ new: false }, 1, 2, 3], deep: {}, copied: { a: { b: 'c' } }, moved: { b: 'c' } };
    expect(patched(document, patch)).toEqual(after);
    expect(patchedAsSent(document, patch)).toEqual(after);
    expect<unknown>([document, patch]).toEqual([before, sent]);
  });

  it('leaves what it does not touch the same', () => {
    const after = patched(document, [{ op: 'replace', path: '/deep/a/b', value: 'd' }]);
    expect(after['list']).toBe(document.list);
    expect(after['deep']).toEqual({ a: { b: 'd' } });
    expect(patched(document, [{ op: 'test', path: '/name', value: 'A' }])).toBe(document);
  });

  it('takes any document to any other', () => {
    const any = fc.dictionary(fc.string(), fc.jsonValue({ maxDepth: 4 }), { maxKeys: 6 }).filter((value) => !('__proto__' in value));
    fc.assert(
      fc.property(any, any, (one, other) => {
        const [from, to] = [one, other].map((value) => JSON.parse(JSON.stringify(value)) as Record<string, unknown>);
        expect(patched(from, jsonPatch.compare(from, to))).toEqual(to);
      }),
      { numRuns: 60 },
    );
  });

  it('is refused at the operation that makes the document too large, however small it is itself', () => {
    const doubling = Array.from({ length: 25 }, (_, i): Operation => ({ op: 'copy', from: '', path: `/copy${i}` }));
    expect(detail(doubling)).toMatch(/^Operation 1[0-9]: the ruleset would be larger than 2 MB\.$/);
    const inside = Array.from({ length: 25 }, (): Operation => ({ op: 'copy', from: '/list', path: '/list/-' }));
    expect(detail(inside)).toMatch(/^Operation 1[0-9]: the ruleset would be larger than 2 MB\.$/);
  });

  it('is refused where it copies and takes away without end', () => {
    const large = { ...document, text: 'x'.repeat(LARGEST_DOCUMENT / 4) };
    const again = Array.from({ length: 100 }, (): Operation[] => [
      { op: 'copy', from: '/text', path: '/other' },
      { op: 'remove', path: '/other' },
    ]).flat();
    expect(detail(again, large)).toMatch(/^Operation \d+: the patch copies and replaces more than eight times/);
    expect(detail(again.slice(0, 20), large)).toBe('it fits');
  });

  it('may replace a large part by another, again and again within its bounds', () => {
    const large = { text: 'x'.repeat(LARGEST_DOCUMENT * 0.7) };
    expect(detail([{ op: 'add', path: '/text', value: 'y'.repeat(LARGEST_DOCUMENT * 0.6) }], large)).toBe('it fits');
    expect(detail([{ op: 'add', path: '/more', value: 'y'.repeat(LARGEST_DOCUMENT * 0.6) }], large)).toContain('larger than 2 MB');
  });

  it('is refused where it nests too deeply', () => {
    const step = (): Operation[] => [
      { op: 'move', from: '/deep', path: '/other' },
      { op: 'add', path: '/deep', value: {} },
      { op: 'move', from: '/other', path: '/deep/x' },
    ];
    expect(detail(Array.from({ length: 70 }, step).flat())).toMatch(/^Operation \d+: the ruleset would be nested deeper than 60 levels\.$/);
  });

  it('is refused where it does not fit, with the operation that does not', () => {
    const first: Operation = { op: 'replace', path: '/name', value: 'B' };
    expect(detail([first, { op: 'remove', path: '/nothing' }])).toMatch(/^Operation 1: OPERATION_PATH_UNRESOLVABLE/);
    expect(detail([{ op: 'add', path: '/__proto__/x', value: 1 }])).toMatch(/^Operation 0/);
    expect(detail([{ op: 'move', from: '/deep', path: '/deep/a/x' }])).toMatch(/^Operation 0/);
    expect(detail([{ op: 'replace', path: '', value: 3 }])).toBe('A ruleset is an object, and stays one.');
    expect(detail([{ op: 'remove', path: '' }])).toBe('A ruleset is an object, and stays one.');
  });
});
