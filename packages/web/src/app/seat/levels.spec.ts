import { compileRuleset, Copy, Publisher, seatsTable, wireSchemaOf, World } from '@eager-ember/core';
import brinewick from '../../../../core/src/testing/recorded/brinewick.json';
import { openBench, Seen } from '../testing/bench';
import type { Ask } from './controls';
import { levelsOf } from './levels';
import { rosterOf } from './roster';
import { SkillWindow } from './skill-window';

const rules = compileRuleset(brinewick);
/** A copy as the seat north was told it, after some commands. */
function told(...inputs: Record<string, unknown>[]): { copy: Copy; row: number } {
  const world = World.start(rules, 1);
  world.step([...['north', 'south', 'east'].map((seat) => ({ kind: 'join', args: { seat } }))]);
  world.step([{ kind: 'poke', args: { seat: 'north', action: { do: 'award', track: 'standing', amount: 600 } } }]);
  world.step(inputs.map((input) => ({ kind: 'input', args: { seat: 'north', input } })));
  const publisher = new Publisher(world);
  publisher.capture();
  const seats = seatsTable.in(world).cells.actor;
  const copy = new Copy(wireSchemaOf(rules, false));
  const row = world.actors.rowOf(seats[0]);
  copy.apply(publisher.frameFor({ actor: seats[0], team: world.actors.cells.team[row] }, 0));
  return { copy, row };
}
const learn = (node: string) => ({ do: 'learn', tree: 'diversTrade', node });

describe('What a seat knows of its levels', () => {
  it('is its level, and what is open in its trees', () => {
    const { copy, row } = told(learn('deepBreath'), learn('deepBreath'));
    const { levels, trees } = levelsOf(copy, row);
    expect(levels).toEqual([jasmine.objectContaining({ label: 'Standing', level: 4, text: '58 of 480' })]);
    expect([trees[0].free, trees[0].spent, trees[0].respec]).toEqual([2, 2, 'give all back']);
    const node = (id: string) => trees[0].nodes.find((one) => one.id === id)!;
    expect([node('deepBreath').rank, node('calm').locked, node('whiteHeat').locked]).toEqual([
      2,
      '',
      'White heat needs Steady hand or Thrifty valve first.',
    ]);
    expect(node('deepBreath').held).toBe('');
  });

  it('is nobody else’s tree', () => {
    const { copy, row } = told();
    const other = copy.rows('actors').find((one) => one !== row && copy.value('tracks', one, 'standing.level') !== undefined)!;
    expect(levelsOf(copy, other).levels.length).toBe(1);
    expect(levelsOf(copy, other).trees).toEqual([]);
  });

  it('is who is in which crew', () => {
    const { copy, row } = told();
    expect(rosterOf(copy, row).map(({ team, own, members }) => [team?.label, own, members])).toEqual([
      ['Petrel', true, ['north', 'east']],
      ['Gannet', false, ['south']],
    ]);
  });
});

describe('The window of a skill tree', () => {
  it('lets what is open be learned, and what nothing rests on be given back', async () => {
    const { copy, row } = told(learn('deepBreath'), learn('deepBreath'), learn('calm'));
    openBench();
    const seen = await Seen.of(SkillWindow, { tree: levelsOf(copy, row).trees[0] });
    const asked: Ask[] = [];
    seen.fixture.componentInstance.ask.subscribe((ask) => asked.push(ask));
    expect(seen.text('[data-node="lungsOfBrine"]')).toContain('Lungs of brine needs standing 6.');
    expect(seen.text('[data-node="deepBreath"]')).toBe('2/3 Deep breath learn, 1');
    await seen.click('back', '[data-node="calm"] button');
    await seen.click('learn, 1', '[data-node="hotFlame"] button');
    await seen.click('give all back');
    expect(asked).toEqual([
      { do: 'unlearn', tree: 'diversTrade', node: 'calm' },
      { do: 'learn', tree: 'diversTrade', node: 'hotFlame' },
      { do: 'respec', tree: 'diversTrade' },
    ]);
  });
});
