import { isNews, setBackMs } from './clock';

describe('a clock somebody sets', () => {
  const at = (wallMs: number, runMs: number) => ({ wallMs, runMs });
  test.each([
    ['runs on', at(1000, 0), at(6000, 5000), 0],
    ['is nudged by the network', at(1000, 0), at(5000, 5000), 0],
    ['goes back an hour', at(10_000_000, 0), at(10_000_000 - 3_600_000 + 5000, 5000), 3_600_000],
    ['goes forward, or has slept: nobody knows', at(1000, 0), at(3_601_000, 5000), 0],
  ])('%s', (_, before, after, added) => {
    expect(setBackMs(before, after)).toBe(added);
  });
  test('is recorded when it is wrong by more than five seconds, once', () => {
    expect([isNews(3000, 0), isNews(90_000, 0), isNews(90_400, 90_000), isNews(0, 90_000)]).toEqual([false, true, false, true]);
  });
});
