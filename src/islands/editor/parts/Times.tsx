/** The first date of a part, when it starts and when it ends. */
import { isoDay, weekdayOf } from '@/core/day/day';
import { isoDateTime, parseIsoDateTime, type PlainDateTime } from '@/core/day/plain-date-time';
import { WEEKDAYS } from '@/core/phrase/format';
import type { SunStart } from '@/core/recurrence/sun-start';
import { ClockField } from '../../fields/ClockField';
import { DayField } from '../../fields/DayField';
import { Check } from '../../fields/fields';
import type { PartProps } from './part-props';
import { SunTimes } from './SunTimes';
import { editorWords } from '@/words/desk';

const w = editorWords.times;

type TimeProps = Omit<PartProps, 'problems' | 'preset' | 'partFirst'> & { start: PlainDateTime; endsEarly: boolean };

export function TimeFields({ recurrencePart, start, site, setPart, setStart, endsEarly }: TimeProps) {
  const { rule, length } = recurrencePart;
  const allDay = start.minute === null;
  const setEnd = (minute: number | null): void =>
    setPart((s) => ({ ...s, length: minute === null ? null : { days: s.length && s.length.days > 1 ? s.length.days : 0, minute } }));
  const { sun } = recurrencePart;
  const bySun = !allDay && sun !== undefined;
  return (
    <>
      <div className="row">
        <Check
          label={w.allDay()}
          checked={allDay}
          onChange={(on) => setStart(isoDateTime({ day: start.day, minute: on ? null : 19 * 60 }))}
        />
        {!allDay && <BySun sun={sun} site={site} onChange={(next) => setStart(recurrencePart.start, next)} />}
      </div>
      <div className="grid grid-cols-[repeat(auto-fit,minmax(150px,1fr))] gap-3 items-start">
        <DayField
          label={rule ? w.firstDate() : w.date()}
          value={isoDay(start.day)}
          onChange={(day) => setStart(allDay ? day : `${day}${recurrencePart.start.slice(10)}`)}
          hint={WEEKDAYS[weekdayOf(start.day)]}
        />
        {allDay ? (
          <DayField
            label={w.lastDay()}
            value={isoDay(start.day + (length?.days ?? 1) - 1)}
            onChange={(day) =>
              setPart((s) => ({ ...s, length: { days: (parseIsoDateTime(day)?.day ?? start.day) - start.day + 1, minute: null } }))
            }
            error={endsEarly ? w.theLastDayLies() : undefined}
            hint={length && length.days > 1 ? w.days({ days: length.days }) : undefined}
          />
        ) : bySun ? (
          <SunTimes recurrencePart={recurrencePart} start={start} sun={sun} site={site} setPart={setPart} setStart={setStart} />
        ) : (
          <>
            <ClockField
              label={w.starts()}
              value={start.minute}
              hours={site.style.hours}
              onChange={(minute) => minute !== null && setStart(isoDateTime({ day: start.day, minute }))}
            />
            <ClockField
              label={w.ends()}
              value={length?.minute ?? null}
              hours={site.style.hours}
              onChange={setEnd}
              after={start.minute}
              error={endsEarly ? w.itEndsBeforeIt() : undefined}
              hint={length === null ? w.noEndIsGiven() : length.days === 1 ? w.theNextDay() : undefined}
            />
          </>
        )}
      </div>
      {endsEarly && !allDay && !bySun && (
        <p className="note warn m-0">
          {w.itEndsBeforeItStarts()}{' '}
          <button type="button" className="link" onClick={() => setPart((s) => ({ ...s, length: s.length && { ...s.length, days: 1 } }))}>
            {w.readItAsThe()}
          </button>
        </p>
      )}
      {!allDay && !bySun && <Length length={length} start={start} setPart={setPart} />}
    </>
  );
}

/** Starts that hang on the sun; where nobody has said where the site is, there is no sun to hang on. */
function BySun({ sun, site, onChange }: { sun: SunStart | undefined; site: TimeProps['site']; onChange: (sun: SunStart | null) => void }) {
  const { sunAt } = site;
  if (!sun && !sunAt) return null;
  return (
    <Check
      label={w.byTheSun()}
      checked={sun !== undefined}
      onChange={(on) => onChange(on && sunAt ? { event: 'sunset', minutes: 0, ...sunAt, ends: 'length' } : null)}
    />
  );
}

/** Whether an end is given, and on which day it lies. */
function Length({ length, start, setPart }: Pick<TimeProps, 'start' | 'setPart'> & { length: TimeProps['recurrencePart']['length'] }) {
  return (
    <div className="row">
      <Check
        label={w.noEndIsGiven2()}
        checked={length === null}
        onChange={(on) => setPart((s) => ({ ...s, length: on ? null : { days: 0, minute: Math.min(1439, (start.minute ?? 0) + 120) } }))}
      />
      {length && (
        <DayField
          label={w.lastDay()}
          value={isoDay(start.day + Math.max(0, length.days))}
          onChange={(day) =>
            setPart((s) => ({
              ...s,
              length: s.length && {
                ...s.length,
                days: Math.max(0, Math.min(366, (parseIsoDateTime(day)?.day ?? start.day) - start.day)),
              },
            }))
          }
          hint={length.days > 1 ? w.onDays({ n: length.days + 1 }) : undefined}
        />
      )}
    </div>
  );
}
