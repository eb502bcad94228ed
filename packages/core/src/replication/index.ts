export * from './announcements.js';
export * from './copy.js';
export * from './protocol.js';
export * from './publisher.js';
export * from './schema.js';
export * from './shown.js';
export * from './told.js';
export * from './welcome.js';
