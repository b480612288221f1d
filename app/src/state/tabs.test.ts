import { unsentPars, useUnsentPars } from './unsentPars';

const DAY = '2026-11-25';
const NAME = 'broth-board-unsent-pars';

/** What another tab writes: the storage they share, and the event every tab but the one that wrote gets. */
function otherTabKeeps(byDay: Readonly<Record<string, Readonly<Record<string, number>>>>): void {
  const newValue = JSON.stringify({ state: { byDay }, version: 0 });
  localStorage.setItem(NAME, newValue);
  window.dispatchEvent(new StorageEvent('storage', { key: NAME, newValue }));
}

test('two tabs of one device: what one has put is not lost when the other puts something', () => {
  useUnsentPars.getState().keep(DAY, 'lentil', 26);
  otherTabKeeps({ [DAY]: { lentil: 26, bean: 9 } });
  useUnsentPars.getState().keep(DAY, 'chowder', 20);
  expect(unsentPars()).toEqual([
    { date: DAY, soupId: 'lentil', parL: 26 },
    { date: DAY, soupId: 'bean', parL: 9 },
    { date: DAY, soupId: 'chowder', parL: 20 },
  ]);
  expect(JSON.parse(localStorage.getItem(NAME) ?? '')).toMatchObject({ state: { byDay: { [DAY]: { lentil: 26, bean: 9, chowder: 20 } } } });
});

test('what another tab writes of something else changes nothing', () => {
  const before = unsentPars();
  window.dispatchEvent(new StorageEvent('storage', { key: 'something else', newValue: '{}' }));
  window.dispatchEvent(new StorageEvent('storage', { key: NAME, newValue: null }));
  expect(unsentPars()).toEqual(before);
});
