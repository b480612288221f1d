import type { Station } from '@broth/core';

const hour = (hours: number, minutes = 0): number => hours * 60 + minutes;

/** The Landing Kitchen: its kettles, blenders, places to cool and hold, hands and sailings. Invented. */
export const station: Station = {
  equipment: [
    { kind: 'vessel', id: 'kettle1', name: 'Kettle 1', capacityL: 30, minFillL: 8, workingMaxL: 25, powerKw: 12, efficiency: 0.75, diameterCm: 38, inUse: true },
    { kind: 'vessel', id: 'kettle2', name: 'Kettle 2', capacityL: 20, minFillL: 5, workingMaxL: 17, powerKw: 9, efficiency: 0.75, diameterCm: 32, inUse: true },
    { kind: 'vessel', id: 'pot', name: 'Pot', capacityL: 12, minFillL: 2, workingMaxL: 10, powerKw: 5, efficiency: 0.45, diameterCm: 26, inUse: true },
    { kind: 'jar', id: 'jar', name: 'Jar blender', capacityL: 2, hotFillL: 1.2, cycleMin: 2.5, inUse: true },
    { kind: 'immersion', id: 'immersion', name: 'Immersion blender', inUse: true },
    { kind: 'oven', id: 'oven', name: 'Oven', trays: 4, inUse: true },
    { kind: 'cooling', id: 'icebath', name: 'Ice-bath sink', capacityL: 24, ambientC: 0, inUse: true },
    { kind: 'cooling', id: 'walkin', name: 'Walk-in', capacityL: 60, ambientC: 3, inUse: true },
    { kind: 'well', id: 'well1', name: 'Well 1', capacityL: 10, inUse: true },
    { kind: 'well', id: 'well2', name: 'Well 2', capacityL: 10, inUse: true },
    { kind: 'well', id: 'well3', name: 'Well 3', capacityL: 10, inUse: true },
    { kind: 'well', id: 'well4', name: 'Well 4', capacityL: 10, inUse: true },
  ],
  people: [
    { id: 'maren', name: 'Maren Oake', role: 'lead', shift: { fromMin: hour(5), toMin: hour(13, 30) } },
    { id: 'tobi', name: 'Tobi Lund', role: 'cook', shift: { fromMin: hour(6), toMin: hour(14, 30) } },
    { id: 'anouk', name: 'Anouk Vale', role: 'cook', shift: { fromMin: hour(9, 30), toMin: hour(18) } },
  ],
  services: [
    { id: 'early', name: 'Early boat', startMin: hour(7, 30), endMin: hour(9) },
    { id: 'midday', name: 'Midday boats', startMin: hour(11, 30), endMin: hour(14, 30) },
    { id: 'evening', name: 'Evening boat', startMin: hour(17, 30), endMin: hour(19, 30) },
  ],
  rinseMin: 5,
  fullWashMin: 12,
  readyLeadMin: 20,
  aimChance: 0.9,
  laterBatches: true,
  altitudeM: 12,
  thermometers: [
    { id: 'red', name: 'Red probe', unit: 'F', kind: 'hand', inUse: true },
    { id: 'blue', name: 'Blue probe', unit: 'F', kind: 'hand', inUse: true },
    { id: 'pan1', name: 'Stay-in probe 1', unit: 'F', kind: 'probe', inUse: true },
    { id: 'pan2', name: 'Stay-in probe 2', unit: 'F', kind: 'probe', inUse: true },
    { id: 'walkin', name: 'Walk-in logger', unit: 'C', kind: 'logger', inUse: true },
  ],
};
