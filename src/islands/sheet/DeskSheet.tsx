// biome-ignore-all lint/a11y/useSemanticElements: one grid with one tab stop, which no table can be
/** A month, or half a year, of everything the Desk has: dates are read, begun, moved, copied and lengthened in place. */
import { type KeyboardEvent, useCallback, useEffect, useId, useMemo, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import { type EpochDay, firstDayOfMonth } from '@/core/day/day';
import type { DeskDate, DeskSheetStart } from '@/core/sheet/desk-sheet';
import { copying, leavingOut, lengthening, moving } from './date-commands';
import { DayPanel } from './DayPanel';
import { effectsOf } from './effects';
import type { Look } from './entries';
import { FilterRow } from './FilterRow';
import type { GridProps } from './grid';
import { HalfYear } from './HalfYear';
import { MonthGrid } from './MonthGrid';
import { NewListing, newContent, type NewInput } from './NewListing';
import { NoticeBar } from './NoticeBar';
import { byDay, type Hold, keyOf, monthFor, sayDayCell, sayHold, spanOf } from './state';
import { useDates } from './use-dates';
import { useCommands } from './use-commands';
import { onSheetKey } from './keys';
import { usePointer } from './use-pointer';
import { sheetWords } from '@/words/desk';

const w = sheetWords.deskSheet;

export default function DeskSheet({ start }: { start: DeskSheetStart }) {
  const { style, today, firstWeekday, zone } = start.site;
  const dates = useDates(start);
  const { shown, show } = dates;
  const { view, month } = shown;
  const commands = useCommands(dates.reload, start.mayPublish);
  const span = useMemo(() => spanOf(view, month, firstWeekday), [view, month, firstWeekday]);
  const on = useMemo(() => byDay(dates.dates, span), [dates.dates, span]);
  const byKey = useMemo(() => new Map(dates.dates.map((date) => [keyOf(date), date])), [dates.dates]);
  const holidays = useMemo(() => new Map(start.holidays), [start.holidays]);
  const looks = useMemo(() => {
    const all = new Map<string | null, Look>(start.categories.map((c) => [c.id, { mark: c.mark, ink: c.ink }]));
    const [fallback] = start.categories.slice(-1);
    return fallback ? all.set(null, { mark: fallback.mark, ink: fallback.ink }) : all;
  }, [start.categories]);
  const venues = useMemo(() => new Map(start.venues.map((v) => [v.id, v.name])), [start.venues]);

  const [active, setActive] = useState<EpochDay>(() => (today >= span.from && today <= span.to ? today : firstDayOfMonth(month)));
  const [hold, setHold] = useState<Hold | null>(null);
  const [chosen, setChosen] = useState<string | null>(null);
  const [title, setTitle] = useState('');
  const [madeOnes, setMadeOnes] = useState(0);
  const grid = useRef<HTMLDivElement>(null);
  const titleField = useRef<HTMLInputElement>(null);
  const id = useId();
  const cellId = useCallback((day: EpochDay): string => `${id}${day}`, [id]);
  const here = on.get(active) ?? [];

  const toGrid = (): void => grid.current?.focus({ preventScroll: true });
  const effects = (date: DeskDate) => (content: Parameters<typeof effectsOf>[0]) =>
    effectsOf(content, date.original, { listingId: date.listingId, siteZone: zone, style, holidays });
  const move = (date: DeskDate, days: number) => commands.act({ ...moving(date, days, style), effects: effects(date) });
  const copy = (date: DeskDate, day: EpochDay) => commands.act(copying(date, day, style));
  const lengthen = (date: DeskDate, edge: 'start' | 'end', days: number) =>
    commands.act({ ...lengthening(date, edge, days, style), effects: effects(date) });

  /** Ends what is under way, on a day. */
  const finish = (held: Hold, day: EpochDay, asCopy: boolean): void => {
    const { date } = held;
    const by = day - held.from;
    if (held.kind === 'span') {
      setActive(day);
      requestAnimationFrame(() => titleField.current?.focus());
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

  const type = (letters: string): void => {
    // At once, so that the next letter of somebody who types fast lands behind this one.
    flushSync(() => setTitle(letters));
    titleField.current?.focus();
    titleField.current?.setSelectionRange(letters.length, letters.length);
  };
  const open = (date: DeskDate): void => location.assign(`/desk/listings/${date.listingId}`);
  const leaveOut = (date: DeskDate): void => void commands.act(leavingOut(date, style));
  const onKey = (event: KeyboardEvent): void =>
    onSheetKey(event, {
      view,
      firstWeekday,
      active,
      here,
      hold,
      setHold,
      setActive,
      onBegin: (kind, from, date) => begin(kind, from, date, false),
      onFinish: finish,
      onPick: (date) => pick('move', date),
      onOpen: open,
      onList: (what) => document.querySelector<HTMLElement>(what === 'name' ? '.ds-panel [data-open]' : '.ds-panel .acts button')?.focus(),
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
  const make = async (input: NewInput, andOpen: boolean): Promise<void> => {
    const made = await commands.make(newContent(input, zone), w.isADraft({ title: input.title.trim() }));
    if (!made) return;
    setTitle('');
    setMadeOnes((n) => n + 1);
    setHold(null);
    if (andOpen) location.assign(`/desk/listings/${made}`);
    else toGrid();
  };
  // Whoever walks, or carries a date, over the sheet's edge takes the sheet along.
  useEffect(() => {
    if (active < span.from || active > span.to) show({ month: monthFor(view, month, active) });
  }, [active, span, view, month, show]);

  const gridProps: GridProps = {
    month,
    dates: dates.dates,
    on,
    looks,
    holidays,
    active,
    drawn,
    chosen,
    lifted: hold?.date ? keyOf(hold.date) : null,
    today,
    firstWeekday,
    style,
    cellId,
    label: (day) => sayDayCell(day, on.get(day) ?? [], holidays.get(day) ?? [], style),
  };
  return (
    <div className="pt-3.5 pb-7.5 px-5 max-w-375 mx-auto max-[700px]:pt-2.5 max-[700px]:pb-7.5 max-[700px]:px-3">
      <FilterRow start={start} dates={dates} today={today} onGo={setActive} active={active} />
      <NoticeBar commands={commands} hold={hold ? sayHold(hold, active, style) : ''} stale={dates.stale} cut={dates.cut} />
      <div className="grid grid-cols-[minmax(0,1fr)_268px] gap-4.5 items-start max-[980px]:grid-cols-1">
        <div
          ref={grid}
          role="grid"
          tabIndex={0}
          aria-label={w.datesByDayArrows()}
          aria-activedescendant={cellId(active)}
          className={`bg-sheet border-t-2 border-t-rule-strong border-b-2 border-b-rule-strong select-none cursor-default [&.carrying]:cursor-grabbing focus-visible:outline-none ds-grid ${view} ${hold?.date ? 'carrying' : ''}`}
          onKeyDown={onKey}
          onPointerDown={pointer.onPointerDown}
          onDoubleClick={pointer.onDoubleClick}
        >
          {view === 'month' ? <MonthGrid {...gridProps} /> : <HalfYear {...gridProps} />}
        </div>
        <div className="grid gap-4 sticky top-2.5 max-[980px]:static">
          <DayPanel
            day={active}
            dates={here}
            names={holidays.get(active) ?? []}
            looks={looks}
            venues={venues}
            chosen={chosen}
            setChosen={setChosen}
            style={style}
            busy={commands.busy}
            onMove={(date) => pick('move', date)}
            onCopy={(date) => pick('copy', date)}
            onLength={(date, days) => void lengthen(date, 'end', days)}
            onLeaveOut={leaveOut}
          />
          <NewListing
            // The next one begins without the times of the last.
            key={madeOnes}
            {...newDays}
            title={title}
            setTitle={setTitle}
            style={style}
            field={titleField}
            busy={commands.busy}
            onMake={(input, andOpen) => void make(input, andOpen)}
            onLeave={() => {
              setTitle('');
              setHold(null);
              toGrid();
            }}
          />
          <p className="small quiet">{w.lettersBeginAListing()}</p>
        </div>
      </div>
      {pointer.tag}
    </div>
  );
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
