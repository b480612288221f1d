import { useEffect } from 'react';

/** Keeps the screen on while a batch is cooked by its sheet; asks again when the page is shown again. A browser that cannot is left alone. */
export function useAwake(active: boolean): void {
  useEffect(() => {
    if (!active || !('wakeLock' in navigator)) return;
    let lock: WakeLockSentinel | null = null;
    let gone = false;
    const ask = (): void => {
      if (document.visibilityState !== 'visible') return;
      navigator.wakeLock
        .request('screen')
        .then((given) => {
          if (gone) void given.release();
          else lock = given;
        })
        .catch(() => undefined);
    };
    ask();
    document.addEventListener('visibilitychange', ask);
    return () => {
      gone = true;
      document.removeEventListener('visibilitychange', ask);
      void lock?.release();
    };
  }, [active]);
}
