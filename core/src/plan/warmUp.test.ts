import { warmUp } from './warmUp';

describe('a planner that warms up', () => {
  it('goes all the way a day goes: a soup in two batches, blended, with stock made for it', () => {
    const plan = warmUp();
    expect(plan.findings).toEqual([]);
    expect(plan.batches.map(({ soupId, volumeL }) => [soupId, volumeL])).toEqual(
      expect.arrayContaining([
        ['soup', 7.5],
        ['soup', 7.5],
        ['stock', expect.any(Number)],
      ]),
    );
    expect(plan.batches.flatMap(({ steps }) => steps.flatMap(({ unitId }) => unitId ?? []))).toContain('jar');
  });
});
