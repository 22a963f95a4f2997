/** A listing begun where somebody is on a sheet: a title, perhaps a time, and the days that are drawn. */
import { type Ref, useState } from 'react';
import type { EpochDay } from '@/core/day/day';
import { isoDateTime } from '@/core/day/plain-date-time';
import type { ListingContent } from '@/core/listing/content';
import { emptyContent, mostOf } from '@/core/listing/fields';
import { sayDay, sayDays, type Style } from '@/core/phrase/format';
import type { StoredRecurrencePart } from '@/core/recurrence/stored';
import { ClockField } from '../fields/ClockField';
import { sheetWords } from '@/words/desk';

const w = sheetWords.newListing;

/** How several days are meant. */
export type Several = 'one' | 'each';

export interface NewInput {
  title: string;
  from: EpochDay;
  /** included */
  to: EpochDay;
  several: Several;
  start: number | null;
  end: number | null;
}

/** The content of a new listing. With a time, several days are a date on each; else they are one event, or a whole day each. */
export function newContent({ title, from, to, several, start, end }: NewInput, zone: string): ListingContent {
  const days = to - from + 1;
  const ends = end === null || start === null ? null : { days: end <= start ? 1 : 0, minute: end };
  const base = { start: isoDateTime({ day: from, minute: start }), limit: { kind: 'open' as const } };
  const length = (n: number) => (start === null ? { days: n, minute: null } : ends);
  const whole = ends && { ...ends, days: ends.days + days - 1 };
  const recurrencePart: StoredRecurrencePart =
    several === 'each' && days > 1
      ? {
          ...base,
          length: length(1),
          rule: { freq: 'daily', interval: 1, byMonth: [], byMonthDay: [], byDay: [], weekStart: 0 },
          limit: { kind: 'count', count: days },
        }
      : { ...base, length: start === null ? length(days) : whole, rule: null };
  return { ...emptyContent(), title: title.trim(), recurrence: { format: 3, zone, parts: [recurrencePart], exdates: [], breaks: [] } };
}

interface Props {
  from: EpochDay;
  to: EpochDay;
  title: string;
  setTitle: (title: string) => void;
  style: Style;
  field: Ref<HTMLInputElement>;
  busy: boolean;
  onMake: (input: NewInput, open: boolean) => void;
  onLeave: () => void;
}

export function NewListing({ from, to, title, setTitle, style, field, busy, onMake, onLeave }: Props) {
  const [start, setStart] = useState<number | null>(null);
  const [end, setEnd] = useState<number | null>(null);
  const [several, setSeveral] = useState<Several>('one');
  const [wrong, setWrong] = useState(false);
  const make = (open: boolean): void => {
    setWrong(!title.trim());
    if (title.trim()) onMake({ title, from, to, several, start, end }, open);
  };
  return (
    <form
      className="ds-new border-t border-t-rule-strong pt-2.5 grid gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        make(false);
      }}
      onKeyDown={(event) => {
        if (event.key === 'Escape') onLeave();
        else if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
          event.preventDefault();
          make(true);
        }
      }}
    >
      <h3 className="text-[15px]">
        {w.newListing()}{' '}
        <span className="quiet font-normal text-[13px] leading-[normal] font-sans normal-nums">
          {from === to ? sayDay(from, style, { weekday: 'short', month: 'short' }) : sayDays(from, to, style, { month: 'short' })}
        </span>
      </h3>
      <div className="field">
        <label htmlFor="ds-title">{w.title()}</label>
        <input
          id="ds-title"
          ref={field}
          value={title}
          maxLength={mostOf('title')}
          autoComplete="off"
          aria-invalid={wrong || undefined}
          aria-describedby={wrong ? 'ds-title-wrong' : undefined}
          onChange={(event) => setTitle(event.target.value)}
        />
        {wrong && (
          <span className="wrong" id="ds-title-wrong" role="alert">
            {w.giveItATitle()}
          </span>
        )}
      </div>
      <div className="grid grid-cols-[1fr_1fr] gap-2">
        <ClockField label={w.starts()} value={start} onChange={setStart} hours={style.hours} />
        <ClockField label={w.ends()} value={end} onChange={setEnd} hours={style.hours} after={start} />
      </div>
      {to > from && (
        <fieldset className="grid gap-0.75">
          <legend className="hidden-words">{w.severalDays()}</legend>
          <label>
            <input type="radio" name="ds-several" checked={several === 'one'} onChange={() => setSeveral('one')} />{' '}
            {w.oneEventOfDays({ n: to - from + 1 })}
          </label>
          <label>
            <input type="radio" name="ds-several" checked={several === 'each'} onChange={() => setSeveral('each')} /> {w.aDateOnEach()}
          </label>
        </fieldset>
      )}
      <div className="row">
        <button type="submit" className="button main small" disabled={busy}>
          {w.makeADraft()}
        </button>
        <button type="button" className="button small" disabled={busy} onClick={() => make(true)}>
          {w.makeAndOpen()}
        </button>
      </div>
    </form>
  );
}
