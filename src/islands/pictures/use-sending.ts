/** Pictures on their way: two at a time, each with how far it is, what came of it, and another try. */
import { useCallback, useRef, useState } from 'react';
import { sayFailure } from '@/client/api';
import { sendFile } from '@/client/upload';
import type { PictureChoice } from '@/core/listing/editor';
import { picturesWords } from '@/words/desk';

const w = picturesWords.useSending;

export interface Sending {
  key: number;
  name: string;
  state: 'waiting' | 'sending' | 'made' | 'done' | 'refused';
  /** of the file that has gone out, 0 to 1 */
  part: number;
  /** why it was refused, or that it was there already */
  said: string;
}

export type Sent = PictureChoice & { known: boolean };

const AT_ONCE = 2;
const TYPES = /^image\/(png|jpeg|gif|webp|avif)$/;

export interface UseSending {
  sending: Sending[];
  take: (files: Iterable<File>) => void;
  again: (key: number) => void;
  forget: () => void;
}

export function useSending(onSent: (picture: Sent) => void): UseSending {
  const [sending, setSending] = useState<Sending[]>([]);
  const queue = useRef<{ key: number; file: File }[]>([]);
  const files = useRef(new Map<number, File>());
  const running = useRef(0);
  const next = useRef(1);
  const sent = useRef(onSent);
  sent.current = onSent;
  const say = useCallback((key: number, part: Partial<Sending>): void => {
    setSending((all) => all.map((s) => (s.key === key ? { ...s, ...part } : s)));
  }, []);

  const work = useCallback(async (): Promise<void> => {
    if (running.current >= AT_ONCE) return;
    running.current++;
    for (let one = queue.current.shift(); one; one = queue.current.shift()) {
      const { key, file } = one;
      say(key, { state: 'sending', part: 0 });
      const outcome = await sendFile<Sent>('/api/v1/pictures', file, (part) => say(key, part < 1 ? { part } : { part, state: 'made' }));
      if (outcome.kind === 'done') {
        files.current.delete(key);
        say(key, { state: 'done', part: 1, said: outcome.value.known ? w.wasInTheLibrary() : '' });
        sent.current(outcome.value);
      } else say(key, { state: 'refused', said: sayFailure(outcome) });
    }
    running.current--;
  }, [say]);

  const begin = (key: number, file: File): void => {
    queue.current.push({ key, file });
    void work();
  };
  return {
    sending,
    take: (list) => {
      for (const file of list) {
        const key = next.current++;
        files.current.set(key, file);
        setSending((all) => [...all, { key, name: file.name, state: 'waiting', part: 0, said: '' }]);
        begin(key, file);
      }
    },
    again: (key) => {
      const file = files.current.get(key);
      if (!file) return;
      say(key, { state: 'waiting', part: 0, said: '' });
      begin(key, file);
    },
    forget: () => setSending((all) => all.filter((s) => s.state !== 'done' && s.state !== 'refused')),
  };
}

/** Files that are dropped or pasted, as far as they may be pictures; the server decides by their bytes. */
export function filesOf(data: DataTransfer | null): File[] {
  return [...(data?.files ?? [])].filter((file) => TYPES.test(file.type) || file.type === '');
}
