import brinewick from '../../testing/recorded/brinewick.json' with { type: 'json' };
import { compileRuleset, findingsOf, type QuestMove, questsFromCsv, questsToCsv, walkQuest } from '../../index.js';
import { goal, parts, pay, quest, step } from '../../testing/quests.js';
import { rulesetWith } from '../../testing/rulesets.js';

describe('Quests as a table', () => {
  it('go out as CSV, a line for each goal, and come back as they were', () => {
    const csv = questsToCsv(brinewick);
    expect(csv.split('\r\n')[0]).toBe('quest,title,text,step,stepTitle,goal,line,event,where,count,if,counts,optional');
    expect(csv).toContain('find,Three pages,pages,Pages in hand {have}/{need},pickupTaken pickup=manifestPage,,3');
    expect(questsFromCsv(csv, brinewick)).toEqual({ patch: [], changed: 0, added: 0, problems: [] });
    const renamed = questsFromCsv(csv.replace('Three pages', 'All three'), brinewick);
    expect([renamed.problems, renamed.patch?.length, 'changed' in renamed && renamed.changed]).toEqual([[], 1, 1]);
    const after = (renamed.patch![0] as { value: { id: string; then: unknown; next: string }[] }).value[1];
    expect([after.id, after.next, (after.then as unknown[]).length]).toEqual(['theManifest', 'quietHull', 2]);
  });

  it('add a quest, which no one offers yet', () => {
    const document = rulesetWith(parts());
    const csv =
      'quest,title,step,goal,line,event,count,if\nhunt,The hunt,out,fell,Felled {have}/{need},attributeChanged attribute=felled,4,\nhunt,,out,whole,Whole,,,suit > 50\n';
    const read = questsFromCsv(csv, document);
    expect('added' in read && read.added).toBe(1);
    const rules = compileRuleset({ ...document, quests: (read.patch![0] as { value: unknown }).value });
    expect(findingsOf(rules).map(({ kind }) => kind)).toContain('neverOffered');
  });

  it('are taken as a whole or not at all: every problem has its line', () => {
    const at = (text: string) => questsFromCsv(text, rulesetWith(parts())).problems.map(({ line, name }) => `${line} ${name}`);
    expect(at('quest,step,goal\n')).toEqual(['1 line', '2 ']);
    expect(at('quest,step,goal,line,wehn\nQ,s,g,x,\n')).toEqual(['1 wehn', '2 quest']);
    expect(at('quest,step,goal,line,event,count,optional\nq,s,g,x,pickupTakn,,\nq,s,h,x,attributeChanged felled,two,maybe')).toEqual([
      '2 event',
      '3 event',
      '3 count',
      '3 optional',
    ]);
    expect(at('quest,step,goal,line,if\nq,s,g,x,suit > 1\nq,s,h,x,nothing > 1')).toEqual(['3 /quests/0/steps/0/goals/1/if']);
  });
});

describe('A walk through a quest', () => {
  const walk = (more: Record<string, unknown>, ...moves: QuestMove[]) =>
    walkQuest(compileRuleset(rulesetWith(parts(quest('q', more)))), 'q', moves)!;
  const accept = { do: 'accept', seat: 'north' } as const;
  const count = (seat = 'north', id = 'fell') => ({ do: 'count', seat, goal: id }) as const;

  it('tells the path, who can announce what it waits for, and what it gives', () => {
    const rules = compileRuleset(brinewick);
    const path = walkQuest(rules, 'theManifest', [])!;
    expect(path.offers).toEqual(['Chart-keeper, when asked']);
    expect([path.handIn, path.next, path.rewards]).toEqual(['Chart-keeper', 'Quiet Hull', '120 Standing, 30 Scrip']);
    expect(path.steps[1].goals[0]).toEqual(
      jasmine.objectContaining({ need: 3, waits: 'a pickup is taken (manifest page)', from: ['Manifest page'] }),
    );
    expect(walkQuest(rules, 'quietHull', [])!.offers).toEqual(['a zone is entered (cold current)', 'after The Manifest']);
    expect(walkQuest(rules, 'nothing', [])).toBeUndefined();
  });

  it('is played by the core: accepted, counted, handed in', () => {
    const steps = [step('one', goal('fell', { count: 2 }))];
    const { walkers, told } = walk({ steps, then: pay, handIn: 'diver' }, accept, count(), count(), { do: 'handIn', seat: 'north' });
    expect(walkers.map(({ seat, standing }) => `${seat} ${standing}`)).toEqual(['north done', 'south none']);
    expect(told.map(({ words }) => words)).toEqual([
      'north is offered “q”',
      'north begins “q”',
      'north, “q”: one is done',
      'north, “q”: Return to: Diver',
      'north has done “q”',
    ]);
  });

  it('shares with the crew, runs out of time, is declined, and begins also where a condition stands against it', () => {
    const shared = walk(
      { takenBy: 'crew', steps: [step('one', goal('fell', { count: 3, counts: 'crew' }))] },
      accept,
      count(),
      count('south'),
    );
    expect(shared.walkers.map(({ standing, have }) => `${standing} ${have['fell']}`)).toEqual(['active 2', 'active 2']);
    expect(walk({ limit: '3s' }, accept, { do: 'wait', seconds: 4 }).walkers[0].standing).toBe('failed');
    expect(walk({}, { do: 'decline', seat: 'north' }).walkers[0].standing).toBe('declined');
    expect(walk({ if: 'suit > 500' }, accept, { do: 'abandon', seat: 'north' }).walkers[0].standing).toBe('abandoned');
    const daily = walk({ repeats: 'daily' }, accept, count(), { do: 'day' }, accept);
    expect(daily.walkers[0].standing).toBe('active');
  });
});
