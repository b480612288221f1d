import { minutesBetween } from '@broth/core';
import { dateIn, localIso, midnightOf } from './localTime';

const ZONE = 'America/New_York';
test('the day a clock goes back is 25 hours long, and its repeated hour is told apart by the offset', () => {
  expect(minutesBetween(midnightOf(ZONE, '2026-11-01'), midnightOf(ZONE, '2026-11-02'))).toBe(25 * 60);
  expect([localIso(ZONE, Date.UTC(2026, 10, 1, 5, 30)), localIso(ZONE, Date.UTC(2026, 10, 1, 6, 30))]).toEqual(['2026-11-01T01:30:00-04:00', '2026-11-01T01:30:00-05:00']);
});
test("an evening in the kitchen is still the kitchen's day", () => {
  expect(dateIn(ZONE, Date.UTC(2026, 10, 26, 3, 0))).toBe('2026-11-25');
});
