/** What comes from elsewhere waits while a pointer is pressed: nothing moves between the press and its end, so the press counts. */
import { useCallback, useEffect, useState } from 'react';

interface Held<T> {
  shown: T;
  /** for the pointer going down on what must stay where it is */
  press: () => void;
}

/** @returns `latest`, or what it was when the pointer went down for as long as it is down */
export function useHeld<T>(latest: T): Held<T> {
  const [kept, setKept] = useState<{ value: T }>();
  useEffect(() => {
    if (!kept) return;
    // The click follows the pointer's end: it is let through first.
    const release = (): void => {
      setTimeout(() => setKept(undefined));
    };
    const ends = ['pointerup', 'pointercancel'] as const;
    for (const end of ends) window.addEventListener(end, release);
    return () => {
      for (const end of ends) window.removeEventListener(end, release);
    };
  }, [kept]);
  const press = useCallback(() => setKept({ value: latest }), [latest]);
  return { shown: kept ? kept.value : latest, press };
}
