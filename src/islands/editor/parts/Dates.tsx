/** The Dates rail: every date of the listing by month, what differs for each, and what lost its date. */
import { siteAddress } from '@/client/site-root';
import { useEffect, useMemo, useRef, useState } from 'react';
import { isoDay, monthNumberOf, weekdayOf, yearMonthOf } from '@/core/day/day';
import { isoDateTime, parseIsoDateTime, type PlainDateTime } from '@/core/day/plain-date-time';
import type { ListingContent } from '@/core/listing/content';
import type { Choice, EditorStart } from '@/core/listing/editor';
import { MONTHS, sayDay, sayTime, sayWhen, type Style, weekdayName } from '@/core/phrase/format';
import { sayChange } from '@/core/phrase/say';
import { changesFromStored, type StoredChange } from '@/core/recurrence/stored';
import { ClockField } from '../../fields/ClockField';
import { DayField } from '../../fields/DayField';
import { Select, Text } from '../../fields/fields';
import type { Booking } from '@/core/dates/clashes';
import { lengthTo, type Rail, type RailDate, type RailMonth } from '@/core/dates/rail';
import { readRecurrence } from '@/core/dates/repeat-choices';
import { nearestDate, settleIdle, splitAt } from '@/core/dates/rule-changes';
import { changeDate, toggleDate } from '@/core/dates/single-dates';
import { Strip } from './Strip';
import { editorWords } from '@/words/desk';
import { useHeld } from '../use-held';

const w = editorWords.dates;

interface DatesProps {
  content: ListingContent;
  setContent: (change: (before: ListingContent) => ListingContent) => void;
  rail: Rail;
  clashes: Map<string, Booking[]>;
  site: EditorStart['site'];
  venues: readonly Choice[];
}

/** Rows of months that are out of sight are not made; this is about how tall one is, in pixels. */
const ROW = 36;

export function DatesRail({ content, setContent, rail, clashes: latest, site, venues }: DatesProps) {
  const { style, today } = site;
  // A clash that is found while somebody presses would move what they press away from under the pointer.
  const { shown: clashes, press } = useHeld(latest);
  const [open, setOpen] = useState<string | null>(null);
  const clashing = useMemo(() => new Set(clashes.keys()), [clashes]);
  const box = useRef<HTMLDivElement>(null);
  const first = useMemo(() => rail.months.find(({ month }) => month >= monthNumberOf(today))?.month, [rail.months, today]);
  // The list begins at today; what is past lies above.
  useEffect(() => {
    const month = first === undefined ? null : box.current?.querySelector<HTMLElement>(`[data-month="${first}"]`);
    if (box.current && month) box.current.scrollTop = month.offsetTop;
  }, [first]);
  const show = (key: string): void => {
    setOpen(key);
    const day = parseIsoDateTime(key)?.day;
    const month = day === undefined ? null : box.current?.querySelector<HTMLElement>(`[data-month="${monthNumberOf(day)}"]`);
    month?.scrollIntoView({ block: 'nearest' });
    requestAnimationFrame(() => {
      const row = box.current?.querySelector<HTMLElement>(`[data-date="${key}"]`);
      row?.scrollIntoView({ block: 'nearest' });
      row?.querySelector<HTMLElement>('.change button')?.focus({ preventScroll: true });
    });
  };
  return (
    <section aria-label={w.dates()} id="dates" onPointerDownCapture={press} className="scroll-mt-16 [section+&]:mt-5.5">
      <div className="flex items-baseline justify-between border-b-2 border-b-rule-strong pb-1.75">
        <h2 className="text-[18px]">{w.dates()}</h2>
        <span className="small quiet" role="status">
          {w.inAll({ total: rail.total })}
          {rail.coming ? w.toCome({ coming: rail.coming }) : ''}
          {clashes.size > 0 && <span className="red">, {w.clash({ n: clashes.size })}</span>}
        </span>
      </div>
      {rail.total + rail.months.length === 0 && <p className="quiet">{w.datesShowHereAs()}</p>}
      {rail.months.length > 0 && (
        <Strip
          content={content}
          setContent={setContent}
          rail={rail}
          clashing={clashing}
          today={today}
          firstWeekday={site.firstWeekday}
          style={style}
          onOpen={show}
        />
      )}
      <Idle content={content} setContent={setContent} rail={rail} style={style} />
      {rail.months.length > 0 && <p className="quiet small mt-1 mb-1">{w.aTickedDateHappens()}</p>}
      {rail.months.length > 0 && (
        <section
          ref={box}
          // biome-ignore lint/a11y/noNoninteractiveTabindex: a box that scrolls must be reached by the keyboard
          tabIndex={0}
          className="relative max-h-75 overflow-auto border-b border-b-rule-strong bg-sheet"
          aria-label={w.allDates()}
        >
          {rail.months.map((month) => (
            <Month key={month.month} month={month} keep={open !== null && month.dates.some((d) => d.key === open)} box={box}>
              {(date) => (
                <Row
                  key={date.key}
                  date={date}
                  open={open === date.key}
                  setOpen={setOpen}
                  content={content}
                  setContent={setContent}
                  clash={clashes.get(date.key)}
                  style={style}
                  venues={venues}
                />
              )}
            </Month>
          ))}
        </section>
      )}
    </section>
  );
}

/** A month's rows, made only while they are near to being seen. */
function Month({
  month: { month, dates },
  keep,
  box,
  children,
}: {
  month: RailMonth;
  keep: boolean;
  box: React.RefObject<HTMLDivElement | null>;
  children: (date: RailDate) => React.ReactNode;
}) {
  const [near, setNear] = useState(false);
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!place.current) return;
    const watcher = new IntersectionObserver(([entry]) => setNear(entry?.isIntersecting ?? false), {
      root: box.current,
      rootMargin: '400px',
    });
    watcher.observe(place.current);
    return () => watcher.disconnect();
  }, [box]);
  const { year, month: m } = yearMonthOf(month);
  return (
    <div ref={place} data-month={month}>
      <h3 className="sticky top-0 z-1 flex justify-between font-bold text-[13px] leading-[normal] font-sans normal-nums py-1.25 px-2.5 bg-ground border-b border-b-rule">
        {MONTHS[m - 1]} {year}
        <span className="font-normal text-ink-2">{dates.filter((d) => !d.out).length}</span>
      </h3>
      {near || keep ? <ul className="dates-rail bg-sheet">{dates.map(children)}</ul> : <div style={{ height: dates.length * ROW }} />}
    </div>
  );
}

interface RowProps {
  date: RailDate;
  open: boolean;
  setOpen: (key: string | null) => void;
  content: ListingContent;
  setContent: DatesProps['setContent'];
  clash: Booking[] | undefined;
  style: Style;
  venues: readonly Choice[];
}

function Row({ date, open, setOpen, content, setContent, clash, style, venues }: RowProps) {
  const day = sayDay(date.wall.day, style, { weekday: 'long', year: true });
  const split = (): void => {
    const parted = splitAt(content, date.key);
    if (!parted) return;
    setContent((c) => splitAt(c, date.key)?.content ?? c);
    // The later part is what somebody now wants to change.
    requestAnimationFrame(() => {
      const fields = document.querySelectorAll<HTMLElement>('#when .recurrence-part')[parted.recurrencePart];
      fields?.scrollIntoView({ block: 'start' });
      fields?.querySelector<HTMLElement>('input.clock, [role=spinbutton]')?.focus({ preventScroll: true });
    });
  };
  return (
    <li className="border-b border-b-rule py-1 px-2.5" data-date={date.key}>
      <div className="one grid grid-cols-[20px_118px_minmax(0,1fr)_auto] gap-2 items-center min-h-6.75">
        <input
          type="checkbox"
          checked={!date.out}
          aria-label={w.putBack({ out: date.out ? 'yes' : 'no', day })}
          title={date.out ? w.tickToPutThis() : w.untickToLeaveThis()}
          onChange={() => setContent((c) => (c.recurrence ? { ...c, recurrence: toggleDate(c.recurrence, date.key) } : c))}
        />
        <span className={`[&.out]:line-through [&.out]:text-ink-2 ${date.out ? 'out' : ''}`}>
          {sayDay(date.wall.day, style, { weekday: 'short', month: 'short' })}
        </span>
        <RowWords date={date} style={style} venues={venues} />
        {!date.out && (
          <button type="button" className="link small" aria-expanded={open} onClick={() => setOpen(open ? null : date.key)}>
            {w.change()}
          </button>
        )}
      </div>
      {clash && !date.out && (
        <p className="clash small mb-0.75 ml-7 text-red">
          {w.clashesWith()}{' '}
          {clash.slice(0, 3).map((b, i) => (
            <span key={`${b.listingId}${i}`}>
              {i > 0 && ', '}
              <a href={siteAddress(`/desk/listings/${b.listingId}`)}>{b.title}</a>
              {b.start.minute !== null && ` ${sayTime(b.start.minute, style)}`}
            </span>
          ))}
          {clash.length > 3 && w.andMore({ n: clash.length - 3 })}
        </p>
      )}
      {open && (
        <ChangePanel
          date={date}
          change={content.changes.find((c) => c.original === date.key)}
          onChange={(part) => setContent((c) => ({ ...c, changes: changeDate(c.changes, date.key, part) }))}
          onSplit={splitAt(content, date.key) ? split : undefined}
          onClose={() => setOpen(null)}
          style={style}
          venues={venues}
        />
      )}
    </li>
  );
}

function RowWords({ date, style, venues }: Pick<RowProps, 'date' | 'style' | 'venues'>) {
  const o = date.occurrence;
  if (date.out) return <span className="quiet small">{w.leftOutByYou()}</span>;
  if (!o) return <span />;
  if (o.eventStatus === 'cancelled') return <span className="red">{w.cancelled()}</span>;
  if (o.eventStatus === 'postponed') return <span className="amber">{w.postponed()}</span>;
  const time = o.start.minute === null ? w.allDay() : sayTime(o.start.minute, style);
  const place = o.venueId && (
    <span className="amber small"> {w.at({ name: venues.find((v) => v.id === o.venueId)?.name ?? w.aVenueThatIs() })}</span>
  );
  if (isoDateTime(o.original) === isoDateTime(o.start))
    return (
      <span>
        {time}
        {o.eventStatus === 'moved-online' && <span className="amber small"> {w.online()}</span>}
        {place}
        {o.note && <span className="quiet small"> {o.note}</span>}
      </span>
    );
  const day = o.start.day === o.original.day ? w.sameDay() : sayDay(o.start.day, style, { weekday: 'short', month: 'short' });
  return (
    <span className="amber">
      {w.moved({ time, day })}
      {place}
    </span>
  );
}

interface PanelProps {
  date: RailDate;
  change: StoredChange | undefined;
  onChange: (part: Partial<StoredChange>) => void;
  onSplit: (() => void) | undefined;
  onClose: () => void;
  style: Style;
  venues: readonly Choice[];
}

function ChangePanel({ date, change, onChange, onSplit, onClose, style, venues }: PanelProps) {
  const to = parseIsoDateTime(change?.movedTo ?? date.key) ?? date.wall;
  const off = change?.eventStatus === 'cancelled';
  const eventStatus = (value: 'cancelled' | 'postponed' | 'moved-online', on: string, back: string) => (
    <button type="button" className="button small" onClick={() => onChange({ eventStatus: change?.eventStatus === value ? null : value })}>
      {change?.eventStatus === value ? back : on}
    </button>
  );
  return (
    <div className="change py-2 pl-7 grid gap-2">
      <div className="row gap-1.5">
        {eventStatus('cancelled', w.cancelThisDate(), w.itGoesAheadAfter())}
        {!off && eventStatus('postponed', w.postpone(), w.notPostponed())}
        {!off && eventStatus('moved-online', w.online2(), w.notOnline())}
        {change && (
          <button
            type="button"
            className="button small"
            onClick={() => onChange({ movedTo: null, length: null, eventStatus: null, note: '', venueId: '' })}
          >
            {w.asTheRuleSays()}
          </button>
        )}
      </div>
      {!off && <MoveFields date={date} change={change} onChange={onChange} style={style} to={to} />}
      {!off && venues.length > 0 && (
        <Select
          label={w.place()}
          value={change?.venueId ?? ''}
          options={[['', w.whereTheOthersAre()], ...venues.map((v): [string, string] => [v.id, v.name])]}
          onChange={(venueId) => onChange({ venueId })}
        />
      )}
      <Text label={w.aNoteForReaders()} value={change?.note ?? ''} maxLength={300} onChange={(note) => onChange({ note })} />
      <div className="row justify-between">
        <button type="button" className="link" onClick={onClose}>
          {w.done()}
        </button>
        {onSplit && (
          <button type="button" className="link" onClick={onSplit} title={w.partsTheRuleHere()}>
            {w.thisAndAllLater()}
          </button>
        )}
      </div>
    </div>
  );
}

/** The day and the times that a date moves to. */
function MoveFields({
  date,
  change,
  onChange,
  style,
  to,
}: Pick<PanelProps, 'date' | 'change' | 'onChange' | 'style'> & { to: PlainDateTime }) {
  const move = (day: number, minute: number | null): void => {
    const text = isoDateTime({ day, minute });
    onChange({ movedTo: text === date.key ? null : text });
  };
  const weekday =
    weekdayOf(to.day) !== weekdayOf(date.wall.day)
      ? w.movesToAWas({ weekday: weekdayName(weekdayOf(to.day), style), before: weekdayName(weekdayOf(date.wall.day), style) })
      : '';
  const end = date.occurrence?.end ?? null;
  return (
    <>
      <DayField
        label={w.movedTo()}
        value={isoDay(to.day)}
        hint={weekday || undefined}
        onChange={(day) => move(parseIsoDateTime(day)?.day ?? to.day, to.minute)}
      />
      {to.minute !== null && (
        <div className="grid grid-cols-[repeat(auto-fit,minmax(150px,1fr))] gap-3 items-start">
          <ClockField
            label={w.at2()}
            value={to.minute}
            hours={style.hours}
            onChange={(minute) => minute !== null && move(to.day, minute)}
          />
          <ClockField
            label={w.until()}
            value={end?.minute ?? null}
            hours={style.hours}
            after={to.minute}
            hint={change?.length ? w.thisDateOnly() : undefined}
            onChange={(minute) => onChange({ length: minute === null ? null : lengthTo(to, minute) })}
          />
        </div>
      )}
    </>
  );
}

/** Changes whose dates the rules no longer have: never dropped without a word. */
function Idle({ content, setContent, rail, style }: Omit<DatesProps, 'clashes' | 'site' | 'venues'> & { style: Style }) {
  if (!rail.idle.length) return null;
  return (
    <div className="note warn" role="alert">
      <strong className="small">{w.aChangeHasLost({ n: rail.idle.length })}</strong>
      <ul className="mt-1.5 grid gap-2">
        {rail.idle.map((change) => {
          const [read] = changesFromStored([change]);
          const at = parseIsoDateTime(change.original);
          const near = at && nearestDate(readRecurrence(content.recurrence), at, new Set(content.changes.map((c) => c.original)));
          const settle = (how: 'forget' | 'own' | 'nearest') => () => setContent((c) => settleIdle(c, change.original, how));
          return (
            <li key={change.original} className="small border-b border-b-rule py-1 px-2.5">
              {read && sayChange(read, style)}
              <span className="row gap-2.5">
                {near && (
                  <button type="button" className="link" onClick={settle('nearest')}>
                    {w.giveItTo({ when: sayWhen(near, null, style, { weekday: 'short', month: 'short' }) })}
                  </button>
                )}
                <button type="button" className="link" onClick={settle('own')}>
                  {w.keepAsADate()}
                </button>
                <button type="button" className="link" onClick={settle('forget')}>
                  {w.forgetIt()}
                </button>
              </span>
            </li>
          );
        })}
      </ul>
    </div>
  );
}
