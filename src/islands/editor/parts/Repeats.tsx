/** How a part repeats, as the form offers it. */
import { weekdayOf, ymdOf } from '@/core/day/day';
import { MONTHS, WEEKDAYS } from '@/core/phrase/format';
import type { StoredRecurrencePart } from '@/core/recurrence/stored';
import { Field, Select, Toggles } from '../../fields/fields';
import { IN_MONTHS, REPEATS, type Repeat, ruleFor, withRule } from '@/core/dates/repeat-choices';
import type { PartProps } from './part-props';
import { editorWords } from '@/words/desk';

const texts = editorWords.repeats;

const REPEAT_WORDS: Record<Repeat, string> = {
  never: texts.once(),
  daily: texts.daily(),
  workdays: texts.onWorkdays(),
  weekly: texts.weekly(),
  'month-day': texts.monthlyOnDaysOf(),
  'month-weekday': texts.monthlyOnWeekdays(),
  yearly: texts.yearly(),
  other: texts.aRuleThisForm(),
};
const NTHS = [
  [1, '1st'],
  [2, '2nd'],
  [3, '3rd'],
  [4, '4th'],
  [-1, texts.last()],
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

const DAYS_OF_WEEK = [0, 1, 2, 3, 4, 5, 6].map((day) => [day, (WEEKDAYS[day] as string).slice(0, 3)] as const);

type Rule = NonNullable<StoredRecurrencePart['rule']>;

export function RepeatFields({
  recurrencePart: { rule },
  repeat,
  startDay,
  preset,
  setPart,
}: {
  recurrencePart: StoredRecurrencePart;
  repeat: Repeat;
  startDay: number;
  /** nobody has set the first day by hand: it may follow the rule */
  preset: boolean;
  setPart: PartProps['setPart'];
}) {
  const offered = REPEATS.filter((r) => r !== 'other' || repeat === 'other');
  const setRule = (part: Partial<Rule>): void => setPart((s) => (s.rule ? withRule(s, { ...s.rule, ...part }, preset) : s));
  return (
    <>
      <div className="grid grid-cols-[repeat(auto-fit,minmax(150px,1fr))] gap-3 items-start">
        <Select
          label={texts.repeats()}
          value={repeat}
          options={offered.map((r) => [r, REPEAT_WORDS[r]] as const)}
          onChange={(next) =>
            setPart((s) => ({ ...s, rule: ruleFor(next, startDay, s.rule), limit: next === 'never' ? { kind: 'open' } : s.limit }))
          }
        />
        {rule && (
          <Field
            label={texts.every()}
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
      {rule && <RuleDays rule={rule} repeat={repeat} startDay={startDay} setRule={setRule} />}
      {rule && IN_MONTHS.includes(repeat) && (
        <details open={rule.byMonth.length > 0}>
          <summary>{texts.onlyInSomeMonths()}</summary>
          <Toggles
            label={texts.inIt()}
            options={MONTHS.map((month, i) => [i + 1, month.slice(0, 3)] as const)}
            chosen={rule.byMonth}
            onChange={(months) => setRule({ byMonth: months.length === 12 ? [] : [...months].sort((a, b) => a - b) })}
          />
        </details>
      )}
      {rule && repeat === 'month-day' && <MonthDays rule={rule} startDay={startDay} setRule={setRule} />}
    </>
  );
}

interface RuleProps {
  rule: Rule;
  startDay: number;
  setRule: (part: Partial<Rule>) => void;
}

/** On which weekdays a rule has its dates: each week, or which of them in the month. */
function RuleDays({ rule, repeat, startDay, setRule }: RuleProps & { repeat: Repeat }) {
  const nths = [...new Set(rule.byDay.map((d) => d.nth))];
  const days = [...new Set(rule.byDay.map((d) => d.weekday))];
  const cross = (w: number[], n: number[]): void => setRule({ byDay: w.flatMap((weekday) => n.map((nth) => ({ weekday, nth }))) });
  if (repeat === 'weekly')
    return (
      <Toggles
        label={texts.on()}
        options={DAYS_OF_WEEK}
        chosen={days}
        onChange={(w) =>
          setRule({ byDay: (w.length ? w : [weekdayOf(startDay)]).sort((a, b) => a - b).map((weekday) => ({ weekday, nth: 0 })) })
        }
      />
    );
  if (repeat !== 'month-weekday') return null;
  return (
    <>
      <Toggles
        label={texts.which()}
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
        label={texts.weekday()}
        options={DAYS_OF_WEEK}
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
  );
}

/** On which days of the month. */
function MonthDays({ rule, startDay, setRule }: RuleProps) {
  return (
    <Toggles
      label={texts.daysOfTheMonth()}
      options={[...Array.from({ length: 31 }, (_, i) => [i + 1, String(i + 1)] as const), [-1, texts.last()] as const]}
      chosen={rule.byMonthDay}
      onChange={(d) =>
        setRule({ byMonthDay: d.length ? [...d].sort((a, b) => (a < 0 ? 99 : a) - (b < 0 ? 99 : b)) : [ymdOf(startDay).day] })
      }
    />
  );
}
