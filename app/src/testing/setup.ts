import { webcrypto } from 'node:crypto';

// jsdom has no randomUUID; browsers do.
if (!('randomUUID' in ((globalThis.crypto as object | undefined) ?? {}))) Object.defineProperty(globalThis, 'crypto', { value: webcrypto });

// jsdom lays nothing out, so there is nothing to scroll.
Element.prototype.scrollIntoView = (): void => undefined;
