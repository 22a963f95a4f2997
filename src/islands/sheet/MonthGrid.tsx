// biome-ignore-all lint/a11y/useSemanticElements: one grid with one tab stop, which no table can be
// biome-ignore-all lint/a11y/useFocusableInteractive: the grid has the focus and names its active cell
/** The Desk's month: weeks of days with their dates as lines, those of several days as bands. */
import { isRedDay, marksInCell, sayMark } from '@/core/holidays/day-marks';
import { useMemo } from 'react';
import { ymdOf } from '@/core/day/day';
import type { DeskDate } from '@/core/sheet/desk-sheet';
import { WEEKDAYS } from '@/core/phrase/format';
import { layMonth, type SheetDate } from '@/core/sheet/month';
import { BandLine, classesOf, Line } from './entries';
import { cellClasses, type GridProps } from './grid';
import { keyOf } from './state';
import { sheetWords } from '@/words/desk';

const w = sheetWords.monthGrid;

interface Laid extends SheetDate {
  of: DeskDate;
}

const laid = (of: DeskDate): Laid => ({
  of,
  from: of.startDay,
  to: of.lastDay,
  minute: of.startMinute,
  headline: of.headline,
  key: `${of.title}|${keyOf(of)}`,
});

/** Lines in a day, and lanes of bands over a week; what is more is counted, and stands in the day's list. */
const ROOM = 6;
const LANES = 3;

export function MonthGrid(props: GridProps) {
  const { month, dates, firstWeekday } = props;
  const sheet = useMemo(
    () => layMonth(dates.map(laid), { month, firstWeekday, room: ROOM, maxLanes: LANES }),
    [dates, month, firstWeekday],
  );
  return (
    <>
      <div role="row" className="grid grid-cols-7">
        {[0, 1, 2, 3, 4, 5, 6].map((i) => {
          const weekday = (firstWeekday + i) % 7;
          const name = WEEKDAYS[weekday] as string;
          return (
            <span
              role="columnheader"
              key={name}
              aria-label={name}
              className={`text-[12.5px] font-bold py-1.25 px-2 border-b border-b-rule-strong max-[700px]:py-1 max-[700px]:px-0 max-[700px]:text-center max-[700px]:overflow-hidden ${weekday === 6 ? 'red' : ''}`}
            >
              {name.slice(0, 3)}
            </span>
          );
        })}
      </div>
      {sheet.weeks.map((week) => (
        <div role="row" className="grid grid-cols-7" key={week.start}>
          {week.days.map((day, column) => (
            <Day key={day.day} {...props} day={day} bands={week.bands.filter((band) => band.fromColumn === column)} />
          ))}
        </div>
      ))}
    </>
  );
}

type Week = ReturnType<typeof layMonth<Laid>>['weeks'][number];

/** One day: its numeral, the bands that begin in it, its lines, and how many more there are. */
function Day({ day, bands, ...props }: GridProps & { day: Week['days'][number]; bands: Week['bands'] }) {
  const { looks, dayMarks, chosen, lifted, style, cellId, label } = props;
  const red = isRedDay(dayMarks, day.day);
  const marks = marksInCell(dayMarks, day.day, props.firstWeekday);
  return (
    <div
      role="gridcell"
      id={cellId(day.day)}
      data-day={day.day}
      aria-selected={day.day === props.active}
      aria-label={label(day.day)}
      className={`relative min-h-26 py-0.75 pr-1 pl-1.5 border-b border-b-rule border-l border-l-rule min-w-0 first:border-l-0 [&.out]:bg-wash [&.today]:shadow-[inset_0_3px_var(--red)] [&.drawn]:bg-amber-wash max-[700px]:min-h-11 max-[700px]:p-0.5 max-[700px]:text-center ds-day ${day.inMonth ? '' : 'out'} ${cellClasses(day.day, props)}`}
    >
      <div className="flex items-baseline gap-1.25 min-w-0 max-[700px]:block">
        <span className={`font-medium text-[17px] leading-[22px] font-serif lining-nums in-[.out]:text-ink-3 num ${red ? 'red' : ''}`}>
          {ymdOf(day.day).day}
        </span>
        {marks.map((mark) => (
          <span
            key={mark.name}
            title={sayMark(mark, style)}
            className={`name ${mark.red ? 'text-red' : 'text-ink-2'} text-[12px] min-w-0 truncate max-[700px]:hidden`}
          >
            {sayMark(mark, style)}
          </span>
        ))}
      </div>
      {day.lanes > 0 && <span className="lanes block max-[700px]:hidden" style={{ height: day.lanes * 22 }} />}
      {bands.map((band) => (
        <BandLine
          key={keyOf(band.date.of)}
          date={band.date.of}
          look={looks.get(band.date.of.categoryId) ?? looks.get(null)}
          classes={classesOf(band.date.of, chosen, lifted)}
          place={{ '--lane': band.lane, '--span': band.toColumn - band.fromColumn + 1 } as React.CSSProperties}
          before={band.opensBefore}
          after={band.opensAfter}
        />
      ))}
      <span className="block max-[700px]:hidden">
        {day.lines.map(({ date: { of } }) => (
          <Line
            key={keyOf(of)}
            date={of}
            look={looks.get(of.categoryId) ?? looks.get(null)}
            classes={classesOf(of, chosen, lifted)}
            style={style}
          />
        ))}
      </span>
      {day.folded.length > 0 && (
        <span className="more text-[12px] text-tide max-[700px]:hidden">{w.andMore({ n: day.folded.length })}</span>
      )}
      {day.count > 0 && (
        <span className="hidden max-[700px]:block max-[700px]:text-[11px] max-[700px]:text-ink-2 max-[700px]:leading-[13px]">
          {day.count}
        </span>
      )}
    </div>
  );
}
