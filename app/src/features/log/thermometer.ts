import type { ThermometerStanding } from '@broth/contract';
import { offsetIn } from '@broth/core';
import type { CheckRecord, Thermometer } from '@broth/core';
import type { OpenDay } from '../../state/useDay';

type Check = ThermometerStanding['checks'][number];

/** A thermometer with what its checks say of it. */
export interface CheckedThermometer {
  readonly thermometer: Thermometer;
  /** Oldest first; today's that are still on their way are among them. */
  readonly checks: readonly Check[];
  readonly last: Check | null;
  /** In use, and its last check was good, or it never had one. */
  readonly usable: boolean;
}

function today(checks: readonly CheckRecord[], thermometerId: string): readonly Check[] {
  return checks
    .filter((check) => check.thermometerId === thermometerId)
    .map(({ at, by, method, reading, offset, usable }) => ({ at, by, method, unit: reading.unit, shown: reading.value, offset, usable }));
}

export function checkedThermometers({ book, state }: OpenDay): readonly CheckedThermometer[] {
  return book.station.thermometers.map((thermometer) => {
    const before = book.thermometers.find((one) => one.thermometerId === thermometer.id)?.checks ?? [];
    const fresh = today(state.checks, thermometer.id).filter((check) => !before.some((one) => one.at === check.at));
    const checks = [...before, ...fresh].sort((left, right) => left.at - right.at);
    const last = checks.at(-1) ?? null;
    return { thermometer, checks, last, usable: thermometer.inUse && last?.usable !== false };
  });
}

/** A thermometer a hand may read with, with what it shows too much. */
export interface UsableThermometer {
  readonly id: string;
  readonly label: string;
  readonly unit: 'C' | 'F';
  /** What it shows more than it should, in its own unit; 0 when it was never checked. */
  readonly offset: number;
}

export function usableThermometers(day: OpenDay): readonly UsableThermometer[] {
  return checkedThermometers(day).flatMap(({ thermometer, last, usable }) =>
    usable && thermometer.kind === 'hand'
      ? [{ id: thermometer.id, label: thermometer.name, unit: thermometer.unit, offset: last === null ? 0 : offsetIn(last.offset, last.unit, thermometer.unit) }]
      : [],
  );
}
