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
  pieces: async () => {
    const { PickupSentences } = await import('./pickup-sentences');
    return { spec: [{ type: PickupSentences }] };
  },
};

export const zonesPage: ChapterPage = {
  key: 'zones',
  title: 'Zones',
  one: 'zone',
  fresh: () => ({}),
  evidence: 'Entered, and left ten seconds later',
  look: { told: true },
  pieces: async () => {
    const { ZoneSentences } = await import('./zone-sentences');
    return { spec: [{ type: ZoneSentences }] };
  },
};

export const interactionsPage: ChapterPage = {
  key: 'interactions',
  title: 'Interactions',
  one: 'interaction',
  fresh: () => ({ prompt: 'Talk' }),
  evidence: 'A visit, with another who asks too early',
  look: { told: true },
  pieces: async () => {
    const { InteractionSentences } = await import('./interaction-sentences');
    return { spec: [{ type: InteractionSentences }] };
  },
};

export const dialoguesPage: ChapterPage = {
  key: 'dialogues',
  title: 'Dialogues',
  one: 'dialogue',
  fresh: () => ({ lines: [{ id: 'first', text: 'Well met.', for: '2s' }] }),
  evidence: 'Spoken, the first choice taken',
  look: { told: true },
  pieces: async () => {
    const { DialogueSentences } = await import('./dialogue-sentences');
    return { spec: [{ type: DialogueSentences }] };
  },
};

export const containersPage: ChapterPage = {
  key: 'containers',
  title: 'Containers',
  one: 'container',
  fresh: () => ({ opening: '1s', closing: '500ms' }),
  evidence: 'Opened, emptied and closed',
  look: { told: true },
  pieces: async () => {
    const { ContainerSentences } = await import('./container-sentences');
    return { spec: [{ type: ContainerSentences }] };
  },
};

export const spawnersPage: ChapterPage = {
  key: 'spawners',
  title: 'Spawners',
  one: 'spawner',
  fresh: () => ({ what: [{ weight: 1 }], when: { is: 'every', time: '20s' }, most: 3 }),
  evidence: 'Left to itself near a player, its foes felled every 20 s',
  look: { told: true },
  pieces: async () => {
    const { SpawnerSentences } = await import('./spawner-sentences');
    return { spec: [{ type: SpawnerSentences }] };
  },
};

export const reactionsPage: ChapterPage = {
  key: 'reactions',
  title: 'Reactions',
  one: 'reaction',
  fresh: () => ({ on: { on: 'actorDefeated' } }),
  evidence: 'How it is wired',
  pieces: async () => {
    const { ReactionSentences } = await import('./reaction-sentences');
    return { spec: [{ type: ReactionSentences }] };
  },
};
