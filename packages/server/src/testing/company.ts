import { Harness, type RoomInfo, type Screen } from './harness.js';

/** A room with the screens of its truth and of its first two seats. */
export interface Company {
  readonly harness: Harness;
  readonly room: RoomInfo;
  readonly truth: Screen;
  readonly north: Screen;
  readonly south: Screen;
}

/**
 * Gives each case of a suite a room with company in it, and sees them off afterwards.
 * @param seated told of who is there, before each case and whenever they sit down again
 * @param open the room that a case gets: one that nobody has played, unless said otherwise
 * @returns has them sit down again, for who sent them away or ended the server
 */
export function withCompany(
  seated: (company: Company) => void,
  open: (harness: Harness) => Promise<RoomInfo> = (harness) => harness.untouchedRoom(),
): () => Promise<void> {
  let harness: Harness;
  let room: RoomInfo;
  let screens: readonly Screen[] = [];
  const sit = async () => {
    const [truth, north] = [harness.screen(room.id), harness.screen(room.id, room.seats[0].join)];
    // Who comes first gets into the first crew.
    await north.ready();
    const south = harness.screen(room.id, room.seats[1].join);
    screens = [truth, north, south];
    await Promise.all(screens.map((screen) => screen.ready()));
    seated({ harness, room, truth, north, south });
  };
  beforeAll(async () => (harness = await Harness.start()));
  afterAll(() => harness.stop());
  beforeEach(async () => {
    room = await open(harness);
    await sit();
  });
  afterEach(() => Promise.all(screens.map((screen) => screen.closed ?? screen.close())));
  return sit;
}
