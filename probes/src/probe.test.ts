import { after, begin, sample } from './probe';
import type { Setting } from './probe';

const setting: Setting = { unit: 'C', temperatureC: 85, ambientC: 3, kPerH: 0.6, heatKPerH: 0, noiseC: 0, fault: 'none' };
const half = (): number => 0.5;

test("cools by Newton's law: from 85 °C in 3 °C at 0.6 an hour, after an hour 48.0 °C, in one step as in a thousand", () => {
  let many = begin(setting);
  for (let step = 0; step < 1000; step += 1) many = after(many, setting, 3.6);
  const once = after(begin(setting), setting, 3600);
  expect(once.temperatureC).toBeCloseTo(3 + 82 * Math.exp(-0.6), 9);
  expect(many.temperatureC).toBeCloseTo(once.temperatureC, 9);
});
test('heat raises it, and never above boiling', () => {
  const heated = { ...setting, temperatureC: 20, ambientC: 20, kPerH: 0, heatKPerH: 120 };
  expect([after(begin(heated), heated, 1800).temperatureC, after(begin(heated), heated, 7200).temperatureC]).toEqual([80, 100]);
});
test('reports in its own unit, to a tenth', () => {
  expect([sample(begin(setting), setting, half), sample(begin(setting), { ...setting, unit: 'F' }, half)]).toEqual([85, 185]);
});
test('fails as it is told: silent, stuck, or now and then', () => {
  const flat = { ...setting, fault: 'flat' as const };
  const stuck = after(after(begin(flat), flat, 60), flat, 3600);
  expect(sample(begin(setting), { ...setting, fault: 'dead' }, half)).toBeNull();
  expect(sample(stuck, flat, half)).toBeGreaterThan(80);
  expect([0.4, 0.6].map((chance) => sample(begin(setting), { ...setting, fault: 'dropout' }, () => chance))).toEqual([null, 85]);
});
