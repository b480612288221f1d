import { webcrypto } from 'node:crypto';

// jsdom has no randomUUID; browsers do.
if (typeof globalThis.crypto?.randomUUID !== 'function') Object.defineProperty(globalThis, 'crypto', { value: webcrypto });
