import { client } from '@broth/contract';

/** The server this page came from. */
export const api = client((url, init) => fetch(url, { ...init, signal: AbortSignal.timeout(15_000) }));
