import { daysBetween } from '../quantity/index';
import { forecastDemand } from './demand';
import type { SalesRecord } from './demand';
import { mean } from './smoothing';

export interface BacktestLine {
  readonly method: 'forecast' | 'lastWeek' | 'lastFour' | 'lastSeven';
  /** Σ|error| ÷ Σ demand, over days that did not run out; percent. */
  readonly wape: number;
  /** Σ(forecast − demand) ÷ Σ demand; percent: below 0 is too little. */
  readonly bias: number;
  /** Days on which more was sold, or all was gone, than the method's mean with the spread for the service level would have made. */
  readonly runOuts: number;
  readonly days: number;
}

/** Standard deviations above the mean that are made for a service level of nine days in ten. */
const Z_90 = 1.2816;

/**
 * How well the last `days` days would have been foretold, each from the days before it, beside three plain ways: the same weekday last week, the mean of
 * the last four same weekdays, the mean of the last seven days. Days that ran out count as run-outs when the method too would have made less than was sold;
 * their demand is not known, so they are no part of the errors.
 */
export function backtest(history: readonly SalesRecord[], days: number): readonly BacktestLine[] {
  const sorted = [...history].sort((left, right) => left.day.localeCompare(right.day));
  const tested = sorted.slice(-days);
  const before = (record: SalesRecord): readonly SalesRecord[] => sorted.filter((other) => other.day < record.day);
  const sameWeekday = (record: SalesRecord): readonly SalesRecord[] => before(record).filter((other) => daysBetween(other.day, record.day) % 7 === 0);
  const spreadOf = (values: readonly number[]): number => {
    if (values.length < 2) return (values[0] ?? 0) * 0.3;
    const middle = mean(values);
    return Math.sqrt(values.reduce((sum, value) => sum + (value - middle) ** 2, 0) / (values.length - 1));
  };
  type Told = { readonly mean: number; readonly deviation: number } | null;
  const plain = (records: readonly SalesRecord[]): Told => {
    const values = records.map((one) => one.sold);
    return values.length === 0 ? null : { mean: mean(values), deviation: spreadOf(values) };
  };
  const methods: readonly (readonly [BacktestLine['method'], (record: SalesRecord) => Told])[] = [
    ['forecast', (record) => forecastDemand(before(record), record.day, record.events)],
    ['lastWeek', (record) => plain(sameWeekday(record).slice(-1))],
    ['lastFour', (record) => plain(sameWeekday(record).slice(-4))],
    ['lastSeven', (record) => plain(before(record).slice(-7))],
  ];
  return methods.map(([method, tell]) => {
    let [error, signed, demand, runOuts, counted] = [0, 0, 0, 0, 0];
    for (const record of tested) {
      const told = tell(record);
      if (told === null) continue;
      counted += 1;
      const made = Math.ceil(told.mean + Z_90 * told.deviation);
      if (record.sold > made || (record.soldOutMin !== null && record.sold >= made)) runOuts += 1;
      if (record.soldOutMin !== null) continue;
      error += Math.abs(told.mean - record.sold);
      signed += told.mean - record.sold;
      demand += record.sold;
    }
    return { method, wape: demand === 0 ? 0 : (error / demand) * 100, bias: demand === 0 ? 0 : (signed / demand) * 100, runOuts, days: counted };
  });
}
