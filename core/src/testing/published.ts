import type { Problem } from '../sequence/index';
import abz6 from './instances/abz6.json';
import biskup from './instances/biskup_feldmann_n10_k1.json';
import ft06 from './instances/ft06.json';
import ft10 from './instances/ft10.json';
import johnson from './instances/johnson_5jobs.json';
import la01 from './instances/la01.json';
import la02 from './instances/la02.json';
import j301 from './instances/psplib_j301_1.json';
import ta001 from './instances/taillard_flowshop20x5_ta001.json';
import ta002 from './instances/taillard_flowshop20x5_ta002.json';
import ta003 from './instances/taillard_flowshop20x5_ta003.json';
import ta004 from './instances/taillard_flowshop20x5_ta004.json';
import ta005 from './instances/taillard_flowshop20x5_ta005.json';
import tai1 from './instances/taillard_openshop4x4_01.json';
import tai2 from './instances/taillard_openshop4x4_02.json';
import tai3 from './instances/taillard_openshop4x4_03.json';
import tai4 from './instances/taillard_openshop4x4_04.json';
import tai5 from './instances/taillard_openshop4x4_05.json';
import br17 from './instances/tsplib_br17.json';
import { changeoverRound, commonDueDate, flowShop, jobShop, openShop, projectSchedule } from './textbook';

/** A published problem with the value published for it. */
export interface Published {
  readonly name: string;
  readonly source: string;
  readonly problem: Problem;
  readonly value: number;
  /** Proved to be the best there is, or the best anybody has found. */
  readonly proved: boolean;
}

const BISKUP_SHARES = [
  ['0.2', 0.2],
  ['0.4', 0.4],
  ['0.6', 0.6],
  ['0.8', 0.8],
] as const;

function commonDueDates(): readonly Published[] {
  const work = biskup.jobs.reduce((sum, [time = 0]) => sum + time, 0);
  const values: Readonly<Record<string, number>> = Object.fromEntries(Object.entries(biskup.optimum).map(([key, value]) => [/0\.\d/.exec(key)?.[0] ?? key, value]));
  return BISKUP_SHARES.map(([key, share]) => ({
    name: `common due date, h = ${key}`,
    source: biskup.source,
    problem: commonDueDate(biskup.jobs, Math.floor(share * work)),
    value: values[key] ?? Number.NaN,
    proved: true,
  }));
}

/** Every published problem that is checked, in the model a kitchen day is said in. */
export function published(): readonly Published[] {
  return [
    ...[ft06, ft10, la01, la02, abz6].map((one) => ({ name: one.name, source: one.source, problem: jobShop(one.jobs), value: one.optimum, proved: true })),
    { name: j301.name, source: j301.source, problem: projectSchedule(j301), value: j301.optimum, proved: true },
    ...[tai1, tai2, tai3, tai4, tai5].map((one) => ({ name: one.name, source: one.source, problem: openShop(one.jobs), value: one.optimum, proved: true })),
    ...[ta001, ta002, ta003, ta004, ta005].flatMap(({ name, source, p, known }): Published[] => [
      { name: `${name} no-wait`, source, problem: flowShop(p, 'noWait'), value: known.noWaitMakespan.value, proved: true },
      { name: `${name} no-wait flow time`, source, problem: flowShop(p, 'noWaitFlowTime'), value: known.noWaitTotalFlowtime.value, proved: true },
      { name: `${name} blocking`, source, problem: flowShop(p, 'blocking'), value: known.blockingMakespan.value, proved: false },
      { name: `${name} permutation`, source, problem: flowShop(p, 'permutation'), value: known.permutationMakespan.value, proved: name === 'ta001' },
    ]),
    ...commonDueDates(),
    {
      name: 'Johnson five jobs',
      source: johnson.source,
      problem: flowShop(
        [1, 2].map((column) => johnson.jobs.map((row) => Number(row[column]))),
        'plain',
      ),
      value: johnson.optimum,
      proved: true,
    },
    { name: br17.name, source: br17.source, problem: changeoverRound(br17.matrix), value: br17.optimum, proved: true },
  ];
}
