/** What is done with the rows of the table: many at once in the bar below it, one field of one row in its cell. */
import { useCallback, useEffect, useMemo, useState } from 'react';
import { BulkBar } from './BulkBar';
import { type TableStart, takeChosen } from './chosen';
import { RowEdit } from './RowEdit';

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
