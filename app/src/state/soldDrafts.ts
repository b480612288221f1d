import { create } from 'zustand';
import { createJSONStorage, persist } from 'zustand/middleware';
import { followOtherTabs } from './tabs';

/** As typed: portions, and when it ran out. */
interface SoldDraft {
  readonly sold: string;
  readonly gone: string;
}

interface SoldDrafts {
  /** By day, soup and service. */
  readonly byKey: Readonly<Record<string, SoldDraft>>;
  readonly write: (key: string, draft: SoldDraft) => void;
  readonly clear: (key: string) => void;
}

/** Sales that were typed and not saved: another day, another page or a phone that is put away takes nothing of them. */
export const useSoldDrafts = create<SoldDrafts>()(
  persist(
    (set, get) => ({
      byKey: {},
      write: (key, draft) => {
        set({ byKey: { ...get().byKey, [key]: draft } });
      },
      clear: (key) => {
        const { [key]: _, ...byKey } = get().byKey;
        set({ byKey });
      },
    }),
    { name: 'broth-board-sold', storage: createJSONStorage(() => localStorage), partialize: ({ byKey }) => ({ byKey }) },
  ),
);
followOtherTabs(useSoldDrafts);
