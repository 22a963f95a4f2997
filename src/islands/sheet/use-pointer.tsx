/** Dragging on a sheet: dates to other days, their ends, and days for a new listing. A finger taps; it never drags, so that it can scroll. */
import { type MouseEvent, type PointerEvent, type ReactNode, type RefObject, useEffect, useRef, useState } from 'react';
import type { EpochDay } from '@/core/day/day';
import type { DeskDate } from '@/core/sheet/desk-sheet';
import type { Hold } from './state';
import { sheetWords } from '@/words/desk';

const w = sheetWords.usePointer;

interface PointerInput {
  grid: RefObject<HTMLDivElement | null>;
  dateOf: (key: string) => DeskDate | undefined;
  onDay: (day: EpochDay) => void;
  onBegin: (kind: Hold['kind'], day: EpochDay, date: DeskDate | undefined) => void;
  onFinish: (hold: Hold, day: EpochDay, asCopy: boolean) => void;
  onTap: (day: EpochDay, date: DeskDate | undefined) => void;
  onOpen: (date: DeskDate) => void;
  onLetGo: () => void;
}

/** A hand that trembles so little does not drag, in pixels. */
const TREMBLE = 4;

interface Press {
  x: number;
  y: number;
  day: EpochDay;
  kind: Hold['kind'];
  date: DeskDate | undefined;
  moved: boolean;
  byFinger: boolean;
}

/** A key that makes a copy of what is put down. */
const isCopy = (event: Pick<MouseEvent, 'ctrlKey' | 'metaKey' | 'altKey'>): boolean => event.ctrlKey || event.metaKey || event.altKey;

/** What can be taken hold of there. */
const under = (x: number, y: number): HTMLElement | null => document.elementFromPoint(x, y) as HTMLElement | null;

/** The day below the pointer; a band lies over several, and begins in another. */
function dayAt(grid: HTMLElement | null, x: number, y: number): EpochDay | undefined {
  const over = document.elementsFromPoint(x, y).find((e) => {
    if (!(e instanceof HTMLElement) || e.dataset.day === undefined) return false;
    const box = e.getBoundingClientRect();
    return x >= box.left && x < box.right && y >= box.top && y < box.bottom;
  });
  return over && grid?.contains(over) ? Number((over as HTMLElement).dataset.day) : undefined;
}

interface Pointer {
  onPointerDown: (event: PointerEvent) => void;
  onDoubleClick: (event: MouseEvent) => void;
  /** what is carried, beside the pointer */
  tag: ReactNode;
}

export function usePointer(input: PointerInput): Pointer {
  const latest = useRef(input);
  latest.current = input;
  const press = useRef<Press | null>(null);
  const [tag, setTag] = useState<Tag | null>(null);

  usePressed({ latest, press, setTag });

  const onPointerDown = (event: PointerEvent): void => {
    if (event.button !== 0) return;
    const day = dayAt(latest.current.grid.current, event.clientX, event.clientY);
    if (day === undefined) return;
    const element = under(event.clientX, event.clientY);
    const key = element?.closest<HTMLElement>('[data-key]')?.dataset.key;
    const date = key ? input.dateOf(key) : undefined;
    const edge = element?.closest<HTMLElement>('[data-edge]')?.dataset.edge as 'start' | 'end' | undefined;
    const byFinger = event.pointerType === 'touch';
    const kind = date ? (edge ?? 'move') : 'span';
    press.current = { x: event.clientX, y: event.clientY, day, kind, date, moved: false, byFinger };
    if (!byFinger) event.preventDefault();
    input.grid.current?.focus({ preventScroll: true });
  };
  const onDoubleClick = (event: MouseEvent): void => {
    const key = under(event.clientX, event.clientY)?.closest<HTMLElement>('[data-key]')?.dataset.key;
    const date = key ? input.dateOf(key) : undefined;
    if (date) input.onOpen(date);
  };
  const floating = tag && (
    <div
      className="fixed left-0 top-0 z-20 pointer-events-none bg-ink text-sheet text-[12.5px] py-0.5 px-2 rounded-xs max-w-60 overflow-hidden whitespace-nowrap text-ellipsis"
      style={{ transform: `translate(${tag.x + 14}px, ${tag.y + 10}px)` }}
      aria-hidden="true"
    >
      {tag.text}
    </div>
  );
  return { onPointerDown, onDoubleClick, tag: floating };
}

/** What is carried, in words, and where the pointer is. */
interface Tag {
  x: number;
  y: number;
  text: string;
}

interface Pressed {
  latest: RefObject<PointerInput>;
  press: RefObject<Press | null>;
  setTag: (tag: Tag | null) => void;
}

/** Follows a press until it ends, wherever on the page that is. */
function usePressed({ latest, press, setTag }: Pressed): void {
  useEffect(() => {
    const onMove = (event: globalThis.PointerEvent): void => {
      const p = press.current;
      if (!p) return;
      if (!p.moved) {
        if (Math.hypot(event.clientX - p.x, event.clientY - p.y) < TREMBLE) return;
        if (p.byFinger) {
          press.current = null;
          return;
        }
        p.moved = true;
        latest.current.onBegin(p.kind, p.day, p.date);
      }
      const day = dayAt(latest.current.grid.current, event.clientX, event.clientY);
      if (day !== undefined) latest.current.onDay(day);
      const copies = p.kind === 'move' && isCopy(event);
      if (p.date) setTag({ x: event.clientX, y: event.clientY, text: `${copies ? w.copy() : ''}${p.date.title}` });
    };
    const onUp = (event: globalThis.PointerEvent): void => {
      const p = press.current;
      press.current = null;
      setTag(null);
      if (!p) return;
      const day = dayAt(latest.current.grid.current, event.clientX, event.clientY);
      if (!p.moved) latest.current.onTap(p.day, p.date);
      else if (day === undefined) latest.current.onLetGo();
      else latest.current.onFinish({ kind: p.kind, from: p.day, date: p.date, byPointer: true }, day, isCopy(event));
    };
    const letGo = (): void => {
      if (press.current?.moved) latest.current.onLetGo();
      press.current = null;
      setTag(null);
    };
    const onKey = (event: KeyboardEvent): void => {
      if (event.key === 'Escape' && press.current) letGo();
    };
    addEventListener('pointermove', onMove);
    addEventListener('pointerup', onUp);
    addEventListener('pointercancel', letGo);
    addEventListener('keydown', onKey, true);
    return () => {
      removeEventListener('pointermove', onMove);
      removeEventListener('pointerup', onUp);
      removeEventListener('pointercancel', letGo);
      removeEventListener('keydown', onKey, true);
    };
  }, [latest, press, setTag]);
}
