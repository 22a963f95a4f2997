// biome-ignore-all lint/a11y/useSemanticElements: six months are one grid with one tab stop, which no table can be
/**
 * Six small months on which the listing's dates are marks. Dates are dragged to another day, a span of days without dates is
 * drawn as a break; the keyboard does the same on one grid with a single tab stop.
 */
import { useId } from 'react';
import { type EpochDay, type MonthNumber, yearMonthOf } from '@/core/day/day';
import { MONTHS, sayDay } from '@/core/phrase/format';
import { StripMonth, wordsOf } from './StripMonth';
import { SHOWN, type StripProps, useStrip } from './use-strip';
import { editorWords } from '@/words/desk';

const w = editorWords.strip;

export function Strip(props: StripProps) {
  const { content, clashing, today, firstWeekday, style, onOpen } = props;
  const strip = useStrip(props);
  const { month, setMonth, active, gesture, date } = strip;
  const id = useId();
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
        ref={strip.grid}
        role="grid"
        tabIndex={0}
        aria-label={w.datesOnSixMonths()}
        aria-activedescendant={cellId(active)}
        className={`grid grid-cols-3 gap-y-2 gap-x-3 touch-none select-none cursor-default p-0.5 [@media(pointer:_coarse)]:touch-pan-y strip-grid ${gesture ? gesture.kind : ''}`}
        {...strip.keys}
        {...strip.pointer}
      >
        {Array.from({ length: SHOWN }, (_, i) => month + i).map((m) => (
          <StripMonth
            key={m}
            strip={strip}
            month={m}
            clashing={clashing}
            today={today}
            firstWeekday={firstWeekday}
            style={style}
            cellId={cellId}
          />
        ))}
      </div>
      <div className="small flex flex-wrap gap-y-1 gap-x-3 min-h-5">
        <span className="mr-auto">
          <strong>{sayDay(active, style, { weekday: 'short', month: 'short' })}</strong> {wordsOf(strip.datesOn(active), style)}
        </span>
        {date ? (
          <>
            <button type="button" className="link" onClick={() => onOpen(date.key)}>
              {w.change()}
            </button>
            <button type="button" className="link" onClick={() => strip.toggle(date)}>
              {date.out ? w.putBack() : w.leaveOut()}
            </button>
          </>
        ) : (
          content.recurrence && (
            <button type="button" className="link" onClick={() => strip.add(active)}>
              {w.addADate()}
            </button>
          )
        )}
      </div>
      <p role="status" aria-live="polite" className="small text-amber">
        {strip.said || <span className="quiet">{w.dragADateTo()}</span>}
      </p>
    </div>
  );
}

function spanWords(month: MonthNumber): string {
  const [a, b] = [yearMonthOf(month), yearMonthOf(month + SHOWN - 1)];
  const name = (m: number): string => (MONTHS[m - 1] as string).slice(0, 3);
  return `${name(a.month)}${a.year === b.year ? '' : ` ${a.year}`} – ${name(b.month)} ${b.year}`;
}
