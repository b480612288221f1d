import { PHASES, allergensOf, checkDayPlan, planDay } from '@broth/core';
import { demo } from './index';

const book = new Map(demo.soups.map((soup) => [soup.id, soup]));
const DAY = '2026-11-25';

describe('the demo can be cooked', () => {
  test('eight soups and the four components they share', () => {
    expect(demo.soups.map((soup) => soup.role).sort()).toEqual([...Array<string>(4).fill('component'), ...Array<string>(8).fill('soup')]);
  });
  test('every line goes in at a step of its soup, and every component is in the book', () => {
    const wrong = demo.soups.flatMap((soup) =>
      soup.ingredients
        .filter((line) => soup.steps.every((step) => step.id !== line.stepId) || (line.componentId !== null && !book.has(line.componentId)))
        .map((line) => `${soup.id}: ${line.name}`),
    );
    expect(wrong).toEqual([]);
  });
  test('step ids of a soup are its own, and every phase is one we know', () => {
    const wrong = demo.soups.filter((soup) => new Set(soup.steps.map((step) => step.id)).size !== soup.steps.length || soup.steps.some((step) => !PHASES.includes(step.phase)));
    expect(wrong).toEqual([]);
  });
  test('what goes into a litre weighs about what comes out of it: boiling and trimming take some, nothing doubles it', () => {
    const masses = demo.soups
      .filter((soup) => soup.role === 'soup')
      .map((soup) => [soup.id, soup.ingredients.reduce((sum, line) => sum + (line.perLitre?.unit === 'each' ? 0 : (line.perLitre?.amount ?? 0)), 0)] as const);
    expect(masses.filter(([, gramsPerLitre]) => gramsPerLitre < 900 || gramsPerLitre > 1350)).toEqual([]);
  });
  test('salt is between 0.4 and 1 % (common practice 0.6 to 1, less with smoked fish)', () => {
    const salts = demo.soups.filter((soup) => soup.role === 'soup').map((soup) => soup.ingredients.find((line) => line.name === 'Salt')?.perLitre?.amount ?? 0);
    expect(salts.filter((grams) => grams < 4 || grams > 10)).toEqual([]);
  });
  test('no boil-less soup is served hot, and the cold one is never heated', () => {
    const heated = (id: string): boolean => book.get(id)?.steps.some((step) => step.heat === 'on') ?? false;
    expect(demo.soups.filter((soup) => heated(soup.id) !== (soup.served === 'hot')).map((soup) => soup.id)).toEqual([]);
  });
});

describe('every rule bites', () => {
  test('stock brings celery into soups that have none of their own; barley brings gluten and no wheat; one label is unread', () => {
    const of = (id: string) => {
      const soup = book.get(id);
      if (soup === undefined) throw new Error(id);
      return allergensOf(soup, book);
    };
    expect([of('lentil').contains, of('barley').contains, of('sweetpotato').unknownLines]).toEqual([['celery'], ['celery', 'gluten'], ['Smoked spice blend']]);
  });
  test('the demo day is planned in time and holds up to the checker', () => {
    const input = { date: DAY, nowMin: 300, soups: demo.soups, station: demo.station, pars: demo.standingPars, lots: demo.lots(DAY), started: [], dateMarkLastDay: 7 };
    const plan = planDay(input, { seed: 1, moves: 50 });
    expect([checkDayPlan(input, plan), plan.objective.lateMin]).toEqual([[], 0]);
    expect(new Set(plan.findings.map((finding) => finding.code))).toEqual(new Set(['lot.pastDate', 'lot.frozen', 'batch.surplus']));
  });
});
