/** Forecasts by smoothing, and how wrong they are. Definitions: NIST/SEMATECH e-Handbook of Statistical Methods, 6.4; Hyndman & Koehler, Int J Forecasting 22 (2006) 679. */

export function mean(values: readonly number[]): number {
  return values.reduce((sum, value) => sum + value, 0) / values.length;
}

/** Means of the last `window` values, one for each value from the window-th on. NIST 6.4.2.1. */
export function movingAverage(values: readonly number[], window: number): readonly number[] {
  return values.slice(window - 1).map((_, index) => mean(values.slice(index, index + window)));
}

/** Single exponential smoothing, S₂ = y₁: the forecast of every value from the second on. NIST 6.4.3.1. */
export function smoothed(values: readonly number[], alpha: number): readonly number[] {
  const forecasts: number[] = [];
  for (const [index, value] of values.entries()) {
    const before = forecasts.at(-1);
    if (index < values.length - 1) forecasts.push(before === undefined ? value : alpha * value + (1 - alpha) * before);
  }
  return forecasts;
}

/** Holt's double exponential smoothing: the level of each value and forecasts from the last on. NIST 6.4.3.3 and 6.4.3.4. */
export function doubleSmoothed(
  values: readonly number[],
  { alpha, gamma, firstTrend, ahead }: { readonly alpha: number; readonly gamma: number; readonly firstTrend: number; readonly ahead: number },
): { readonly levels: readonly number[]; readonly forecasts: readonly number[] } {
  const levels: number[] = [];
  let level = values[0] ?? Number.NaN;
  let trend = firstTrend;
  for (const [index, value] of values.entries()) {
    if (index > 0) {
      const next = alpha * value + (1 - alpha) * (level + trend);
      trend = gamma * (next - level) + (1 - gamma) * trend;
      level = next;
    }
    levels.push(level);
  }
  return { levels, forecasts: Array.from({ length: ahead }, (_, index) => level + trend * (index + 1)) };
}

export interface ForecastErrors {
  readonly mae: number;
  /** Percent; infinite when a value is 0. */
  readonly mape: number;
  readonly wape: number;
  /** Against the naive forecast of the training values; null when they never change. */
  readonly mase: number | null;
  readonly sse: number;
}

export function forecastErrors(actual: readonly number[], forecast: readonly number[], training: readonly number[]): ForecastErrors {
  const errors = actual.map((value, index) => Math.abs(value - (forecast[index] ?? Number.NaN)));
  const total = errors.reduce((sum, error) => sum + error, 0);
  const naive = mean(training.slice(1).map((value, index) => Math.abs(value - (training[index] ?? value))));
  return {
    mae: total / errors.length,
    mape: mean(errors.map((error, index) => (error / Math.abs(actual[index] ?? Number.NaN)) * 100)),
    wape: (total / actual.reduce((sum, value) => sum + Math.abs(value), 0)) * 100,
    mase: naive > 0 ? total / errors.length / naive : null,
    sse: errors.reduce((sum, error) => sum + error * error, 0),
  };
}
