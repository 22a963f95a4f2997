/**
 * What was done on a sheet, kept so that it can be undone for as long as the page is open. Without React: the server is what
 * {@link Server} says, so that this is tested without a browser.
 */
import type { Outcome } from '@/client/api';
import type { ListingContent, Stage } from '@/core/listing/content';
import { differences, mergeContents } from '@/core/listing/merge';
import { sheetWords } from '@/words/desk';

const w = sheetWords.commandHistory;

export interface Stored {
  content: ListingContent;
  revision: number;
  stage: Stage;
  edited: boolean;
}

export interface Server {
  read: (id: string) => Promise<Outcome<Stored>>;
  save: (id: string, content: ListingContent, revision: number) => Promise<Outcome<Omit<Stored, 'content'>>>;
  make: (content: ListingContent) => Promise<Outcome<{ id: string }>>;
  act: (id: string, action: 'bin' | 'restore' | 'publish', revision: number) => Promise<Outcome<unknown>>;
}

/** One thing that was done: a listing that is different now, or one that is new. */
export interface SheetCommand {
  said: string;
  listingId: string;
  change: { before: ListingContent; after: ListingContent } | 'made';
}

export type Done = { kind: 'done'; command: SheetCommand; was: Stored } | { kind: 'failed'; said: string };

export function whyFailed(outcome: Exclude<Outcome<unknown>, { kind: 'done' }>): string {
  if (outcome.kind === 'offline') return w.noConnectionNothingWas();
  if (outcome.kind === 'signed-out') return w.youAreSignedOut();
  return outcome.title;
}

/** Changes a listing as the server has it now; undefined from `change` means that it cannot be done, said by `cannot`. */
export async function doTo(
  server: Server,
  listingId: string,
  change: (content: ListingContent) => ListingContent | undefined,
  words: { said: string; cannot: string },
): Promise<Done> {
  const read = await server.read(listingId);
  if (read.kind !== 'done') return { kind: 'failed', said: whyFailed(read) };
  const was = read.value;
  const after = change(was.content);
  if (!after || !differences(was.content, after).length) return { kind: 'failed', said: words.cannot };
  const saved = await server.save(listingId, after, was.revision);
  if (saved.kind !== 'done') return { kind: 'failed', said: whyFailed(saved) };
  return { kind: 'done', command: { said: words.said, listingId, change: { before: was.content, after } }, was };
}

/** Another way of doing the same: from what was there before, in place of what was done. */
export async function doInstead(
  server: Server,
  command: SheetCommand,
  after: ListingContent,
  said: string,
): Promise<SheetCommand | string> {
  if (command.change === 'made') return w.aNewListingIs();
  const problem = await replace(server, command.listingId, command.change.after, after);
  return problem ?? { ...command, said, change: { before: command.change.before, after } };
}

/** Takes a deed back, or does it again; the answer is what stands in the way, undefined when it is done. */
export async function undoCommand(server: Server, command: SheetCommand): Promise<string | undefined> {
  if (command.change !== 'made') return replace(server, command.listingId, command.change.after, command.change.before);
  return actOn(server, command.listingId, 'bin');
}

export async function redoCommand(server: Server, command: SheetCommand): Promise<string | undefined> {
  if (command.change !== 'made') return replace(server, command.listingId, command.change.before, command.change.after);
  return actOn(server, command.listingId, 'restore');
}

/** Stage changes need the listing's revision of now. */
export async function actOn(server: Server, id: string, action: 'bin' | 'restore' | 'publish'): Promise<string | undefined> {
  const read = await server.read(id);
  if (read.kind !== 'done') return whyFailed(read);
  const acted = await server.act(id, action, read.value.revision);
  return acted.kind === 'done' ? undefined : whyFailed(acted);
}

/** Puts one content in another's place. What somebody else changed since stays, where the two do not touch the same fields. */
async function replace(server: Server, id: string, from: ListingContent, to: ListingContent): Promise<string | undefined> {
  const read = await server.read(id);
  if (read.kind !== 'done') return whyFailed(read);
  const { content: now, revision } = read.value;
  let next = to;
  if (differences(now, from).length) {
    const { merged, collisions } = mergeContents(from, to, now);
    if (collisions.length) return w.wasChangedSinceIn({ title: now.title });
    next = merged;
  }
  const saved = await server.save(id, next, revision);
  return saved.kind === 'done' ? undefined : whyFailed(saved);
}
