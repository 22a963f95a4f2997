/** The chosen day beside the sheet: its dates in full, each with what can be done to it. */
import { siteAddress } from '@/client/site-root';
import { Fragment, useEffect, useRef } from 'react';
import { type DayMark, sayMark } from '@/core/holidays/day-marks';
import type { EpochDay } from '@/core/day/day';
import type { DeskDate } from '@/core/sheet/desk-sheet';
import { sayDay, sayWhen, type Style } from '@/core/phrase/format';
import { type Look, Mark } from './entries';
import { keyOf, sayStage } from './state';
import { sheetWords } from '@/words/desk';

const w = sheetWords.dayPanel;

interface Props {
  day: EpochDay;
  dates: readonly DeskDate[];
  marks: readonly DayMark[];
  looks: ReadonlyMap<string | null, Look>;
  venues: ReadonlyMap<string, string>;
  chosen: string | null;
  setChosen: (key: string | null) => void;
  style: Style;
  busy: boolean;
  onMove: (date: DeskDate) => void;
  onCopy: (date: DeskDate) => void;
  onLength: (date: DeskDate, days: number) => void;
  onLeaveOut: (date: DeskDate) => void;
}

export function DayPanel({ day, dates, marks, style, ...rest }: Props) {
  const list = useRef<HTMLUListElement>(null);
  const { chosen } = rest;
  // What was just moved, or picked on the sheet, is in sight; the page itself stays where it is.
  useEffect(() => {
    const item = dates.length ? list.current?.querySelector<HTMLElement>('li.chosen') : null;
    if (item && list.current && chosen) list.current.scrollTop = item.offsetTop - list.current.offsetTop - 40;
  }, [chosen, dates]);
  return (
    <section aria-label={sayDay(day, style, { weekday: 'long' })} className="ds-panel">
      <h2 className="text-[18px] border-b-2 border-b-rule-strong pb-1.5">
        {sayDay(day, style, { weekday: 'long' })} <span className="quiet small">{dates.length > 0 && w.date({ n: dates.length })}</span>
      </h2>
      {marks.length > 0 && (
        <p className="small mt-1.5">
          {marks.map((mark, i) => (
            <Fragment key={sayMark(mark, style)}>
              {i > 0 && ', '}
              <span className={mark.red ? 'red' : 'quiet'}>{sayMark(mark, style)}</span>
            </Fragment>
          ))}
        </p>
      )}
      {dates.length === 0 && <p className="quiet small mt-1.5">{w.nothingOnThisDay()}</p>}
      <ul className="max-h-[46vh] overflow-auto [p+&]:border-t [p+&]:border-t-rule [p+&]:mt-1" ref={list}>
        {dates.map((date) => (
          <Item key={keyOf(date)} date={date} style={style} {...rest} />
        ))}
      </ul>
    </section>
  );
}

function Item({
  date,
  looks,
  venues,
  chosen,
  setChosen,
  style,
  busy,
  onMove,
  onCopy,
  onLength,
  onLeaveOut,
}: Omit<Props, 'day' | 'dates' | 'marks'> & { date: DeskDate }) {
  const key = keyOf(date);
  const end = date.endDay === null ? null : { day: date.endDay, minute: date.endMinute };
  const when = sayWhen({ day: date.startDay, minute: date.startMinute }, end, style, { weekday: 'short', month: 'short' });
  const off = date.eventStatus === 'cancelled' || date.eventStatus === 'postponed';
  const said = [date.eventStatus !== 'going-ahead' ? date.eventStatus.replace('-', ' ') : '', date.moved ? 'moved' : ''];
  return (
    <li
      className={`border-b border-b-rule py-1.75 pr-0.5 pl-1.5 border-l-[3px] border-l-unmarked [&.chosen]:border-l-tide [&.chosen]:bg-tide-wash ${key === chosen ? 'chosen' : ''}`}
      onFocus={() => setChosen(key)}
    >
      <div className="what flex gap-1.5 items-baseline font-bold">
        <Mark look={looks.get(date.categoryId) ?? looks.get(null)} />
        <a href={siteAddress(`/desk/listings/${date.listingId}`)} className={off ? 'struck' : ''} data-open={key}>
          {date.title || w.withoutATitle()}
        </a>
      </div>
      <div className="small quiet">
        {when}
        {date.venueIds.map((id) => (venues.has(id) ? `, ${venues.get(id)}` : ''))}
      </div>
      <div className="small">
        <span className={`stage ${date.stage}`}>{sayStage(date)}</span>
        {said.filter(Boolean).length > 0 && <span className="red"> {said.filter(Boolean).join(', ')}</span>}
      </div>
      <div className="row acts gap-y-0.5 gap-x-3 text-[13px] mt-0.5">
        <button type="button" className="link" disabled={busy} onClick={() => onMove(date)}>
          {w.move()}
        </button>
        <button type="button" className="link" disabled={busy} onClick={() => onCopy(date)}>
          {w.copy()}
        </button>
        <button type="button" className="link" disabled={busy} onClick={() => onLength(date, 1)}>
          {w.aDayLonger()}
        </button>
        {date.lastDay > date.startDay && (
          <button type="button" className="link" disabled={busy} onClick={() => onLength(date, -1)}>
            {w.aDayShorter()}
          </button>
        )}
        {date.repeats && (
          <button type="button" className="link" disabled={busy} onClick={() => onLeaveOut(date)}>
            {w.leaveOut()}
          </button>
        )}
      </div>
    </li>
  );
}
