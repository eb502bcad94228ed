import type { FieldDescription } from '@eager-ember/core';
import { createCore } from '../../shared/core-api';
import { fieldAt, fitsIn, formatOf } from './described';

const DOCUMENT = {
  attributes: [
    { id: 'girth', label: 'Girth', kind: 'stat' },
    { id: 'suit', label: 'Suit', kind: 'pool' },
  ],
};
const sections = createCore().sections();
const formatAt = (section: string, entry: object, at: string) => formatOf(fieldAt(sections[section], entry, at)!);

describe('What can stand in a place', () => {
  it('is found by its path, through lists', () => {
    expect(fieldAt(sections['effects'], {}, 'modifiers/2/live')?.kind).toBe('flag');
    expect(fieldAt(sections['effects'], {}, 'modifiers/2/nothing')).toBeUndefined();
  });

  it('goes by the word that says which of several shapes is there', () => {
    const radius = (by: string) => fieldAt(sections['abilities'], { deliver: { by } }, 'deliver/radius')?.kind;
    expect([radius('projectile'), radius('area')]).toEqual(['number', 'amount']);
  });

  it('goes by the fields that are there where no word says it', () => {
    const placed = (thing: object) => fieldAt(sections['arena'], { placed: [thing] }, 'placed/0/with/who')?.kind;
    expect(placed({ zone: 'kelp', x: 0, y: 0 })).toBe('condition');
    expect(placed({ actor: 'diver', x: 0, y: 0 })).toBeUndefined();
  });

  it('is said in the words of its schema, also where nothing is written', () => {
    expect(fieldAt(sections['quests'], {}, 'see')?.absent).toBe('its player alone');
    expect(fieldAt(sections['achievements'], {}, 'see')?.absent).toBe('its player');
    expect(fieldAt(sections['tracks'], {}, 'see')?.absent).toBe('its owner');
  });
});

describe('A format that follows from a description', () => {
  it('has the range and the unit that the schema has', () => {
    const angle = formatAt('abilities', { target: { at: 'cone' } }, 'target/angle');
    expect(angle.hint).toBe('A number from 1 to 360 degrees.');
    expect(angle.read('0', DOCUMENT).error).toBe('A number from 1 to 360 degrees. This is 0.');
  });

  it('offers the entries that fit', () => {
    const stat = formatAt('effects', {}, 'modifiers/0/attribute');
    expect(stat.choices('', DOCUMENT).map(({ label }) => label)).toEqual(['Girth']);
  });

  it('takes what one of several ways takes', () => {
    const radius = formatAt('actors', {}, 'radius');
    expect(radius.read('20', DOCUMENT)).toEqual({ value: 20 });
    expect(radius.read('Girth', DOCUMENT)).toEqual({ value: 'girth' });
    expect(radius.read('400', DOCUMENT).error).toBe('A number from 1 to 200. This is 400.');
    expect([radius.show(20, DOCUMENT).text, radius.show('girth', DOCUMENT).text]).toEqual(['20', 'girth']);
  });

  it('tells which entries fit a place', () => {
    const field: FieldDescription = { kind: 'reference', chapter: 'effects', fits: { lifetime: ['lasting'] }, optional: false };
    expect([{ lifetime: 'lasting' }, {}].map(fitsIn(field))).toEqual([true, false]);
  });
});

describe('Whom an action is for', () => {
  const party = formatOf(
    createCore()
      .actions()
      .find(({ to }) => to !== undefined)!.to!,
  );
  const shown = (value: unknown) => party.show(value, DOCUMENT).text;

  it('is said as a word, or with what is filled in', () => {
    expect(shown(undefined)).toBe('self');
    expect(shown('team')).toBe('the crew');
    expect(shown({ nearby: 260, who: 'others' })).toBe('others within 260');
    expect(shown({ nearby: 40 })).toBe('anyone within 40');
  });

  it('is read from both', () => {
    expect(party.read('the source', DOCUMENT)).toEqual({ value: 'source' });
    expect(party.read('crew within 90', DOCUMENT)).toEqual({ value: { nearby: 90, who: 'crew' } });
    expect(party.read('opponents within 90.5', DOCUMENT)).toEqual({ value: { nearby: 90.5, who: 'foes' } });
    expect(party.read('them', DOCUMENT).error).toContain('Say whom');
  });

  it('is offered with a distance to begin with', () => {
    expect(party.choices('', DOCUMENT).map(({ label }) => label)).toContain('opponents within 200');
  });
});
