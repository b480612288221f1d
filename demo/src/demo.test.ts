import { PHASES, SOUP_KG_PER_L, allergensOf, checkSoup, saltShareOf, variantOf } from '@broth/core';
import { checkDayPlan, planDay } from '@broth/core/planner';
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
  test('the checks find nothing but the one label that nobody has read: yields as written, leeks washed, fish back after the blender', () => {
    expect(demo.soups.flatMap((soup) => checkSoup(soup, book, demo.pantry).map((found) => [soup.id, found.code]))).toEqual([['sweetpotato', 'label.unread']]);
  });
  test('salt with all that is salty is between 0.5 and 1 % (common practice 0.6 to 1, less with smoked fish)', () => {
    const shares = demo.soups.filter((soup) => soup.role === 'soup').map((soup) => saltShareOf(soup, book, SOUP_KG_PER_L));
    expect(shares.filter((share) => share < 0.005 || share > 0.01)).toEqual([]);
  });
  test('every variant can be made of its soup', () => {
    expect(
      demo.soups.flatMap((soup) =>
        soup.variants.map((variant) => checkSoup(variantOf(soup, variant.id), book, demo.pantry).filter((found) => found.code === 'line.nowhere').length),
      ),
    ).toEqual([0, 0]);
  });
  test('no boil-less soup is served hot, and the cold one is never heated', () => {
    const heated = (id: string): boolean => book.get(id)?.steps.some((step) => step.heat !== 'off') ?? false;
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
