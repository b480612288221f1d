import type { Food } from '../food/index';
import type { Ingredient, Schools, Soup, Step } from './soup';

/** What a soup follows until somebody says otherwise. */
export const USUAL_SCHOOLS: Schools = {
  liquid: 'fixed',
  cream: 'none',
  thickener: 'none',
  onion: 'none',
  garlic: 'none',
  vegetables: 'together',
  texture: 'chunky',
  measuring: 'exact',
};

/** A line with the usual answers filled in: measured edible, plain, linear, label read and empty. */
export function makeLine(some: Pick<Ingredient, 'id' | 'name' | 'stepId'> & Partial<Ingredient>): Ingredient {
  return {
    foodId: null,
    part: 'other',
    amount: null,
    basis: 'edible',
    cut: null,
    acts: [],
    gPerMl: null,
    gramsEach: null,
    edibleShare: 1,
    saltShare: 0,
    allergens: [],
    origin: 'plant',
    componentId: null,
    returnsAtStepId: null,
    whole: false,
    removed: false,
    scaling: 'linear',
    ...some,
  };
}

/** What the pantry knows of a food, as a line takes it over. */
export function foodFacts(food: Food): Pick<Ingredient, 'foodId' | 'part' | 'gPerMl' | 'gramsEach' | 'edibleShare' | 'saltShare' | 'allergens' | 'origin'> {
  const { id, part, gPerMl, gramsEach, edibleShare, saltShare, allergens, origin } = food;
  return { foodId: id, part, gPerMl, gramsEach, edibleShare, saltShare, allergens, origin };
}

/** A step with the usual answers filled in: hands on, at the kettle, cold, five minutes, keeps for as long as it must. */
export function makeStep(some: Pick<Step, 'id' | 'phase' | 'name'> & Partial<Step>): Step {
  return {
    place: { kind: 'vessel' },
    attention: 'hands',
    duration: { lowMin: 5, highMin: 5, perLitreMin: 0 },
    clockFrom: 'start',
    heat: 'off',
    lid: 'off',
    blendShare: 1,
    maxWaitMin: null,
    lookEveryMin: null,
    check: null,
    caution: null,
    why: '',
    irreversible: false,
    ...some,
  };
}

/** A soup with the usual answers filled in. Amounts are for one litre unless `makesL` says otherwise. */
export function makeSoup(some: Pick<Soup, 'id' | 'name'> & Partial<Soup>): Soup {
  return {
    version: 1,
    shortName: some.name,
    role: 'soup',
    served: 'hot',
    toneHex: '#B08D57',
    portionMl: 300,
    makesL: 1,
    texture: 'light',
    saltTarget: 0.008,
    salesPrice: null,
    schools: USUAL_SCHOOLS,
    ingredients: [],
    steps: [],
    variants: [],
    ...some,
  };
}
