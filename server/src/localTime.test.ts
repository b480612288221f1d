import { minutesBetween } from '@broth/core';
import { DateTime } from 'luxon';
import { dateIn, localClock, localIso, midnightOf } from './localTime';

const ZONE = 'America/New_York';
test('the day a clock goes back is 25 hours long, and its repeated hour is told apart by the offset', () => {
  expect(minutesBetween(midnightOf(ZONE, '2026-11-01'), midnightOf(ZONE, '2026-11-02'))).toBe(25 * 60);
  expect([localIso(ZONE, Date.UTC(2026, 10, 1, 5, 30)), localIso(ZONE, Date.UTC(2026, 10, 1, 6, 30))]).toEqual(['2026-11-01T01:30:00-04:00', '2026-11-01T01:30:00-05:00']);
});
test("an evening in the kitchen is still the kitchen's day", () => {
  expect(dateIn(ZONE, Date.UTC(2026, 10, 26, 3, 0))).toBe('2026-11-25');
});

test('a time with its offset is what luxon says, in zones of whole, half and quarter hours, through clock changes', () => {
  for (const zone of ['America/New_York', 'Europe/London', 'Asia/Kathmandu', 'Australia/Adelaide', 'UTC']) {
    for (let at = Date.parse('2026-10-30T00:00:00Z'); at < Date.parse('2026-11-03T00:00:00Z'); at += 37 * 60_000 + 1234) {
      const expected = DateTime.fromMillis(at, { zone });
      expect(localIso(zone, at)).toBe(expected.toISO({ suppressMilliseconds: true, extendedZone: false })?.replace('Z', '+00:00'));
      expect(localClock(zone, at)).toBe(expected.toFormat('H:mm'));
    }
  }
});
