import { actorChapter } from '../concepts/actors/schema.js';
import { zoneChapter } from '../concepts/zones/schema.js';
import { RulesetCompiler } from '../index.js';
import { rulesetWith } from '../testing/rulesets.js';
import { answersOf, everythingOf, question } from './questions.js';
import { sameItems } from './recording.js';
import { labelOf, type Rules } from './rules.js';

describe('A question about rules', () => {
  const zones = [
    { id: 'wet', label: 'Wet' },
    { id: 'dry', label: 'Dry' },
    { id: 'cold', label: 'Cold' },
  ];
  const document = rulesetWith({ zones });
  const labelled = (at: number, label: string) => ({
    ...document,
    zones: zones.map((entry, i) => (i === at ? { ...entry, label } : entry)),
  });
  /** A compiler that has read the document, with how often something is worked out under rules that it reads. */
  function counting<T>(answer: (rules: Rules, of: string) => T, same?: (before: T, now: T) => boolean) {
    const compiler = new RulesetCompiler();
    let count = 0;
    const asked = question((rules, of) => {
      count++;
      return answer(rules, of);
    }, same);
    return { read: (value: unknown) => compiler.read(value).rules!, asked, count: () => count };
  }

  it('is answered once, and again under rules in which something else is what was read', () => {
    const { read, asked, count } = counting((rules) => zoneChapter.of(rules).map(({ label }) => label));
    expect(asked(read(document))).toEqual(['Wet', 'Dry', 'Cold']);
    expect(asked(read({ ...document, name: 'Another' }))).toBe(asked(read(document)));
    expect(count()).toBe(1);
    expect(asked(read(labelled(1, 'Arid')))).toEqual(['Wet', 'Arid', 'Cold']);
    expect([asked(read(document)), count()]).toEqual([['Wet', 'Dry', 'Cold'], 3]);
  });

  it('that reads an entry alone is left alone by edits of the others', () => {
    const { read, asked, count } = counting((rules, id) => zoneChapter.find(rules, id)?.label);
    expect([asked(read(document), 'dry'), asked(read(labelled(0, 'Damp')), 'dry'), count()]).toEqual(['Dry', 'Dry', 1]);
    expect([asked(read(labelled(1, 'Arid')), 'dry'), count()]).toEqual(['Arid', 2]);
    expect([asked(read({ ...document, zones: zones.slice(2) }), 'dry'), count()]).toEqual([undefined, 3]);
  });

  it('that reads what something is called is left alone by whatever else that says', () => {
    const { read, asked, count } = counting((rules) => labelOf(rules, 'actors', 'diver').toUpperCase());
    const first = asked(read(document));
    const actors = (document['actors'] as readonly object[]).map((actor) => ({ ...actor, formerly: ['swimmer'] }));
    expect(actorChapter.of(read({ ...document, actors }))[0].formerly).toEqual(['swimmer']);
    expect([asked(read({ ...document, actors })), count()]).toEqual([first, 1]);
  });

  it('keeps what follows from an answer that comes to the same as before', () => {
    const initials = question((rules) => zoneChapter.of(rules).map(({ label }) => label[0]), sameItems);
    const { read, asked, count } = counting((rules) => initials(rules).join(''));
    expect([asked(read(document)), asked(read(labelled(1, 'Damp'))), count()]).toEqual(['WDC', 'WDC', 1]);
    expect([asked(read(labelled(1, 'Arid'))), count()]).toEqual(['WAC', 2]);
  });

  it('that runs the rules is answered anew under any others', () => {
    const { read, asked, count } = counting((rules) => everythingOf(rules).tickRate);
    const rules = read(document);
    expect([asked(rules), asked(rules), count()]).toEqual([20, 20, 1]);
    expect([asked(read({ ...document, name: 'Another' })), count()]).toEqual([20, 2]);
    expect(everythingOf(rules)).toBe(rules);
  });

  it('sees of the rules whatever they have, however it is read', () => {
    const { read, asked } = counting((rules) => ({
      sections: Object.keys(rules.document).sort(),
      document: JSON.parse(JSON.stringify(rules.document)) as unknown,
      chapters: [...rules.chapters].map(([key, { ids }]) => [key, ids]),
      chapter: rules.chapters.get('nothing'),
      compiled: [...rules.compiled.keys()],
      values: [...rules.compiled.values()].length === rules.compiled.size,
      rest: [rules.tickRate, rules.vocabulary, rules.pieces, rules.amounts, rules.acting, rules.tables, rules.registry],
    }));
    const rules = read(document);
    const { pieces, amounts, acting, tables, registry, vocabulary, tickRate } = rules;
    expect(asked(rules)).toEqual({
      sections: Object.keys(rules.document).sort(),
      document: JSON.parse(JSON.stringify(rules.document)),
      chapters: [...rules.chapters].map(([key, { ids }]) => [key, ids]),
      chapter: undefined,
      compiled: [...rules.compiled.keys()],
      values: true,
      rest: [tickRate, vocabulary, pieces, amounts, acting, tables, registry],
    });
  });

  it('is about the rules that are asked about, and no others', () => {
    const compiler = new RulesetCompiler();
    const [one, other] = [compiler.read(document).rules!, compiler.read(labelled(0, 'Damp')).rules!];
    const mixed = question(() => zoneLabels(one));
    const zoneLabels = question((rules) => zoneChapter.of(rules).map(({ label }) => label));
    expect(() => mixed(other)).toThrowError(/Other rules are asked about/);
    // And nothing is left of the attempt.
    expect(zoneLabels(other)[0]).toBe('Damp');
    expect(answersOf(one)).toBe(answersOf(other));
  });

  it('is forgotten when nobody asks it any more', () => {
    const { read, asked, count } = counting((rules, id) => labelOf(rules, 'zones', id));
    const other = question((rules) => zoneChapter.of(rules).length);
    asked(read(document), 'wet');
    for (let i = 0; i < 20; i++) other(read(labelled(0, `Damp ${i}`)));
    expect([asked(read(document), 'wet'), count()]).toEqual(['Wet', 2]);
  });
});
