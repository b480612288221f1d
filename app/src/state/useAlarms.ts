import { words } from '@broth/contract';
import { upNow } from '@broth/core';
import { useEffect, useRef } from 'react';
import { usePreferences } from './preferences';
import { useHands } from './useHands';
import { useNow } from './useNow';

/** What was up this long before it was first seen here is shown, but does not sound. Milliseconds. */
const STALE_MS = 60_000;

let audio: AudioContext | null = null;
let touched = false;

/** A browser lets a page sound only after a tap: the first one opens it. */
function openOnTap(): () => void {
  const open = (): void => {
    touched = true;
    if ('AudioContext' in window) {
      audio ??= new AudioContext();
      void audio.resume();
    }
  };
  window.addEventListener('pointerdown', open);
  return () => {
    window.removeEventListener('pointerdown', open);
  };
}

/** Two short notes, the second higher; a limit has three. Made here, so that there is no file to fetch. */
function sound(urgent: boolean): void {
  if (audio?.state !== 'running') return;
  const begin = audio.currentTime;
  for (const [index, hz] of (urgent ? [660, 880, 660] : [660, 880]).entries()) {
    const from = begin + index * 0.25;
    const tone = new OscillatorNode(audio, { frequency: hz });
    const level = new GainNode(audio, { gain: 0 });
    level.gain.setValueAtTime(0, from);
    level.gain.linearRampToValueAtTime(0.4, from + 0.02);
    level.gain.linearRampToValueAtTime(0, from + 0.2);
    tone.connect(level).connect(audio.destination);
    tone.start(from);
    tone.stop(from + 0.22);
  }
}

async function notify(text: string, key: string): Promise<void> {
  if (!('Notification' in window) || Notification.permission !== 'granted' || document.visibilityState === 'visible') return;
  // A phone shows it only through the worker that outlives the page.
  const worker = 'serviceWorker' in navigator ? await navigator.serviceWorker.getRegistration() : undefined;
  if (worker === undefined) new Notification('Broth Board', { body: text, tag: key });
  else await worker.showNotification('Broth Board', { body: text, tag: key });
}

/** Sounds, shakes and tells in the background, once for each alarm. Mounted once, at the root. */
export function useAlarms(): void {
  const now = useNow(1000);
  const open = useHands(now);
  const known = useRef(new Set<string>());
  const silent = usePreferences((state) => state.silent);
  useEffect(openOnTap, []);
  useEffect(() => {
    if (open === null) return;
    const fresh = upNow(open.hands.alarms, now).filter((one) => !known.current.has(one.key));
    for (const one of fresh) known.current.add(one.key);
    const loud = fresh.filter((one) => now - one.at < STALE_MS);
    const [first] = loud;
    if (first === undefined) return;
    if (!silent) {
      sound(loud.some((one) => one.kind === 'limit'));
      // A browser lets a page shake, too, only after a tap.
      if ('vibrate' in navigator && touched) navigator.vibrate(loud.some((one) => one.kind === 'limit') ? [200, 100, 200, 100, 200] : [200, 100, 200]);
    }
    const { day } = open;
    const timer = day.state.timers.find((one) => one.eventId === first.timerId);
    const task = open.hands.tasks.find((one) => one.batchId === first.batchId);
    void notify(timer === undefined ? words.alarm(first, day.names, task?.step ?? null) : `${timer.name}: the timer is up.`, first.key);
  }, [open, now, silent]);
}
