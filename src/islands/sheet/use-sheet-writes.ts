/** What is done to a date on the Desk's sheet, as commands that can be undone. */
import type { DeskDate, DeskSheetStart } from '@/core/sheet/desk-sheet';
import type { EpochDay } from '@/core/day/day';
import { copying, leavingOut, lengthening, moving } from './date-commands';
import { effectsOf } from './effects';
import type { Commands } from './use-commands';
import type { SheetData } from './use-sheet-data';

export function useSheetWrites(start: DeskSheetStart, { dayMarks }: Pick<SheetData, 'dayMarks'>, commands: Commands) {
  const { style, zone } = start.site;
  const effects = (date: DeskDate) => (content: Parameters<typeof effectsOf>[0]) =>
    effectsOf(content, date.original, { listingId: date.listingId, siteZone: zone, style, dayMarks });
  const move = (date: DeskDate, days: number) => commands.act({ ...moving(date, days, style), effects: effects(date) });
  const copy = (date: DeskDate, day: EpochDay) => commands.act(copying(date, day, style));
  const lengthen = (date: DeskDate, edge: 'start' | 'end', days: number) =>
    commands.act({ ...lengthening(date, edge, days, style), effects: effects(date) });
  const leaveOut = (date: DeskDate): void => void commands.act(leavingOut(date, style));
  return { move, copy, lengthen, leaveOut };
}
