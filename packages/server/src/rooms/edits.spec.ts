import { TestTime } from '../testing/test-time.js';
import { Edits, type Follower } from './edits.js';

interface Edited {
  readonly rulesetId: string;
  readonly revision: number;
}

/** A room that takes edited rules over as they come, and notes when. */
class Listener implements Follower<Edited> {
  revision = 1;
  readonly heard: (readonly [revision: number, at: number])[] = [];

  constructor(
    private readonly time: TestTime,
    readonly watchedByAuthor = false,
    readonly rulesetId = 'one',
  ) {}

  edited({ revision }: Edited): void {
    this.revision = revision;
    this.heard.push([revision, this.time.now()]);
  }
}

describe('Edits', () => {
  let time: TestTime;
  let rooms: Listener[];
  let edits: Edits<Edited>;
  beforeEach(() => {
    time = new TestTime();
    rooms = [];
    edits = new Edits((of) => rooms.filter(({ rulesetId }) => rulesetId === of), time);
  });
  const enter = (byAuthor = false, rulesetId = 'one'): Listener => {
    const room = new Listener(time, byAuthor, rulesetId);
    rooms.push(room);
    return room;
  };
  const give = (revision: number) => edits.give({ rulesetId: 'one', revision });

  it('are given to one room after the other, first to that whose author looks at it', () => {
    const [one, other, author, apart] = [enter(), enter(), enter(true), enter(true, 'another')];
    give(2);
    expect([one.heard, other.heard, author.heard]).toEqual([[], [], [[2, 0]]]);
    time.pass(200);
    expect([one.heard, other.heard]).toEqual([[[2, 25]], [[2, 50]]]);
    expect(apart.heard).toEqual([]);
  });

  it('that were edited again meanwhile reach those who wait as the last of them, and everybody in the end', () => {
    for (let i = 0; i < 5; i++) enter(i === 0);
    for (let revision = 2; revision <= 9; revision++) {
      give(revision);
      time.pass(20);
    }
    time.pass(500);
    expect(rooms.map(({ revision }) => revision)).toEqual([9, 9, 9, 9, 9]);
    const all = rooms.flatMap(({ heard }) => heard.map(([, at]) => at)).sort((a, b) => a - b);
    expect(all.every((at, i) => i === 0 || at - all[i - 1] >= 20)).toBeTrue();
    // One that waits is given what there is by then, and not what it was told of first.
    expect(rooms[4].heard.length).toBeLessThan(8);
  });

  it('that come late change nothing', () => {
    const room = enter();
    give(3);
    give(2);
    time.pass(100);
    expect(room.heard).toEqual([[3, 0]]);
  });
});
