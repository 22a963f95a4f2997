import type { Db } from '../db/client';
import type { PlaceKind } from '../db/schema';
import { idOf, invalid } from '../problem';
import type { Change } from '../listings/write';
import { binOrganizer, removeOrganizer } from '../organizers/write';
import { binVenue, removeVenue } from '../venues/write';
import { mergePlaces } from './merge';
import { serverWords } from '@/words/desk';

const w = serverWords.placesPlaceActions;

const REMOVE = { venue: removeVenue, organizer: removeOrganizer };
const BIN = { venue: binVenue, organizer: binOrganizer };

interface Place {
  kind: PlaceKind;
  id: string;
}

/** Stands for "none" where a form has to have an answer. */
export const NOTHING = 'nothing';

/** What a place's form did, and where it leads. */
export interface PlaceOutcome {
  said: string;
  /** where to go then */
  to: string;
  /** by which it is taken back */
  undo?: string;
}

/** Does what a posted form asks for; says how it went and where to go then, or undefined when it asks for none of these. */
export async function runPlaceAction(
  tx: Db,
  { kind, id }: Place,
  sent: Record<string, string>,
  change: Change,
): Promise<PlaceOutcome | undefined> {
  const { by, now } = change;
  const page = (of: string): string => `/desk/${kind}s/${of}`;
  switch (sent.action) {
    case 'remove': {
      // With listings that name it, what becomes of them is said, never guessed.
      if (sent.moveTo === '') throw invalid('moveTo', w.chooseWhatItsListings());
      const gone = await REMOVE[kind](tx, id, sent.moveTo && sent.moveTo !== NOTHING ? sent.moveTo : null, change);
      return {
        said: w.isRemoved({ name: gone.name, listings: gone.listings ? w.fromListing({ listings: gone.listings }) : '' }),
        to: `/desk/${kind}s`,
        undo: gone.command,
      };
    }
    case 'bin':
    case 'restore': {
      const { name } = await BIN[kind](tx, id, sent.action === 'bin' ? new Date(now.ms) : null, by);
      return { said: w.isInTheBin({ name, action: sent.action === 'bin' ? 'yes' : 'no' }), to: page(id) };
    }
    case 'merge': {
      const into = idOf(sent.into, kind);
      const done = await mergePlaces(tx, kind, id, into, change);
      return {
        said: w.isPartOfNow({ from: done.from, into: done.into, listings: done.listings }),
        to: page(into),
        undo: done.id,
      };
    }
    default:
      return undefined;
  }
}
