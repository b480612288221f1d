import fc from 'fast-check';
import { addMinutes } from '../quantity/index';
import { GATES, PURPOSES, TASTE_RESULTS, TEXTURE_RESULTS } from '../day/index';
import type { DayEvent } from '../day/index';
import { COOLING_METHODS } from '../safety/index';

/** Midnight of the day tests happen on. */
export const T0 = 1_764_000_000_000;
export const DAY = '2026-11-25';

let count = 0;
type Data<Kind extends DayEvent['kind']> = Extract<DayEvent, { kind: Kind }>['data'];

/** One event at a minute of the day; each has an id of its own unless one is given. */
export function eventAt<Kind extends DayEvent['kind']>(kind: Kind, minute: number, data: Data<Kind>, some: { readonly id?: string; readonly by?: string } = {}): DayEvent {
  count += 1;
  const { id = `e${String(count)}`, by = 'lead' } = some;
  return { id, kind, day: DAY, at: addMinutes(T0, minute), by, device: `phone of ${by}`, data } as DayEvent;
}

const batchId = fc.constantFrom(`${DAY}.lentil.1`, `${DAY}.lentil.2`, `${DAY}.bean.1`);
const stepId = fc.constantFrom('boil', 'simmer', 'empty');
const ofStep = fc.record({ batchId, stepId });
const placeId = fc.constantFrom('well1', 'well2');
const equipmentId = fc.constantFrom('k1', 'k2', 'jar');
const personId = fc.constantFrom('lead', 'cook');
const service = fc.record({ soupId: fc.constantFrom('lentil', 'bean'), serviceId: fc.constantFrom('midday', 'evening') });
const text = fc.constantFrom('one', 'two', 'three');

/** What a phone may send, of every kind but voids: nonsense orders too, as taps of hurried people on clocks that are wrong. */
const told: fc.Arbitrary<{ readonly kind: DayEvent['kind']; readonly data: unknown }> = fc.oneof(
  ...Object.entries({
    'batch.started/1': batchId.map((id) => ({ batchId: id, soupId: id.split('.')[1] ?? '', soupVersion: 1, name: id, ordinal: 1, volumeL: 18, vesselId: 'k1' })),
    'step.started/1': ofStep,
    'step.done/1': ofStep,
    'step.looked/1': ofStep,
    'step.clockStarted/1': ofStep,
    'step.extended/1': fc.record({ batchId, stepId, byMin: fc.integer({ min: 1, max: 20 }) }),
    'step.skipped/1': fc.record({ batchId, stepId, reason: text }),
    'gate.confirmed/1': fc.record({ batchId, stepId, gate: fc.constantFrom(...GATES) }),
    'ingredient.added/1': batchId.map((id) => ({ batchId: id, ingredientId: 'salt', name: 'Salt', amount: 7, unit: 'g', for: 'card', allergens: null })),
    'ingredient.waived/1': fc.record({ batchId, ingredientId: fc.constant('salt'), reason: text }),
    'result.noted/1': fc.record({ batchId, texture: fc.constantFrom(...TEXTURE_RESULTS, null), taste: fc.constantFrom(...TASTE_RESULTS, null), cause: text }),
    'level.noted/1': fc.record({ batchId, leftL: fc.integer({ min: 0, max: 18 }), how: fc.constantFrom('ladles', 'eye') }),
    'batch.finished/1': fc.record({ batchId, volumeOutL: fc.integer({ min: 0, max: 18 }) }),
    'hold.started/1': fc.record({ batchId, placeId }),
    'cooling.started/1': fc.record({ batchId, placeId, ambientC: fc.constant(0) }),
    'cold.stored/1': fc.record({ batchId }),
    'cold.stored/2': fc.record({ batchId, volumeL: fc.integer({ min: 0, max: 18 }) }),
    'cooling.started/2': fc.record({
      batchId,
      placeId,
      ambientC: fc.constant(0),
      method: fc.constantFrom(...COOLING_METHODS, null),
      pans: fc.constantFrom(null, 3),
      depthCm: fc.constant(null),
    }),
    'ice.added/1': fc.record({ batchId, massKg: fc.integer({ min: 1, max: 5 }) }),
    'reading.taken/2': fc.record({
      batchId,
      purpose: fc.constantFrom(...PURPOSES),
      reading: fc.integer({ min: 30, max: 200 }).map((value) => ({ value, unit: 'F', rawText: String(value) })),
      heldS: fc.constant(null),
      packId: fc.constant('p'),
      packVersion: fc.constant(1),
      rulesVersion: fc.constant(1),
      pan: fc.constantFrom(null, 1, 2),
      thermometerId: fc.constantFrom(null, 'red'),
      offset: fc.constantFrom(0, 0.5),
      doubt: fc.constant(null),
      lateReason: fc.constant(null),
    }),
    'check.explained/1': fc.record({ batchId, dueAt: fc.constant(addMinutes(T0, 300)), reason: text }),
    'decision.made/1': fc.record({ batchId, ruleId: fc.constant('r'), keep: fc.boolean(), reason: text }),
    'timeControl.started/1': fc.record({ batchId, ruleId: fc.constant('us.tphc.4') }),
    'timeControl.ended/1': fc.record({ batchId }),
    'probe.placed/1': fc.record({ thermometerId: fc.constantFrom('pan1', 'pan2'), batchId, purpose: fc.constantFrom(...PURPOSES) }),
    'probe.lifted/1': fc.record({ thermometerId: fc.constantFrom('pan1', 'pan2') }),
    'samples.digested/1': fc.integer({ min: 300, max: 420 }).map((minute) => ({
      from: addMinutes(T0, minute - 1),
      to: addMinutes(T0, minute),
      late: false,
      thermometerIds: ['pan1'],
      count: 60,
      sha256: '',
      rulesVersion: 1,
      probes: [{ thermometerId: 'pan1', unit: 'F', offset: 0, count: 60, min: 70, max: 71, lastAt: addMinutes(T0, minute) - 500, last: 70 }],
    })),
    'place.read/1': fc.record({
      equipmentId,
      reading: fc.constant({ value: 38, unit: 'F', rawText: '38' }),
      thermometerId: fc.constant(null),
      offset: fc.constant(0),
      rulesVersion: fc.constant(1),
      note: text,
    }),
    'thermometer.checked/1': fc.record({
      thermometerId: fc.constantFrom('red', 'pan1'),
      method: fc.constantFrom('ice', 'boil'),
      reading: fc.constant({ value: 32, unit: 'F', rawText: '32' }),
      offset: fc.constant(0),
      usable: fc.boolean(),
    }),
    'lot.discarded/1': fc.record({ lotId: text, soupId: fc.constant('bean'), volumeL: fc.constant(2), reason: text }),
    'day.signed/1': fc.record({ upToSeq: fc.nat(50), hash: text, note: text }),
    'reheat.started/1': fc.record({ batchId }),
    'corrective.taken/1': fc.record({ batchId, ruleId: fc.constant('r'), action: fc.constantFrom('discard', 'faster'), note: text, volumeL: fc.constant(1) }),
    'wash.done/1': fc.record({ unitId: equipmentId, kind: fc.constantFrom('rinse', 'full'), afterBatchId: batchId, beforeBatchId: batchId }),
    'equipment.stopped/1': fc.record({ equipmentId, reason: text }),
    'equipment.resumed/1': fc.record({ equipmentId }),
    'person.left/1': fc.record({ personId, backAt: fc.constantFrom(null, addMinutes(T0, 700)) }),
    'person.back/1': fc.record({ personId }),
    'timer.set/1': fc.record({ name: text, durationS: fc.integer({ min: 5, max: 900 }), batchId: fc.constantFrom(null, `${DAY}.lentil.1`) }),
    'note.made/1': fc.record({ batchId: fc.constantFrom(null, `${DAY}.lentil.1`), text }),
    'soup.out/1': service,
    'soup.back/1': service,
    'shift.handedOver/1': fc.record({ toId: personId, note: text }),
    'clock.measured/1': fc.record({ offsetMs: fc.integer({ min: -90_000, max: 90_000 }) }),
  } satisfies Partial<Record<DayEvent['kind'], fc.Arbitrary<unknown>>>).map(([kind, data]) => data.map((one: unknown) => ({ kind: kind as DayEvent['kind'], data: one }))),
);

/** A stream of events of two people, in the order they were entered; several may share a millisecond, and some take earlier ones back. */
export const dayEvents: fc.Arbitrary<readonly DayEvent[]> = fc
  .array(fc.record({ told, minute: fc.integer({ min: 300, max: 420 }), by: personId, voids: fc.option(fc.nat(40), { freq: 8 }) }), { maxLength: 60 })
  .map((entries) =>
    entries.map(({ told: { kind, data }, minute, by, voids }, index): DayEvent => {
      const id = `id${String((index * 7919) % 100_000)}`;
      const envelope = { id, day: DAY, at: addMinutes(T0, minute), by, device: `phone of ${by}` };
      return (
        voids === null || voids >= index
          ? { ...envelope, kind, data }
          : { ...envelope, kind: 'event.voided/1', data: { eventId: `id${String((voids * 7919) % 100_000)}`, reason: 'slip' } }
      ) as DayEvent;
    }),
  );
