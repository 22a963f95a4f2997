/** One field of one row edited in its cell: F2 or Enter opens it, Enter keeps it, Escape leaves it; arrows walk the cells. */
import { useCallback, useEffect, useState } from 'react';
import { createPortal } from 'react-dom';
import { sayFailure, send } from '@/client/api';
import { STAGE_WORDS, STAGES } from '@/core/listing/content';
import { step } from './cells';
import type { TableStart } from './TableDesk';

interface Open {
  cell: HTMLElement;
  field: 'title' | 'stage' | 'category' | 'venue';
  value: string;
}

interface Saved {
  revision: number;
  stage: keyof typeof STAGE_WORDS;
  edited: boolean;
  title: string;
}

const rowsOf = (): HTMLElement[] => [...document.querySelectorAll<HTMLElement>('[data-rows] tbody tr')];
/** What takes the focus in a row: its title's link, then the cells that can be edited. */
const stopsOf = (row: Element): HTMLElement[] => [...row.querySelectorAll<HTMLElement>('td[data-edit=title] a, td[data-edit][tabindex]')];

export function RowEdit({ start }: { start: TableStart }) {
  const [open, setOpen] = useState<Open | null>(null);
  const [said, setSaid] = useState('');
  const begin = useCallback((cell: HTMLElement): void => {
    const field = cell.dataset.edit as Open['field'] | undefined;
    if (field) setOpen({ cell, field, value: cell.dataset.value ?? '' });
  }, []);
  useEffect(() => {
    const table = document.querySelector('[data-rows]');
    const onKey = (event: Event): void => {
      const { key, altKey, ctrlKey, metaKey, target } = event as KeyboardEvent;
      if (altKey || ctrlKey || metaKey || !(target instanceof HTMLElement) || target.closest('input:not([type=checkbox]), select')) return;
      const row = target.closest('tbody tr');
      const cell = target.closest<HTMLElement>('td[data-edit]');
      if (!row) return;
      if (cell && (key === 'F2' || (key === 'Enter' && target === cell))) {
        event.preventDefault();
        begin(cell);
        return;
      }
      if (key === ' ' && !target.closest('input')) {
        event.preventDefault();
        row.querySelector<HTMLInputElement>('input[name=chosen]')?.click();
        return;
      }
      const stops = stopsOf(row);
      const at = stops.indexOf(target);
      const next = at < 0 ? undefined : step({ row: rowsOf().indexOf(row as HTMLElement), cell: at }, key, rowsOf().length, stops.length);
      if (!next) return;
      event.preventDefault();
      event.stopPropagation();
      stopsOf(rowsOf()[next.row] as HTMLElement)[next.cell]?.focus();
    };
    const onDouble = (event: Event): void => {
      const cell = (event.target as Element).closest<HTMLElement>('tbody td[data-edit]');
      if (cell && !(event.target as Element).closest('a')) begin(cell);
    };
    table?.addEventListener('keydown', onKey);
    table?.addEventListener('dblclick', onDouble);
    return () => {
      table?.removeEventListener('keydown', onKey);
      table?.removeEventListener('dblclick', onDouble);
    };
  }, [begin]);
  const close = (cell: HTMLElement): void => {
    setOpen(null);
    (cell.matches('[tabindex]') ? cell : cell.querySelector<HTMLElement>('a'))?.focus();
  };
  const keep = async ({ cell, field }: Open, value: string): Promise<void> => {
    const row = cell.closest<HTMLElement>('tr');
    if (!row || value === cell.dataset.value) return close(cell);
    const outcome = await send<Saved>('POST', `/api/v1/listings/${row.dataset.id}/row`, {
      revision: Number(row.dataset.revision),
      set: { field, value },
    });
    if (outcome.kind !== 'done') {
      setSaid(sayFailure(outcome));
      return;
    }
    row.dataset.revision = String(outcome.value.revision);
    show(cell, field, value, start);
    const stage = row.querySelector<HTMLElement>('td[data-edit=stage]');
    if (stage) showStage(stage, outcome.value.stage, outcome.value.edited);
    setSaid(outcome.value.edited ? 'Saved; the changes wait to be published.' : 'Saved.');
    close(cell);
  };
  return (
    <>
      <span className={said && !said.startsWith('Saved') ? 'note bad' : 'hidden-words'} role="status">
        {said}
      </span>
      {open && (
        <CellField key={open.field} open={open} start={start} onKeep={(value) => void keep(open, value)} onLeave={() => close(open.cell)} />
      )}
    </>
  );
}

function CellField({
  open,
  start,
  onKeep,
  onLeave,
}: {
  open: Open;
  start: TableStart;
  onKeep: (value: string) => void;
  onLeave: () => void;
}) {
  const [value, setValue] = useState(open.value);
  const options: [string, string][] =
    open.field === 'stage'
      ? STAGES.filter((s) => s !== 'in-review' && s !== 'scheduled' && (start.mayPublish || s !== 'published')).map((s) => [
          s,
          STAGE_WORDS[s],
        ])
      : open.field === 'venue'
        ? [['', 'none'], ...start.venues.map((v): [string, string] => [v.id, v.name])]
        : start.categories.map((c) => [c.id, c.name]);
  const keys = (event: React.KeyboardEvent): void => {
    event.stopPropagation();
    if (event.key === 'Enter') {
      event.preventDefault();
      onKeep(value);
    } else if (event.key === 'Escape') onLeave();
  };
  const label = { title: 'Title', stage: 'Stage', category: 'Category', venue: 'Venue' }[open.field];
  const shared = { className: 'box cell-field', 'aria-label': label, value, onKeyDown: keys, onBlur: () => onKeep(value) };
  return createPortal(
    open.field === 'title' ? (
      // biome-ignore lint/a11y/noAutofocus: somebody just opened this cell
      <input {...shared} autoFocus maxLength={160} onChange={(e) => setValue(e.target.value)} />
    ) : (
      // biome-ignore lint/a11y/noAutofocus: somebody just opened this cell
      <select {...shared} autoFocus onChange={(e) => setValue(e.target.value)}>
        {options.map(([id, name]) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    ),
    open.cell,
  );
}

/** The cell says what it now is; the rest of the page comes with the next visit. */
function show(cell: HTMLElement, field: Open['field'], value: string, start: TableStart): void {
  cell.dataset.value = value;
  if (field === 'title') {
    const strong = cell.querySelector('strong');
    if (strong) strong.textContent = value || 'Without a title';
    return;
  }
  if (field === 'stage') return;
  const text = (field === 'venue' ? start.venues : start.categories).find((one) => one.id === value)?.name ?? '';
  const kept = [...cell.childNodes].filter((node) => node instanceof HTMLElement && node.matches('.cell-field'));
  cell.replaceChildren(document.createTextNode(text.replace(/^– /, '')), ...kept);
}

function showStage(cell: HTMLElement, stage: Saved['stage'], edited: boolean): void {
  cell.dataset.value = stage;
  const mark = cell.querySelector<HTMLElement>('.stage');
  if (mark) {
    mark.className = `stage ${stage}`;
    mark.textContent = STAGE_WORDS[stage];
  }
  cell.querySelector('.amber')?.remove();
  if (!edited) return;
  const wait = document.createElement('span');
  wait.className = 'amber small';
  wait.textContent = ' changes wait';
  mark?.after(wait);
}
