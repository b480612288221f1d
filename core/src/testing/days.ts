import { DEFAULT_WEIGHTS, seeded } from '../sequence/index';
import type { Job, JobStep, Lag, Mode, Problem, Random, Unit } from '../sequence/index';

/** Made days of a soup station, by family and size: the same seed gives the same day. Durations and waits lie where common practice has them. */

export const FAMILIES = ['calm', 'kettles', 'blender', 'cook', 'allergens', 'components'] as const;
export type Family = (typeof FAMILIES)[number];

interface Setting {
  readonly cooks: number;
  readonly kettles: readonly (readonly [number, number])[];
  readonly jars: number;
  readonly immersions: number;
  /** Minutes of day one batch has to itself, about: less is tighter. */
  readonly roomMin: number;
  readonly allergens: number;
  readonly componentShare: number;
}

const CALM: Setting = {
  cooks: 3,
  kettles: [
    [8, 26],
    [5, 17],
    [3, 10],
  ],
  jars: 1,
  immersions: 1,
  roomMin: 60,
  allergens: 0.3,
  componentShare: 0.2,
};

const SETTINGS: Readonly<Record<Family, Setting>> = {
  calm: CALM,
  kettles: { ...CALM, roomMin: 34, kettles: CALM.kettles.slice(0, 2) },
  blender: { ...CALM, roomMin: 42, immersions: 0 },
  cook: { ...CALM, roomMin: 52, cooks: 1 },
  allergens: { ...CALM, roomMin: 42, allergens: 0.9 },
  components: { ...CALM, roomMin: 44, componentShare: 0.7 },
};

const CLASSES = ['plain', 'milk', 'fish', 'milk+fish', 'celery', 'milk+celery'];
const HOLDS: readonly (readonly string[])[] = CLASSES.map((name) => (name === 'plain' ? [] : name.split('+')));

/** What stock counts that stands, beside a hot soup: as a kitchen's day has it. */
const COMPONENT_EARLY_WEIGHT = 0.03;

function lag(from: string, to: string, maxMin: number | null): Lag {
  return { from, to, kind: 'endStart', minMin: 0, maxMin };
}

/** A day of `size` batches. */
export function madeDay(family: Family, size: number, seed: number): Problem {
  const random: Random = seeded(seed * 7919 + size * 31 + FAMILIES.indexOf(family));
  const setting = SETTINGS[family];
  const between = (low: number, high: number): number => low + Math.floor(random() * (high - low + 1));
  const pick = <T>(items: readonly T[], fallback: T): T => items[Math.floor(random() * items.length)] ?? fallback;
  const openMin = 300;
  const lastMin = openMin + 120 + Math.round(size * setting.roomMin);
  const services = [openMin + 120 + Math.round(size * setting.roomMin * 0.45), openMin + 120 + Math.round(size * setting.roomMin * 0.7), lastMin];
  const units: readonly Unit[] = [
    ...setting.kettles.map(([minL, maxL], index) => ({ id: `kettle${String(index + 1)}`, name: `Kettle ${String(index + 1)}`, volume: { minL, maxL }, changeoverId: 'wash' })),
    ...Array.from({ length: setting.jars }, (_, index) => ({ id: `jar${String(index + 1)}`, name: 'Jar blender', volume: null, changeoverId: 'wash' })),
    ...Array.from({ length: setting.immersions }, (_, index) => ({ id: `immersion${String(index + 1)}`, name: 'Immersion blender', volume: null, changeoverId: 'wash' })),
  ];
  const hands = (count: number): Mode['uses'] => [{ resourceId: 'hands', units: count }];
  const only = (id: string, durationMin: number, uses: Mode['uses']): JobStep => ({ id, modes: [{ id: 'only', durationMin, uses, unitIds: [] }], afterJobs: [], fixed: null });
  const kettlesFor = (volumeL: number): readonly string[] => units.filter(({ volume }) => volume !== null && volume.minL <= volumeL && volumeL <= volume.maxL).map(({ id }) => id);
  const components = Math.min(4, Math.round((size * setting.componentShare) / 3));
  const jobs: Job[] = [];
  for (let index = 0; index < size; index += 1) {
    const isComponent = index < components;
    let volumeL = between(4, 24);
    while (kettlesFor(volumeL).length === 0) volumeL = between(4, 24);
    const base = isComponent || random() > setting.allergens ? 0 : between(1, CLASSES.length - 1);
    const shared = {
      id: `b${String(index + 1)}`,
      volumeL,
      changeClass: CLASSES[base] ?? 'plain',
      releaseMin: openMin,
      lateWeight: 1,
      earlyWeight: 1,
      bufferMin: 0,
      likesEarlyMin: 0,
      spans: [{ id: 'pot', unitIds: kettlesFor(volumeL), from: 'sweat', to: 'empty', until: 'end' as const }],
    };
    const prep = only('prep', between(8, 14) + Math.round(volumeL * 0.9), hands(3));
    if (isComponent) {
      const steps = [prep, only('sweat', between(4, 8), hands(2)), only('simmer', between(30, 75), hands(1)), only('empty', between(4, 8), hands(4))];
      jobs.push({
        ...shared,
        earlyWeight: COMPONENT_EARLY_WEIGHT,
        steps,
        lags: [lag('prep', 'sweat', 240), lag('sweat', 'simmer', 0), lag('simmer', 'empty', 20)],
        readyByMin: null,
      });
      continue;
    }
    const roasts = random() < 0.35;
    const blends = random() < 0.75;
    const blendModes: Mode[] = [
      ...(setting.immersions > 0 ? [{ id: 'immersion', durationMin: 4 + Math.round(volumeL / 4), uses: hands(4), unitIds: ['immersion1'] }] : []),
      { id: 'jar', durationMin: 3 + Math.ceil(volumeL / 1.2) * 2, uses: hands(4), unitIds: ['jar1'] },
    ];
    const blend: JobStep = { id: 'blend', modes: blendModes, afterJobs: [], fixed: null };
    const input = components > 0 && random() < Math.max(0.5, setting.componentShare) ? [`b${String(between(1, components))}`] : [];
    const boil: JobStep = { ...only('boil', between(8, 12) + Math.round(volumeL * 0.6), []), afterJobs: input };
    const steps = [
      prep,
      ...(roasts ? [only('roast', between(30, 50), [{ resourceId: 'oven', units: Math.min(4, Math.ceil(volumeL / 8)) }])] : []),
      only('sweat', between(6, 12), hands(4)),
      boil,
      only('simmer', between(12, 45), hands(1)),
      ...(blends ? [blend] : []),
      only('finish', between(4, 9), hands(2)),
      only('empty', between(4, 8), hands(4)),
    ];
    jobs.push({
      ...shared,
      steps,
      lags: [
        ...(roasts ? [lag('prep', 'roast', 240), lag('roast', 'boil', 60)] : []),
        lag('prep', 'sweat', 240),
        lag('sweat', 'boil', 5),
        lag('boil', 'simmer', 0),
        ...(blends ? [lag('simmer', 'blend', 10), lag('blend', 'finish', 10)] : [lag('simmer', 'finish', 10)]),
        lag('finish', 'empty', 30),
      ],
      readyByMin: pick(services, lastMin),
    });
  }
  return {
    horizonMin: lastMin + 900,
    resources: [
      { id: 'hands', name: 'Hands', capacity: setting.cooks * 4, windows: [] },
      { id: 'oven', name: 'Oven', capacity: 4, windows: [] },
    ],
    units,
    changeovers: [
      {
        id: 'wash',
        classes: CLASSES,
        min: HOLDS.map((before) => HOLDS.map((after) => (before.some((allergen) => !after.includes(allergen)) ? 12 : 4))),
        uses: hands(4),
      },
    ],
    jobs,
    lines: [],
    weights: DEFAULT_WEIGHTS,
  };
}
