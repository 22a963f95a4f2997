/** When a part's dates start by the sun, and how they end: after so long, or at a time of the clock. */
import type { PlainDateTime } from '@/core/day/plain-date-time';
import { sayTime } from '@/core/phrase/format';
import type { Length } from '@/core/recurrence/model';
import { MOST_SUN_MINUTES, type SunStart } from '@/core/recurrence/sun-start';
import { ClockField } from '../../fields/ClockField';
import { Field, Select } from '../../fields/fields';
import type { PartProps } from './part-props';
import { editorWords } from '@/words/desk';

const w = editorWords.sunTimes;

/** An hour and a half: what most walks and concerts take. */
const USUAL = 90;
/** Longer than this nothing lasts that begins with the sun, in minutes. */
const LONGEST = 1440;

const WAYS = ['before', 'at', 'after'] as const;
type Way = (typeof WAYS)[number];
const wayOf = ({ minutes }: SunStart): Way => (minutes < 0 ? 'before' : minutes > 0 ? 'after' : 'at');
/** How far from it, where somebody chose before or after and has not said. */
const SOME_MINUTES = 30;

interface SunTimesProps extends Pick<PartProps, 'recurrencePart' | 'site' | 'setPart' | 'setStart'> {
  start: PlainDateTime;
  sun: SunStart;
}

const lasting = (start: PlainDateTime, minutes: number): Length => {
  const end = (start.minute ?? 0) + minutes;
  return { days: Math.floor(end / 1440), minute: end % 1440 };
};

export function SunTimes({ recurrencePart, start, sun, site, setPart, setStart }: SunTimesProps) {
  const { length } = recurrencePart;
  const put = (change: Partial<SunStart>): void => setStart(recurrencePart.start, { ...sun, ...change });
  const far = Math.abs(sun.minutes);
  const pick = (value: `${SunStart['event']}-${Way}`): void => {
    const [event, way] = value.split('-') as [SunStart['event'], Way];
    const minutes = way === 'at' ? 0 : (far || SOME_MINUTES) * (way === 'before' ? -1 : 1);
    put({ event, minutes });
  };
  const lasts = length ? length.days * 1440 + (length.minute ?? 0) - (start.minute ?? 0) : 0;
  const ends = length === null ? 'none' : sun.ends;
  const endBy = (how: 'none' | SunStart['ends']): void =>
    setPart((s) => ({
      ...s,
      sun: { ...sun, ends: how === 'none' ? sun.ends : how },
      length: how === 'none' ? null : (s.length ?? lasting(start, USUAL)),
    }));
  return (
    <>
      <Select
        label={w.starts()}
        value={`${sun.event}-${wayOf(sun)}` as const}
        options={[
          ['sunset-before', w.beforeSunset()],
          ['sunset-at', w.atSunset()],
          ['sunset-after', w.afterSunset()],
          ['sunrise-before', w.beforeSunrise()],
          ['sunrise-at', w.atSunrise()],
          ['sunrise-after', w.afterSunrise()],
        ]}
        onChange={pick}
        hint={w.onTheFirst({ time: sayTime(start.minute ?? 0, site.style) })}
      />
      {sun.minutes !== 0 && (
        <Minutes
          label={w.minutes()}
          value={far}
          most={MOST_SUN_MINUTES}
          onChange={(minutes) => put({ minutes: Math.sign(sun.minutes) * minutes })}
        />
      )}
      <Select
        label={w.ends()}
        value={ends}
        options={[
          ['none', w.noEnd()],
          ['length', w.afterSoLong()],
          ['clock', w.atATime()],
        ]}
        onChange={endBy}
      />
      {ends === 'length' && (
        <Minutes
          label={w.lasts()}
          value={Math.max(1, lasts)}
          most={LONGEST}
          onChange={(minutes) => setPart((s) => ({ ...s, length: lasting(start, minutes) }))}
        />
      )}
      {ends === 'clock' && (
        <ClockField
          label={w.endsAt()}
          value={length?.minute ?? null}
          hours={site.style.hours}
          after={start.minute}
          onChange={(minute) =>
            minute !== null && setPart((s) => ({ ...s, length: { days: minute <= (start.minute ?? 0) ? 1 : 0, minute } }))
          }
        />
      )}
    </>
  );
}

/** Whole minutes, from one to so many. */
function Minutes({ label, value, most, onChange }: { label: string; value: number; most: number; onChange: (minutes: number) => void }) {
  return (
    <Field label={label}>
      {({ id }) => (
        <input
          id={id}
          type="number"
          min={1}
          max={most}
          value={value}
          onChange={(e) => onChange(Math.max(1, Math.min(most, Math.floor(Number(e.target.value)) || 1)))}
        />
      )}
    </Field>
  );
}
