import brinewick from '../../testing/recorded/brinewick.json' with { type: 'json' };
import { clipsFromCsv, clipsFromJson, clipsToCsv } from '../../index.js';

const doc = brinewick as unknown as { [section: string]: unknown };
const after = (reading: ReturnType<typeof clipsFromCsv>) =>
  (reading.patch?.[0] as { value: { id: string; length: string; marks: unknown[] }[] } | undefined)?.value;
const said = (reading: ReturnType<typeof clipsFromCsv>) => reading.problems.map(({ line, name, message }) => `${line} ${name}: ${message}`);

describe('Clips as a table', () => {
  it('come back as they went out', () => {
    const reading = clipsFromCsv(clipsToCsv(doc), doc);
    expect(reading).toEqual({ patch: [], changed: 0, added: 0, problems: [] });
  });

  it('change the clips that they name, add others, and leave the rest', () => {
    const reading = clipsFromCsv('clip,length,mark,at\ntorchSweep,3s,strike,2.2\nnetThrow,900ms,,\n', doc);
    expect([(reading as { changed: number }).changed, (reading as { added: number }).added]).toEqual([1, 1]);
    const clips = after(reading)!;
    expect(clips.map(({ id }) => id)).toEqual(['torchSweep', 'harpoonShot', 'jawSnap', 'netThrow']);
    expect(clips[0]).toEqual({ id: 'torchSweep', label: 'Torch sweep', length: '3s', marks: [{ mark: 'strike', at: '2.2s' }] } as never);
    expect(clips[3]).toEqual({ id: 'netThrow', label: 'netThrow', length: '900ms', marks: [] } as never);
  });

  it('say where they are wrong, and take nothing', () => {
    expect(said(clipsFromCsv('clip,lenght\na,1s', doc))[0]).toBe('1 lenght: No column is called lenght. Did you mean length?');
    expect(said(clipsFromCsv('clip,length,mark,at\nnet,soon,,\n,1s,,\nnet2,1s,,0.5s', doc))).toEqual([
      '2 length: A time is expected, such as 1.5s, 250ms, or 1.5 for seconds.',
      '3 clip: This is empty: every line names the clip that it is about.',
      '4 mark: A time without a mark: say what happens then.',
    ]);
    expect(said(clipsFromCsv('clip,length,mark,at\nnet,1s,throw,2s', doc))[0]).toContain('throw is at 2s, after the end of');
    // A mark that an ability waits for can't be taken away.
    expect(said(clipsFromCsv('clip,length\ntorchSweep,1s', doc))[0]).toContain('has no mark strike');
  });

  it('are read from JSON as well', () => {
    const reading = clipsFromJson('[{"id":"netThrow","label":"Net throw","length":1.2,"marks":[{"mark":"loose","at":"0.4s"}]}]', doc);
    expect(after(reading)!.at(-1)).toEqual({
      id: 'netThrow',
      label: 'Net throw',
      length: '1.2s',
      marks: [{ mark: 'loose', at: '0.4s' }],
    } as never);
    expect(said(clipsFromJson('{', doc))[0]).toMatch(/^1 : This is not JSON: .+\.$/);
    expect(said(clipsFromJson('[{"id":"a"}]', doc))[0]).toContain('length');
    expect(said(clipsFromJson('[{"id":"a","length":1},{"id":"a","length":1}]', doc))[0]).toContain('in the list already');
  });
});
