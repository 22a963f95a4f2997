// biome-ignore-all lint/a11y/useSemanticElements: six months are one grid with one tab stop, which no table can be
// biome-ignore-all lint/a11y/useFocusableInteractive: the grid has the focus and names its active cell
/** One small month of the strip: a listing's dates as marks, its breaks, and what is being moved or drawn. */
import { type EpochDay, daysInMonth, firstDayOfMonth, type MonthNumber, monthNumberOf, weekStart, yearMonthOf } from '@/core/day/day';
import type { RailDate } from '@/core/dates/rail';
import { MONTHS, sayDay, sayTime, type Style } from '@/core/phrase/format';
import type { StripProps, StripState } from './use-strip';
import { editorWords } from '@/words/desk';

const w = editorWords.strip;

interface StripMonthProps extends Pick<StripProps, 'clashing' | 'today' | 'firstWeekday' | 'style'> {
  strip: StripState;
  month: MonthNumber;
  cellId: (day: EpochDay) => string;
}

export function StripMonth({ strip, month, clashing, today, firstWeekday, style, cellId }: StripMonthProps) {
  const { gesture, active } = strip;
  const [low, high] = gesture?.kind === 'break' ? [Math.min(gesture.from, active), Math.max(gesture.from, active)] : [1, 0];
  return (
    <div role="rowgroup">
      <div className="font-bold text-[12px] leading-[normal] font-sans normal-nums mb-px" aria-hidden="true">
        {(MONTHS[yearMonthOf(month).month - 1] as string).slice(0, 3)}{' '}
        <span className="font-normal text-ink-2">{yearMonthOf(month).year}</span>
      </div>
      {weeksOf(month, firstWeekday).map((week) => (
        <div role="row" className="grid grid-cols-[repeat(7,1fr)]" key={week[0]}>
          {week.map((day) => {
            if (monthNumberOf(day) !== month) return <span key={day} role="gridcell" />;
            const here = strip.datesOn(day);
            const mark = markOf(here, clashing);
            const drawn = day >= low && day <= high;
            const classes = [
              DAY,
              drawn ? 'border-amber' : (EDGES[mark] ?? 'border-unmarked'),
              MARKS[mark],
              drawn ? 'bg-amber-wash' : GROUNDS[mark],
              strip.inBreak(day) && BREAK,
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
                aria-label={w.inABreak({
                  day: sayDay(day, style, { weekday: 'long', year: true }),
                  said: wordsOf(here, style),
                  inBreak: strip.inBreak(day) ? 'yes' : 'no',
                })}
                className={classes.filter(Boolean).join(' ')}
              >
                {day - firstDayOfMonth(month) + 1}
              </span>
            );
          })}
        </div>
      ))}
    </div>
  );
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

/** What is on a day, in words. */
export function wordsOf(dates: readonly RailDate[], style: Style): string {
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
