/** The sheet by keyboard: arrows walk, letters begin a listing, Space picks a date up, Enter opens or puts down. */
import type { KeyboardEvent } from 'react';
import type { EpochDay } from '@/core/day/day';
import type { DeskDate, SheetView } from '@/core/sheet/desk-sheet';
import { type Hold, walk } from './state';

interface KeysInput {
  view: SheetView;
  firstWeekday: number;
  active: EpochDay;
  /** the dates of the active day */
  here: readonly DeskDate[];
  hold: Hold | null;
  setHold: (hold: Hold | null) => void;
  setActive: (day: EpochDay) => void;
  onBegin: (kind: Hold['kind'], from: EpochDay, date: DeskDate | undefined) => void;
  onFinish: (hold: Hold, day: EpochDay, asCopy: boolean) => void;
  onPick: (date: DeskDate) => void;
  onOpen: (date: DeskDate) => void;
  /** to the list of the day, at a date's name or at what can be done to it */
  onList: (what: 'name' | 'acts') => void;
  /** to the title of a new listing, with these letters in it */
  onType: (letters: string) => void;
  onLeaveOut: (date: DeskDate) => void;
  onLetGo: () => void;
  undo: (() => void) | undefined;
  redo: (() => void) | undefined;
}

export function onSheetKey(event: KeyboardEvent, input: KeysInput): void {
  const command = event.ctrlKey || event.metaKey;
  const handled = command && event.key !== 'Enter' ? onCommand(event, input) : onPlain(event, input);
  if (handled) event.preventDefault();
}

function onCommand({ key, shiftKey }: KeyboardEvent, { undo, redo }: KeysInput): boolean {
  const letter = key.toLowerCase();
  if (letter === 'z') (shiftKey ? redo : undo)?.();
  else if (letter === 'y') redo?.();
  return letter === 'z' || letter === 'y';
}

function onPlain(event: KeyboardEvent, input: KeysInput): boolean {
  const { key } = event;
  if (key === 'Enter') onEnter(event.ctrlKey || event.metaKey || event.altKey, input);
  else if (event.altKey) return false;
  else if (onArrow(key, event.shiftKey, input)) return true;
  else if (key === 'Escape') input.onLetGo();
  else if (key === ' ') onSpace(input);
  else if (key === 'Delete') onDelete(input);
  else if (key.length === 1 && !input.hold?.date) input.onType(key);
  else return false;
  return true;
}

function onEnter(asCopy: boolean, { hold, here, active, onFinish, onType, onOpen, onList }: KeysInput): void {
  const [only, second] = here;
  if (hold) onFinish(hold, active, asCopy);
  else if (!only) onType('');
  else if (!second) onOpen(only);
  else onList('name');
}

function onSpace({ hold, here, active, onFinish, onPick, onList }: KeysInput): void {
  const [only, second] = here;
  if (hold) onFinish(hold, active, false);
  else if (only && !second) onPick(only);
  else if (only) onList('acts');
}

function onDelete({ here, onLeaveOut, onList }: KeysInput): void {
  const [only, second] = here;
  if (only && !second && only.repeats) onLeaveOut(only);
  else if (only) onList('name');
}

function onArrow(key: string, extend: boolean, input: KeysInput): boolean {
  const { view, active, firstWeekday, hold, setHold, setActive, onBegin } = input;
  const day = walk(view, active, key, firstWeekday);
  if (day === undefined) return false;
  if (extend && hold?.date && hold.kind !== 'end') {
    // A carried date is drawn out at its end instead.
    setHold({ ...hold, kind: 'end', from: hold.date.lastDay });
    setActive(hold.date.lastDay + (day - active));
    return true;
  }
  if (extend && !hold) onBegin('span', active, undefined);
  else if (!extend && hold?.kind === 'span') setHold(null);
  setActive(day);
  return true;
}
