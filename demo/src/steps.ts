import type { Step } from '@broth/core';

type Some = Pick<Step, 'id' | 'phase' | 'name' | 'why'> & Partial<Step>;

/** A step with the usual answers filled in: hands on, at the kettle, cold, keeps for as long as it must. */
export function step(some: Some): Step {
  return {
    place: { kind: 'vessel' },
    attention: 'hands',
    duration: { fixedMin: 5, perLitreMin: 0 },
    heat: 'off',
    maxWaitMin: null,
    lookEveryMin: null,
    check: null,
    caution: null,
    irreversible: false,
    ...some,
  };
}

/** Chopping at the bench, by the litre of finished soup. */
export const prep = (name: string, perLitreMin: number, why: string, caution: string | null = null): Step =>
  step({ id: 'prep', phase: 'prep', name, why, caution, place: { kind: 'bench' }, duration: { fixedMin: 6, perLitreMin }, maxWaitMin: 240 });

export const sweat = (name: string, fixedMin: number, why: string): Step =>
  step({
    id: 'sweat',
    phase: 'sweat',
    name,
    why,
    heat: 'on',
    duration: { fixedMin, perLitreMin: 0.2 },
    maxWaitMin: 0,
    check: 'Soft, no colour',
    caution: 'Hot fat: turn it down once it runs.',
  });

/** Time to the boil grows with the litres; the cook taps when it really boils. */
export const boil = (name: string): Step =>
  step({
    id: 'boil',
    phase: 'boil',
    name,
    why: 'The simmer clock starts at a real boil, not before.',
    heat: 'on',
    attention: 'looks',
    duration: { fixedMin: 5, perLitreMin: 0.9 },
    maxWaitMin: 0,
    lookEveryMin: 5,
    check: 'A rolling boil, seen and tapped',
    caution: 'Lift the lid away from you. Steam burns.',
  });

export const simmer = (fixedMin: number, check: string, why: string): Step =>
  step({
    id: 'simmer',
    phase: 'simmer',
    name: 'Simmer, lid ajar',
    why,
    check,
    heat: 'on',
    attention: 'looks',
    duration: { fixedMin, perLitreMin: 0.1 },
    maxWaitMin: 10,
    lookEveryMin: 10,
  });

export const jarBlend: Step = step({
  id: 'blend',
  phase: 'blend',
  name: 'Blend in the jar, fill by fill',
  why: 'A hot fill swells with steam; half full it stays in the jar.',
  place: { kind: 'blender', tool: 'jar' },
  duration: { fixedMin: 2, perLitreMin: 0 },
  maxWaitMin: 10,
  check: 'Silk between two fingers',
  caution: 'Vent the lid, cloth over it, start low. Never above the hot-fill line.',
  irreversible: true,
});

export const stickBlend = (name: string, check: string, perLitreMin: number): Step =>
  step({
    id: 'blend',
    phase: 'blend',
    name,
    why: 'Start low with the head under the surface, then go high: it splashes only when it is lifted.',
    place: { kind: 'blender', tool: 'immersion' },
    duration: { fixedMin: 3, perLitreMin },
    maxWaitMin: 10,
    check,
    caution: 'Head under the surface before it starts; others stand back.',
    irreversible: true,
  });

export const finish = (name: string, fixedMin: number, why: string, heat: 'on' | 'off' = 'off'): Step =>
  step({ id: 'finish', phase: 'finish', name, why, heat, duration: { fixedMin, perLitreMin: 0.1 }, maxWaitMin: 10, check: 'Taste with a clean spoon, then again after the salt' });

export const empty = (name: string): Step =>
  step({
    id: 'empty',
    phase: 'hold',
    name,
    why: 'The kettle is free only when it is empty.',
    duration: { fixedMin: 3, perLitreMin: 0.2 },
    caution: 'Two people for anything over 10 L; handles are hot.',
  });
