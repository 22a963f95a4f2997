// biome-ignore-all lint/a11y/useSemanticElements: six months are one grid with one tab stop, which no table can be
// biome-ignore-all lint/a11y/useFocusableInteractive: the grid has the focus and names its active cell
/**
 * Six small months on which the listing's dates are marks. Dates are dragged to another day, a span of days without dates is
 * drawn as a break; the keyboard does the same on one grid with a single tab stop.
 */
import { type KeyboardEvent, type PointerEvent, useEffect, useId, useMemo, useRef, useState } from 'react';
import {
  type EpochDay,
  daysInMonth,
  firstDayOfMonth,
  isoDay,
  type MonthNumber,
  monthNumberOf,
  weekdayOf,
  weekStart,
  yearMonthOf,
} from '@/core/day/day';
import type { ListingContent } from '@/core/listing/content';
import { MONTHS, sayDay, sayDays, sayTime, type Style, weekdayName } from '@/core/phrase/format';
import type { Rail, RailDate } from '@/core/dates/rail';
import { addBreak, addDate, moveDate, toggleDate } from '@/core/dates/single-dates';
import { editorWords } from '@/words/desk';

const w = editorWords.strip;

interface StripProps {
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
interface Gesture {
  kind: 'move' | 'break';
  from: EpochDay;
  key: string;
  byPointer: boolean;
}

const SHOWN = 6;

export function Strip({ content, setContent, rail, clashing, today, firstWeekday, style, onOpen }: StripProps) {
  const firstDay = rail.months[0]?.dates[0]?.wall.day ?? today;
  const [month, setMonth] = useState<MonthNumber>(() => Math.max(monthNumberOf(today), monthNumberOf(firstDay)));
  const [active, setActive] = useState<EpochDay>(() => Math.max(today, firstDay));
  const [gesture, setGesture] = useState<Gesture | null>(null);
  const [said, setSaid] = useState('');
  const grid = useRef<HTMLDivElement>(null);
  const id = useId();
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

  const onKey = (event: KeyboardEvent): void => {
    const steps: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -7, ArrowDown: 7, PageUp: -28, PageDown: 28 };
    const step = steps[event.key];
    const date = live(active);
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
  };

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

  const [low, high] = gesture?.kind === 'break' ? [Math.min(gesture.from, active), Math.max(gesture.from, active)] : [1, 0];
  const date = live(active);
  const cellId = (day: EpochDay): string => `${id}-${day}`;
  return (
    <div className="pt-2.5 pb-2 grid gap-1.5">
      <div className="flex items-center justify-between">
        <button type="button" className="button small icon" aria-label={w.sixMonthsBefore()} onClick={() => setMonth(month - SHOWN)}>
          ‹
        </button>
        <span className="small quiet">{spanWords(month)}</span>
        <button type="button" className="button small icon" aria-label={w.sixMonthsAfter()} onClick={() => setMonth(month + SHOWN)}>
          ›
        </button>
      </div>
      <div
        ref={grid}
        role="grid"
        tabIndex={0}
        aria-label={w.datesOnSixMonths()}
        aria-activedescendant={cellId(active)}
        className={`grid grid-cols-3 gap-y-2 gap-x-3 touch-none select-none cursor-default p-0.5 [@media(pointer:_coarse)]:touch-pan-y strip-grid ${gesture ? gesture.kind : ''}`}
        onKeyDown={onKey}
        onPointerDown={onDown}
        onPointerMove={onMove}
        onPointerUp={onUp}
        onPointerLeave={() => gesture?.byPointer && setGesture(null)}
        onPointerCancel={() => gesture?.byPointer && setGesture(null)}
      >
        {Array.from({ length: SHOWN }, (_, i) => month + i).map((m) => (
          <div role="rowgroup" key={m}>
            <div className="font-bold text-[12px] leading-[normal] font-sans normal-nums mb-px" aria-hidden="true">
              {(MONTHS[yearMonthOf(m).month - 1] as string).slice(0, 3)}{' '}
              <span className="font-normal text-ink-2">{yearMonthOf(m).year}</span>
            </div>
            {weeksOf(m, firstWeekday).map((week) => (
              <div role="row" className="grid grid-cols-[repeat(7,1fr)]" key={week[0]}>
                {week.map((day) => {
                  if (monthNumberOf(day) !== m) return <span key={day} role="gridcell" />;
                  const here = datesOn(day);
                  const mark = markOf(here, clashing);
                  const drawn = day >= low && day <= high;
                  const classes = [
                    DAY,
                    drawn ? 'border-amber' : (EDGES[mark] ?? 'border-unmarked'),
                    MARKS[mark],
                    drawn ? 'bg-amber-wash' : GROUNDS[mark],
                    inBreak(day) && BREAK,
                    day === active && 'outline-2 -outline-offset-1 outline-ink',
                    day === today && 'border-t-2 border-t-red',
                    gesture?.kind === 'move' && day === gesture.from && 'opacity-50',
                  ];
                  return (
                    <span
                      key={day}
                      id={cellId(day)}
                      role="gridcell"
                      data-day={day}
                      aria-selected={day === active}
                      aria-label={w.inABreak({ day: say(day), said: wordsOf(here, style), inBreak: inBreak(day) ? 'yes' : 'no' })}
                      className={classes.filter(Boolean).join(' ')}
                    >
                      {day - firstDayOfMonth(m) + 1}
                    </span>
                  );
                })}
              </div>
            ))}
          </div>
        ))}
      </div>
      <div className="small flex flex-wrap gap-y-1 gap-x-3 min-h-5">
        <span className="mr-auto">
          <strong>{sayDay(active, style, { weekday: 'short', month: 'short' })}</strong> {wordsOf(datesOn(active), style)}
        </span>
        {date ? (
          <>
            <button type="button" className="link" onClick={() => onOpen(date.key)}>
              {w.change()}
            </button>
            <button type="button" className="link" onClick={() => toggle(date)}>
              {date.out ? w.putBack() : w.leaveOut()}
            </button>
          </>
        ) : (
          content.recurrence && (
            <button type="button" className="link" onClick={() => add(active)}>
              {w.addADate()}
            </button>
          )
        )}
      </div>
      <p role="status" aria-live="polite" className="small text-amber">
        {said || <span className="quiet">{w.dragADateTo()}</span>}
      </p>
    </div>
  );
}

function spanWords(month: MonthNumber): string {
  const [a, b] = [yearMonthOf(month), yearMonthOf(month + SHOWN - 1)];
  const name = (m: number): string => (MONTHS[m - 1] as string).slice(0, 3);
  return `${name(a.month)}${a.year === b.year ? '' : ` ${a.year}`} – ${name(b.month)} ${b.year}`;
}

function weeksOf(month: MonthNumber, firstWeekday: number): EpochDay[][] {
  const first = firstDayOfMonth(month);
  const { year, month: m } = yearMonthOf(month);
  const last = first + daysInMonth(year, m) - 1;
  const weeks: EpochDay[][] = [];
  for (let day = weekStart(first, firstWeekday); day <= last; day += 7) weeks.push([0, 1, 2, 3, 4, 5, 6].map((i) => day + i));
  return weeks;
}

const DAY = 'h-3.75 border text-center text-[9.5px] leading-[14px]';
const BREAK = 'bg-[image:repeating-linear-gradient(135deg,var(--rule)_0_2px,transparent_2px_5px)]';
/** How a day of the strip looks by what is on it: its words, its ground, its edge. */
const MARKS: Record<string, string> = {
  '': 'text-ink-2',
  on: 'on cursor-grab font-bold text-on-tide',
  changed: 'changed cursor-grab font-bold text-sheet',
  clash: 'clash cursor-grab font-bold text-sheet',
  off: 'off text-ink-2 line-through',
  out: 'out border-dashed text-ink-2',
};
const GROUNDS: Record<string, string> = { on: 'bg-tide', changed: 'bg-amber', clash: 'bg-red', off: 'bg-sheet' };
const EDGES: Record<string, string> = { off: 'border-ink-3', out: 'border-ink-3' };

function markOf(dates: readonly RailDate[], clashing: ReadonlySet<string>): string {
  if (!dates.length) return '';
  const shown = dates.filter((d) => !d.out);
  if (!shown.length) return 'out';
  if (shown.some((d) => clashing.has(d.key))) return 'clash';
  if (shown.every((d) => d.occurrence?.eventStatus === 'cancelled')) return 'off';
  return shown.some((d) => d.occurrence?.changed) ? 'changed' : 'on';
}

function wordsOf(dates: readonly RailDate[], style: Style): string {
  if (!dates.length) return w.noDate();
  return dates
    .map((d) => {
      if (d.out) return w.leftOut();
      const at = d.occurrence?.start ?? d.wall;
      const time = at.minute === null ? w.allDay() : sayTime(at.minute, style);
      const moved = d.occurrence && d.occurrence.start.day !== d.wall.day ? w.movedHere() : '';
      return `${time}${moved}${d.occurrence?.eventStatus === 'cancelled' ? w.cancelled() : ''}`;
    })
    .join('; ');
}
