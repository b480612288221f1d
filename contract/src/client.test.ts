import { CallFailed, client } from './index';
import type { Client } from './index';

interface Asked {
  readonly url: string;
  readonly method: string | undefined;
  readonly body: string | undefined;
}

/** A client whose server answers what it is told to, and what it was asked. */
function answering(status: number, answer: unknown): { api: Client; asked: Asked[] } {
  const asked: Asked[] = [];
  const api = client((url, init) => {
    asked.push({ url, method: init?.method, body: init?.body });
    return Promise.resolve({ ok: status < 400, status, json: () => (answer instanceof Error ? Promise.reject(answer) : Promise.resolve(answer)) });
  });
  return { api, asked };
}
const plan = {
  version: 1,
  acceptedAt: 1,
  by: 'maren',
  plan: {
    date: '2026-11-25',
    needs: [],
    components: [],
    batches: [],
    washes: [],
    findings: [],
    pins: [],
    splits: [],
    aimChance: null,
    objective: { lateMin: 0, shortMin: 0, earlyMin: 0, changeoverMin: 0, movedMin: 0, makespanMin: 0, cost: 0 },
  },
};
const failure = async (call: Promise<unknown>): Promise<CallFailed> => {
  try {
    await call;
  } catch (error) {
    if (error instanceof CallFailed) return error;
    throw error;
  }
  throw new Error('it went through');
};

describe('the typed client', () => {
  test('puts what it is given at the right address', async () => {
    const { api, asked } = answering(200, { date: '2026-11-25', midnight: 0, pars: [], lots: [], plan: null, events: [], earlierSoups: [], lastSeq: 0 });
    await api.putPar('landing', '2026-11-25', 'lentil', 24);
    expect(asked).toEqual([{ url: '/api/kitchens/landing/days/2026-11-25/pars/lentil', method: 'PUT', body: '{"parL":24}' }]);
  });
  test('hands over an answer only when it is what was promised', async () => {
    await expect(answering(200, plan).api.postPlan('landing', '2026-11-25', { by: 'maren', nowMin: 0, plan: plan.plan })).resolves.toEqual(plan);
    await expect(answering(200, { ...plan, version: 'one' }).api.postPlan('landing', '2026-11-25', { by: 'maren', nowMin: 0, plan: plan.plan })).rejects.toThrow();
  });
  test("a refusal keeps the server's sentence and code", async () => {
    const problem = { type: 'urn:broth-board:refusal:plan.stale', title: 'The day has moved on', status: 409, detail: 'Look at the new draft.', code: 'plan.stale' };
    const failed = await failure(answering(409, problem).api.day('landing', '2026-11-25'));
    expect([failed.message, failed.problem?.code]).toEqual(['Look at the new draft.', 'plan.stale']);
  });
  test('an answer that is no problem of ours is told by its status', async () => {
    const failed = await failure(answering(502, { oops: true }).api.day('landing', '2026-11-25'));
    expect([failed.message, failed.problem]).toEqual(['The server answered 502.', null]);
  });
  test('a server that cannot be reached is told so, with what happens to the entry', async () => {
    const unreachable = client(() => Promise.reject(new TypeError('fetch failed')));
    const failed = await failure(unreachable.day('landing', '2026-11-25'));
    expect([failed.message, failed.problem]).toEqual(['The server cannot be reached. What was typed stays here: try again when the connection is back.', null]);
  });
  test('an answer that is no JSON counts as not reached', async () => {
    expect((await failure(answering(200, new SyntaxError('<html>')).api.day('landing', '2026-11-25'))).problem).toBeNull();
  });
});
