export type TemperatureUnit = 'C' | 'F';

/** A temperature as it was read: the number, the unit on the display, and the text that was typed or received. */
export interface Reading {
  readonly value: number;
  readonly unit: TemperatureUnit;
  readonly rawText: string;
}

/** A limit as its source states it. The two figures are not conversions of each other (57 °C is 134.6 °F, the Code says 135 °F). */
export interface TemperatureLimit {
  readonly c: number;
  readonly f: number | null;
}

/** NIST SP 811 B.8: t/°C = (t/°F − 32)/1.8. */
export function celsiusFromFahrenheit(temperatureF: number): number {
  return (temperatureF - 32) / 1.8;
}

/** NIST SP 811 B.8: t/°F = 1.8 t/°C + 32. */
export function fahrenheitFromCelsius(temperatureC: number): number {
  return 1.8 * temperatureC + 32;
}

/** A difference of temperatures: 1 °C is 1.8 °F, without the 32. */
export function fahrenheitDelta(deltaC: number): number {
  return 1.8 * deltaC;
}

/** The limit in the unit of a reading; only when the source gives no figure in that unit is the limit converted, unrounded. */
export function limitIn(limit: TemperatureLimit, unit: TemperatureUnit): number {
  if (unit === 'C') return limit.c;
  return limit.f ?? fahrenheitFromCelsius(limit.c);
}

/** The reading in another unit, for drawing only: verdicts compare in the unit that was read. */
export function readingIn(reading: Reading, unit: TemperatureUnit): number {
  if (reading.unit === unit) return reading.value;
  return unit === 'C' ? celsiusFromFahrenheit(reading.value) : fahrenheitFromCelsius(reading.value);
}

/** `'62,5'` and `'62.5'` are 62.5, `'−3'` is −3; anything that is not one number is null. */
export function parseTemperature(text: string): number | null {
  const plain = text.trim().replace(',', '.').replace('−', '-');
  return /^-?\d+(\.\d+)?$/.test(plain) ? Number(plain) : null;
}
