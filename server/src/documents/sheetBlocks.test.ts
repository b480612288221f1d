import { demo } from '@broth/demo';
import { jarOf, vesselsOf } from '@broth/core';
import { sheetBlocks } from './sheetBlocks';

const soupById = new Map(demo.soups.map((soup) => [soup.id, soup]));
const of = (id: string, volumeL: number) =>
  sheetBlocks({
    soup: soupById.get(id)!,
    volumeL,
    vessel: vesselsOf(demo.station)[0] ?? null,
    jar: jarOf(demo.station),
    soupById,
    history: { stepTimes: { simmer: [18, 25, 22].map((minutes) => ({ volumeL, minutes })) } },
    kitchen: 'Landing Kitchen',
  });

describe('what the printed sheet says', () => {
  const chowder = of('chowder', 20);
  test('the factor and the kettle stand in its head, so that nothing is doubled twice', () => {
    expect(chowder.subtitle).toBe('20 L · x2 of the card for 10 L · Kettle 1 · version 1');
  });
  test('allergens and diets are computed from every line, the component’s too', () => {
    expect(chowder.facts.join(' ')).toContain('Contains fish, gluten, milk, and wheat.');
    expect(chowder.facts.join(' ')).toContain('Not vegetarian: White fish trimmings in the fish stock is from fish and Smoked haddock is from fish.');
  });
  test('fish goes in at the bench and comes back after the blender, in that order', () => {
    const at = (what: string): number => chowder.steps.findIndex((step) => step.lines.some((line) => line.what.includes(what)));
    expect([at('Smoked haddock, large flakes, take 3.16 kg, kept aside'), at('Smoked haddock, back in')]).toEqual([0, 5]);
  });
  test('measured minutes replace the card’s, and the boil is from the kettle’s power', () => {
    expect(chowder.steps.map((step) => step.minutes).slice(2, 4)).toEqual([expect.stringMatching(/^\d+ to \d+ min, from the start$/), '18 to 25 min (measured), from a real boil']);
  });
  test('a soup with an unread label says so before anything else could be claimed', () => {
    expect(of('sweetpotato', 12).facts.join(' ')).toContain('Label not read, so unknown: Smoked spice blend.');
  });
  test('too much for the kettle is said first; the jar’s fills stand at the step; salt comes in doses', () => {
    const beetroot = of('beetroot', 28);
    expect([beetroot.facts[0], beetroot.steps[4]?.head, beetroot.notes[1]]).toEqual([
      'Kettle 1 works up to 25 L: this is too much for it.',
      '5. Blend in the jar, fill by fill. 24 fills of the jar.',
      expect.stringMatching(/^Salt: aim at 0.7 %. 25 g \+ /),
    ]);
  });
});
