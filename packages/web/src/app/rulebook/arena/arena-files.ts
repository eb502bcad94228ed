import type { ExchangedFile } from '../file-exchange';

export const ARENA_FILES: ExchangedFile = {
  title: 'The arena as a file',
  says: 'JSON holds all of the arena: size, walls, start points and placed things. CSV holds the placed things alone, a line for each: kind, entry, id, team, x, y, radius, width, height, and points, along and with as JSON. What is read takes the place of what is there, in one step that can be undone.',
  concept: 'arena',
  saves: [
    { format: 'json', file: 'arena.json', act: 'Save as JSON' },
    { format: 'csv', file: 'placed.csv', act: 'Save placed things as CSV' },
  ],
  reads: ['json', 'csv'],
};
