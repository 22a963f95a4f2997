/** What stays in sight of a picture while it is being set: the focal point, each use's own part, undo, and saving. */
import { useRef, useState } from 'react';
import { send, sayFailure } from '@/client/api';
import type { PictureChoice } from '@/core/listing/editor';
import { ASPECT, type Box, boxAround, boxOf, type CroppedUse, MIDDLE, type Point } from '@/core/picture/crop';
import { picturesWords } from '@/words/desk';

const texts = picturesWords.framing;

/** Changes of one kind that follow each other are one step. */
type Kind = '' | 'drag' | 'size';

const clamp = (n: number): number => Math.min(1, Math.max(0, n));
export const middleOf = (box: Box): Point => ({ x: box.x + box.w / 2, y: box.y + box.h / 2 });

export function useFraming(start: PictureChoice) {
  const [picture, setPicture] = useState(start);
  const [kept, setKept] = useState(start);
  const [use, setUse] = useState<CroppedUse>('wide');
  const [said, setSaid] = useState('');
  const [busy, setBusy] = useState(false);
  const before = useRef<PictureChoice[]>([]);
  const last = useRef<Kind>('');
  const byHand = picture.crops[use];
  /** Changes of one kind that follow each other, the way of a pointer or of the slider, are one step. */
  const change = (part: Partial<PictureChoice>, kind: Kind = ''): void => {
    if (!kind || kind !== last.current) before.current.push(picture);
    last.current = kind;
    setPicture({ ...picture, ...part });
    setSaid('');
  };
  const setBox = (box: Box | undefined, kind: Kind = ''): void => change({ crops: { ...picture.crops, [use]: box } }, kind);
  const scale = byHand ? byHand.w / boxAround(picture, ASPECT[use], MIDDLE).w : 1;
  /** Where the point goes; with a part set by hand, that part's middle. */
  const moveTo = (at: Point, kind: Kind = ''): void => {
    const point = { x: clamp(at.x), y: clamp(at.y) };
    if (byHand) setBox(boxAround(picture, ASPECT[use], point, scale), kind);
    else change({ focus: point }, kind);
  };
  const handle = byHand ? middleOf(boxOf(use, picture)) : picture.focus;
  const same = JSON.stringify([picture.focus, picture.crops]) === JSON.stringify([kept.focus, kept.crops]);
  const save = async (): Promise<void> => {
    setBusy(true);
    const outcome = await send<PictureChoice>('PUT', `/api/v1/pictures/${picture.id}`, { focus: picture.focus, crops: picture.crops });
    setBusy(false);
    if (outcome.kind === 'done') {
      setKept(outcome.value);
      setPicture(outcome.value);
      before.current = [];
      setSaid(texts.savedEveryPageThat());
    } else setSaid(sayFailure(outcome));
  };
  const undo = (): void => {
    const step = before.current.pop();
    last.current = '';
    if (step) setPicture(step);
  };
  /** A pointer takes hold: what it does from here is a step of its own. */
  const grab = (): void => {
    last.current = '';
  };
  return { picture, use, setUse, byHand, scale, handle, same, busy, said, steps: before.current.length, setBox, moveTo, grab, save, undo };
}

export type FramingState = ReturnType<typeof useFraming>;
