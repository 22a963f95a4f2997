/** Which sections of a new form somebody has been in: what nobody has touched is not scolded. */
import { useEffect, useState } from 'react';

export interface Visits {
  /** notes of untouched sections are kept back */
  calm: boolean;
  seen: (section: string) => boolean;
}

/** `fresh`: nothing of it was saved yet, nor tried to be published. */
export function useVisits(fresh: boolean): Visits {
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  useEffect(() => {
    const onLeave = ({ target, relatedTarget }: FocusEvent): void => {
      const section = target instanceof Element ? target.closest('section.part') : null;
      // Going on inside of the same section is not leaving it.
      if (!section || (relatedTarget instanceof Node && section.contains(relatedTarget))) return;
      setLeft((before) => (before.has(section.id) ? before : new Set([...before, section.id])));
    };
    addEventListener('focusout', onLeave);
    return () => removeEventListener('focusout', onLeave);
  }, []);
  return { calm: fresh, seen: (section) => !fresh || left.has(section) };
}
