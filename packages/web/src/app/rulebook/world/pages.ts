import type { ChapterPage } from '../chapter-page';

export const pickupsPage: ChapterPage = {
  key: 'pickups',
  title: 'Pickups',
  one: 'pickup',
  fresh: () => ({}),
  tab: 'World',
  also: ['zones', 'interactions', 'dialogues', 'containers', 'spawners', 'reactions'],
  evidence: 'Walked onto, left, and walked onto again',
  look: { told: true },
};

export const zonesPage: ChapterPage = {
  key: 'zones',
  title: 'Zones',
  one: 'zone',
  fresh: () => ({}),
  evidence: 'Entered, and left ten seconds later',
  look: { told: true },
};

export const interactionsPage: ChapterPage = {
  key: 'interactions',
  title: 'Interactions',
  one: 'interaction',
  fresh: () => ({ prompt: 'Talk' }),
  evidence: 'A visit, with another who asks too early',
  look: { told: true },
};

export const dialoguesPage: ChapterPage = {
  key: 'dialogues',
  title: 'Dialogues',
  one: 'dialogue',
  fresh: () => ({ lines: [{ id: 'first', text: 'Well met.', for: '2s' }] }),
  evidence: 'Spoken, the first choice taken',
  look: { told: true },
};

export const containersPage: ChapterPage = {
  key: 'containers',
  title: 'Containers',
  one: 'container',
  fresh: () => ({ opening: '1s', closing: '500ms' }),
  evidence: 'Opened, emptied and closed',
  look: { told: true },
};

export const spawnersPage: ChapterPage = {
  key: 'spawners',
  title: 'Spawners',
  one: 'spawner',
  fresh: () => ({ what: [{ weight: 1 }], when: { is: 'every', time: '20s' }, most: 3 }),
  evidence: 'Left to itself near a player, its foes felled every 20 s',
  look: { told: true },
};

export const reactionsPage: ChapterPage = {
  key: 'reactions',
  title: 'Reactions',
  one: 'reaction',
  fresh: () => ({ on: { on: 'actorDefeated' } }),
  evidence: 'How it is wired',
};
