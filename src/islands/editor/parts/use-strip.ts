/** What a listing's strip of months does: which day is active, what is moved or drawn, and what was done, in words. */
import { type KeyboardEvent, type PointerEvent, type RefObject, useEffect, useMemo, useRef, useState } from 'react';
import { type EpochDay, firstDayOfMonth, isoDay, type MonthNumber, monthNumberOf, weekdayOf } from '@/core/day/day';
import type { Rail, RailDate } from '@/core/dates/rail';
import { addBreak, addDate, moveDate, toggleDate } from '@/core/dates/single-dates';
import type { ListingContent } from '@/core/listing/content';
import { sayDay, sayDays, type Style, weekdayName } from '@/core/phrase/format';
import { editorWords } from '@/words/desk';

const w = editorWords.strip;

export interface StripProps {
  content: ListingContent;
  setContent: (change: (before: ListingContent) => ListingContent) => void;
  rail: Rail;
  clashing: ReadonlySet<string>;
  today: EpochDay;
  firstWeekday: number;
  style: Style;
  onOpen: (key: string) => void;
}

/** What is under way: a date that is being moved, or a break that is being drawn, from a day on. */
export interface Gesture {
  kind: 'move' | 'break';
  from: EpochDay;
  key: string;
  byPointer: boolean;
}

/** So many months are shown at once. */
export const SHOWN = 6;

export function useStrip({ content, setContent, rail, today, style, onOpen }: StripProps) {
  const firstDay = rail.months[0]?.dates[0]?.wall.day ?? today;
  const [month, setMonth] = useState<MonthNumber>(() => Math.max(monthNumberOf(today), monthNumberOf(firstDay)));
  const [active, setActive] = useState<EpochDay>(() => Math.max(today, firstDay));
  const grid = useRef<HTMLDivElement>(null);
  const breaks = useMemo(() => (content.recurrence?.breaks ?? []).map((b) => [b.from, b.to] as const), [content.recurrence]);
  const datesOn = (day: EpochDay): RailDate[] => rail.byDay.get(day) ?? [];
  const live = (day: EpochDay): RailDate | undefined => datesOn(day).find((d) => !d.out) ?? datesOn(day)[0];
  const inBreak = (day: EpochDay): boolean => {
    const text = isoDay(day);
    return breaks.some(([from, to]) => text >= from && text <= to);
  };
  // A listing whose dates moved elsewhere takes the strip along.
  useEffect(() => {
    if (rail.total && firstDay >= firstDayOfMonth(month + SHOWN)) setMonth(monthNumberOf(firstDay));
  }, [rail.total, firstDay, month]);

  const go = (day: EpochDay): void => {
    setActive(day);
    const at = monthNumberOf(day);
    if (at < month) setMonth(at);
    else if (at >= month + SHOWN) setMonth(at - SHOWN + 1);
  };
  const doing = useDateCommands({ setContent, datesOn, style });
  const { gesture, said, toggle, add } = doing;
  const onKey = (event: KeyboardEvent): void => onStripKey(event, { active, date: live(active), go, onOpen, ...doing });
  return {
    grid,
    month,
    setMonth,
    active,
    gesture,
    said,
    /** the date that a press on the active day means */
    date: live(active),
    datesOn,
    inBreak,
    toggle,
    add,
    keys: { onKeyDown: onKey },
    pointer: pointerOf({ grid, active, setActive, datesOn, go, ...doing }),
  };
}

interface DateCommands {
  setContent: StripProps['setContent'];
  datesOn: (day: EpochDay) => RailDate[];
  style: Style;
}

/** What can be done with the strip's days, and what is said of it. */
function useDateCommands({ setContent, datesOn, style }: DateCommands) {
  const [gesture, setGesture] = useState<Gesture | null>(null);
  const [said, setSaid] = useState('');
  const say = (day: EpochDay): string => sayDay(day, style, { weekday: 'long', year: true });
  const finish = (to: EpochDay): void => {
    if (!gesture) return;
    setGesture(null);
    if (gesture.kind === 'move') {
      if (to === gesture.from) return;
      setContent((c) => moveDate(c, gesture.key, to));
      const other = weekdayOf(to) !== weekdayOf(gesture.from);
      setSaid(
        w.movedTo({
          day: say(to),
          other: other ? w.aWasA({ weekday: weekdayName(weekdayOf(to), style), before: weekdayName(weekdayOf(gesture.from), style) }) : '',
        }),
      );
    } else {
      setContent((c) => addBreak(c, gesture.from, to));
      setSaid(w.aBreak({ days: sayDays(Math.min(gesture.from, to), Math.max(gesture.from, to), style, { year: true }) }));
    }
  };
  const begin = (kind: Gesture['kind'], day: EpochDay, byPointer: boolean): void => {
    const date = datesOn(day).find((d) => !d.out);
    if (kind === 'move' && !date) return;
    setGesture({ kind, from: day, key: date?.key ?? '', byPointer });
    if (!byPointer) setSaid(kind === 'move' ? w.isPickedUpArrows({ day: say(day) }) : w.aBreakFromArrows({ day: say(day) }));
  };
  const toggle = (date: RailDate): void => {
    setContent((c) => (c.recurrence ? { ...c, recurrence: toggleDate(c.recurrence, date.key) } : c));
    setSaid(date.out ? w.isBack({ day: say(date.wall.day) }) : w.isLeftOut({ day: say(date.wall.day) }));
  };
  const add = (day: EpochDay): void => {
    setContent((c) => addDate(c, day));
    setSaid(w.anExtraDateOn({ day: say(day) }));
  };
  return { gesture, setGesture, said, setSaid, finish, begin, toggle, add };
}

type Doing = ReturnType<typeof useDateCommands>;

interface KeyMeans extends Doing {
  active: EpochDay;
  date: RailDate | undefined;
  go: (day: EpochDay) => void;
  onOpen: (key: string) => void;
}

/** A key on the strip: arrows walk, Enter opens or adds, Delete leaves a date out, M moves one and B draws a break. */
function onStripKey(
  event: KeyboardEvent,
  { active, date, go, onOpen, gesture, setGesture, setSaid, finish, begin, toggle, add }: KeyMeans,
): void {
  const steps: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -7, ArrowDown: 7, PageUp: -28, PageDown: 28 };
  const step = steps[event.key];
  if (step !== undefined) go(active + step);
  else if (event.key === 'Escape' && gesture) {
    setGesture(null);
    setSaid(w.leftAsItWas());
  } else if (event.key === 'Enter' && gesture) finish(active);
  else if (event.key === 'Enter') {
    if (date) onOpen(date.key);
    else add(active);
  } else if ((event.key === 'Delete' || event.key === 'Backspace') && date) toggle(date);
  else if (event.key.toLowerCase() === 'm' && !event.ctrlKey && !event.metaKey) begin('move', active, false);
  else if (event.key.toLowerCase() === 'b' && !event.ctrlKey && !event.metaKey) {
    if (gesture?.kind === 'break') finish(active);
    else begin('break', active, false);
  } else return;
  event.preventDefault();
}

interface PointerMeans extends Doing {
  grid: RefObject<HTMLDivElement | null>;
  active: EpochDay;
  setActive: (day: EpochDay) => void;
  datesOn: (day: EpochDay) => RailDate[];
  go: (day: EpochDay) => void;
}

/** The pointer on the strip: a date is carried to another day, an empty day begins a break. */
function pointerOf({ grid, active, setActive, datesOn, go, gesture, setGesture, begin, finish }: PointerMeans) {
  const dayUnder = (event: PointerEvent): EpochDay | undefined => {
    const cell = document.elementFromPoint(event.clientX, event.clientY)?.closest<HTMLElement>('[data-day]');
    return cell && grid.current?.contains(cell) ? Number(cell.dataset.day) : undefined;
  };
  const onDown = (event: PointerEvent): void => {
    const day = dayUnder(event);
    if (day === undefined || event.button !== 0) return;
    grid.current?.focus({ preventScroll: true });
    go(day);
    begin(datesOn(day).some((d) => !d.out) ? 'move' : 'break', day, true);
  };
  const onMove = (event: PointerEvent): void => {
    const day = gesture?.byPointer ? dayUnder(event) : undefined;
    if (day !== undefined && day !== active) setActive(day);
  };
  const onUp = (event: PointerEvent): void => {
    if (!gesture?.byPointer) return;
    const day = dayUnder(event);
    if (day !== undefined && day !== gesture.from) finish(day);
    else setGesture(null);
  };

  const leave = (): void => {
    if (gesture?.byPointer) setGesture(null);
  };
  return { onPointerDown: onDown, onPointerMove: onMove, onPointerUp: onUp, onPointerLeave: leave, onPointerCancel: leave };
}

export type StripState = ReturnType<typeof useStrip>;
