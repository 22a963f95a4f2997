/** When: first date, times, repeats, limits, breaks, zone; the sentence back, and mends for what contradicts itself. */
import { useMemo } from 'react';
import { isoDay, weekdayOf, ymdOf } from '@/core/day/day';
import { isoWall, parseIsoWall, type Wall } from '@/core/day/wall';
import type { ListingContent } from '@/core/listing/content';
import { sayDay, WEEKDAYS } from '@/core/phrase/format';
import { sayRecurrence, sayTotal } from '@/core/phrase/say';
import type { RecurrenceProblem } from '@/core/recurrence/problems';
import { problemsOf } from '@/core/recurrence/problems';
import type { StoredLimit, StoredRecurrence, StoredStretch } from '@/core/recurrence/stored';
import type { EditorStart } from '@/core/listing/editor';
import { ClockField } from '../../fields/ClockField';
import { DayField } from '../../fields/DayField';
import { Check, Field, Select, Toggles } from '../../fields/fields';
import type { Rail } from '@/core/listing/rail';
import { withRules } from '@/core/listing/rules';
import { Phrase } from './Phrase';
import { newRecurrence, newStretch, readRecurrence, REPEATS, type Repeat, repeatOf, retime, ruleFor } from '@/core/listing/repeats';

interface WhenProps {
  content: ListingContent;
  setContent: (change: (before: ListingContent) => ListingContent) => void;
  site: EditorStart['site'];
  rail: Rail;
  error: string | undefined;
}

const REPEAT_WORDS: Record<Repeat, string> = {
  never: 'Once',
  daily: 'Daily',
  workdays: 'On workdays',
  weekly: 'Weekly',
  'month-day': 'Monthly, on days of the month',
  'month-weekday': 'Monthly, on weekdays',
  yearly: 'Yearly',
  other: 'A rule this form does not show',
};
const NTHS = [
  [1, '1st'],
  [2, '2nd'],
  [3, '3rd'],
  [4, '4th'],
  [-1, 'Last'],
] as const;
const UNITS = {
  secondly: 'second',
  minutely: 'minute',
  hourly: 'hour',
  daily: 'day',
  weekly: 'week',
  monthly: 'month',
  yearly: 'year',
} as const;

export function When({ content, setContent, site, rail, error }: WhenProps) {
  const { recurrence } = content;
  const parsed = useMemo(() => readRecurrence(recurrence), [recurrence]);
  const problems = useMemo(() => (parsed ? problemsOf(parsed, site.horizon) : []), [parsed, site.horizon]);
  const set = (change: (r: StoredRecurrence) => StoredRecurrence): void =>
    setContent((c) => (c.recurrence ? { ...c, recurrence: change(c.recurrence) } : c));
  if (!recurrence) {
    return (
      <section className="part" id="when">
        <h2>When</h2>
        {/* The words stand at the same place in both forms, so that what is being typed goes on when the first date is found. */}
        <div className="grid">
          {error && (
            <p className="wrong" role="alert">
              {error}
            </p>
          )}
          <Phrase recurrence={null} onChange={(next) => setContent((c) => ({ ...c, recurrence: next }))} site={site} />
          <div>
            <button
              type="button"
              className="button"
              onClick={() => setContent((c) => ({ ...c, recurrence: newRecurrence(site.zone, site.today) }))}
            >
              Set a date
            </button>
          </div>
        </div>
      </section>
    );
  }
  const setStretch = (index: number, change: (s: StoredStretch) => StoredStretch): void =>
    set((r) => ({ ...r, stretches: r.stretches.map((s, i) => (i === index ? change(s) : s)) }));
  const last = recurrence.stretches[recurrence.stretches.length - 1];
  const lastDay = parseIsoWall(last?.start ?? '')?.day ?? site.today;
  return (
    <section className="part" id="when">
      <h2>When</h2>
      <div className="grid">
        {error && (
          <p className="wrong" role="alert">
            {error}
          </p>
        )}
        <Phrase recurrence={recurrence} onChange={(next) => setContent((c) => withRules(c, next))} site={site} />
        {recurrence.stretches.map((stretch, index) => (
          <div key={index} className={recurrence.stretches.length > 1 ? 'stretch' : 'grid'}>
            {recurrence.stretches.length > 1 && (
              <div className="row" style={{ justifyContent: 'space-between' }}>
                <strong>
                  {index + 1}. {stretch.rule ? 'Rule' : 'Single date'}
                </strong>
                <button
                  type="button"
                  className="link"
                  onClick={() => set((r) => ({ ...r, stretches: r.stretches.filter((_, i) => i !== index) }))}
                >
                  Remove
                </button>
              </div>
            )}
            <StretchFields
              stretch={stretch}
              site={site}
              setStretch={(change) => setStretch(index, change)}
              setStart={(start) => setContent((c) => retime(c, index, start))}
              problems={problems.filter((p) => 'stretch' in p && p.stretch === index)}
            />
          </div>
        ))}
        <div className="row">
          <button
            type="button"
            className="button small"
            onClick={() =>
              set((r) => ({
                ...r,
                stretches: [
                  ...r.stretches,
                  { ...newStretch(lastDay + 1, parseIsoWall(last?.start ?? '')?.minute ?? null), length: last?.length ?? null },
                ],
              }))
            }
          >
            Add another date or rule
          </button>
          <button
            type="button"
            className="button small"
            onClick={() => set((r) => ({ ...r, breaks: [...r.breaks, { from: isoDay(lastDay + 7), to: isoDay(lastDay + 21) }] }))}
          >
            Add a break
          </button>
        </div>
        {recurrence.breaks.map((b, i) => (
          <div className="cols" key={i}>
            <DayField
              label="Break from"
              value={b.from}
              onChange={(from) => set((r) => ({ ...r, breaks: r.breaks.map((x, k) => (k === i ? { ...x, from } : x)) }))}
            />
            <DayField
              label="to"
              value={b.to}
              onChange={(to) => set((r) => ({ ...r, breaks: r.breaks.map((x, k) => (k === i ? { ...x, to } : x)) }))}
              error={b.to < b.from ? 'It ends before it begins' : undefined}
            />
            <button
              type="button"
              className="link"
              style={{ alignSelf: 'end' }}
              onClick={() => set((r) => ({ ...r, breaks: r.breaks.filter((_, k) => k !== i) }))}
            >
              Remove the break
            </button>
          </div>
        ))}
        <Zone zone={recurrence.zone} site={site} onChange={(zone) => set((r) => ({ ...r, zone }))} />
        {problems.some((p) => p.kind === 'no-dates') && (
          <p className="note bad" role="alert">
            Nothing is left: every date is left out or falls in a break.
          </p>
        )}
        {parsed && (
          <p className="readback" role="status" aria-live="polite" style={{ margin: 0 }} data-readback>
            <strong>{sayRecurrence(parsed, site.style)}</strong> {sayTotal(parsed, rail.total, site.horizon)}
          </p>
        )}
      </div>
    </section>
  );
}

interface StretchProps {
  stretch: StoredStretch;
  site: EditorStart['site'];
  setStretch: (change: (s: StoredStretch) => StoredStretch) => void;
  setStart: (start: string) => void;
  problems: RecurrenceProblem[];
}

function StretchFields({ stretch, site, setStretch, setStart, problems }: StretchProps) {
  const start = parseIsoWall(stretch.start) ?? { day: site.today, minute: null };
  const { rule, limit } = stretch;
  const repeat = repeatOf(rule);
  return (
    <>
      <TimeFields
        stretch={stretch}
        start={start}
        site={site}
        setStretch={setStretch}
        setStart={setStart}
        endsEarly={problems.some((p) => p.kind === 'end-before-start')}
      />
      <RepeatFields stretch={stretch} repeat={repeat} startDay={start.day} setStretch={setStretch} />
      {rule && (
        <LimitFields
          limit={limit}
          startDay={start.day}
          onChange={(next) => setStretch((s) => ({ ...s, limit: next }))}
          early={problems.some((p) => p.kind === 'limit-before-start')}
        />
      )}
      {problems.map((p) => (
        <ProblemNote
          key={p.kind}
          problem={p}
          site={site}
          startDay={start.day}
          setStart={(day) => setStart(isoWall({ day, minute: start.minute }))}
          fitRule={() => setStretch((s) => ({ ...s, rule: ruleFor(repeat, start.day, s.rule) }))}
        />
      ))}
    </>
  );
}

type TimeProps = Omit<StretchProps, 'problems'> & { start: Wall; endsEarly: boolean };

function TimeFields({ stretch, start, site, setStretch, setStart, endsEarly }: TimeProps) {
  const { rule, length } = stretch;
  const allDay = start.minute === null;
  const setEnd = (minute: number | null): void =>
    setStretch((s) => ({ ...s, length: minute === null ? null : { days: s.length && s.length.days > 1 ? s.length.days : 0, minute } }));
  return (
    <>
      <Check label="All day" checked={allDay} onChange={(on) => setStart(isoWall({ day: start.day, minute: on ? null : 19 * 60 }))} />
      <div className="cols">
        <DayField
          label={rule ? 'First date' : 'Date'}
          value={isoDay(start.day)}
          onChange={(day) => setStart(allDay ? day : `${day}${stretch.start.slice(10)}`)}
          hint={WEEKDAYS[weekdayOf(start.day)]}
        />
        {allDay ? (
          <DayField
            label="Last day"
            value={isoDay(start.day + (length?.days ?? 1) - 1)}
            onChange={(day) =>
              setStretch((s) => ({ ...s, length: { days: (parseIsoWall(day)?.day ?? start.day) - start.day + 1, minute: null } }))
            }
            error={endsEarly ? 'The last day lies before the first' : undefined}
            hint={length && length.days > 1 ? `${length.days} days` : undefined}
          />
        ) : (
          <>
            <ClockField
              label="Starts"
              value={start.minute}
              hours={site.style.hours}
              onChange={(minute) => minute !== null && setStart(isoWall({ day: start.day, minute }))}
            />
            <ClockField
              label="Ends"
              value={length?.minute ?? null}
              hours={site.style.hours}
              onChange={setEnd}
              after={start.minute}
              error={endsEarly ? 'It ends before it starts' : undefined}
              hint={
                length === null
                  ? 'no end is given'
                  : length.days === 1
                    ? 'the next day'
                    : length.days > 1
                      ? `${length.days} days later`
                      : undefined
              }
            />
          </>
        )}
      </div>
      {endsEarly && !allDay && (
        <p className="note warn" style={{ margin: 0 }}>
          It ends before it starts.{' '}
          <button
            type="button"
            className="link"
            onClick={() => setStretch((s) => ({ ...s, length: s.length && { ...s.length, days: 1 } }))}
          >
            Read it as the next day
          </button>
        </p>
      )}
      {!allDay && (
        <div className="row">
          <Check
            label="No end is given"
            checked={length === null}
            onChange={(on) =>
              setStretch((s) => ({ ...s, length: on ? null : { days: 0, minute: Math.min(1439, (start.minute ?? 0) + 120) } }))
            }
          />
          {length && (
            <Field label="Ends so many days later">
              {({ id }) => (
                <input
                  id={id}
                  type="number"
                  min={0}
                  max={60}
                  style={{ width: 90 }}
                  value={Math.max(0, length.days)}
                  onChange={(e) =>
                    setStretch((s) => ({
                      ...s,
                      length: s.length && { ...s.length, days: Math.max(0, Math.min(60, Number(e.target.value) || 0)) },
                    }))
                  }
                />
              )}
            </Field>
          )}
        </div>
      )}
    </>
  );
}

function RepeatFields({
  stretch: { rule },
  repeat,
  startDay,
  setStretch,
}: {
  stretch: StoredStretch;
  repeat: Repeat;
  startDay: number;
  setStretch: StretchProps['setStretch'];
}) {
  const offered = REPEATS.filter((r) => r !== 'other' || repeat === 'other');
  const setRule = (part: Partial<NonNullable<typeof rule>>): void => setStretch((s) => ({ ...s, rule: s.rule && { ...s.rule, ...part } }));
  const weekdays = [0, 1, 2, 3, 4, 5, 6].map((w) => [w, (WEEKDAYS[w] as string).slice(0, 3)] as const);
  const nths = [...new Set(rule?.byDay.map((d) => d.nth) ?? [])];
  const days = [...new Set(rule?.byDay.map((d) => d.weekday) ?? [])];
  const cross = (w: number[], n: number[]): void => setRule({ byDay: w.flatMap((weekday) => n.map((nth) => ({ weekday, nth }))) });
  return (
    <>
      <div className="cols">
        <Select
          label="Repeats"
          value={repeat}
          options={offered.map((r) => [r, REPEAT_WORDS[r]] as const)}
          onChange={(next) =>
            setStretch((s) => ({ ...s, rule: ruleFor(next, startDay, s.rule), limit: next === 'never' ? { kind: 'open' } : s.limit }))
          }
        />
        {rule && (
          <Field
            label="Every"
            hint={`${rule.interval === 1 ? '' : `${rule.interval} `}${UNITS[rule.freq]}${rule.interval === 1 ? '' : 's'}`}
          >
            {({ id, describedBy }) => (
              <input
                id={id}
                aria-describedby={describedBy}
                type="number"
                min={1}
                max={99}
                value={rule.interval}
                onChange={(e) => setRule({ interval: Math.max(1, Math.min(99, Math.floor(Number(e.target.value)) || 1)) })}
              />
            )}
          </Field>
        )}
      </div>
      {repeat === 'weekly' && (
        <Toggles
          label="On"
          options={weekdays}
          chosen={days}
          onChange={(w) =>
            setRule({ byDay: (w.length ? w : [weekdayOf(startDay)]).sort((a, b) => a - b).map((weekday) => ({ weekday, nth: 0 })) })
          }
        />
      )}
      {repeat === 'month-weekday' && (
        <>
          <Toggles
            label="Which"
            options={NTHS}
            chosen={nths}
            onChange={(n) =>
              n.length &&
              cross(
                days,
                [...n].sort((a, b) => (a < 0 ? 9 : a) - (b < 0 ? 9 : b)),
              )
            }
          />
          <Toggles
            label="Weekday"
            options={weekdays}
            chosen={days}
            onChange={(w) =>
              w.length &&
              cross(
                [...w].sort((a, b) => a - b),
                nths,
              )
            }
          />
        </>
      )}
      {repeat === 'month-day' && (
        <Toggles
          label="Days of the month"
          options={[...Array.from({ length: 31 }, (_, i) => [i + 1, String(i + 1)] as const), [-1, 'Last'] as const]}
          chosen={rule?.byMonthDay ?? []}
          onChange={(d) =>
            setRule({ byMonthDay: d.length ? [...d].sort((a, b) => (a < 0 ? 99 : a) - (b < 0 ? 99 : b)) : [ymdOf(startDay).day] })
          }
        />
      )}
    </>
  );
}

function LimitFields({
  limit,
  startDay,
  onChange,
  early,
}: {
  limit: StoredLimit;
  startDay: number;
  onChange: (limit: StoredLimit) => void;
  early: boolean;
}) {
  const kinds: Record<StoredLimit['kind'], () => StoredLimit> = {
    open: () => ({ kind: 'open' }),
    until: () => ({ kind: 'until', day: isoDay(startDay + 182) }),
    count: () => ({ kind: 'count', count: 10 }),
  };
  return (
    <div className="cols">
      <Select
        label="Ends"
        value={limit.kind}
        options={
          [
            ['open', 'not yet known'],
            ['until', 'on a day'],
            ['count', 'after so many dates'],
          ] as const
        }
        onChange={(kind) => onChange(kinds[kind]())}
      />
      {limit.kind === 'until' && (
        <DayField
          label="Until"
          value={limit.day}
          onChange={(day) => onChange({ kind: 'until', day })}
          error={early ? 'The last day lies before the first date' : undefined}
        />
      )}
      {limit.kind === 'count' && (
        <Field label="Dates">
          {({ id }) => (
            <input
              id={id}
              type="number"
              min={1}
              max={5000}
              value={limit.count}
              onChange={(e) => onChange({ kind: 'count', count: Math.max(1, Math.min(5000, Math.floor(Number(e.target.value)) || 1)) })}
            />
          )}
        </Field>
      )}
    </div>
  );
}

function ProblemNote({
  problem,
  site,
  startDay,
  setStart,
  fitRule,
}: {
  problem: RecurrenceProblem;
  site: EditorStart['site'];
  startDay: number;
  setStart: (day: number) => void;
  fitRule: () => void;
}) {
  const say = (day: number): string => sayDay(day, site.style, { weekday: 'long', year: true });
  switch (problem.kind) {
    case 'start-not-in-rule':
      return (
        <p className="note warn" style={{ margin: 0 }}>
          {say(startDay)} is not a date that the rule names, but counts as the first.{' '}
          <button type="button" className="link" onClick={() => setStart(problem.fits)}>
            Begin on {say(problem.fits)}
          </button>
          {' or '}
          <button type="button" className="link" onClick={fitRule}>
            make the rule fit {WEEKDAYS[weekdayOf(startDay)]}, the {ymdOf(startDay).day}.
          </button>
        </p>
      );
    case 'never':
      return (
        <p className="note bad" role="alert" style={{ margin: 0 }}>
          This rule never gives a date: no month has such a day.
        </p>
      );
    case 'start-in-gap':
      return (
        <p className="note warn" style={{ margin: 0 }}>
          The clocks go forward then, so there is no such time; it is read {problem.minutes} minutes later.
        </p>
      );
    case 'dates-in-gap':
      return (
        <p className="note warn" style={{ margin: 0 }}>
          No date on {problem.days.slice(0, 3).map(say).join(', ')}: the clocks go forward and there is no such time.
        </p>
      );
    default:
      return null;
  }
}

function Zone({ zone, site, onChange }: { zone: string; site: EditorStart['site']; onChange: (zone: string) => void }) {
  return (
    <details open={zone !== site.zone}>
      <summary className="small quiet">
        Times in {zone.replaceAll('_', ' ')}
        {zone === site.zone ? ', the zone of the site' : ''}
      </summary>
      <div style={{ maxWidth: 320, marginTop: 6 }}>
        <Select label="Time zone" value={zone} options={site.zones.map((z) => [z, z.replaceAll('_', ' ')] as const)} onChange={onChange} />
      </div>
    </details>
  );
}
