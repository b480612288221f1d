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
