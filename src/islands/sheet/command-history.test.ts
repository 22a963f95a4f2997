import { describe, expect, it } from 'vitest';
import type { Outcome } from '@/client/api';
import type { ListingContent } from '@/core/listing/content';
import { emptyContent } from '@/core/listing/fields';
import { type SheetCommand, doInstead, doTo, redoCommand, type Server, type Stored, undoCommand } from './command-history';

/** A server with one listing, as the real one answers. */
function serverWith(content: ListingContent) {
  const kept: Stored = { content, revision: 1, stage: 'published', edited: false };
  const refused = (status: number, title: string): Outcome<never> => ({ kind: 'refused', status, title, fields: [], extra: {} });
  const acts: string[] = [];
  const server: Server = {
    // The database gives keys back in an order of its own.
    read: async () => ({ kind: 'done', value: { ...kept, content: Object.fromEntries(Object.entries(kept.content).reverse()) as never } }),
    save: async (_id, next, revision) => {
      if (revision !== kept.revision) return refused(409, 'Somebody saved it.');
      Object.assign(kept, { content: next, revision: revision + 1, edited: true });
      return { kind: 'done', value: kept };
    },
    make: async () => ({ kind: 'done', value: { id: 'new' } }),
    act: async (_id, action, revision) => {
      if (revision !== kept.revision) return refused(409, 'old');
      acts.push(action);
      return { kind: 'done', value: {} };
    },
  };
  return { server, kept, acts };
}
const choir = (): ListingContent => ({ ...emptyContent(), title: 'Choir', summary: 'Forty voices' });
const rename = (title: string) => (c: ListingContent) => ({ ...c, title });
const words = { said: 'Renamed.', cannot: 'It cannot be renamed.' };
async function renamed(server: Server): Promise<SheetCommand> {
  const done = await doTo(server, 'a', rename('Bells'), words);
  if (done.kind !== 'done') throw new Error(done.said);
  return done.command;
}

describe('what was done on a sheet', () => {
  it('is undone and done again from the copies of before and after', async () => {
    const { server, kept } = serverWith(choir());
    const command = await renamed(server);
    expect(kept.content.title).toBe('Bells');
    expect(await undoCommand(server, command)).toBeUndefined();
    expect(kept.content.title).toBe('Choir');
    expect(await redoCommand(server, command)).toBeUndefined();
    expect([kept.content.title, kept.revision]).toEqual(['Bells', 4]);
  });
  it('keeps what somebody else changed elsewhere, and refuses where both changed the same', async () => {
    const { server, kept } = serverWith(choir());
    const command = await renamed(server);
    kept.content = { ...kept.content, summary: 'Fifty voices' };
    expect(await undoCommand(server, command)).toBeUndefined();
    expect([kept.content.title, kept.content.summary]).toEqual(['Choir', 'Fifty voices']);
    const again = await renamed(server);
    kept.content = { ...kept.content, title: 'Chimes' };
    expect(await undoCommand(server, again)).toContain('“Chimes” was changed since');
    expect(kept.content.title).toBe('Chimes');
  });
  it('may have been meant otherwise: that takes its place, and is undone to the same', async () => {
    const { server, kept } = serverWith(choir());
    const command = await renamed(server);
    const other = await doInstead(server, command, { ...choir(), title: 'Gongs' }, 'Gongs.');
    expect([kept.content.title, typeof other]).toEqual(['Gongs', 'object']);
    await undoCommand(server, other as SheetCommand);
    expect(kept.content.title).toBe('Choir');
  });
  it('of a new listing is the bin, and back', async () => {
    const { server, acts } = serverWith(choir());
    const command: SheetCommand = { said: '', listingId: 'new', change: 'made' };
    expect([await undoCommand(server, command), await redoCommand(server, command), acts]).toEqual([
      undefined,
      undefined,
      ['bin', 'restore'],
    ]);
  });
  it('is nothing when it changes nothing, cannot be, or the site does not answer; each is said', async () => {
    const { server, kept } = serverWith(choir());
    expect(await doTo(server, 'a', () => undefined, words)).toEqual({ kind: 'failed', said: words.cannot });
    expect(kept.revision).toBe(1);
    const off: Server = { ...server, save: async () => ({ kind: 'offline' }) };
    expect(await doTo(off, 'a', rename('X'), words)).toMatchObject({ said: expect.stringContaining('No connection') });
    const out: Server = { ...server, read: async () => ({ kind: 'signed-out' }) };
    expect(await doTo(out, 'a', rename('X'), words)).toMatchObject({ said: expect.stringContaining('signed out') });
  });
});
