/** What both sheets are given. */
import type { Day, MonthNumber } from '@/core/day/day';
import type { DeskDate } from '@/core/sheet/desk-sheet';
import type { Style } from '@/core/phrase/format';
import type { Look } from './entries';

export interface GridProps {
  month: MonthNumber;
  dates: readonly DeskDate[];
  on: ReadonlyMap<Day, DeskDate[]>;
  looks: ReadonlyMap<string | null, Look>;
  redLetters: ReadonlyMap<Day, string[]>;
  active: Day;
  /** the days that are drawn, or that the carried date would take, both included */
  drawn: { from: Day; to: Day } | null;
  chosen: string | null;
  lifted: string | null;
  today: Day;
  firstWeekday: number;
  style: Style;
  cellId: (day: Day) => string;
  label: (day: Day) => string;
}

/** The classes that a day's cell has on either sheet. */
export function cellClasses(day: Day, { active, drawn, today }: Pick<GridProps, 'active' | 'drawn' | 'today'>): string {
  return [
    day === active && 'active',
    drawn && day >= drawn.from && day <= drawn.to && 'drawn',
    day === today && 'today',
    day < today && 'past',
  ]
    .filter(Boolean)
    .join(' ');
}
