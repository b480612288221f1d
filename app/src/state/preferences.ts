import { create } from 'zustand';
import { createJSONStorage, persist } from 'zustand/middleware';

export type Look = 'system' | 'enamel' | 'iron';

interface Preferences {
  /** Person id of who holds this phone; null until somebody was picked. */
  readonly who: string | null;
  readonly device: string;
  readonly look: Look;
  /** Share of days a suggested par should suffice. */
  readonly serviceLevel: number;
  /** Whose work Now shows: what this phone's holder has hands for, or everybody's. */
  readonly nowFor: 'me' | 'all';
  /** No sound and no shaking; what is up is still shown. */
  readonly silent: boolean;
  /** Server clock minus this device's, as last measured: it must be right without a network too. Milliseconds. */
  readonly clockOffsetMs: number;
  /** The offset the record has of this device. Milliseconds. */
  readonly recordedOffsetMs: number;
  readonly pickNowFor: (nowFor: 'me' | 'all') => void;
  readonly pickSilent: (silent: boolean) => void;
  readonly pickLevel: (level: number) => void;
  readonly pickWho: (who: string) => void;
  readonly pickLook: (look: Look) => void;
}

/** What belongs to this phone and stays on it. */
export const usePreferences = create<Preferences>()(
  persist(
    (set) => ({
      who: null,
      device: `phone-${crypto.randomUUID().slice(0, 8)}`,
      look: 'system',
      serviceLevel: 0.9,
      nowFor: 'all',
      silent: false,
      clockOffsetMs: 0,
      recordedOffsetMs: 0,
      pickNowFor: (nowFor) => {
        set({ nowFor });
      },
      pickSilent: (silent) => {
        set({ silent });
      },
      pickLevel: (serviceLevel) => {
        set({ serviceLevel });
      },
      pickWho: (who) => {
        set({ who });
      },
      pickLook: (look) => {
        set({ look });
      },
    }),
    { name: 'broth-board', storage: createJSONStorage(() => localStorage) },
  ),
);
