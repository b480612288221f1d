import { useEffect, useRef, useState } from 'react';
import type { UseFormReturn } from 'react-hook-form';
import type { SoupForm } from './form';

const SETTLE_MS = 400;
const DEPTH = 100;

/** Every change of the form, settled, can be taken back and done again. */
export function useUndo(form: UseFormReturn<SoupForm>, onSettled: (values: SoupForm) => void) {
  const past = useRef<string[]>([JSON.stringify(form.getValues())]);
  const future = useRef<string[]>([]);
  const quiet = useRef(false);
  const [counts, setCounts] = useState({ undo: 0, redo: 0 });
  const settled = useRef(onSettled);
  settled.current = onSettled;
  const show = (): void => {
    setCounts({ undo: past.current.length - 1, redo: future.current.length });
  };
  /** Takes the form as it is now for a point to come back to. */
  const settle = (): void => {
    const now = JSON.stringify(form.getValues());
    if (now === past.current.at(-1)) return;
    past.current = [...past.current.slice(-DEPTH), now];
    future.current = [];
    show();
    settled.current(form.getValues());
  };
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | null = null;
    const subscription = form.watch(() => {
      if (quiet.current) return;
      if (timer !== null) clearTimeout(timer);
      timer = setTimeout(() => {
        settle();
      }, SETTLE_MS);
    });
    return () => {
      if (timer !== null) clearTimeout(timer);
      subscription.unsubscribe();
    };
  }, [form]);
  const put = (text: string): void => {
    quiet.current = true;
    form.reset(JSON.parse(text) as SoupForm, { keepDefaultValues: true });
    quiet.current = false;
    show();
    settled.current(form.getValues());
  };
  return {
    canUndo: counts.undo > 0,
    canRedo: counts.redo > 0,
    undo: () => {
      // What was typed a moment ago is taken back as well.
      settle();
      const before = past.current.at(-2);
      const now = past.current.at(-1);
      if (before === undefined || now === undefined) return;
      future.current = [now, ...future.current];
      past.current = past.current.slice(0, -1);
      put(before);
    },
    redo: () => {
      const [next, ...rest] = future.current;
      if (next === undefined) return;
      future.current = rest;
      past.current = [...past.current, next];
      put(next);
    },
  };
}
