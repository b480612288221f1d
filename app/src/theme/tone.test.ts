import { enamel, iron } from './palette';
import type { Palette } from './palette';
import { contrast, inkOn, luminance, mix } from './tone';

describe('contrast (WCAG 2.2, definition of contrast ratio)', () => {
  test('black on white is 21, a colour on itself is 1', () => {
    expect([contrast('#000000', '#FFFFFF'), contrast('#C4622D', '#C4622D')]).toEqual([21, 1]);
  });
  test('#767676 on white is the grey that just passes 4.5', () => {
    expect(contrast('#767676', '#FFFFFF')).toBeCloseTo(4.54, 2);
  });
  test('luminance of pure red is 0.2126', () => {
    expect(luminance('#FF0000')).toBeCloseTo(0.2126, 4);
  });
});

const pairs: readonly (readonly [keyof Palette, keyof Palette])[] = [
  ['ink', 'ground'],
  ['ink', 'sheet'],
  ['muted', 'ground'],
  ['muted', 'sheet'],
  ['onAction', 'action'],
  ['onRail', 'rail'],
  ['fine', 'sheet'],
  ['soon', 'sheet'],
  ['stop', 'sheet'],
  ['fine', 'ground'],
  ['soon', 'ground'],
  ['stop', 'ground'],
  ['onState', 'stop'],
  ['ink', 'key'],
  ['ink', 'hairline'],
];
test.each([['enamel', enamel] as const, ['iron', iron] as const])('every text of %s stands out from its ground by 4.5 at least', (_, palette) => {
  const weak = pairs
    .filter(([text, ground]) => contrast(palette[text], palette[ground]) < 4.5)
    .map(([text, ground]) => `${text} on ${ground}: ${contrast(palette[text], palette[ground]).toFixed(2)}`);
  expect(weak).toEqual([]);
});
test('a name can be read on every broth tone', () => {
  const tones = ['#C9AE6B', '#D1703A', '#DBA526', '#7A9E5B', '#9B2C57', '#D9792B', '#8DBB8F', '#A98155', '#8C9A5B', '#8FA9B8', '#8A5A2B', '#DE8A3A'];
  expect(tones.filter((tone) => contrast(tone, inkOn(tone)) < 4.5)).toEqual([]);
});
test('mixing nothing in changes nothing, all of it replaces', () => {
  expect([mix('#c4622d', '#ffffff', 0), mix('#c4622d', '#ffffff', 1)]).toEqual(['#c4622d', '#ffffff']);
});
