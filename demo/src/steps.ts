import { makeStep } from '@broth/core';
import type { DurationModel, Step } from '@broth/core';

/** Minutes with a margin either way: quoted times miss both ways. */
export const minutes = (middleMin: number, perLitreMin = 0, eitherWayMin = 0): DurationModel => ({
  lowMin: middleMin - eitherWayMin,
  highMin: middleMin + eitherWayMin,
  perLitreMin,
});

/** Chopping at the bench, by the litre of finished soup. */
export const prep = (name: string, perLitreMin: number, why: string, caution: string | null = null): Step =>
  makeStep({ id: 'prep', phase: 'prep', name, why, caution, place: { kind: 'bench' }, duration: minutes(6, perLitreMin), maxWaitMin: 240 });

export const sweat = (name: string, middleMin: number, why: string): Step =>
  makeStep({
    id: 'sweat',
    phase: 'sweat',
    name,
    why,
    heat: 'medium',
    duration: minutes(middleMin, 0.2, 1),
    maxWaitMin: 0,
    check: 'Soft, no colour',
    caution: 'Hot fat: turn it down once it runs.',
  });

/** Time to the boil grows with the litres; the cook taps when it really boils. */
export const boil = (name: string): Step =>
  makeStep({
    id: 'boil',
    phase: 'boil',
    name,
    why: 'The simmer clock starts at a real boil, not before.',
    heat: 'high',
    lid: 'on',
    attention: 'looks',
    duration: minutes(5, 0.9),
    maxWaitMin: 0,
    lookEveryMin: 5,
    check: 'A rolling boil, seen and tapped',
    caution: 'Lift the lid away from you. Steam burns.',
  });

export const simmer = (middleMin: number, check: string, why: string): Step =>
  makeStep({
    id: 'simmer',
    phase: 'simmer',
    name: 'Simmer, lid ajar',
    why,
    check,
    heat: 'low',
    attention: 'looks',
    duration: minutes(middleMin, 0.1, 4),
    clockFrom: 'boil',
    lid: 'ajar',
    maxWaitMin: 10,
    lookEveryMin: 10,
  });

export const jarBlend: Step = makeStep({
  id: 'blend',
  phase: 'blend',
  name: 'Blend in the jar, fill by fill',
  why: 'A hot fill swells with steam; half full it stays in the jar.',
  place: { kind: 'blender', tool: 'jar' },
  duration: minutes(2),
  maxWaitMin: 10,
  check: 'Silk between two fingers',
  caution: 'Vent the lid, cloth over it, start low. Never above the hot-fill line.',
  irreversible: true,
});

export const stickBlend = (name: string, check: string, perLitreMin: number, blendShare = 1): Step =>
  makeStep({
    id: 'blend',
    phase: 'blend',
    name,
    why: 'Start low with the head under the surface, then go high: it splashes only when it is lifted.',
    place: { kind: 'blender', tool: 'immersion' },
    duration: minutes(3, perLitreMin),
    maxWaitMin: 10,
    check,
    blendShare,
    caution: 'Head under the surface before it starts; others stand back.',
    irreversible: true,
  });

export const finish = (name: string, middleMin: number, why: string, heat: Step['heat'] = 'off'): Step =>
  makeStep({
    id: 'finish',
    phase: 'finish',
    name,
    why,
    heat,
    duration: minutes(middleMin, 0.1),
    maxWaitMin: 10,
    check: 'Taste with a clean spoon, then again after the salt',
  });

export const empty = (name: string): Step =>
  makeStep({
    id: 'empty',
    phase: 'hold',
    name,
    why: 'The kettle is free only when it is empty.',
    duration: minutes(3, 0.2),
    caution: 'Two people for anything over 10 L; handles are hot.',
  });
