/** One date on a sheet: a line, or a band over several days. Handles at its ends lengthen it. */
import type { DeskDate } from '@/core/sheet/desk-sheet';
import { sayTime, type Style } from '@/core/phrase/format';
import { keyOf } from './state';
import { sheetWords } from '@/words/desk';

const w = sheetWords.entries;

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
  return look ? <span className="inline-flex flex-none" aria-hidden="true" dangerouslySetInnerHTML={{ __html: look.mark }} /> : null;
}

interface LineProps {
  date: DeskDate;
  look: Look | undefined;
  classes: string;
  style: Style;
}

export function Line({ date, look, classes, style }: LineProps) {
  return (
    <span
      className={`flex items-baseline gap-1 relative text-[12.5px] leading-[19px] cursor-grab pl-0.5 ds-entry ${classes}`}
      data-key={keyOf(date)}
      title={date.title}
    >
      <Mark look={look} />
      <span className="w overflow-hidden whitespace-nowrap text-ellipsis min-w-0 flex-1 cursor-grab in-[.head]:font-bold">
        {date.startMinute !== null && (
          <span className="t text-ink-2 tabular-nums in-[.moved]:text-red">{sayTime(date.startMinute, style)} </span>
        )}
        {date.title || w.withoutATitle()}
      </span>
      <i
        className="absolute top-0 bottom-0 w-2 cursor-ew-resize -right-0.75 in-[[data-key]:hover]:[background:linear-gradient(var(--ink-3),var(--ink-3))_center_/_2px_70%_no-repeat]"
        data-edge="end"
      />
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
      className={`absolute top-[calc(27px_+_var(--lane)_*_22px)] left-1 w-[calc(var(--span)_*_(100%_+_1px)_-_9px)] h-5 z-1 bg-[color-mix(in_srgb,light-dark(var(--ml),var(--md))_14%,var(--sheet))] border-[light-dark(var(--ml),var(--md))] border-y border-x-[3px] text-[12.5px] leading-[17px] px-2 overflow-hidden whitespace-nowrap text-ellipsis cursor-grab max-[700px]:hidden [&.head]:font-bold [&.off]:line-through [&.off]:text-ink-2 [&.draft]:italic [&.in-review]:italic [&.in-review]:text-amber [&.withdrawn]:text-ink-3 [&.withdrawn]:italic [&.waits]:underline [&.waits]:decoration-dotted [&.waits]:decoration-amber [&.waits]:decoration-[2px] [&.waits]:underline-offset-[3px] [&.before]:border-l-0 [&.before]:left-0 [&.before]:w-[calc(var(--span)_*_(100%_+_1px)_-_5px)] [&.after]:border-r-0 [&.after]:w-[calc(var(--span)_*_(100%_+_1px)_-_5px)] [&.before]:[&.after]:w-[calc(var(--span)_*_(100%_+_1px))] ds-band ${look?.ink ?? ''} ${classes} ${before ? 'before' : ''} ${after ? 'after' : ''}`}
      style={place}
      data-key={keyOf(date)}
      title={date.title}
    >
      {!before && (
        <i
          className="absolute top-0 bottom-0 w-2 cursor-ew-resize left-0 in-[[data-key]:hover]:[background:linear-gradient(var(--ink-3),var(--ink-3))_center_/_2px_70%_no-repeat]"
          data-edge="start"
        />
      )}
      {date.title || w.withoutATitle()}
      {!after && (
        <i
          className="absolute top-0 bottom-0 w-2 cursor-ew-resize right-0 in-[[data-key]:hover]:[background:linear-gradient(var(--ink-3),var(--ink-3))_center_/_2px_70%_no-repeat]"
          data-edge="end"
        />
      )}
    </span>
  );
}
