/** A listing being edited: its content, what the server has of it, and the ways of saving it. */
import { useCallback, useEffect, useRef, useState } from 'react';
import { type Outcome, send } from '@/client/api';
import { parseIsoDateTime } from '@/core/day/plain-date-time';
import { type Style, sayWhen } from '@/core/phrase/format';
import type { ListingContent, Stage } from '@/core/listing/content';
import type { ContentField } from '@/core/listing/fields';
import type { EditorStart } from '@/core/listing/editor';
import type { Times } from '@/core/listing/publication-times';
import { mergeContents, sameContent } from '@/core/listing/merge';
import { dropKept, keep, readKept } from './kept';
import { firstStep, record, redo, type Steps, seal, undo } from './steps';
import { editorWords } from '@/words/desk';

const w = editorWords.useListing;

interface Saved {
  id?: string | null;
  revision: number;
  slug: string;
  stage: Stage;
  edited: boolean;
  /** saving leaves them as they are, so its answer does not say them */
  times?: Times;
  scheduleWrong?: string;
}
/** The listing as the server has it. */
type Server = Required<Omit<Saved, 'id'>> & { id: string | null };
export interface Newer {
  revision: number;
  content: ListingContent;
  by: string;
}
export interface Conflict {
  newer: Newer;
  merged: ListingContent;
  collisions: ContentField[];
}
export type Action = 'publish' | 'withdraw' | 'bin' | 'restore' | 'review' | 'slug' | 'times';

/** What some actions need besides. */
export interface ActionMore {
  slug?: string;
  times?: Times;
}

export interface Note {
  tone: 'good' | 'bad';
  text: string;
  link?: { href: string; text: string };
}

/** Is this the same page again, after a reload or the way back? */
function wasReloaded(): boolean {
  const [entry] = performance.getEntriesByType('navigation') as PerformanceNavigationTiming[];
  return entry?.type === 'reload' || entry?.type === 'back_forward';
}

export function useListing(start: EditorStart) {
  const [content, setContentState] = useState<ListingContent>(start.content);
  const [server, setServer] = useState<Server>({
    id: start.id,
    revision: start.revision,
    slug: start.slug,
    stage: start.stage,
    edited: start.edited,
    times: start.times,
    scheduleWrong: start.scheduleWrong,
  });
  const [base, setBase] = useState<ListingContent>(start.content);
  const [errors, setErrors] = useState<Map<string, string>>(new Map());
  const [refused, setRefused] = useState<{ turn: number; field: string | undefined }>({ turn: 0, field: undefined });
  const [note, setNote] = useState<Note | null>(null);
  const [busy, setBusy] = useState(false);
  const [keptAt, setKeptAt] = useState<number | null>(null);
  const [conflict, setConflict] = useState<Conflict | null>(null);
  const [signIn, setSignIn] = useState<(() => void) | null>(null);
  const [found, setFound] = useState<{ content: ListingContent; revision: number } | null>(null);
  const latest = useRef({ content, server, base });
  latest.current = { content, server, base };
  const dirty = !sameContent(content, base);

  // What was typed before a reload comes back by itself.
  useEffect(() => {
    const here = readKept(localStorage, start.userId, start.id);
    // Of what this browser has and what the server has, the later one counts.
    const kept = here && (!start.kept || here.at >= start.kept.at) ? here : start.kept;
    if (!kept || sameContent(kept.content, start.content)) return;
    // The beginning of a new listing is offered, never put in unasked: this may be another one. After a reload it is the same.
    const other = start.id === null && (kept !== here || !wasReloaded());
    if (kept.revision === start.revision && !other) {
      setContentState(kept.content);
      setNote({ tone: 'good', text: w.whatYouTypedBefore() });
    } else setFound({ content: kept.content, revision: kept.revision });
  }, [start]);

  const [steps, setSteps] = useState(() => firstStep(start.content));
  const setContent = useCallback((change: Partial<ListingContent> | ((before: ListingContent) => ListingContent)) => {
    setContentState((before) => (typeof change === 'function' ? change(before) : { ...before, ...change }));
  }, []);

  // Whatever changed the content is a step, unless it was a step back or forth.
  useEffect(() => setSteps((s) => record(s, content, Date.now())), [content]);
  useEffect(() => {
    const apart = (): void => setSteps(seal);
    const onKey = (event: KeyboardEvent): void => {
      if (!(event.target instanceof HTMLElement && event.target.closest('input, textarea, [contenteditable=true]'))) apart();
    };
    addEventListener('pointerdown', apart);
    addEventListener('focusin', apart);
    addEventListener('keydown', onKey);
    return () => {
      removeEventListener('pointerdown', apart);
      removeEventListener('focusin', apart);
      removeEventListener('keydown', onKey);
    };
  }, []);
  const step = useCallback(
    (move: (s: Steps) => Steps) => {
      const next = move(steps);
      if (next === steps) return;
      setSteps(next);
      setContentState(next.present);
    },
    [steps],
  );
  const takeBack = useCallback(() => step(undo), [step]);
  const again = useCallback(() => step(redo), [step]);

  useEffect(() => {
    if (!dirty) return;
    const timer = setTimeout(() => {
      const at = Date.now();
      if (keep(localStorage, start.userId, server.id, { format: 1, revision: server.revision, content, at })) setKeptAt(at);
    }, 250);
    return () => clearTimeout(timer);
  }, [content, dirty, server.id, server.revision, start.userId]);

  useEffect(() => {
    const keepNow = (): void => {
      const { content: now, server: s } = latest.current;
      if (sameContent(now, latest.current.base)) return;
      keep(localStorage, start.userId, s.id, { format: 1, revision: s.revision, content: now, at: Date.now() });
    };
    addEventListener('pagehide', keepNow);
    return () => removeEventListener('pagehide', keepNow);
  }, [start.userId]);

  /** Shows what an outcome means; true when it is done. */
  const settle = useCallback(<T>(outcome: Outcome<T>, again: () => void): outcome is { kind: 'done'; value: T } => {
    if (outcome.kind === 'done') {
      setErrors(new Map());
      return true;
    }
    if (outcome.kind === 'offline') setNote({ tone: 'bad', text: w.noConnectionWhatYou() });
    else if (outcome.kind === 'signed-out') setSignIn(() => again);
    else {
      const newer = outcome.extra.newer as Newer | undefined;
      if (newer) setConflict({ newer, ...mergeContents(latest.current.base, latest.current.content, newer.content) });
      else setNote({ tone: 'bad', text: sayRefusal(outcome.title, outcome.fields.length) });
      setErrors(new Map(outcome.fields.map((f) => [f.field.replace(/^content\./, ''), f.message])));
      setRefused(({ turn }) => ({ turn: turn + 1, field: outcome.fields[0]?.field }));
    }
    return false;
  }, []);

  const accept = useCallback(
    (saved: Saved, sent: ListingContent | null) => {
      const before = latest.current.server;
      const id = saved.id ?? before.id;
      if (before.id === null && id) history.replaceState(null, '', `/desk/listings/${id}`);
      if (sent) {
        dropKept(localStorage, start.userId, before.id);
        setBase(sent);
      }
      const next = { ...before, ...saved, id: id ?? null };
      latest.current.server = next;
      setServer(next);
    },
    [start.userId],
  );

  /** Saves the working copy; resolves to whether the server has it. */
  const [wantedSlug, setWantedAddress] = useState('');
  const save = useCallback(
    async (replace?: { content: ListingContent; revision: number }): Promise<boolean> => {
      const { server: s, content: typed } = latest.current;
      const sent = replace?.content ?? typed;
      setBusy(true);
      const outcome =
        s.id === null
          ? await send<Saved>('POST', '/api/v1/listings', {
              content: sent,
              ...(wantedSlug.trim() ? { slug: wantedSlug.trim() } : {}),
            })
          : await send<Saved>('PUT', `/api/v1/listings/${s.id}`, { content: sent, revision: replace?.revision ?? s.revision });
      setBusy(false);
      if (!settle(outcome, () => void save(replace))) return false;
      accept(outcome.value, sent);
      if (replace) setContentState(replace.content);
      setNote({
        tone: 'good',
        text: outcome.value.stage === 'published' ? w.savedInTheWorking() : w.saved(),
      });
      return true;
    },
    [accept, settle, wantedSlug],
  );

  /** Saves what is typed, then acts on the listing as a whole. */
  const act = useCallback(
    async (action: Action, more: ActionMore = {}): Promise<boolean> => {
      const typed = !sameContent(latest.current.content, latest.current.base);
      if ((typed || latest.current.server.id === null) && !(await save())) return false;
      const { id, revision } = latest.current.server;
      setBusy(true);
      const outcome = await send<Partial<Saved> & { stage: Stage; ended?: string[] }>('POST', `/api/v1/listings/${id}/${action}`, {
        revision,
        ...more,
      });
      setBusy(false);
      if (!settle(outcome, () => void act(action, more))) return false;
      const { ended = [], ...value } = outcome.value;
      accept({ ...latest.current.server, ...value } as Saved, null);
      setNote(noteOf(action, latest.current.server, sayEnded(ended, start.site.style)));
      return true;
    },
    [accept, save, settle, start.site.style],
  );

  return {
    content,
    setContent,
    server,
    dirty,
    errors,
    refused,
    note,
    setNote,
    busy,
    keptAt,
    conflict,
    setConflict,
    signIn,
    setSignIn,
    found,
    setFound,
    wantedSlug,
    setWantedAddress,
    save,
    act,
    undo: steps.past.length ? takeBack : null,
    redo: steps.future.length ? again : null,
  };
}

/** All that is wrong stands at its fields; the note says the first and how many more there are. */
function sayRefusal(title: string, fields: number): string {
  return fields > 1 ? w.moreBelow({ title, n: fields - 1 }) : title;
}

export type Listing = ReturnType<typeof useListing>;

/** So many dates are named one by one. */
const ENDED_NAMED = 3;

/** Which dates are no more, as a sentence; empty when all go on. */
function sayEnded(ended: readonly string[], style: Style): string {
  if (!ended.length) return '';
  const named = ended.slice(0, ENDED_NAMED).flatMap((text) => {
    const start = parseIsoDateTime(text);
    return start ? [sayWhen(start, null, style)] : [];
  });
  const more = ended.length - named.length;
  return w.noLongerADate({ named: named.join('; '), more: more > 0 ? w.andMore({ more }) : '' });
}

function noteOf(action: Action, { id, slug, stage, times }: Pick<Server, 'id' | 'slug' | 'stage' | 'times'>, ended = ''): Note {
  // Readers have no page of what is not published.
  const page =
    stage === 'published'
      ? { href: `/what/${slug}`, text: w.seeThePage() }
      : { href: `/desk/listings/${id}/preview`, text: w.seeThePreview() };
  switch (action) {
    case 'publish':
      return { tone: 'good', text: w.published({ ended }), link: page };
    case 'times':
      return {
        tone: 'good',
        text: times.publishAt ? w.itGoesOutBy() : times.withdrawAt ? w.itComesDownBy() : w.itHasNoTimes(),
      };
    case 'withdraw':
      return { tone: 'good', text: w.withdrawnReadersNoLonger() };
    case 'bin':
      return { tone: 'good', text: w.inTheBin() };
    case 'restore':
      return { tone: 'good', text: w.backAsADraft() };
    case 'review':
      return { tone: 'good', text: w.sentForReviewAn() };
    case 'slug':
      return { tone: 'good', text: w.theWebAddressIs(), link: page };
  }
}
