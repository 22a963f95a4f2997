/** Making a tag from inside a dialog: until it is made, the dialog must not take what is chosen. */
import { useState } from 'react';
import { makeTag, sayFailure } from '@/client/api';
import type { Named } from './chosen';

export interface TagMaker {
  make: (name: string) => Promise<void>;
  /** one is being made */
  busy: boolean;
  /** why the last one could not be made; else empty */
  wrong: string;
}

/** @param onMade gets the tag once it is there */
export function useMakeTag(onMade: (tag: Named) => void): TagMaker {
  const [waiting, setWaiting] = useState(0);
  const [wrong, setWrong] = useState('');
  const make = async (name: string): Promise<void> => {
    setWaiting((n) => n + 1);
    const outcome = await makeTag(name);
    setWaiting((n) => n - 1);
    setWrong(sayFailure(outcome));
    if (outcome.kind === 'done') onMade(outcome.value);
  };
  return { make, busy: waiting > 0, wrong };
}
