/** The dates of what a sheet shows, asked again when that changes; the address follows, so that it can be kept and shared. */
import { siteAddress } from '@/client/site-root';
import { useCallback, useEffect, useRef, useState } from 'react';
import { isoDay, isoMonth, type MonthNumber } from '@/core/day/day';
import type { DeskDates, DeskFilters, DeskSheetStart, SheetView } from '@/core/sheet/desk-sheet';
import { queryOf, spanOf } from './state';

export interface Shown {
  view: SheetView;
  month: MonthNumber;
  filters: DeskFilters;
}

export function addressOf({ view, month, filters }: Shown): string {
  return siteAddress(`/desk/${view}/${isoMonth(month)}${queryOf(filters)}`);
}

/** What is on the sheet, and ways to show other things. */
export interface Dates extends DeskDates {
  shown: Shown;
  show: (change: Partial<Shown>) => void;
  reload: () => Promise<void>;
  /** no answer came: what stands here may be old */
  stale: boolean;
}

export function useDates(start: DeskSheetStart): Dates {
  const [shown, setShown] = useState<Shown>({ view: start.view, month: start.month, filters: start.filters });
  const [dates, setDates] = useState<DeskDates>({ dates: start.dates, cut: start.cut });
  const [stale, setStale] = useState(false);
  const latest = useRef({ shown, asked: 0 });
  latest.current.shown = shown;

  const reload = useCallback(async (): Promise<void> => {
    const { view, month, filters } = latest.current.shown;
    const asked = ++latest.current.asked;
    const { from, to } = spanOf(view, month, start.site.firstWeekday);
    const query = queryOf(filters);
    const address = `/api/v1/dates${query}${query ? '&' : '?'}from=${isoDay(from)}&to=${isoDay(to)}`;
    try {
      const response = await fetch(siteAddress(address));
      if (!response.ok) throw new Error(String(response.status));
      const value = (await response.json()) as DeskDates;
      // An older answer never goes over a newer question.
      if (asked !== latest.current.asked) return;
      setDates(value);
      setStale(false);
    } catch {
      if (asked === latest.current.asked) setStale(true);
    }
  }, [start.site.firstWeekday]);

  const address = addressOf(shown);
  const first = useRef(address);
  useEffect(() => {
    if (first.current === address) return;
    first.current = '';
    history.replaceState(null, '', address);
    // Words are typed letter by letter.
    const timer = setTimeout(() => void reload(), 120);
    return () => clearTimeout(timer);
  }, [address, reload]);
  const show = useCallback((change: Partial<Shown>): void => setShown((before) => ({ ...before, ...change })), []);
  return { ...dates, shown, show, reload, stale };
}
