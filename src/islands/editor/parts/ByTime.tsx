/** When it goes out and comes down by itself, by the site's clock. */
import { useEffect, useState } from 'react';
import type { EditorStart } from '@/core/listing/editor';
import { partsOf, readTimes, type Times } from '@/core/listing/publication-times';
import { parseIsoDay } from '@/core/day/day';
import { dateTimeToInstant } from '@/core/day/zone';
import { sayWhen } from '@/core/phrase/format';
import { isoDateTime, parseIsoDateTime } from '@/core/day/plain-date-time';
import { ClockField } from '../../fields/ClockField';
import { DayField } from '../../fields/DayField';
import { Check } from '../../fields/fields';
import type { Listing } from '../use-listing';
import type { PartProps } from './part';
import { editorWords } from '@/words/desk';

const w = editorWords.byTime;

const MORNING = 540;

interface ByTimeProps {
  listing: Listing;
  start: EditorStart;
  error: PartProps['error'];
}

export function ByTime({ listing, start, error }: ByTimeProps) {
  const { server, act, busy, dirty } = listing;
  const { site } = start;
  const [times, setTimes] = useState<Times>(server.times);
  useEffect(() => setTimes(server.times), [server.times]);
  const isPublic = server.stage === 'published';
  const said = readTimes(times, {
    now: dateTimeToInstant(site.zone, { day: site.today, minute: site.minute }),
    zone: site.zone,
    isPublic,
  });
  const problem = (field: keyof Times): string | undefined =>
    error(field) ?? ('problems' in said ? said.problems.find((p) => p.field === field)?.message : undefined);
  const same = times.publishAt === server.times.publishAt && times.withdrawAt === server.times.withdrawAt;
  return (
    <fieldset className="border-t border-t-rule pt-2.5 mt-1 min-w-0 grid gap-2.5">
      <legend className="float-left w-full font-bold [legend+&]:clear-both">{w.byItself()}</legend>
      {/* Changes of what is out already can wait for a time; with none there is nothing to go out. */}
      {(!isPublic || server.edited || dirty || times.publishAt) && (
        <TimeRow
          label={isPublic ? w.itsChangesGoOut() : w.goesOutByItself()}
          value={times.publishAt}
          onChange={(publishAt) => setTimes((before) => ({ ...before, publishAt }))}
          error={problem('publishAt')}
          site={site}
        />
      )}
      <TimeRow
        label={w.comesDownByItself()}
        value={times.withdrawAt}
        onChange={(withdrawAt) => setTimes((before) => ({ ...before, withdrawAt }))}
        error={problem('withdrawAt')}
        site={site}
      />
      {!same && (
        <div className="row clear-both">
          <button type="button" className="button" disabled={busy || 'problems' in said} onClick={() => void act('times', { times })}>
            {times.publishAt || times.withdrawAt ? w.setTheseTimes() : w.takeTheTimesOff()}
          </button>
          <button type="button" className="button" onClick={() => setTimes(server.times)}>
            {w.notNow()}
          </button>
        </div>
      )}
      <span className="hint">{w.timesOfProofLooks({ city: site.zone.split('/').at(-1)?.replace('_', ' ') ?? site.zone })}</span>
    </fieldset>
  );
}

interface TimeRowProps {
  label: string;
  value: string | null;
  onChange: (value: string | null) => void;
  error: string | undefined;
  site: EditorStart['site'];
}

function TimeRow({ label, value, onChange, error, site }: TimeRowProps) {
  const { day, minute } = partsOf(value);
  const change = (nextDay: string, nextMinute: number | null): void => {
    const parsed = parseIsoDay(nextDay);
    if (parsed !== undefined) onChange(isoDateTime({ day: parsed, minute: nextMinute ?? MORNING }));
  };
  const tomorrow = isoDateTime({ day: site.today + 1, minute: MORNING });
  return (
    <div className="row">
      <Check label={label} checked={value !== null} onChange={(on) => onChange(on ? tomorrow : null)} />
      {value !== null && (
        <>
          <DayField label={w.day()} value={day} onChange={(next) => change(next, minute)} error={error} />
          <ClockField label={w.time()} value={minute} onChange={(next) => change(day, next)} hours={site.style.hours} />
        </>
      )}
    </div>
  );
}

/** What is set, in one line; empty when nothing is. */
export function sayTimes({ publishAt, withdrawAt }: Times, style: EditorStart['site']['style']): string {
  const say = (text: string): string => {
    const wall = parseIsoDateTime(text);
    return wall ? sayWhen(wall, null, style) : text;
  };
  return [publishAt ? w.goesOut({ day: say(publishAt) }) : '', withdrawAt ? w.comesDown({ day: say(withdrawAt) }) : '']
    .filter(Boolean)
    .join(', ');
}
