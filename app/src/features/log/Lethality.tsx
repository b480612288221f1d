import { words } from '@broth/contract';
import { readingIn } from '@broth/core';
import type { BatchRecord } from '@broth/core';
import { LISTERIA, accumulatedMin } from '@broth/core/advice';
import { Note } from '../../ui/Type';

/** Heat so far as minutes at 70 °C, by the coldest point: information beside the verdict, which goes by the rule's own table. */
export function Lethality({ batch }: { readonly batch: BatchRecord }) {
  const log = batch.readings
    .filter((reading) => reading.purpose === 'cook' || reading.purpose === 'reheat')
    .map(({ at, reading }) => ({ atMin: at / 60_000, temperatureC: readingIn(reading, 'C') }));
  const minutes = accumulatedMin(log, LISTERIA);
  return minutes <= 0 ? null : (
    <Note>{`Heat so far is worth ${words.number(minutes)} min at 70 °C (z 7.5 °C), between the readings. For information: the verdict goes by the rule.`}</Note>
  );
}
