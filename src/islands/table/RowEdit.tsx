/**
 * One row of the table: a press on a cell edits it there, Enter keeps it, Escape leaves it, and what was saved is said and taken back there.
 * The row's button has what can be done with the listing as a whole; arrows walk the cells.
 */
import { openPage } from '@/client/site-root';
import { mostOf } from '@/core/listing/fields';
import { lazy, Suspense, useCallback, useEffect, useRef, useState } from 'react';
import { createPortal } from 'react-dom';
import { sayFailure, send } from '@/client/api';
import { type Cost, sayCost, STAGE_WORDS, STAGES } from '@/core/listing/content';
import { parseIsoDateTime } from '@/core/day/plain-date-time';
import { sayDay, sayTime } from '@/core/phrase/format';
import type { RowCommand } from './RowMenu';
import { step } from './cells';
import type { TableStart } from './chosen';
import { tableWords } from '@/words/desk';

const w = tableWords.rowEdit;

// Menus and date fields weigh more than the table: they come when somebody asks for one.
const RowMenu = lazy(() => import('./RowMenu'));
const ListDialog = lazy(() => import('./CellDialogs').then((m) => ({ default: m.ListDialog })));
const WhenDialog = lazy(() => import('./CellDialogs').then((m) => ({ default: m.WhenDialog })));

type CellField = 'title' | 'stage' | 'category' | 'venue' | 'cost';
type BoxField = 'tags' | 'organizers' | 'when';

interface Open {
  cell: HTMLElement;
  field: CellField | BoxField;
  value: string;
}

interface Saved {
  revision: number;
  stage: keyof typeof STAGE_WORDS;
  edited: boolean;
  title: string;
  cost: Cost;
  start: string;
  next: { day: number | null; minute: number | null };
}

/** What was saved, and what stood there before. */
interface Done {
  cell: HTMLElement;
  field: Open['field'];
  before: string;
  words: string;
  /** can it go back by the same way? */
  undoable: boolean;
}

const LABELS: Record<Open['field'], string> = {
  title: w.title(),
  stage: w.stage(),
  category: w.category(),
  venue: w.venue(),
  cost: w.cost(),
  tags: w.tags(),
  organizers: w.organizer(),
  when: w.firstDate(),
};
const isBox = (field: Open['field']): field is BoxField => field === 'tags' || field === 'organizers' || field === 'when';
/** As the server takes it: lists as lists. */
const sentValue = (field: Open['field'], value: string): string | string[] =>
  field === 'tags' || field === 'organizers' ? value.split(' ').filter(Boolean) : value;

const rowsOf = (): HTMLElement[] => [...document.querySelectorAll<HTMLElement>('[data-rows] tbody tr')];
/** What takes the focus in a row: its title's link, then the cells that can be edited. */
const stopsOf = (row: Element): HTMLElement[] => [...row.querySelectorAll<HTMLElement>('td[data-edit=title] a, td[data-edit][tabindex]')];

export function RowEdit({ start }: { start: TableStart }) {
  const [open, setOpen] = useState<Open | null>(null);
  const [wrong, setWrong] = useState('');
  const [done, setDone] = useState<Done | null>(null);
  const [menu, setMenu] = useState<HTMLElement | null>(null);
  const begin = useCallback((cell: HTMLElement): void => {
    const field = cell.dataset.edit as Open['field'] | undefined;
    if (field) setOpen({ cell, field, value: cell.dataset.value ?? '' });
  }, []);
  const run = useCallback(
    (command: RowCommand, row: HTMLElement): void => {
      setMenu(null);
      const { id = '', page } = row.dataset;
      if (command === 'edit') openPage(`/desk/listings/${id}`);
      else if (command === 'view') openPage(page ?? `/desk/listings/${id}/preview`);
      else if (command === 'rename') {
        const cell = row.querySelector<HTMLElement>('td[data-edit=title]');
        if (cell) begin(cell);
      } else void actOn(id, command, start).then(setWrong);
    },
    [begin, start],
  );
  useRowEvents({ begin, run, setMenu });
  const close = (cell: HTMLElement): void => {
    setOpen(null);
    (cell.matches('[tabindex]') ? cell : cell.querySelector<HTMLElement>('a'))?.focus();
  };
  const keep = async ({ cell, field }: Pick<Open, 'cell' | 'field'>, value: string, undoing = false): Promise<boolean> => {
    const row = cell.closest<HTMLElement>('tr');
    const before = cell.dataset.value ?? '';
    if (!row || value === before) {
      close(cell);
      return true;
    }
    const wasEdited = row.querySelector('td[data-edit=stage] .amber') !== null;
    const outcome = await send<Saved>('POST', `/api/v1/listings/${row.dataset.id}/row`, {
      revision: Number(row.dataset.revision),
      set: { field, value: sentValue(field, value) },
    });
    if (outcome.kind !== 'done') {
      setDone(null);
      setWrong(sayFailure(outcome));
      return false;
    }
    const saved = outcome.value;
    row.dataset.revision = String(saved.revision);
    show(cell, field, value, saved, start);
    const stage = row.querySelector<HTMLElement>('td[data-edit=stage]');
    if (stage) showStage(stage, saved.stage, saved.edited);
    setWrong('');
    const words = saySaved(saved, cell, field, undoing);
    // A stage that had changes waiting does not come back by itself: the menu's deeds are undone whole.
    const undoable = !undoing && !(field === 'stage' && (wasEdited || before === 'in-review' || before === 'scheduled'));
    setDone({ cell, field, before, words, undoable });
    close(cell);
    return true;
  };
  const openMenu = menu?.closest<HTMLElement>('tr');
  return (
    <>
      <Outcomes wrong={wrong} done={done} onUndo={(was) => void keep(was, was.before, true)} />
      {openMenu && menu && (
        <Suspense>
          <RowMenu
            button={menu}
            title={titleOf(menu)}
            stage={stageOf(openMenu)}
            mayPublish={start.mayPublish}
            onCommand={(command) => run(command, openMenu)}
            onClose={() => setMenu(null)}
          />
        </Suspense>
      )}
      {open && (
        <CellField key={open.field} open={open} start={start} onKeep={(value) => keep(open, value)} onLeave={() => close(open.cell)} />
      )}
    </>
  );
}

/** What went wrong, and what was saved with the way back. */
function Outcomes({ wrong, done, onUndo }: { wrong: string; done: Done | null; onUndo: (done: Done) => void }) {
  return (
    <>
      {wrong && (
        <p className="note bad" role="alert">
          {wrong}
        </p>
      )}
      <p className={done ? 'note good flex items-center gap-3' : 'hidden-words'} role="status">
        {done?.words}
        {done?.undoable && (
          <button type="button" className="button small" onClick={() => onUndo(done)}>
            {w.undo()}
          </button>
        )}
      </p>
    </>
  );
}

interface RowCommands {
  begin: (cell: HTMLElement) => void;
  run: (command: RowCommand, row: HTMLElement) => void;
  setMenu: (button: HTMLElement | null) => void;
}

/** Hears keys and presses in the table, whose rows the server drew. */
function useRowEvents({ begin, run, setMenu }: RowCommands): void {
  useEffect(() => {
    const table = document.querySelector('[data-rows]');
    const onKey = (event: Event): void => onRowKey(event as KeyboardEvent, { begin, run, setMenu });
    const onPress = (event: Event): void => {
      const target = event.target as Element;
      const button = target.closest<HTMLElement>('[data-row-menu]');
      if (button) {
        setMenu(button);
        return;
      }
      // The title is a link; everything else that can be changed is, by one press.
      const cell = target.closest<HTMLElement>('tbody td[data-edit]:not([data-edit=title])');
      if (cell && !target.closest('a, button, input, select')) begin(cell);
    };
    table?.addEventListener('keydown', onKey);
    table?.addEventListener('click', onPress);
    return () => {
      table?.removeEventListener('keydown', onKey);
      table?.removeEventListener('click', onPress);
    };
  }, [begin, run, setMenu]);
}

/** A key while a row has the focus: it edits a cell, does what the menu does, opens that, chooses the row, or walks on. */
function onRowKey(event: KeyboardEvent, { begin, run, setMenu }: RowCommands): void {
  const { key, altKey, ctrlKey, metaKey, shiftKey, target } = event;
  if (altKey || ctrlKey || metaKey || !(target instanceof HTMLElement) || target.closest('input:not([type=checkbox]), select')) return;
  const row = target.closest<HTMLElement>('tbody tr');
  if (!row) return;
  const cell = target.closest<HTMLElement>('td[data-edit]');
  const onButton = target.closest('button') !== null;
  const command = onButton ? undefined : KEY_DEEDS[key];
  const does =
    cell && !onButton && (key === 'F2' || (key === 'Enter' && target === cell))
      ? () => begin(cell)
      : command
        ? () => run(command, row)
        : key === 'ContextMenu' || (key === 'F10' && shiftKey)
          ? () => setMenu(row.querySelector<HTMLElement>('[data-row-menu]'))
          : key === ' ' && !onButton && !target.closest('input')
            ? () => row.querySelector<HTMLInputElement>('input[name=chosen]')?.click()
            : walking(target, row, key);
  if (!does) return;
  event.preventDefault();
  event.stopPropagation();
  does();
}

/** Where an arrow leads from what has the focus; undefined when it leads nowhere. */
function walking(target: HTMLElement, row: HTMLElement, key: string): (() => void) | undefined {
  const stops = stopsOf(row);
  const at = stops.indexOf(target);
  const next = at < 0 ? undefined : step({ row: rowsOf().indexOf(row), cell: at }, key, rowsOf().length, stops.length);
  return next && (() => stopsOf(rowsOf()[next.row] as HTMLElement)[next.cell]?.focus());
}

/** Keys in a row do what its menu does. */
const KEY_DEEDS: Record<string, RowCommand> = { e: 'edit', v: 'view', Delete: 'bin' };

/** Does what the menu says as an action of its own, so that it is undone whole; answers with what went wrong. */
async function actOn(id: string, kind: 'publish' | 'withdraw' | 'draft' | 'bin', start: TableStart): Promise<string> {
  const outcome = await send<{ run: string }>('POST', '/api/v1/bulk', { ids: [id], action: { kind } });
  if (outcome.kind !== 'done') return sayFailure(outcome);
  const next = new URLSearchParams(start.query);
  next.set('run', outcome.value.run);
  openPage(`/desk/listings?${next}`);
  return '';
}

const stageOf = (row: HTMLElement): string =>
  row.querySelector<HTMLElement>('td[data-edit=stage]')?.dataset.value ?? (row.dataset.page ? 'published' : '');

function saySaved(saved: Saved, cell: HTMLElement, field: Open['field'], undoing: boolean): string {
  const words = w.backOfIs({
    undoing: undoing ? 'yes' : 'no',
    labels: LABELS[field].toLowerCase(),
    title: saved.title || w.withoutATitle(),
    cell: sayCell(cell),
  });
  return words + (saved.edited ? w.theChangeWaitsTo() : '');
}

/** What stands in a cell, for saying it. */
function sayCell(cell: HTMLElement): string {
  const text = (cell.matches('[data-edit=title]') ? cell.querySelector('strong') : cell)?.textContent?.trim() ?? '';
  return text ? `“${text}”` : 'empty';
}

/** The title of the row that something belongs to. */
const titleOf = (cell: Element): string => cell.closest('tr')?.querySelector<HTMLElement>('td[data-edit=title]')?.dataset.value ?? '';

interface CellFieldProps {
  open: Open;
  start: TableStart;
  /** false when it was refused: the field stays open */
  onKeep: (value: string) => Promise<boolean>;
  onLeave: () => void;
}

/** What edits the open cell: a field in it, or a dialog for what does not fit there. */
function CellField({ open, start, onKeep, onLeave }: CellFieldProps) {
  const { field, cell, value } = open;
  if (!isBox(field)) return <CellInput open={open} start={start} onKeep={onKeep} onLeave={onLeave} />;
  const shared = { title: titleOf(cell), start, onClose: onLeave };
  return (
    <Suspense>
      {field === 'when' ? (
        <WhenDialog {...shared} value={value} today={start.today} onKeep={(kept) => void onKeep(kept)} />
      ) : (
        <ListDialog {...shared} field={field} ids={value.split(' ').filter(Boolean)} onKeep={(ids) => void onKeep(ids.join(' '))} />
      )}
    </Suspense>
  );
}

function CellInput({ open, start, onKeep, onLeave }: CellFieldProps) {
  const [value, setValue] = useState(open.value);
  // Enter keeps it and takes the field away, and so does leaving it: it is kept once.
  const kept = useRef(false);
  const keep = async (): Promise<void> => {
    if (kept.current) return;
    kept.current = true;
    kept.current = await onKeep(value);
  };
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
      void keep();
    } else if (event.key === 'Escape') {
      kept.current = true;
      onLeave();
    }
  };
  const shared = {
    className: 'box cell-field absolute inset-0 z-3 min-h-full bg-sheet',
    'aria-label': LABELS[open.field],
    value,
    onKeyDown: keys,
    onBlur: () => void keep(),
  };
  return createPortal(
    open.field === 'title' || open.field === 'cost' ? (
      // biome-ignore lint/a11y/noAutofocus: somebody just opened this cell
      <input {...shared} autoFocus maxLength={mostOf('title')} onChange={(e) => setValue(e.target.value)} />
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
function show(cell: HTMLElement, field: Open['field'], value: string, saved: Saved, start: TableStart): void {
  cell.dataset.value = field === 'cost' ? sayCost(saved.cost) : field === 'when' ? saved.start : value;
  if (field === 'stage') return;
  if (field === 'title') {
    const strong = cell.querySelector('strong');
    if (strong) strong.textContent = value || w.withoutATitle();
    return;
  }
  const kept = [...cell.childNodes].filter((node) => node instanceof HTMLElement && node.matches('.cell-field'));
  cell.replaceChildren(document.createTextNode(cellText(field, value, saved, start)), ...kept);
  cell.classList.remove('max-[760px]:hidden');
}

function cellText(field: Exclude<Open['field'], 'title' | 'stage'>, value: string, saved: Saved, start: TableStart): string {
  switch (field) {
    case 'cost':
      return sayCost(saved.cost);
    case 'when': {
      // While the change waits, the index holds what readers see: the cell says what was just set.
      const typed = saved.edited ? parseIsoDateTime(saved.start) : undefined;
      const { day, minute } = typed ?? saved.next;
      if (day === null) return 'past';
      const words = sayDay(day, start.style, { weekday: 'short', month: 'short', year: true });
      return minute === null ? words : `${words} ${sayTime(minute, start.style)}`;
    }
    default: {
      const lists = { venue: start.venues, category: start.categories, tags: start.tags, organizers: start.organizers };
      const names = value.split(' ').flatMap((id) => lists[field].find((one) => one.id === id)?.name ?? []);
      return names.join(', ').replace(/^– /, '');
    }
  }
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
  wait.textContent = w.changesWait();
  mark?.after(wait);
}
