import { compileRuleset, findingsOf, parseFormula, rangeOf, type Rules, RulesetCompiler, wiringOf } from '../index.js';
import { Possible } from '../concepts/attributes/possible.js';
import { ANY, exactly, type Range } from '../formula/index.js';
import { answersOf } from '../ruleset/questions.js';
import { pool, rulesetWith, stat } from '../testing/rulesets.js';
import { QUAY } from '../testing/surroundings.js';

const rulesWith = (parts: Record<string, unknown>) => compileRuleset(rulesetWith({ ...QUAY, ...parts }));
const kinds = (parts: Record<string, unknown>) => findingsOf(rulesWith(parts)).map(({ kind, path }) => `${kind} ${path}`);
const token = (more: Record<string, unknown> = {}) => ({
  id: 'token',
  label: 'Token',
  then: [{ do: 'give', attribute: 'scrip', amount: 1 }],
  ...more,
});
const placed = (...things: Record<string, unknown>[]) => ({ arena: { ...QUAY.arena, placed: [...QUAY.arena.placed, ...things] } });

describe('The range of a formula', () => {
  const of = (text: string, names: Readonly<Record<string, Range>> = {}) => {
    const { low, high } = rangeOf(parseFormula(text), { name: (_, name) => names[name] ?? ANY, call: () => ANY });
    return [low, high];
  };
  const suit = { suit: { low: 0, high: 100 } };

  it('holds every value that it takes', () => {
    expect(of('suit * 2 - 50', suit)).toEqual([-50, 150]);
    expect(of('-suit + max(3, suit)', suit)).toEqual([-97, 100]);
    expect(of('clamp(suit, 10, 20)', suit)).toEqual([10, 20]);
    expect(of('suit > 50 ? 1 : 7', suit)).toEqual([1, 7]);
    expect(of('10 / suit', suit)).toEqual([-Infinity, Infinity]);
    expect(of('abs(suit - 50)', suit)).toEqual([0, 50]);
  });

  it('of a condition says always, never or sometimes', () => {
    expect(of('suit > 100', suit)).toEqual([0, 0]);
    expect(of('suit >= 100', suit)).toEqual([0, 1]);
    expect(of('suit <= 100 and not (suit < 0)', suit)).toEqual([1, 1]);
    expect(of('suit == 3 or other > 2', suit)).toEqual([0, 1]);
    expect(of('suit != 101', suit)).toEqual([1, 1]);
    expect(of('lung > 0', { lung: exactly(0) })).toEqual([0, 0]);
  });

  it('never leaves out a value, whatever the names are', () => {
    const texts = ['suit * (suit - 40)', 'min(suit, 30) / 4 + floor(suit)', 'suit > 20 ? suit * -2 : 5', 'round(suit) - abs(suit - 60)'];
    for (const text of texts) {
      const [low, high] = of(text, suit);
      for (let value = 0; value <= 100; value += 0.5) {
        const [exact] = of(text, { suit: exactly(value) });
        expect(exact >= low && exact <= high)
          .withContext(`${text} at ${value}`)
          .toBeTrue();
      }
    }
  });
});

describe('What is possible', () => {
  it('knows who can ever meet a condition', () => {
    const possible = new Possible(rulesWith({}));
    const who = (condition: string) => possible.whoCan(condition).map(({ id }) => id);
    expect(who('suit > 50')).toEqual(['diver']);
    expect(who('suit > 100')).toEqual([]);
    expect(who('suit < 1')).toEqual(['diver', 'quartermaster', 'chartKeeper', 'crate']);
    expect(who('finSpeed > 130')).toEqual([]);
    expect(who('has(inBell)')).toEqual([]);
    expect([possible.canHave('scrip', 999), possible.canHave('oxygen', 91)]).toEqual([true, false]);
  });
});

describe('Findings about the world around a player', () => {
  it('name each thing that its author will hardly have meant', () => {
    const [rest, ask] = QUAY.interactions;
    const [freight] = QUAY.containers;
    const nest = { id: 'nest', label: 'Nest', what: [{ weight: 1, pickup: 'token' }], when: { is: 'every', time: '1s' } };
    const cases: readonly [Record<string, unknown>, string][] = [
      [{ pickups: [token({ who: 'suit > 500' })], ...placed({ pickup: 'token', x: 50, y: 50 }) }, 'nobodyMayTake /pickups/0/who'],
      [
        { pickups: [token()], ...placed({ pickup: 'token', x: 50, y: 50, with: { who: 'has(inBell)' } }) },
        'nobodyMayTake /arena/placed/3/with/who',
      ],
      [{ pickups: [token({ then: [] })], ...placed({ pickup: 'token', x: 50, y: 50 }) }, 'takenForNothing /pickups/0'],
      [{ pickups: [token()] }, 'unused /pickups/0'],
      [{ zones: [{ id: 'bell', label: 'Bell' }] }, 'unused /zones/0'],
      [{ zones: [{ id: 'bell', label: 'Bell', who: 'oxygen > 90' }] }, 'nobodyEnters /zones/0/who'],
      [
        { zones: [{ id: 'bell', label: 'Bell' }], ...placed({ zone: 'bell', x: 700, y: 155, width: 30, height: 8 }) },
        'walledIn /arena/placed/3',
      ],
      [{ interactions: [{ ...rest, price: { attribute: 'oxygen', amount: 200 } }, ask] }, 'unaffordable /interactions/0/price/amount'],
      [{ interactions: [{ ...rest, busy: '2s' }, ask] }, 'waitsTooLong /interactions/0/busy'],
      [{ interactions: [{ ...rest, who: 'suit > 900' }, ask] }, 'offeredToNobody /interactions/0/who'],
      [{ interactions: [{ ...rest, refund: 1 }, ask] }, 'refundsAfterwards /interactions/0/refund'],
      [{ interactions: [{ ...rest, refund: 1, refundUntil: '2s' }, ask] }, 'refundsAfterwards /interactions/0/refundUntil'],
      [{ containers: [{ ...freight, holds: [] }] }, 'empty /containers/0/holds'],
      [{ containers: [{ ...freight, holds: [{ ...freight.holds[0], chance: 0 }] }] }, 'neverThere /containers/0/holds/0/chance'],
      [{ pickups: [token()], spawners: [nest], ...placed({ spawner: 'nest', x: 50, y: 50 }) }, 'neverStops /spawners/0'],
      [{ spawners: [{ ...nest, what: [{ weight: 1 }] }], ...placed({ spawner: 'nest', x: 50, y: 50 }) }, 'makesNothing /spawners/0/what'],
      [placed({ actor: 'crate', x: 700, y: 155 }), 'inWall /arena/placed/3'],
      [placed({ actor: 'crate', x: 702, y: 100 }), 'overlaps /arena/placed/3'],
      [
        { reactions: [{ id: 'r', label: 'R', on: { on: 'pickupTaken', pickup: 'token' } }], pickups: [token()] },
        'neverHeard /reactions/0/on',
      ],
      [{ reactions: [{ id: 'r', label: 'R', on: { on: 'effectStarted' } }] }, 'neverHeard /reactions/0/on'],
    ];
    for (const [parts, finding] of cases) expect(kinds(parts)).withContext(finding).toContain(finding);
    expect(kinds({}).filter((one) => !one.startsWith('unused /statuses'))).toEqual([]);
    expect(kinds({ interactions: [{ ...rest, refund: 1, refundUntil: '1.5s' }, ask] }).join()).not.toContain('refundsAfterwards');
    const heard = { reactions: [{ id: 'r', label: 'R', on: { on: 'teamChanged', team: 'petrel' } }] };
    expect(kinds(heard).join()).not.toContain('neverHeard');
    expect(kinds({ ...heard, teams: [], reactions: [{ id: 'r', label: 'R', on: { on: 'teamChanged' } }] }).join()).toContain('neverHeard');
    expect(
      kinds({
        dialogues: [{ ...QUAY.dialogues[0], lines: QUAY.dialogues[0].lines.map((line, i) => (i === 0 ? { ...line, next: 'go' } : line)) }],
      }),
    ).toContain('neverSaid /dialogues/0/lines/1');
  });
});

describe('Wiring', () => {
  const wired = rulesWith({
    pickups: [token(), token({ id: 'lost', label: 'Lost token' })],
    reactions: [
      { id: 'greed', label: 'Greed', on: { on: 'pickupTaken', pickup: 'token' }, then: [{ do: 'apply', effect: 'glow' }] },
      { id: 'deaf', label: 'Deaf', on: { on: 'pickupTaken', pickup: 'lost' } },
      { id: 'chained', label: 'Chained', on: { on: 'effectStarted', effect: 'glow' } },
    ],
    effects: [{ id: 'glow', label: 'Glow', lifetime: 'timed', lasts: '2s' }],
    ...placed({ pickup: 'token', x: 50, y: 50 }),
  });

  it('says for an event who can emit it and who listens', () => {
    const { events } = wiringOf(wired);
    const taken = events.find(({ event }) => event === 'pickupTaken')!;
    expect(taken.emitters.map(({ place, reached }) => [place.id, reached])).toEqual([
      ['token', true],
      ['lost', false],
    ]);
    expect(taken.listeners.map(({ place, missing }) => [place.id, missing])).toEqual([
      ['greed', undefined],
      ['deaf', 'Only Lost token could announce it, and nothing brings that about.'],
    ]);
    expect(events.every(({ when }) => when.length > 20)).toBeTrue();
  });

  it('says for an entry what it hears, causes and is brought about by', () => {
    const { entries } = wiringOf(wired);
    const glow = entries.find(({ id }) => id === 'glow')!;
    expect(glow.broughtAbout.map(({ path }) => path)).toEqual(['/reactions/0/then/0/effect']);
    const greed = entries.find(({ id }) => id === 'greed')!;
    expect(greed.hears[0].from.map(({ id }) => id)).toEqual(['token']);
    expect(greed.causes.find(({ event }) => event === 'effectStarted')!.heardBy.map(({ id }) => id)).toEqual(['chained']);
  });

  it('lists what is left dangling, through every link of a chain', () => {
    const messages = wiringOf(wired).dangling.map(({ place, message }) => `${place.id}: ${message}`);
    expect(messages.some((one) => one.startsWith('deaf: Deaf waits'))).toBeTrue();
    expect(messages.some((one) => one.startsWith('lost: Lost token never comes into play'))).toBeTrue();
    expect(messages.length).toBe(2);
    const broken = rulesWith({
      reactions: [
        { id: 'greed', label: 'Greed', on: { on: 'zoneEntered' }, then: [{ do: 'apply', effect: 'glow' }] },
        { id: 'chained', label: 'Chained', on: { on: 'effectStarted', effect: 'glow' } },
      ],
      effects: [{ id: 'glow', label: 'Glow', lifetime: 'timed', lasts: '2s' }],
    });
    expect(wiringOf(broken).dangling.map(({ place }) => place.id)).toEqual(['greed', 'chained', 'glow']);
  });
});

describe('What is looked for after an edit', () => {
  /** A document with so many effects and tokens, each of which speaks of others. */
  const grown = (count: number, rate = 2) => {
    const each = <T>(make: (i: number) => T) => Array.from({ length: count }, (_, i) => make(i));
    return rulesetWith({
      attributes: [stat('pull', 3), pool('air', { refill: { rate } })],
      effects: each((i) => ({
        id: `soak${i}`,
        label: `Soak ${i}`,
        lasts: '2s',
        modifiers: [{ attribute: 'pull', operation: 'add', amount: i }],
      })),
      pickups: each((i) => ({
        id: `token${i}`,
        label: `Token ${i}`,
        then: [
          { do: 'hurt', attribute: 'air', amount: 2 },
          { do: 'apply', effect: `soak${i}` },
        ],
      })),
    });
  };
  /** How many questions are worked out after an edit, by what makes one of a document. */
  function workedOut(count: number, edit: (document: ReturnType<typeof grown>) => unknown) {
    const compiler = new RulesetCompiler();
    const look = (rules: Rules) => [findingsOf(rules), wiringOf(rules)];
    const document = grown(count);
    look(compiler.read(document).rules!);
    const { rules } = compiler.read(edit(document));
    const before = answersOf(rules!).workedOut;
    expect(look(rules!)).toEqual(look(compileRuleset(edit(grown(count)))));
    return answersOf(rules!).workedOut - before;
  }

  it('is what the edit reaches, however much there is beside', () => {
    const refill = (document: ReturnType<typeof grown>) => ({ ...document, attributes: grown(1, 5)['attributes'] });
    const [few, many] = [workedOut(20, refill), workedOut(80, refill)];
    expect(many).toBe(few);
    expect(many).toBeLessThan(60);
  });

  it('is no more than that where an entry gets another amount in its list', () => {
    const amount = (document: ReturnType<typeof grown>) => ({
      ...document,
      pickups: (document['pickups'] as readonly { readonly then: readonly object[] }[]).map((entry, i) =>
        i === 7 ? { ...entry, then: [{ ...entry.then[0], amount: 9 }, entry.then[1]] } : entry,
      ),
    });
    const [few, many] = [workedOut(20, amount), workedOut(80, amount)];
    expect(many).toBe(few);
    expect(many).toBeLessThan(60);
  });
});
