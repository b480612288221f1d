import { documentOf } from '@broth/contract';
import { demo } from '@broth/demo';
import { makeLine, makeSoup, makeStep } from '@broth/core';
import type { Soup } from '@broth/core';
import { broth } from './broth';

const soupById = new Map(demo.soups.map((soup) => [soup.id, soup]));
const file = (soup: Soup, others: ReadonlyMap<string, Soup> = soupById): string => JSON.stringify(documentOf(soup, others));
function run(args: readonly string[], text: string): { code: number; out: string; err: string } {
  const out: string[] = [];
  const err: string[] = [];
  const read = (name: string): string => {
    if (name === 'missing.json') throw new Error('ENOENT: no such file');
    return text;
  };
  const code = broth(args, { read, print: (said) => out.push(said), complain: (said) => err.push(said), workedS: () => 0 });
  return { code, out: out.join('\n'), err: err.join('\n') };
}
const lentil = file(soupById.get('lentil')!);

describe('broth scale', () => {
  test('26 litres of the lentil soup, with its components’ sheets after it', () => {
    const { code, out } = run(['scale', 'lentil.json', '--litres', '26'], lentil);
    expect(code).toBe(0);
    expect(out).toContain('Red lentil and roast carrot: 26 L, x2.6 of the card');
    expect(out).toMatch(/3\.64 kg {2}Red lentils, rinsed until clear/);
    expect(out).toContain('Vegetable stock: 16.9 L, x1.69 of the card');
    expect(out).toContain('Roast carrot: 5.7 L, x0.572 of the card');
  });
  test('as JSON it is the sheet itself', () => {
    const { out } = run(['scale', '-', '--kettle', '25', '--power', '12', '--json'], lentil);
    const answer = JSON.parse(out) as { sheet: { volumeL: number; steps: { basis: string }[] }; components: { componentId: string; demandL: number }[] };
    expect([answer.sheet.volumeL, answer.sheet.steps[2]?.basis, answer.components.map((one) => one.componentId)]).toEqual([25, 'power', ['roastcarrot', 'sweetonion', 'vegstock']]);
  });
  test('portions count what stays in the well', () => {
    expect(run(['scale', '-', '--portions', '64', '--json'], lentil).out).toContain('"volumeL": 20');
  });
  test('a variant brings its own', () => {
    expect(run(['scale', '-', '--litres', '10', '--variant', 'smooth'], lentil).out).toContain('Plain yoghurt');
  });
  test.each<readonly [string, readonly string[], string, string]>([
    ['nothing', ['scale', '-'], lentil, 'Say how much'],
    ['two ways at once', ['scale', '-', '--litres', '1', '--kettle', '2'], lentil, 'Say how much'],
    ['a negative number', ['scale', '-', '--litres=-3'], lentil, '--litres wants a number above 0'],
    ['a word', ['scale', '-', '--litres', 'much'], lentil, 'not "much"'],
    ['a variant it has not', ['scale', '-', '--litres', '3', '--variant', 'x'], lentil, 'It has: smooth.'],
    ['a flag it has not', ['scale', '-', '--cups', '3'], lentil, '--cups'],
    ['a file that is not there', ['scale', 'missing.json', '--litres', '3'], '', 'cannot be read'],
    ['what is not JSON', ['check', '-'], 'soup', 'is not JSON'],
    ['what is not a soup', ['check', '-'], '{"format":"broth-soup/1","soup":{}}', 'soup.name'],
    ['no command', [], '', 'broth scale FILE'],
  ])('%s is refused with what to do', (_, args, text, says) => {
    const { code, err } = run(args, text);
    expect([code, err]).toEqual([2, expect.stringContaining(says)]);
  });
});

describe('broth check', () => {
  test('a sound soup passes; a grave finding is exit 1', () => {
    expect(run(['check', '-'], lentil)).toEqual({ code: 0, out: 'The checks find nothing.', err: '' });
    const sweet = run(['check', '-'], file(soupById.get('sweetpotato')!));
    expect([sweet.code, sweet.out]).toEqual([1, expect.stringContaining('stop  Sweet potato: Nobody has read the label of Smoked spice blend')]);
  });
  test('a soup made of itself is named, and not scaled for ever', () => {
    const round = makeSoup({
      id: 'a',
      name: 'A',
      steps: [makeStep({ id: 's', phase: 'prep', name: 's' })],
      ingredients: [makeLine({ id: 'a', name: 'A', componentId: 'a', stepId: 's' })],
    });
    expect(run(['check', '-'], file(round)).code).toBe(1);
    expect(run(['scale', '-', '--litres', '2'], file(round)).err).toContain('A is made of A: that never ends.');
  });
});
