/** The rail: every coming date, live, and Proof. */
import { useState } from 'react';
import { isoDay } from '@/core/day/day';
import { isoWall, parseIsoWall } from '@/core/day/wall';
import type { ListingContent } from '@/core/listing/content';
import { sayDay, sayTime, type Style, WEEKDAYS } from '@/core/phrase/format';
import { weekdayOf } from '@/core/day/day';
import type { ProofField, ProofNote } from '@/core/proof/proof';
import type { StoredChange } from '@/core/recurrence/stored';
import { ClockField, DayField, Text } from '../fields';
import { changeDate, type Rail, type RailDate, toggleDate } from '../state';

interface DatesProps {
  content: ListingContent;
  setContent: (change: (before: ListingContent) => ListingContent) => void;
  rail: Rail;
  style: Style;
}

export function DatesRail({ content, setContent, rail, style }: DatesProps) {
  const [open, setOpen] = useState<string | null>(null);
  const change = (key: string, part: Partial<StoredChange>): void =>
    setContent((c) => ({ ...c, changes: changeDate(c.changes, key, part) }));
  return (
    <section aria-label="Dates">
      <div className="rail-head">
        <h2>Dates</h2>
        <span className="small quiet" role="status">
          {rail.total} in all{rail.coming ? `, ${rail.coming} to come` : ''}
        </span>
      </div>
      {rail.shown.length === 0 && <p className="quiet">Dates show here as soon as there are any.</p>}
      <ul className="dates-rail">
        {rail.shown.map((date) => (
          <li key={date.key}>
            <div className="one">
              <input
                type="checkbox"
                checked={!date.out}
                aria-label={`${date.out ? 'Put back' : 'Leave out'} ${sayDay(date.wall.day, style, { weekday: 'long', year: true })}`}
                onChange={() => setContent((c) => (c.recurrence ? { ...c, recurrence: toggleDate(c.recurrence, date.key) } : c))}
              />
              <span className={date.out ? 'out' : ''}>{sayDay(date.wall.day, style, { weekday: 'short', month: 'short' })}</span>
              <RailWords date={date} style={style} />
              {!date.out && (
                <button
                  type="button"
                  className="link small"
                  aria-expanded={open === date.key}
                  onClick={() => setOpen(open === date.key ? null : date.key)}
                >
                  Change
                </button>
              )}
            </div>
            {open === date.key && (
              <ChangePanel
                date={date}
                change={content.changes.find((c) => c.original === date.key)}
                onChange={(part) => change(date.key, part)}
                onClose={() => setOpen(null)}
                style={style}
              />
            )}
          </li>
        ))}
      </ul>
      {rail.coming > rail.shown.length && <p className="small quiet">and {rail.coming - rail.shown.length} more</p>}
    </section>
  );
}

function RailWords({ date, style }: { date: RailDate; style: Style }) {
  const o = date.occurrence;
  if (date.out) return <span className="quiet small">left out by you</span>;
  if (!o) return <span />;
  if (o.standing === 'cancelled') return <span className="red">cancelled</span>;
  if (o.standing === 'postponed') return <span className="amber">postponed</span>;
  const time = o.start.minute === null ? 'all day' : sayTime(o.start.minute, style);
  if (isoWall(o.original) === isoWall(o.start))
    return (
      <span>
        {time}
        {o.note && <span className="quiet small"> {o.note}</span>}
      </span>
    );
  const day = o.start.day === o.original.day ? 'same day' : sayDay(o.start.day, style, { weekday: 'short', month: 'short' });
  return (
    <span className="amber">
      {time} moved, {day}
    </span>
  );
}

interface PanelProps {
  date: RailDate;
  change: StoredChange | undefined;
  onChange: (part: Partial<StoredChange>) => void;
  onClose: () => void;
  style: Style;
}

function ChangePanel({ date, change, onChange, onClose, style }: PanelProps) {
  const to = parseIsoWall(change?.movedTo ?? date.key) ?? date.wall;
  const move = (day: number, minute: number | null): void => {
    const text = isoWall({ day, minute });
    onChange({ movedTo: text === date.key ? null : text });
  };
  const off = change?.standing === 'cancelled';
  const weekday =
    weekdayOf(to.day) !== weekdayOf(date.wall.day)
      ? `moves to a ${WEEKDAYS[weekdayOf(to.day)]}; was ${WEEKDAYS[weekdayOf(date.wall.day)]}`
      : '';
  return (
    <div className="change">
      <div className="row" style={{ gap: 6 }}>
        <button type="button" className="button small" onClick={() => onChange({ standing: off ? null : 'cancelled' })}>
          {off ? 'It goes ahead after all' : 'Cancel this date'}
        </button>
        {!off && (
          <button
            type="button"
            className="button small"
            onClick={() => onChange({ standing: change?.standing === 'postponed' ? null : 'postponed' })}
          >
            {change?.standing === 'postponed' ? 'Not postponed' : 'Postpone'}
          </button>
        )}
        {change && (
          <button
            type="button"
            className="button small"
            onClick={() => onChange({ movedTo: null, length: null, standing: null, note: '' })}
          >
            As the rule says
          </button>
        )}
      </div>
      {!off && (
        <>
          <DayField
            label="Moved to"
            value={isoDay(to.day)}
            hint={weekday || undefined}
            onChange={(day) => move(parseIsoWall(day)?.day ?? to.day, to.minute)}
          />
          {to.minute !== null && (
            <ClockField label="at" value={to.minute} hours={style.hours} onChange={(minute) => minute !== null && move(to.day, minute)} />
          )}
        </>
      )}
      <Text label="A note for readers" value={change?.note ?? ''} maxLength={300} onChange={(note) => onChange({ note })} />
      <div>
        <button type="button" className="link" onClick={onClose}>
          Done
        </button>
      </div>
    </div>
  );
}

const SIGNS = { stops: ['✕', 'red', 'Stops publishing: '], look: ['!', 'amber', 'Worth a look: '], good: ['✓', '', 'Good: '] } as const;

export function ProofRail({ notes, goTo }: { notes: readonly ProofNote[]; goTo: (field: ProofField) => void }) {
  const open = notes.filter((n) => n.severity !== 'good').length;
  return (
    <section aria-label="Proof">
      <div className="rail-head">
        <h2>Proof</h2>
        <span className="small quiet" role="status">
          {open ? `${open} to look at` : 'nothing to look at'}
        </span>
      </div>
      <ul className="proof">
        {notes.map((n) => (
          <li key={n.kind}>
            <span className={`sign ${SIGNS[n.severity][1]}`} aria-hidden="true">
              {SIGNS[n.severity][0]}
            </span>
            {n.severity === 'good' ? (
              <span>{n.sentence}</span>
            ) : (
              <button type="button" onClick={() => goTo(n.field)}>
                <span className="hidden-words">{SIGNS[n.severity][2]}</span>
                {n.sentence}
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
