import { useCallback, useInsertionEffect, useRef } from 'react';

/** One and the same function for as long as a part is on the page, which does what was said last: parts that are given it need not be drawn anew. Not to be called while drawing. */
export function useLatest<Args extends readonly unknown[]>(act: (...args: Args) => void): (...args: Args) => void {
  const latest = useRef(act);
  useInsertionEffect(() => {
    latest.current = act;
  });
  return useCallback((...args: Args) => {
    latest.current(...args);
  }, []);
}
