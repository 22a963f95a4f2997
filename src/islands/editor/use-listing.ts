/** A listing being edited: its content, what the server has of it, and the ways of saving it. */
import { siteAddress } from '@/client/site-root';
import { type RefObject, useCallback, useRef, useState } from 'react';
import { type Outcome, send } from '@/client/api';
import type { ListingContent, Stage } from '@/core/listing/content';
import type { ContentField } from '@/core/listing/fields';
import type { EditorStart } from '@/core/listing/editor';
import type { Times } from '@/core/listing/publication-times';
import { mergeContents, sameContent } from '@/core/listing/merge';
import { dropKept } from './kept';
import { type Action, type Note, noteOf, sayEnded, sayRefusal } from './saying';
import { useFound, useKeeping } from './use-kept';
import { useSteps } from './use-steps';
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

/** What some actions need besides. */
export interface ActionMore {
  slug?: string;
  times?: Times;
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
  const latest = useRef<Latest>({ content, server, base });
  latest.current = { content, server, base };
  const outcomes = useOutcomes(latest);
  const { setNote } = outcomes;
  const dirty = !sameContent(content, base);

  const setContent = useCallback((change: Partial<ListingContent> | ((before: ListingContent) => ListingContent)) => {
    setContentState((before) => (typeof change === 'function' ? change(before) : { ...before, ...change }));
  }, []);

  const [found, setFound] = useFound(start, (before) => {
    setContentState(before);
    setNote({ tone: 'good', text: w.whatYouTypedBefore() });
  });
  const undoing = useSteps(content, setContentState);
  const keptAt = useKeeping(start, { content, server, base });

  const saving = useSaving({ start, latest, settle: outcomes.settle, setNote, setContentState, setServer, setBase });
  const { settle: _, ...said } = outcomes;
  return { content, setContent, server, dirty, keptAt, found, setFound, ...said, ...saving, ...undoing };
}

/** What is typed, what the server has, and what both began from, as of the last drawing. */
interface Latest {
  content: ListingContent;
  server: Server;
  base: ListingContent;
}

/** What came of an action, as the form shows it: errors at fields, a note, a conflict to settle, or a sign-in before going on. */
function useOutcomes(latest: RefObject<Latest>) {
  const [errors, setErrors] = useState<Map<string, string>>(new Map());
  const [refused, setRefused] = useState<{ turn: number; field: string | undefined }>({ turn: 0, field: undefined });
  const [note, setNote] = useState<Note | null>(null);
  const [conflict, setConflict] = useState<Conflict | null>(null);
  const [signIn, setSignIn] = useState<(() => void) | null>(null);

  /** Shows what an outcome means; true when it is done. */
  const settle = useCallback(
    <T>(outcome: Outcome<T>, again: () => void): outcome is { kind: 'done'; value: T } => {
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
    },
    [latest],
  );

  return { errors, refused, note, setNote, conflict, setConflict, signIn, setSignIn, settle };
}

interface Saving {
  start: EditorStart;
  latest: RefObject<Latest>;
  settle: ReturnType<typeof useOutcomes>['settle'];
  setNote: (note: Note) => void;
  setContentState: (content: ListingContent) => void;
  setServer: (server: Server) => void;
  setBase: (content: ListingContent) => void;
}

/** Saving what is typed, and acting on the listing as a whole. */
function useSaving({ start, latest, settle, setNote, setContentState, setServer, setBase }: Saving) {
  const [busy, setBusy] = useState(false);
  const [wantedSlug, setWantedSlug] = useState('');

  const accept = useCallback(
    (saved: Saved, sent: ListingContent | null) => {
      const before = latest.current.server;
      const id = saved.id ?? before.id;
      if (before.id === null && id) history.replaceState(null, '', siteAddress(`/desk/listings/${id}`));
      if (sent) {
        dropKept(localStorage, start.userId, before.id);
        setBase(sent);
      }
      const next = { ...before, ...saved, id: id ?? null };
      latest.current.server = next;
      setServer(next);
    },
    [start.userId, latest, setBase, setServer],
  );

  /** Saves the working copy; resolves to whether the server has it. */
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
    [accept, latest, setContentState, setNote, settle, wantedSlug],
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
    [accept, latest, save, setNote, settle, start.site.style],
  );

  return { busy, wantedSlug, setWantedSlug, save, act };
}

export type Listing = ReturnType<typeof useListing>;
