import type { z } from 'zod';
import { problem } from './requests';
import type { Problem } from './requests';

/** What went wrong with a call: the server refused (its problem says why), or could not be reached at all. */
export class CallFailed extends Error {
  readonly problem: Problem | null;
  constructor(message: string, given: Problem | null) {
    super(message);
    this.name = 'CallFailed';
    this.problem = given;
  }
}

export type Fetch = (
  url: string,
  init?: { method?: string; headers?: Record<string, string>; body?: string },
) => Promise<{ ok: boolean; status: number; json(): Promise<unknown> }>;

/** Calls the API: a request of a path, its answer read by its schema. `fetch` is handed in. */
export function caller(fetch: Fetch, base = '') {
  async function call<Schema extends z.ZodType>(schema: Schema, method: string, path: string, body?: unknown, type = 'application/json'): Promise<z.infer<Schema>> {
    let response;
    let answer: unknown;
    try {
      response = await fetch(
        `${base}/api${path}`,
        body === undefined ? { method } : { method, headers: { 'content-type': type }, body: typeof body === 'string' ? body : JSON.stringify(body) },
      );
      answer = await response.json();
    } catch {
      throw new CallFailed('The server cannot be reached. What was typed stays here: try again when the connection is back.', null);
    }
    if (!response.ok) {
      const refused = problem.safeParse(answer);
      throw new CallFailed(refused.success ? refused.data.detail : `The server answered ${String(response.status)}.`, refused.success ? refused.data : null);
    }
    return schema.parse(answer);
  }
  return call;
}
export type Call = ReturnType<typeof caller>;
