/** What a venue's or an organizer's page can do with it as a whole: remove, bin, merge, part again. */
import { sayCount } from '@/core/phrase/format';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import type { PlaceKind } from '../db/schema';
import { idOf } from '../http/params';
import { binOrganizer, removeOrganizer } from '../organizers/write';
import { binVenue, removeVenue } from '../venues/write';
import { mergePlaces, undoMerge } from './merge';

const REMOVE = { venue: removeVenue, organizer: removeOrganizer };
const BIN = { venue: binVenue, organizer: binOrganizer };

interface Place {
  kind: PlaceKind;
  id: string;
}

/** Does what a posted form asks for; says how it went and where to go then, or undefined when it asks for none of these. */
export async function placeDeed(
  tx: Db,
  { kind, id }: Place,
  sent: Record<string, string>,
  by: Actor,
  at: Date,
): Promise<{ said: string; to: string } | undefined> {
  const page = (of: string): string => `/desk/${kind}s/${of}`;
  switch (sent.action) {
    case 'remove':
      await REMOVE[kind](tx, id, sent.moveTo || null, by);
      return { said: `The ${kind} is gone.`, to: `/desk/${kind}s` };
    case 'bin':
    case 'restore': {
      const { name } = await BIN[kind](tx, id, sent.action === 'bin' ? at : null, by);
      return { said: `${name} is ${sent.action === 'bin' ? 'in' : 'out of'} the bin.`, to: page(id) };
    }
    case 'merge': {
      const into = idOf(sent.into, kind);
      const done = await mergePlaces(tx, kind, id, into, by, at);
      return { said: `“${done.from}” is part of “${done.into}” now; ${sayCount(done.listings, 'listing')} followed.`, to: page(into) };
    }
    case 'part': {
      const done = await undoMerge(tx, idOf(sent.merge, 'merge'), by, at);
      const left = done.left ? `; ${done.left} had changed since and stay as they are` : '';
      return { said: `“${done.name}” stands on its own again${left}.`, to: page(id) };
    }
    default:
      return undefined;
  }
}
