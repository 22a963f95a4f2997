/** Doing, undoing and redoing on a sheet, with what is said about it and what else could be meant. */
import { type Dispatch, type RefObject, type SetStateAction, useCallback, useRef, useState } from 'react';
import { ask, send } from '@/client/api';
import type { ListingContent } from '@/core/listing/content';
import {
  actOn,
  type SheetCommand,
  doInstead,
  doTo,
  redoCommand,
  type Server,
  type Stored,
  undoCommand,
  whyFailed,
} from './command-history';
import { sheetWords } from '@/words/desk';

const w = sheetWords.useCommands;

const SERVER: Server = {
  read: (id) => ask<Stored>(`/api/v1/listings/${id}`),
  save: (id, content, revision) => send('PUT', `/api/v1/listings/${id}`, { content, revision }),
  make: (content) => send('POST', '/api/v1/listings', { content }),
  act: (id, action, revision) => send('POST', `/api/v1/listings/${id}/${action}`, { revision }),
};

/** Another way of meaning what was done: it takes its place. */
export interface Instead {
  label: string;
  said: string;
  content: ListingContent;
  /** the content is a new listing's: the one that was changed goes back to what it was */
  apart?: boolean;
}

export interface Notice {
  text: string;
  tone: 'good' | 'bad';
  instead: Instead[];
  /** readers do not see it yet, and nothing else waits to be published */
  mayPublish: boolean;
  /** to open what it speaks of */
  listingId: string | undefined;
}

export interface DateCommand {
  listingId: string;
  change: (content: ListingContent) => ListingContent | undefined;
  said: string;
  cannot: string;
  /** what else could be meant, from the listing as it was */
  instead?: (before: ListingContent, stored: Stored) => Instead[];
  /** what is found out afterwards: clashes, say */
  effects?: (after: ListingContent) => Promise<string>;
}

const MOST_DEEDS = 200;
type Failed = Parameters<typeof whyFailed>[0];

export function useCommands(reload: () => Promise<void>, mayPublish: boolean) {
  const [past, setPast] = useState<SheetCommand[]>([]);
  const [future, setFuture] = useState<SheetCommand[]>([]);
  const [notice, setNotice] = useState<Notice | null>(null);
  const [busy, setBusy] = useState(false);
  const state = useRef({ past, future, busy: false });
  state.current.past = past;
  state.current.future = future;

  /** One thing at a time: what is asked for meanwhile is not done. */
  const alone = useCallback(async (run: () => Promise<void>): Promise<void> => {
    if (state.current.busy) return;
    state.current.busy = true;
    setBusy(true);
    try {
      await run();
    } finally {
      state.current.busy = false;
      setBusy(false);
    }
  }, []);
  const say = useCallback((text: string, tone: Notice['tone'] = 'bad', listingId?: string): void => {
    setNotice({ text, tone, instead: [], mayPublish: false, listingId });
  }, []);

  const means: Means = { state, alone, reload, say, setPast, setFuture, setNotice };
  const act = useAct(means, mayPublish);
  const instead = useInstead(means);
  const make = useMake(means);
  const { step, publish } = useSteps(means);

  return {
    act,
    instead,
    make,
    publish,
    undo: past.length ? () => step(true) : undefined,
    redo: future.length ? () => step(false) : undefined,
    notice,
    say,
    dismiss: () => setNotice(null),
    busy,
  };
}

export type Commands = ReturnType<typeof useCommands>;

/** What every command works with. */
interface Means {
  state: RefObject<{ past: SheetCommand[]; future: SheetCommand[] }>;
  alone: (run: () => Promise<void>) => Promise<void>;
  reload: () => Promise<void>;
  say: (text: string, tone?: Notice['tone'], listingId?: string) => void;
  setPast: Dispatch<SetStateAction<SheetCommand[]>>;
  setFuture: Dispatch<SetStateAction<SheetCommand[]>>;
  setNotice: Dispatch<SetStateAction<Notice | null>>;
}

/** Changes a listing, and says what came of it with what else could have been meant. */
function useAct({ alone, reload, say, setPast, setFuture, setNotice }: Means, mayPublish: boolean) {
  return useCallback(
    (dateCommand: DateCommand): Promise<void> =>
      alone(async () => {
        const done = await doTo(SERVER, dateCommand.listingId, dateCommand.change, dateCommand);
        if (done.kind === 'failed') return say(done.said, 'bad', dateCommand.listingId);
        const { command, was } = done;
        setPast((list) => [...list, command].slice(-MOST_DEEDS));
        setFuture([]);
        const change = command.change as Exclude<SheetCommand['change'], 'made'>;
        const more = dateCommand.effects ? await dateCommand.effects(change.after) : '';
        await reload();
        setNotice({
          text: `${dateCommand.said}${more ? ` ${more}` : ''}${was.stage === 'published' ? w.readersSeeItOnce() : ''}`,
          tone: more ? 'bad' : 'good',
          instead: dateCommand.instead?.(change.before, was) ?? [],
          mayPublish: mayPublish && was.stage === 'published' && !was.edited,
          listingId: dateCommand.listingId,
        });
      }),
    [alone, reload, say, setPast, setFuture, setNotice, mayPublish],
  );
}

/** Does what else was meant in the place of the last command. */
function useInstead({ state, alone, reload, say, setPast, setNotice }: Means) {
  return useCallback(
    ({ content, said, apart }: Instead): Promise<void> =>
      alone(async () => {
        const command = state.current.past.at(-1);
        if (!command) return;
        if (apart) {
          const problem = await undoCommand(SERVER, command);
          const made = problem ? undefined : await SERVER.make(content);
          if (problem || made?.kind !== 'done') return say(problem ?? (made ? whyFailed(made as Failed) : ''));
          setPast((list) => [...list.slice(0, -1), { said, listingId: made.value.id, change: 'made' }]);
          await reload();
          return say(said, 'good', made.value.id);
        }
        const next = await doInstead(SERVER, command, content, said);
        if (typeof next === 'string') return say(next);
        setPast((list) => [...list.slice(0, -1), next]);
        await reload();
        setNotice((n) => (n ? { ...n, text: said, tone: 'good', instead: [] } : n));
      }),
    [state, alone, reload, say, setPast, setNotice],
  );
}

/** Makes a listing; the answer is its id. */
function useMake({ alone, reload, say, setPast, setFuture }: Means) {
  return useCallback(
    async (content: ListingContent, said: string): Promise<string | undefined> => {
      let id: string | undefined;
      await alone(async () => {
        const made = await SERVER.make(content);
        if (made.kind !== 'done') return say(whyFailed(made));
        const listingId = made.value.id;
        id = listingId;
        setPast((list) => [...list, { said, listingId, change: 'made' as const }].slice(-MOST_DEEDS));
        setFuture([]);
        await reload();
        say(said, 'good', listingId);
      });
      return id;
    },
    [alone, reload, say, setPast, setFuture],
  );
}

/** A step back or forward through what was done, and publishing what a command changed. */
function useSteps({ state, alone, reload, say, setPast, setFuture }: Means) {
  const step = useCallback(
    (back: boolean): Promise<void> =>
      alone(async () => {
        const command = back ? state.current.past.at(-1) : state.current.future.at(-1);
        if (!command) return;
        const problem = await (back ? undoCommand : redoCommand)(SERVER, command);
        if (problem) return say(problem, 'bad', command.listingId);
        setPast((list) => (back ? list.slice(0, -1) : [...list, command]));
        setFuture((list) => (back ? [...list, command] : list.slice(0, -1)));
        await reload();
        say(`${back ? w.undone() : w.doneAgain()}: ${command.said}`, 'good');
      }),
    [state, alone, reload, say, setPast, setFuture],
  );

  const publish = useCallback(
    (listingId: string): Promise<void> =>
      alone(async () => {
        const problem = await actOn(SERVER, listingId, 'publish');
        if (problem) return say(problem, 'bad', listingId);
        await reload();
        say(w.publishedReadersSeeIt(), 'good', listingId);
      }),
    [alone, reload, say],
  );
  return { step, publish };
}
