/** One part of the repeats: its times, its rule, its limit, and mends for what contradicts itself. */
import type { PartProps } from './part-props';
import { isoDay, weekdayOf, ymdOf } from '@/core/day/day';
import { isoDateTime, parseIsoDateTime } from '@/core/day/plain-date-time';
import { sayDay, weekdayName } from '@/core/phrase/format';
import type { RecurrenceProblem } from '@/core/recurrence/problems';
import type { StoredLimit } from '@/core/recurrence/stored';
import type { EditorStart } from '@/core/listing/editor';
import { DayField } from '../../fields/DayField';
import { Field, Select } from '../../fields/fields';
import { repeatOf, ruleFor } from '@/core/dates/repeat-choices';
import { hasTimes } from '@/core/recurrence/sub-daily';
import { TimeFields } from './Times';
import { RepeatFields } from './Repeats';
import { editorWords } from '@/words/desk';

const w = editorWords.recurrencePart;

export function PartFields({ recurrencePart, site, setPart, setStart, problems, preset, partFirst }: PartProps) {
  const start = parseIsoDateTime(recurrencePart.start) ?? { day: site.today, minute: null };
  const { rule, limit } = recurrencePart;
  const repeat = repeatOf(rule);
  return (
    <>
      <TimeFields
        recurrencePart={recurrencePart}
        start={start}
        site={site}
        setPart={setPart}
        setStart={setStart}
        endsEarly={problems.some((p) => p.kind === 'end-before-start')}
      />
      <RepeatFields recurrencePart={recurrencePart} repeat={repeat} startDay={start.day} preset={preset} setPart={setPart} />
      {rule && (
        <LimitFields
          limit={limit}
          startDay={start.day}
          onChange={(next) => setPart((s) => ({ ...s, limit: next }))}
          early={problems.some((p) => p.kind === 'limit-before-start')}
        />
      )}
      {problems.map((p) => (
        <ProblemNote
          key={p.kind}
          problem={p}
          site={site}
          startDay={start.day}
          setStart={(day) => setStart(isoDateTime({ day, minute: start.minute }))}
          partFirst={rule && start.minute !== null && hasTimes(rule) ? undefined : partFirst}
          fitRule={() => setPart((s) => ({ ...s, rule: ruleFor(repeat, start.day, s.rule) }))}
        />
      ))}
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
    <div className="grid grid-cols-[repeat(auto-fit,minmax(150px,1fr))] gap-3 items-start">
      <Select
        label={w.goesOn()}
        value={limit.kind}
        options={
          [
            ['open', w.withNoEndYet()],
            ['until', w.untilADay()],
            ['count', w.forSoManyDates()],
          ] as const
        }
        onChange={(kind) => onChange(kinds[kind]())}
      />
      {limit.kind === 'until' && (
        <DayField
          label={w.until()}
          value={limit.day}
          onChange={(day) => onChange({ kind: 'until', day })}
          error={early ? w.theLastDayLies() : undefined}
        />
      )}
      {limit.kind === 'count' && (
        <Field label={w.dates()}>
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
  partFirst,
  fitRule,
}: {
  problem: RecurrenceProblem;
  site: EditorStart['site'];
  startDay: number;
  setStart: (day: number) => void;
  partFirst: (() => void) | undefined;
  fitRule: () => void;
}) {
  const say = (day: number): string => sayDay(day, site.style, { weekday: 'long', year: true });
  switch (problem.kind) {
    case 'start-not-in-rule':
      return (
        <p className="note warn m-0">
          {w.isNotADate({ day: say(startDay) })}{' '}
          <button type="button" className="link" onClick={() => setStart(problem.fits)}>
            {w.beginOn({ day: say(problem.fits) })}
          </button>
          {partFirst && (
            <>
              {', '}
              <button type="button" className="link" onClick={partFirst}>
                {w.keepItAsA()}
              </button>
            </>
          )}
          {w.or()}
          <button type="button" className="link" onClick={fitRule}>
            {w.makeTheRuleFit({ weekday: weekdayName(weekdayOf(startDay), site.style), day: ymdOf(startDay).day })}
          </button>
        </p>
      );
    case 'never':
      return (
        <p className="note bad m-0" role="alert">
          {w.thisRuleNeverGives()}
        </p>
      );
    case 'start-in-gap':
      return <p className="note warn m-0">{w.theClocksGoForward({ minutes: problem.minutes })}</p>;
    case 'no-sun':
      return <p className="note warn m-0">{w.noSun({ n: problem.days.length, days: problem.days.slice(0, 3).map(say).join(', ') })}</p>;
    case 'sun-after-end':
      return (
        <p className="note bad m-0" role="alert">
          {w.sunAfterEnd({ n: problem.days.length, days: problem.days.slice(0, 3).map(say).join(', ') })}
        </p>
      );
    case 'dates-in-gap':
      return <p className="note warn m-0">{w.noDateOnThe({ days: problem.days.slice(0, 3).map(say).join(', ') })}</p>;
    default:
      return null;
  }
}
