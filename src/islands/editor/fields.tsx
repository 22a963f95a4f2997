/** The editor's small fields: text, date, time, each with its label, hint and error. */
import { type CalendarDate, parseDate } from '@internationalized/date';
import { ChevronDown } from 'lucide-react';
import { type ReactNode, useId, useState } from 'react';
import {
  Button,
  Calendar,
  CalendarCell,
  CalendarGrid,
  DateInput,
  DatePicker,
  DateSegment,
  Dialog,
  Group,
  Heading,
  I18nProvider,
  Label,
  Popover,
} from 'react-aria-components';
import { dateExists } from '@/core/day/day';
import { sayTime } from '@/core/phrase/format';
import { readClock } from '@/core/phrase/read/clock';

export interface Shared {
  label: string;
  hint?: ReactNode;
  error?: string | undefined;
}

export function Field({
  label,
  hint,
  error,
  children,
}: Shared & { children: (ids: { id: string; describedBy: string | undefined; invalid: true | undefined }) => ReactNode }) {
  const id = useId();
  const describedBy = [hint ? `${id}h` : '', error ? `${id}e` : ''].filter(Boolean).join(' ') || undefined;
  return (
    <div className="field">
      <label htmlFor={id}>{label}</label>
      {children({ id, describedBy, invalid: error ? true : undefined })}
      {hint && (
        <span className="hint" id={`${id}h`}>
          {hint}
        </span>
      )}
      {error && (
        <span className="wrong" id={`${id}e`} role="alert">
          {error}
        </span>
      )}
    </div>
  );
}

interface TextProps extends Shared {
  value: string;
  onChange: (value: string) => void;
  name?: string;
  rows?: number;
  maxLength?: number;
  type?: 'text' | 'url' | 'email' | 'tel';
  placeholder?: string;
}

export function Text({ value, onChange, rows, name, maxLength, type = 'text', placeholder, ...shared }: TextProps) {
  return (
    <Field {...shared}>
      {({ id, describedBy, invalid }) => {
        const props = {
          id,
          name,
          value,
          maxLength,
          placeholder,
          'aria-describedby': describedBy,
          'aria-invalid': invalid,
          onChange: (e: { target: { value: string } }) => onChange(e.target.value),
        };
        return rows ? <textarea rows={rows} {...props} /> : <input type={type} {...props} />;
      }}
    </Field>
  );
}

interface DayProps extends Shared {
  /** ISO day, or empty */
  value: string;
  onChange: (value: string) => void;
}

/** A day by typing or picking. Segments keep to the order of the reader's own locale. */
export function DayField({ label, value, onChange, hint, error }: DayProps) {
  let date: CalendarDate | null = null;
  const [y = 0, m = 0, d = 0] = value.split('-').map(Number);
  if (dateExists(y, m, d)) date = parseDate(value);
  return (
    <I18nProvider locale="en-GB">
      <DatePicker
        className="field"
        value={date}
        onChange={(next) => next && onChange(next.toString())}
        isInvalid={error !== undefined}
        shouldForceLeadingZeros
      >
        <Label className="label">{label}</Label>
        <Group>
          <DateInput>{(segment) => <DateSegment segment={segment} />}</DateInput>
          <Button className="button" aria-label={`Pick: ${label}`}>
            <ChevronDown size={16} aria-hidden />
          </Button>
        </Group>
        {hint && <span className="hint">{hint}</span>}
        {error && <span className="wrong">{error}</span>}
        <Popover>
          <Dialog aria-label={label}>
            <Calendar>
              <header>
                <Button slot="previous" className="button small" aria-label="Month before">
                  ‹
                </Button>
                <Heading />
                <Button slot="next" className="button small" aria-label="Month after">
                  ›
                </Button>
              </header>
              <CalendarGrid>{(day) => <CalendarCell date={day} />}</CalendarGrid>
            </Calendar>
          </Dialog>
        </Popover>
      </DatePicker>
    </I18nProvider>
  );
}

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
    <Field label={label} hint={hint} error={wrong ? 'A time is written 19:30, 7:30 pm, 9, noon or 21h' : error}>
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

export function Select<T extends string>({
  value,
  onChange,
  options,
  ...shared
}: Shared & { value: T; onChange: (value: T) => void; options: readonly (readonly [T, string])[] }) {
  return (
    <Field {...shared}>
      {({ id, describedBy }) => (
        <select id={id} aria-describedby={describedBy} value={value} onChange={(e) => onChange(e.target.value as T)}>
          {options.map(([key, text]) => (
            <option key={key} value={key}>
              {text}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
}

export function Check({ label, checked, onChange }: { label: ReactNode; checked: boolean; onChange: (on: boolean) => void }) {
  return (
    <label className="check">
      <input type="checkbox" checked={checked} onChange={(e) => onChange(e.target.checked)} /> {label}
    </label>
  );
}

/** Several of a few, as buttons that stay down. */
export function Toggles<T extends string | number>({
  label,
  options,
  chosen,
  onChange,
}: {
  label: string;
  options: readonly (readonly [T, string])[];
  chosen: readonly T[];
  onChange: (chosen: T[]) => void;
}) {
  return (
    <fieldset style={{ border: 0, padding: 0, margin: 0, minWidth: 0 }}>
      <legend className="label" style={{ marginBottom: 4, padding: 0 }}>
        {label}
      </legend>
      <div className="toggles">
        {options.map(([key, text]) => (
          <label key={key}>
            <input
              type="checkbox"
              checked={chosen.includes(key)}
              onChange={(e) => onChange(e.target.checked ? [...chosen, key] : chosen.filter((c) => c !== key))}
            />
            {text}
          </label>
        ))}
      </div>
    </fieldset>
  );
}
