/** A time of day, typed as anybody writes one. */
import { useState } from 'react';
import { sayTime } from '@/core/phrase/format';
import { readClock } from '@/core/phrase/read/clock-times';
import { Field, type Shared } from './fields';
import { fieldsWords } from '@/words/desk';

const w = fieldsWords.clockField;

interface ClockProps extends Shared {
  /** minutes since midnight; null = not given */
  value: number | null;
  onChange: (minute: number | null) => void;
  hours: '24' | '12';
  /** the start of what ends here: 9 after 19:00 is 21:00 */
  after?: number | null;
}

const STEP = 5;

/** A time of day, typed as anybody writes one. It is read when the field is left, or at Enter; arrows move it. */
export function ClockField({ label, value, onChange, hint, error, hours, after = null }: ClockProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const [wrong, setWrong] = useState(false);
  const said = value === null ? '' : sayTime(value, { date: 'day-month', hours });
  const settle = (): void => {
    if (typed === null) return;
    const minute = typed.trim() ? readClock(typed, after) : null;
    setWrong(minute === undefined);
    if (minute === undefined) return;
    setTyped(null);
    if (minute !== value) onChange(minute);
  };
  const step = (by: number): void => {
    setTyped(null);
    onChange(((((value ?? 0) + by) % 1440) + 1440) % 1440);
  };
  return (
    <Field label={label} hint={hint} error={wrong ? w.aTimeIsWritten() : error}>
      {({ id, describedBy, invalid }) => (
        <input
          id={id}
          className="clock"
          value={typed ?? said}
          maxLength={60}
          autoComplete="off"
          aria-describedby={describedBy}
          aria-invalid={invalid}
          onFocus={(e) => e.target.select()}
          onChange={(e) => setTyped(e.target.value)}
          onBlur={settle}
          onKeyDown={(e) => {
            if (e.key === 'Enter') {
              e.preventDefault();
              settle();
            } else if (e.key === 'ArrowUp' || e.key === 'ArrowDown') {
              e.preventDefault();
              step(e.key === 'ArrowUp' ? STEP : -STEP);
            } else if (e.key === 'Escape') {
              setTyped(null);
              setWrong(false);
            }
          }}
        />
      )}
    </Field>
  );
}
