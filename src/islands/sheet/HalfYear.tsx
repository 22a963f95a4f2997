// biome-ignore-all lint/a11y/useSemanticElements: one grid with one tab stop, which no table can be
// biome-ignore-all lint/a11y/useFocusableInteractive: the grid has the focus and names its active cell
/** Six months side by side, each a column of its days: as a printed almanac has them. Events of several days run down as bars. */
import { isRedDay, marksInCell, sayMark } from '@/core/holidays/day-marks';
import { useMemo } from 'react';
import { type EpochDay, daysInMonth, firstDayOfMonth, type MonthNumber, weekdayOf, yearMonthOf, ymdOf } from '@/core/day/day';
import { type DeskDate, HALF_YEAR } from '@/core/sheet/desk-sheet';
import { MONTHS, sayTime, WEEKDAYS } from '@/core/phrase/format';
import { classesOf, Mark } from './entries';
import { cellClasses, type GridProps } from './grid';
import { keyOf } from './state';
import { sheetWords } from '@/words/desk';

const texts = sheetWords.halfYear;

/** Bars beside each other, and marks in a line; the rest is counted. */
const LANES = 2;
const MARKS = 3;

export function HalfYear(props: GridProps) {
  const lanes = useMemo(() => lanesOf(props.dates), [props.dates]);
  return (
    <div className="grid grid-cols-6 max-[980px]:grid-cols-3 max-[700px]:grid-cols-1" role="presentation">
      {Array.from({ length: HALF_YEAR }, (_, i) => props.month + i).map((month) => (
        <Column key={month} {...props} month={month} lanes={lanes} />
      ))}
    </div>
  );
}

/** Events of several days in the first lane that is free; those without a lane show on their first day only. */
function lanesOf(dates: readonly DeskDate[]): Map<string, number> {
  const until: number[] = [];
  const lanes = new Map<string, number>();
  for (const date of dates) {
    if (date.lastDay === date.startDay) continue;
    let lane = 0;
    while (lane < LANES && (until[lane] ?? -Infinity) >= date.startDay) lane++;
    if (lane === LANES) continue;
    until[lane] = date.lastDay;
    lanes.set(keyOf(date), lane);
  }
  return lanes;
}

function Column({ month, lanes, ...props }: Omit<GridProps, 'month'> & { month: MonthNumber; lanes: Map<string, number> }) {
  const { year, month: m } = yearMonthOf(month);
  const first = firstDayOfMonth(month);
  return (
    <div role="rowgroup" className="border-l border-l-rule min-w-0 max-[700px]:border-l-0 first:border-l-0">
      <div
        className="font-semibold text-[15px] leading-[normal] font-serif normal-nums pt-1.25 pb-1 px-2 border-b border-b-rule-strong"
        aria-hidden="true"
      >
        {MONTHS[m - 1]} <span className="font-normal text-ink-2">{year}</span>
      </div>
      {Array.from({ length: daysInMonth(year, m) }, (_, i) => first + i).map((day) => (
        <DayRow key={day} day={day} first={day === first} lanes={lanes} {...props} />
      ))}
    </div>
  );
}

interface RowProps extends Omit<GridProps, 'month'> {
  day: EpochDay;
  /** the first of its column: what goes on from before is named again */
  first: boolean;
  lanes: Map<string, number>;
}

function DayRow({ day, first, lanes, ...props }: RowProps) {
  const { on, looks, dayMarks, chosen, lifted, style, cellId, label } = props;
  const here = on.get(day) ?? [];
  const named = here.filter((date) => date.startDay === day || first || !lanes.has(keyOf(date)));
  const marks = marksInCell(dayMarks, day, 0);
  const names = marks.map((mark) => sayMark(mark, style));
  const red = isRedDay(dayMarks, day);
  const weekday = weekdayOf(day);
  const [one] = named;
  return (
    <div role="row">
      <div
        role="gridcell"
        id={cellId(day)}
        data-day={day}
        aria-selected={day === props.active}
        aria-label={label(day)}
        className={`relative flex items-center gap-1.25 h-5.25 pr-1.25 pl-0.75 text-[12px] min-w-0 max-[700px]:h-6.5 [&.today]:shadow-[inset_0_3px_var(--red)] [&.drawn]:bg-amber-wash [&.rest]:bg-wash [&.sunday]:border-b [&.sunday]:border-b-rule [&.drawn]:[&.rest]:bg-amber-wash ds-row ${weekday > 4 ? 'rest' : ''} ${weekday === 6 ? 'sunday' : ''} ${cellClasses(day, props)}`}
      >
        <span
          className={`font-medium text-[13px] leading-[normal] font-serif lining-nums tabular-nums w-4.5 text-right flex-none num ${red ? 'red' : ''}`}
          title={names.join(', ') || undefined}
        >
          {ymdOf(day).day}
        </span>
        <span className="text-ink-3 text-[11px] w-5.75 flex-none">{(WEEKDAYS[weekday] as string)[0]}</span>
        {here.map((date) => {
          const lane = lanes.get(keyOf(date));
          if (lane === undefined) return null;
          const ends = `${date.startDay === day ? 'opens' : ''} ${date.lastDay === day ? 'closes' : ''}`;
          return (
            <span
              key={`bar ${keyOf(date)}`}
              className={`absolute left-[calc(38px_+_var(--lane)_*_6px)] top-0 bottom-0 w-1 bg-[light-dark(var(--ml),var(--md))] cursor-grab [&.opens]:top-0.75 [&.closes]:bottom-0.75 ds-bar ${(looks.get(date.categoryId) ?? looks.get(null))?.ink ?? ''} ${ends}`}
              style={{ '--lane': lane } as React.CSSProperties}
              data-key={keyOf(date)}
              title={date.title}
            >
              {date.lastDay === day && (
                <i className="absolute bottom-0 -left-0.5 -right-0.5 w-auto h-1.75 cursor-ns-resize top-auto" data-edge="end" />
              )}
              {date.startDay === day && (
                <i className="absolute top-0 -left-0.5 -right-0.5 w-auto h-1.75 cursor-ns-resize bottom-auto" data-edge="start" />
              )}
            </span>
          );
        })}
        <span className="flex flex-none">
          {named.slice(0, MARKS).map((date) => (
            <span
              key={keyOf(date)}
              className={`cursor-grab px-px leading-[1] min-h-4.5 flex items-center ds-mark ${classesOf(date, chosen, lifted)}`}
              data-key={keyOf(date)}
              title={`${date.startMinute === null ? '' : `${sayTime(date.startMinute, style)} `}${date.title}`}
            >
              <Mark look={looks.get(date.categoryId) ?? looks.get(null)} />
            </span>
          ))}
        </span>
        {one ? (
          <span
            className={`overflow-hidden whitespace-nowrap text-ellipsis min-w-0 flex-1 cursor-grab [&.draft]:italic [&.in-review]:italic [&.in-review]:text-amber [&.withdrawn]:text-ink-3 [&.withdrawn]:italic [&.binned]:text-ink-3 [&.binned]:italic [&.waits]:underline [&.waits]:decoration-dotted [&.waits]:decoration-amber [&.waits]:decoration-[2px] [&.waits]:underline-offset-[3px] in-[.past]:text-ink-2 w ${classesOf(one, chosen, lifted)}`}
            data-key={keyOf(one)}
            title={one.title}
          >
            {one.title || texts.withoutATitle()}
          </span>
        ) : (
          names.length > 0 && (
            <span
              className={`w overflow-hidden whitespace-nowrap text-ellipsis min-w-0 flex-1 cursor-default ${marks.some((mark) => mark.red) ? 'text-red' : 'text-ink-2'} in-[.past]:text-ink-2`}
            >
              {names.join(', ')}
            </span>
          )
        )}
        {named.length > 1 && <span className="n text-ink-3 text-[11px] flex-none">{named.length}</span>}
      </div>
    </div>
  );
}
