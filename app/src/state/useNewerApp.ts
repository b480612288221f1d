import { useEffect, useState } from 'react';

/**
 * The worker that keeps the app on the phone, so that it opens without a network (a browser allows it over https and on localhost). A newer app waits until
 * somebody takes it: nothing changes under wet hands. Answers how to take it, or null. Mounted once, at the root.
 */
export function useNewerApp(): (() => void) | null {
  const [take, setTake] = useState<(() => void) | null>(null);
  useEffect(() => {
    if (process.env.NODE_ENV !== 'production' || !('serviceWorker' in navigator)) return;
    // After the first picture: what is kept for later does not hold up what is wanted now.
    void import('workbox-window').then(({ Workbox }) => {
      const worker = new Workbox('/sw.js');
      worker.addEventListener('waiting', () => {
        setTake(() => () => {
          worker.addEventListener('controlling', () => {
            window.location.reload();
          });
          worker.messageSkipWaiting();
        });
      });
      // Where it cannot be had the app goes on without.
      worker.register().catch(() => undefined);
    });
  }, []);
  return take;
}
