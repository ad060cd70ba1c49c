export * from './account.js';
export * from './template.js';
export * from './source.js';
export * from './mailing.js';
export * from './batch.js';
export * from './copy.js';
export * from './settings.js';
export * from './desk.js';
