import { dayPlan, station } from './index';

/** What a phone kept from an older app is read with today's words: nothing is lost for a field that is new. */

test('a station from before plans could aim at a chance is planned on the dot', () => {
  const old = { equipment: [], people: [], services: [], rinseMin: 5, fullWashMin: 12, readyLeadMin: 20 };
  expect(station.parse(old)).toEqual({ ...old, aimChance: null, laterBatches: false, altitudeM: 0, thermometers: [] });
});

test('a plan from before sizes, room and what is put by hand has none of them', () => {
  const batch = {
    id: 'b',
    name: 'Bean 1',
    soupId: 'bean',
    soupVersion: 1,
    ordinal: 1,
    volumeL: 10,
    vesselId: 'k',
    serviceId: 'midday',
    readyByMin: 600,
    readyMin: 610,
    lateMin: 10,
    allergens: [],
    steps: [],
    state: 'planned',
  };
  const old = {
    date: '2026-11-25',
    needs: [],
    components: [],
    batches: [batch],
    washes: [],
    findings: [{ code: 'plan.late', batchId: 'b', lateMin: 10, waitedFor: 'k' }],
    pins: [],
    objective: { lateMin: 10, earlyMin: 0, changeoverMin: 0, movedMin: 0, makespanMin: 610, cost: 100_000 },
  };
  expect(dayPlan.parse(old)).toMatchObject({ splits: [], aimChance: null, batches: [{ bufferMin: 0 }], findings: [{ pinned: false }], objective: { shortMin: 0 } });
});
