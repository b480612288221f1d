import { needFor } from './index';

const made = (soupId: string, volumeL: number) => ({ id: `lot-${soupId}`, soupId, volumeL, state: 'chilled', preparedOn: '2026-11-24', frozenDays: 0 }) as const;

describe('need', () => {
  const need = (parL: number, onHandL: number): number =>
    needFor({ soupId: 'bean', parL, serviceId: 'midday' }, onHandL === 0 ? [] : [made('bean', onHandL), made('lentil', 50)], '2026-11-25', 7).needL;
  test.each([
    [20, 6, 14],
    [20, 0, 20],
    [6, 6.5, 0],
    [0, 0, 0],
    [10.2, 0, 10.5],
  ])('par %d L with %d L on hand needs %d L', (parL, onHandL, needL) => {
    expect(need(parL, onHandL)).toBe(needL);
  });
});
