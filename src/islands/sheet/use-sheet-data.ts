/** What the Desk's sheet shows: its dates by day and by key, with the looks and names that they refer to. */
import { useMemo } from 'react';
import type { DeskSheetStart } from '@/core/sheet/desk-sheet';
import type { Look } from './entries';
import { byDay, keyOf, spanOf } from './state';
import { useDates } from './use-dates';

export function useSheetData(start: DeskSheetStart) {
  const { firstWeekday } = start.site;
  const dates = useDates(start);
  const { view, month } = dates.shown;
  const span = useMemo(() => spanOf(view, month, firstWeekday), [view, month, firstWeekday]);
  const on = useMemo(() => byDay(dates.dates, span), [dates.dates, span]);
  const byKey = useMemo(() => new Map(dates.dates.map((date) => [keyOf(date), date])), [dates.dates]);
  const dayMarks = useMemo(() => new Map(start.dayMarks), [start.dayMarks]);
  const looks = useMemo(() => {
    const all = new Map<string | null, Look>(start.categories.map((c) => [c.id, { mark: c.mark, ink: c.ink }]));
    const [fallback] = start.categories.slice(-1);
    return fallback ? all.set(null, { mark: fallback.mark, ink: fallback.ink }) : all;
  }, [start.categories]);
  const venues = useMemo(() => new Map(start.venues.map((v) => [v.id, v.name])), [start.venues]);

  return { dates, span, on, byKey, dayMarks, looks, venues };
}

export type SheetData = ReturnType<typeof useSheetData>;
