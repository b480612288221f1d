import { useEffect, useState } from 'react';
import { useKitchen } from './kitchen';

/** The kitchen's now, by the server's clock, renewed every `everyMs`. */
export function useNow(everyMs = 1000): number {
  const offset = useKitchen((state) => state.clockOffsetMs);
  const [now, setNow] = useState(() => Date.now() + offset);
  useEffect(() => {
    setNow(Date.now() + offset);
    const timer = setInterval(() => {
      setNow(Date.now() + offset);
    }, everyMs);
    return () => {
      clearInterval(timer);
    };
  }, [everyMs, offset]);
  return now;
}
