/** What is typed is kept in this browser until the server has it, and comes back after a reload. */
import { useEffect, useRef, useState } from 'react';
import type { ListingContent } from '@/core/listing/content';
import type { EditorStart } from '@/core/listing/editor';
import { sameContent } from '@/core/listing/merge';
import { keep, readKept } from './kept';

/** How long after the last letter, in milliseconds. */
const PAUSE_MS = 250;

/** Is this the same page again, after a reload or the way back? */
function wasReloaded(): boolean {
  const [entry] = performance.getEntriesByType('navigation') as PerformanceNavigationTiming[];
  return entry?.type === 'reload' || entry?.type === 'back_forward';
}

/** What of an editor is kept: what is typed, what the server has, and what was typed on. */
export interface Typed {
  content: ListingContent;
  base: ListingContent;
  server: { id: string | null; revision: number };
}

/** Gives back, or offers, what was typed here before. */
export function useFound(start: EditorStart, giveBack: (content: ListingContent) => void) {
  const [found, setFound] = useState<{ content: ListingContent; revision: number } | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each listing
  useEffect(() => {
    const here = readKept(localStorage, start.userId, start.id);
    // Of what this browser has and what the server has, the later one counts.
    const kept = here && (!start.kept || here.at >= start.kept.at) ? here : start.kept;
    if (!kept || sameContent(kept.content, start.content)) return;
    // The beginning of a new listing is offered, never put in unasked: this may be another one. After a reload it is the same.
    const other = start.id === null && (kept !== here || !wasReloaded());
    if (kept.revision === start.revision && !other) giveBack(kept.content);
    else setFound({ content: kept.content, revision: kept.revision });
  }, [start]);
  return [found, setFound] as const;
}

/** Keeps what is typed; resolves to when it was kept last, in milliseconds. */
export function useKeeping(start: EditorStart, typed: Typed): number | null {
  const [keptAt, setKeptAt] = useState<number | null>(null);
  const { content, base, server } = typed;
  const latest = useRef(typed);
  latest.current = typed;
  const dirty = !sameContent(content, base);
  useEffect(() => {
    if (!dirty) return;
    const timer = setTimeout(() => {
      const at = Date.now();
      if (keep(localStorage, start.userId, server.id, { format: 1, revision: server.revision, content, at })) setKeptAt(at);
    }, PAUSE_MS);
    return () => clearTimeout(timer);
  }, [content, dirty, server.id, server.revision, start.userId]);

  useEffect(() => {
    const keepNow = (): void => {
      const { content: now, base: before, server: s } = latest.current;
      if (sameContent(now, before)) return;
      keep(localStorage, start.userId, s.id, { format: 1, revision: s.revision, content: now, at: Date.now() });
    };
    addEventListener('pagehide', keepNow);
    return () => removeEventListener('pagehide', keepNow);
  }, [start.userId]);
  return keptAt;
}
