export { type Config, readConfig } from './config.js';
export { connect } from './database/models.js';
export { migrate } from './database/migrations.js';
export { createSchema, patchSchema } from './http/rulesets.js';
export { type RunningServer, startServer } from './server.js';
export { type Client, Room } from './rooms/room.js';
export { Player, Ruleset } from './database/models.js';
export { samplePlayers } from './database/sample-players.js';
export { batches, followPlayers } from './http/players.js';
