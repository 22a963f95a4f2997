/** What is done with the rows of the table: many at once in the bar below it, one field of one row in its cell. */
import { useCallback, useEffect, useMemo, useState } from 'react';
import type { Style } from '@/core/phrase/format';
import { BulkBar } from './BulkBar';
import { RowEdit } from './RowEdit';

export interface Named {
  id: string;
  name: string;
}

export interface TableStart {
  /** what the table shows, as it stands in the address */
  query: string;
  total: number;
  mayPublish: boolean;
  /** may make tags that are not there yet */
  mayMake: boolean;
  currency: string;
  style: Style;
  /** the site's day, `2027-03-17` */
  today: string;
  /** the action that this page reports on; empty = none */
  run: string;
  categories: Named[];
  venues: Named[];
  organizers: Named[];
  tags: Named[];
}

const KEY = 'almanac.chosen';

/** Remembers what is chosen while the page is made anew. */
export function keepChosen(ids: readonly string[]): void {
  try {
    sessionStorage.setItem(KEY, JSON.stringify(ids));
  } catch {
    // Without storage the choice is made again by hand.
  }
}

function takeChosen(): ReadonlySet<string> {
  try {
    return new Set(JSON.parse(sessionStorage.getItem(KEY) ?? '[]') as string[]);
  } catch {
    return new Set();
  }
}

const boxes = (): HTMLInputElement[] => [...document.querySelectorAll<HTMLInputElement>('[data-rows] tbody input[name=chosen]')];

/** `json`: a {@link TableStart}. As one text it costs the page a fraction of what hundreds of values do. */
export default function TableDesk({ json }: { json: string }) {
  const start = useMemo(() => JSON.parse(json) as TableStart, [json]);
  const [ids, setIds] = useState<string[]>([]);
  const [everything, setEverything] = useState(false);
  const read = useCallback((): void => {
    const chosen = boxes().filter((box) => box.checked);
    setIds(chosen.map((box) => box.value));
    if (chosen.length < boxes().length) setEverything(false);
  }, []);
  useEffect(() => {
    // What was chosen before an action is chosen after it, for the next one.
    if (start.run) for (const box of boxes()) box.checked = box.checked || takeChosen().has(box.value);
    // Boxes that the browser kept over a reload count too.
    read();
    const form = document.querySelector('[data-table]');
    form?.addEventListener('change', read);
    return () => form?.removeEventListener('change', read);
  }, [read, start.run]);
  const clear = (): void => {
    for (const box of [...boxes(), ...document.querySelectorAll<HTMLInputElement>('[data-all]')]) box.checked = false;
    setEverything(false);
    setIds([]);
  };
  const whole = boxes().length > 0 && ids.length === boxes().length;
  return (
    <>
      <RowEdit start={start} />
      {ids.length > 0 && (
        <BulkBar
          start={start}
          ids={everything ? undefined : ids}
          count={everything ? start.total : ids.length}
          onEverything={whole && !everything && start.total > ids.length ? () => setEverything(true) : undefined}
          onClear={clear}
        />
      )}
    </>
  );
}
