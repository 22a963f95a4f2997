// biome-ignore-all lint/a11y/useSemanticElements: one grid with one tab stop, which no table can be
/** A month, or half a year, of everything the Desk has: dates are read, begun, moved, copied and lengthened in place. */
import { namesOn } from '@/core/holidays/day-marks';
import { useCallback, useId } from 'react';
import type { EpochDay } from '@/core/day/day';
import type { DeskSheetStart } from '@/core/sheet/desk-sheet';
import { DayPanel } from './DayPanel';
import { FilterRow } from './FilterRow';
import type { GridProps } from './grid';
import { HalfYear } from './HalfYear';
import { MonthGrid } from './MonthGrid';
import { NewListing } from './NewListing';
import { NoticeBar } from './NoticeBar';
import { keyOf, sayDayCell, sayHold } from './state';
import { useCommands } from './use-commands';
import { useDeskSheet } from './use-desk-sheet';
import { useSheetData } from './use-sheet-data';
import { sheetWords } from '@/words/desk';

const w = sheetWords.deskSheet;

export default function DeskSheet({ start }: { start: DeskSheetStart }) {
  const { style, today, firstWeekday } = start.site;
  const data = useSheetData(start);
  const { dates, on, dayMarks, looks } = data;
  const { view, month } = dates.shown;
  const commands = useCommands(dates.reload, start.mayPublish);
  const sheet = useDeskSheet(start, data, commands);
  const { active, hold, here, drawn, chosen, pointer } = sheet;
  const id = useId();
  const cellId = useCallback((day: EpochDay): string => `${id}${day}`, [id]);
  const gridProps: GridProps = {
    month,
    dates: dates.dates,
    on,
    looks,
    dayMarks,
    active,
    drawn,
    chosen,
    lifted: hold?.date ? keyOf(hold.date) : null,
    today,
    firstWeekday,
    style,
    cellId,
    label: (day) => sayDayCell(day, on.get(day) ?? [], namesOn(dayMarks, day, style), style),
  };
  return (
    <div className="pt-3.5 pb-7.5 px-5 max-w-375 mx-auto max-[700px]:pt-2.5 max-[700px]:pb-7.5 max-[700px]:px-3">
      <FilterRow start={start} dates={dates} today={today} onGo={sheet.setActive} active={active} />
      <NoticeBar commands={commands} hold={hold ? sayHold(hold, active, style) : ''} stale={dates.stale} cut={dates.cut} />
      <div className="grid grid-cols-[minmax(0,1fr)_268px] gap-4.5 items-start max-[980px]:grid-cols-1">
        <div
          ref={sheet.grid}
          role="grid"
          tabIndex={0}
          aria-label={w.datesByDayArrows()}
          aria-activedescendant={cellId(active)}
          className={`bg-sheet border-t-2 border-t-rule-strong border-b-2 border-b-rule-strong select-none cursor-default [&.carrying]:cursor-grabbing focus-visible:outline-none ds-grid ${view} ${hold?.date ? 'carrying' : ''}`}
          onKeyDown={sheet.onKey}
          onPointerDown={pointer.onPointerDown}
          onDoubleClick={pointer.onDoubleClick}
        >
          {view === 'month' ? <MonthGrid {...gridProps} /> : <HalfYear {...gridProps} />}
        </div>
        <div className="grid gap-4 sticky top-2.5 max-[980px]:static">
          <DayPanel
            day={active}
            dates={here}
            marks={dayMarks.get(active) ?? []}
            looks={looks}
            venues={data.venues}
            chosen={chosen}
            setChosen={sheet.setChosen}
            style={style}
            busy={commands.busy}
            onMove={(date) => sheet.pick('move', date)}
            onCopy={(date) => sheet.pick('copy', date)}
            onLength={(date, days) => void sheet.lengthen(date, 'end', days)}
            onLeaveOut={sheet.leaveOut}
          />
          <NewListing
            // The next one begins without the times of the last.
            key={sheet.madeOnes}
            {...sheet.newDays}
            title={sheet.title}
            setTitle={sheet.setTitle}
            style={style}
            field={sheet.titleField}
            busy={commands.busy}
            onMake={(input, andOpen) => void sheet.make(input, andOpen)}
            onLeave={sheet.leaveNew}
          />
          <p className="small quiet">{w.lettersBeginAListing()}</p>
        </div>
      </div>
      {pointer.tag}
    </div>
  );
}
