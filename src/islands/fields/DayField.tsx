/** A day, typed by its parts or picked from a month. */
import { type CalendarDate, parseDate } from '@internationalized/date';
import { ChevronDown } from 'lucide-react';
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
import type { Shared } from './fields';
import { fieldsWords } from '@/words/desk';

const w = fieldsWords.dayField;

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
          <Button className="button" aria-label={w.pick({ label })}>
            <ChevronDown size={16} aria-hidden />
          </Button>
        </Group>
        {hint && <span className="hint">{hint}</span>}
        {error && <span className="wrong">{error}</span>}
        <Popover>
          <Dialog aria-label={label}>
            <Calendar>
              <header>
                <Button slot="previous" className="button small" aria-label={w.monthBefore()}>
                  ‹
                </Button>
                <Heading />
                <Button slot="next" className="button small" aria-label={w.monthAfter()}>
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
