/** One date on a sheet: a line, or a band over several days. Handles at its ends lengthen it. */
import type { DeskDate } from '@/core/sheet/desk-sheet';
import { sayTime, type Style } from '@/core/phrase/format';
import { keyOf } from './state';

/** A category as it shows: the mark's HTML and the class that has its inks. */
export interface Look {
  mark: string;
  ink: string;
}

const OFF = new Set(['cancelled', 'postponed']);

export function classesOf(date: DeskDate, chosen: string | null, lifted: string | null): string {
  const key = keyOf(date);
  return [
    date.stage === 'published' ? '' : date.stage,
    date.edited && 'waits',
    date.eventStatus && OFF.has(date.eventStatus) && 'off',
    date.moved && 'moved',
    date.headline && 'head',
    key === chosen && 'chosen',
    key === lifted && 'lifted',
  ]
    .filter(Boolean)
    .join(' ');
}

export function Mark({ look }: { look: Look | undefined }) {
  return look ? <span className="mark-box" aria-hidden="true" dangerouslySetInnerHTML={{ __html: look.mark }} /> : null;
}

interface LineProps {
  date: DeskDate;
  look: Look | undefined;
  classes: string;
  style: Style;
}

export function Line({ date, look, classes, style }: LineProps) {
  return (
    <span className={`ds-entry ${classes}`} data-key={keyOf(date)} title={date.title}>
      <Mark look={look} />
      <span className="w">
        {date.startMinute !== null && <span className="t">{sayTime(date.startMinute, style)} </span>}
        {date.title || 'Without a title'}
      </span>
      <i data-edge="end" />
    </span>
  );
}

interface BandProps {
  date: DeskDate;
  look: Look | undefined;
  classes: string;
  place: React.CSSProperties;
  /** it goes on before or after what is shown: no handle there */
  before: boolean;
  after: boolean;
}

export function BandLine({ date, look, classes, place, before, after }: BandProps) {
  return (
    <span
      className={`ds-band ${look?.ink ?? ''} ${classes} ${before ? 'before' : ''} ${after ? 'after' : ''}`}
      style={place}
      data-key={keyOf(date)}
      title={date.title}
    >
      {!before && <i data-edge="start" />}
      {date.title || 'Without a title'}
      {!after && <i data-edge="end" />}
    </span>
  );
}
