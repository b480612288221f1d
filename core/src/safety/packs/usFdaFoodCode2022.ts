import type { RulePack } from '../rulePack';

/**
 * US FDA Food Code 2022: a model code, binding only as a state or local authority has adopted it.
 * Written from memory; the confidence stands on each rule. The limits are stated in both units by the Code itself.
 */
export const usFdaFoodCode2022: RulePack = {
  id: 'us-fda-fc2022',
  version: 1,
  name: 'FDA Food Code 2022',
  cooling: {
    start: { c: 57, f: 135 },
    mid: { c: 21, f: 70 },
    end: { c: 5, f: 41 },
    midWithinMin: 120,
    endWithinMin: 360,
    basis: 'total',
    strict: false,
    checkEveryMin: { toMid: 30, toEnd: 60 },
    midSource: { id: 'us.cool.1', citation: 'FDA Food Code 2022, 3-501.14(A)(1)', kind: 'modelCode', confidence: 'high' },
    endSource: { id: 'us.cool.2', citation: 'FDA Food Code 2022, 3-501.14(A)(2)', kind: 'modelCode', confidence: 'high' },
    corrective: ['faster', 'reheat', 'discard'],
  },
  hotHold: {
    limit: { c: 57, f: 135 },
    side: 'atLeast',
    checkEveryMin: 120,
    source: { id: 'us.hot', citation: 'FDA Food Code 2022, 3-501.16(A)(1)', kind: 'modelCode', confidence: 'high' },
    corrective: ['reheatHot', 'discard'],
  },
  coldHold: {
    limit: { c: 5, f: 41 },
    side: 'atMost',
    checkEveryMin: 240,
    source: { id: 'us.cold', citation: 'FDA Food Code 2022, 3-501.16(A)(2)', kind: 'modelCode', confidence: 'high' },
    corrective: ['moveCold', 'discard'],
  },
  reheat: {
    limit: { c: 74, f: 165 },
    holdS: 15,
    withinMin: 120,
    source: { id: 'us.reheat.own', citation: 'FDA Food Code 2022, 3-403.11(A),(D)', kind: 'modelCode', confidence: 'high' },
    corrective: ['cookOn', 'discard'],
  },
  dateMark: {
    lastDay: 7,
    source: { id: 'us.date', citation: 'FDA Food Code 2022, 3-501.17(A)', kind: 'modelCode', confidence: 'high' },
  },
};
