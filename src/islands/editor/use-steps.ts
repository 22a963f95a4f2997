/** Undo and redo of a listing's content, in React. */
import { useCallback, useEffect, useState } from 'react';
import type { ListingContent } from '@/core/listing/content';
import { firstStep, record, redo, type Steps, seal, undo } from './steps';

interface Undoing {
  /** null = there is nothing to undo */
  undo: (() => void) | null;
  redo: (() => void) | null;
}

export function useSteps(content: ListingContent, setContent: (content: ListingContent) => void): Undoing {
  const [steps, setSteps] = useState(() => firstStep(content));
  // Whatever changed the content is a step, unless it was a step back or forth.
  useEffect(() => setSteps((s) => record(s, content, Date.now())), [content]);
  useEffect(() => {
    const apart = (): void => setSteps(seal);
    const onKey = (event: KeyboardEvent): void => {
      if (!(event.target instanceof HTMLElement && event.target.closest('input, textarea, [contenteditable=true]'))) apart();
    };
    addEventListener('pointerdown', apart);
    addEventListener('focusin', apart);
    addEventListener('keydown', onKey);
    return () => {
      removeEventListener('pointerdown', apart);
      removeEventListener('focusin', apart);
      removeEventListener('keydown', onKey);
    };
  }, []);
  const step = useCallback(
    (move: (s: Steps) => Steps) => {
      const next = move(steps);
      if (next === steps) return;
      setSteps(next);
      setContent(next.present);
    },
    [steps, setContent],
  );
  const takeBack = useCallback(() => step(undo), [step]);
  const again = useCallback(() => step(redo), [step]);

  return { undo: steps.past.length ? takeBack : null, redo: steps.future.length ? again : null };
}
