import { createHash } from 'node:crypto';
import canonicalize from 'canonicalize';
import { broth } from './broth';

function run(args: readonly string[], files: Readonly<Record<string, string>>): { code: number; out: string; err: string } {
  const out: string[] = [];
  const err: string[] = [];
  const read = (name: string): string => {
    const text = files[name];
    if (text === undefined) throw new Error('ENOENT: no such file');
    return text;
  };
  const code = broth(args, { read, print: (said) => out.push(said), complain: (said) => err.push(said), workedS: () => 0 });
  return { code, out: out.join('\n'), err: err.join('\n') };
}
const csv = (rows: readonly (readonly [number | string, number])[]): string => `time,temperature\n${rows.map((row) => row.join(',')).join('\n')}\n`;

describe('broth cool', () => {
  const cool = (text: string, ...flags: string[]) => run(['cool', 'log.csv', ...flags], { 'log.csv': text });
  test('one hour and then five pass (FDA Food Code 2022, Annex 3 on 3-501.14)', () => {
    const { code, out } = cool(csv([[0, 135], [60, 70], [360, 41]])); // prettier-ignore
    expect([code, out.split('\n')[0]]).toEqual([0, 'Passed: Every stage passed: 41 °F (5 °C) in time.']);
  });
  test('three hours and then three fail', () => {
    const { code, out } = cool(csv([[0, 135], [180, 70], [360, 41]])); // prettier-ignore
    expect([code, out.split('\n')[0]]).toEqual([1, 'Failed: Not below 70 °F (21 °C) within 2 h.']);
  });
  test('what would decide it, and where it is heading', () => {
    const { code, out } = cool(csv([[0, 135], [30, 110], [60, 92], [90, 78]]), '--ambient', '38', '--litres', '18'); // prettier-ignore
    expect(code).toBe(0);
    expect(out).toContain('A reading at or below 70 °F (21 °C) by 120 min decides it.');
    expect(out).toContain('On course: 70 °F at 112.9 min, 7 min to spare.');
    expect(out).toContain('Ice bath, stirred (an ice bath)');
  });
  test('another pack, JSON in, and JSON out', () => {
    const text = JSON.stringify({ readings: [{ time: 0, value: 60, unit: 'C' }, { time: 60, value: 21, unit: 'C' }, { time: 330, value: 5, unit: 'C' }] }); // prettier-ignore
    const { code, out } = cool(text, '--pack', 'au', '--json');
    expect([code, (JSON.parse(out) as { verdict: { kind: string } }).verdict.kind]).toEqual([1, 'fail']);
  });
  test('the hour that comes twice is told apart by its offset, and refused without one', () => {
    const rows = [['2026-11-01T00:30:00-04:00', 135], ['2026-11-01T01:30:00-05:00', 71], ['2026-11-01T02:00:00-05:00', 70]] as const; // prettier-ignore
    expect(cool(csv(rows)).out.split('\n')[0]).toBe('Failed: Not below 70 °F (21 °C) within 2 h.');
    expect(cool(csv(rows.map(([time, value]) => [time.slice(0, 19), value] as const)))).toMatchObject({ code: 2, err: expect.stringContaining('time with its offset') });
  });
  test.each([
    [['--pack', 'moon'], 'There is no rule pack "moon"'],
    [['--unit', 'K'], '--unit is C or F'],
    [['--ambient', 'cold'], 'want a number'],
  ])('%j is asked wrongly', (flags, says) => {
    expect(cool(csv([[0, 135]]), ...flags)).toMatchObject({ code: 2, err: expect.stringContaining(says) });
  });
  test('a file without its columns is refused with what it needs', () => {
    expect(cool('a,b\n1,2\n')).toMatchObject({ code: 2, err: expect.stringContaining('column "time"') });
  });
});

describe('broth verify', () => {
  const chain = (count: number): Record<string, unknown>[] => {
    let hash = '';
    return Array.from({ length: count }, (_, index) => {
      const record = { id: `00000000-0000-4000-8000-${String(index).padStart(12, '0')}`, kind: 'note.made/1', at: index, data: { text: `entry ${String(index)}` } };
      const seq = index + 1;
      hash = createHash('sha256')
        .update(`${hash}\n${String(seq)}\n${canonicalize(record) ?? ''}`)
        .digest('hex');
      return { ...record, seq, hash };
    });
  };
  const verify = (events: readonly object[], record?: string) =>
    run(['verify', 'events.json', ...(record === undefined ? [] : ['record.csv'])], { 'events.json': JSON.stringify({ events }), 'record.csv': record ?? '' });
  test('a log that is whole, from its beginning or from somewhere on', () => {
    expect([verify(chain(3)).out, verify(chain(5).slice(2)).out]).toEqual(['3 events, every one as it was recorded.', '3 events, every one as it was recorded, from 3 on.']);
  });
  test('one that was changed, and one that is missing, are named', () => {
    const changed = chain(4).map((event, index) => (index === 2 ? { ...event, data: { text: 'nicer' } } : event));
    expect([verify(changed), verify(chain(4).filter((_, index) => index !== 1))]).toMatchObject([
      { code: 1, out: 'Event 3 is not what was recorded.' },
      { code: 1, out: 'Event 2 is missing.' },
    ]);
  });
  test('a file that is not there, or is no log, is said', () => {
    expect(run(['verify', 'nowhere.json'], {})).toMatchObject({ code: 2, err: 'nowhere.json cannot be read: ENOENT: no such file' });
    expect(run(['verify', 'a.json'], { 'a.json': '{}' })).toMatchObject({ code: 2, err: expect.stringContaining('not a list of events') });
    expect(run(['cool', 'nowhere.csv'], {})).toMatchObject({ code: 2 });
  });
  test('a record is of this log, or it is not', () => {
    const events = chain(2);
    const line = (event: Record<string, unknown>): string => `1,reading,"cold, they said",${String(event['id'])},${String(event['hash'])}`;
    const [first] = events;
    if (first === undefined) throw new Error('no event');
    expect(verify(events, `head\n${line(first)}`)).toMatchObject({ code: 0 });
    expect(verify(events, `head\n${line({ ...first, hash: '0'.repeat(64) })}`)).toMatchObject({ code: 1 });
  });
});
