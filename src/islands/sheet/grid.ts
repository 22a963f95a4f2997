/** What both sheets are given. */
import type { DayMark } from '@/core/holidays/day-marks';
import type { EpochDay, MonthNumber } from '@/core/day/day';
import type { DeskDate } from '@/core/sheet/desk-sheet';
import type { Style } from '@/core/phrase/format';
import type { Look } from './entries';

export interface GridProps {
  month: MonthNumber;
  dates: readonly DeskDate[];
  on: ReadonlyMap<EpochDay, DeskDate[]>;
  looks: ReadonlyMap<string | null, Look>;
  dayMarks: ReadonlyMap<EpochDay, readonly DayMark[]>;
  active: EpochDay;
  /** the days that are drawn, or that the carried date would take, both included */
  drawn: { from: EpochDay; to: EpochDay } | null;
  chosen: string | null;
  lifted: string | null;
  today: EpochDay;
  firstWeekday: number;
  style: Style;
  cellId: (day: EpochDay) => string;
  label: (day: EpochDay) => string;
}

/** The classes that a day's cell has on either sheet. */
export function cellClasses(day: EpochDay, { active, drawn, today }: Pick<GridProps, 'active' | 'drawn' | 'today'>): string {
  return [
    day === active && 'active',
    drawn && day >= drawn.from && day <= drawn.to && 'drawn',
    day === today && 'today',
    day < today && 'past',
  ]
    .filter(Boolean)
    .join(' ');
}
