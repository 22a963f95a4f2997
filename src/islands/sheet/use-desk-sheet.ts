/** What happens on the Desk's sheet: the active day, what is chosen, carried or drawn, and the keys and the pointer that do it. */
import { openPage } from '@/client/site-root';
import { type KeyboardEvent, useEffect, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import { type EpochDay, firstDayOfMonth } from '@/core/day/day';
import type { DeskDate, DeskSheetStart } from '@/core/sheet/desk-sheet';
import { onSheetKey } from './keys';
import { newContent, type NewInput } from './NewListing';
import { type Hold, keyOf, monthFor } from './state';
import type { Commands } from './use-commands';
import { usePointer } from './use-pointer';
import type { SheetData } from './use-sheet-data';
import { useSheetWrites } from './use-sheet-writes';
import { sheetWords } from '@/words/desk';

const w = sheetWords.deskSheet;

export function useDeskSheet(start: DeskSheetStart, data: SheetData, commands: Commands) {
  const { today, firstWeekday, zone } = start.site;
  const { span, on, byKey, dates } = data;
  const { show } = dates;
  const { view, month } = dates.shown;
  const [active, setActive] = useState<EpochDay>(() => (today >= span.from && today <= span.to ? today : firstDayOfMonth(month)));
  const grid = useRef<HTMLDivElement>(null);
  const here = on.get(active) ?? [];

  const toGrid = (): void => grid.current?.focus({ preventScroll: true });
  const writes = useSheetWrites(start, data, commands);
  const { lengthen, leaveOut } = writes;
  const holding = useHold({ writes, setActive, toGrid, onDrawn: () => titleField.current?.focus() });
  const { hold, setHold, chosen, setChosen, begin, finish, pick } = holding;
  const { titleField, title, setTitle, madeOnes, type, make, leaveNew } = useNewListing({ zone, commands, setHold, toGrid });

  const pointer = usePointer({
    grid,
    dateOf: (key) => byKey.get(key),
    onDay: setActive,
    onBegin: (kind, day, date) => begin(kind, day, date, true),
    onFinish: finish,
    onTap: (day, date) => {
      if (hold && !hold.byPointer && hold.kind !== 'span') return finish(hold, day, false);
      setHold(null);
      setActive(day);
      setChosen(date ? keyOf(date) : null);
      toGrid();
    },
    onOpen: (date) => open(date),
    onLetGo: () => setHold(null),
  });

  const open = (date: DeskDate): void => openPage(`/desk/listings/${date.listingId}`);
  const onKey = (event: KeyboardEvent): void =>
    onSheetKey(event, {
      ...{ view, firstWeekday, active, here, hold, setHold, setActive },
      onBegin: (kind, from, date) => begin(kind, from, date, false),
      onFinish: finish,
      onPick: (date) => pick('move', date),
      onOpen: open,
      onList: focusList,
      onType: type,
      onLeaveOut: leaveOut,
      onLetGo: () => {
        if (hold?.date) commands.say(w.leftWhereItWas(), 'good');
        setHold(null);
      },
      undo: () => void commands.undo?.(),
      redo: () => void commands.redo?.(),
    });

  const drawn = drawnDays(hold, active);
  const newDays = hold?.kind === 'span' && drawn ? drawn : { from: active, to: active };
  // Whoever walks, or carries a date, over the sheet's edge takes the sheet along.
  useEffect(() => {
    if (active < span.from || active > span.to) show({ month: monthFor(view, month, active) });
  }, [active, span, view, month, show]);

  return {
    ...{ grid, active, setActive, hold, chosen, setChosen, here, drawn, newDays, pointer, onKey, pick, lengthen, leaveOut },
    ...{ titleField, title, setTitle, madeOnes, make, leaveNew },
  };
}

/** The day's list has the focus: its first name, or what can be done with it. */
const focusList = (what: 'name' | 'acts'): void =>
  document.querySelector<HTMLElement>(what === 'name' ? '.ds-panel [data-open]' : '.ds-panel .acts button')?.focus();

interface Holding {
  writes: ReturnType<typeof useSheetWrites>;
  setActive: (day: EpochDay) => void;
  toGrid: () => void;
  /** a span for a new listing stands */
  onDrawn: () => void;
}

/** What is carried, lengthened or drawn, from the day on which it began. */
function useHold({ writes: { move, copy, lengthen }, setActive, toGrid, onDrawn }: Holding) {
  const [hold, setHold] = useState<Hold | null>(null);
  const [chosen, setChosen] = useState<string | null>(null);
  /** Ends what is under way, on a day. */
  const finish = (held: Hold, day: EpochDay, asCopy: boolean): void => {
    const { date } = held;
    const by = day - held.from;
    if (held.kind === 'span') {
      setActive(day);
      requestAnimationFrame(onDrawn);
      return;
    }
    setHold(null);
    if (!date || (by === 0 && held.kind !== 'copy')) return;
    setActive(held.kind === 'end' ? date.lastDay + by : date.startDay + by);
    if (held.kind === 'move' && !asCopy) void move(date, by);
    else if (held.kind === 'move' || held.kind === 'copy') void copy(date, date.startDay + by);
    else void lengthen(date, held.kind, by);
  };
  const begin = (kind: Hold['kind'], from: EpochDay, date: DeskDate | undefined, byPointer: boolean): void => {
    setHold({ kind, from, date, byPointer });
    if (date) setChosen(keyOf(date));
    if (!byPointer) toGrid();
  };
  const pick = (kind: 'move' | 'copy', date: DeskDate): void => {
    setActive(date.startDay);
    begin(kind, date.startDay, date, false);
  };
  return { hold, setHold, chosen, setChosen, begin, finish, pick };
}

interface Making {
  zone: string;
  commands: Commands;
  setHold: (hold: Hold | null) => void;
  toGrid: () => void;
}

/** The title that is typed for a new listing, and making it. */
function useNewListing({ zone, commands, setHold, toGrid }: Making) {
  const [title, setTitle] = useState('');
  const [madeOnes, setMadeOnes] = useState(0);
  const titleField = useRef<HTMLInputElement>(null);
  const type = (letters: string): void => {
    // At once, so that the next letter of somebody who types fast lands behind this one.
    flushSync(() => setTitle(letters));
    titleField.current?.focus();
    titleField.current?.setSelectionRange(letters.length, letters.length);
  };
  const make = async (input: NewInput, andOpen: boolean): Promise<void> => {
    const made = await commands.make(newContent(input, zone), w.isADraft({ title: input.title.trim() }));
    if (!made) return;
    setTitle('');
    setMadeOnes((n) => n + 1);
    setHold(null);
    if (andOpen) openPage(`/desk/listings/${made}`);
    else toGrid();
  };
  const leaveNew = (): void => {
    setTitle('');
    setHold(null);
    toGrid();
  };
  return { titleField, title, setTitle, madeOnes, type, make, leaveNew };
}

/** The days that a hold covers while it is on a day. */
function drawnDays(hold: Hold | null, active: EpochDay): { from: EpochDay; to: EpochDay } | null {
  if (!hold) return null;
  const { date } = hold;
  const by = active - hold.from;
  if (!date) return { from: Math.min(hold.from, active), to: Math.max(hold.from, active) };
  if (hold.kind === 'start') return { from: Math.min(date.startDay + by, date.lastDay), to: date.lastDay };
  if (hold.kind === 'end') return { from: date.startDay, to: Math.max(date.lastDay + by, date.startDay) };
  return { from: date.startDay + by, to: date.lastDay + by };
}
