/** Proof beside the form: at once what the form itself shows, a moment later what the server knows of everything around it. */
import { useCallback, useEffect, useMemo, useState } from 'react';
import { ask, send } from '@/client/api';
import type { ListingContent } from '@/core/listing/content';
import type { EditorStart, OrganizerChoice, PictureChoice, VenueChoice } from '@/core/listing/editor';
import { keyOf, type ValidationNote, type Waiver, waive } from '@/core/validation/note';
import { validate } from '@/core/validation/validate';
import { editorWords } from '@/words/desk';

const w = editorWords.useValidation;

/** What only the server can know. */
const AROUND = new Set([
  'venue-clash',
  'organizer-clash',
  'lookalike',
  'same-title',
  'holiday',
  'copy-title',
  'copy-when',
  'copy-link',
  'low-contrast',
]);
const PAUSE_MS = 500;

export interface Proof {
  open: ValidationNote[];
  waived: { note: ValidationNote; waiver: Waiver }[];
  all: ValidationNote[];
  /** undefined when it worked, else why not */
  answerFor: (note: ValidationNote, reason: string) => Promise<string | undefined>;
  askAgain: (key: string) => Promise<void>;
  looked: (part: 'title' | 'when') => Promise<void>;
  refresh: () => void;
}

interface ValidationInput {
  start: EditorStart;
  id: string | null;
  revision: number;
  content: ListingContent;
  pictures: readonly PictureChoice[];
  venues: readonly VenueChoice[];
  organizers: readonly OrganizerChoice[];
}

/** What its first category lends it. Its ink is the server's matter. */
function standIn(content: ListingContent, start: EditorStart): { name: string; ink: string; picture: boolean } | undefined {
  const category = start.categories.find((c) => c.id === content.categoryIds[0]);
  return category && { name: category.name, ink: '', picture: category.picture };
}

export function useValidation({ start, id, revision, content, pictures, venues, organizers }: ValidationInput): Proof {
  const [around, setAround] = useState<ValidationNote[]>([]);
  const [waivers, setWaivers] = useState<Waiver[]>([]);
  const [turn, setTurn] = useState(0);
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked anew when the listing was saved, or somebody asks
  useEffect(() => {
    const leave = new AbortController();
    const timer = setTimeout(() => {
      const request = {
        method: 'POST',
        body: JSON.stringify({ id, content }),
        headers: { 'content-type': 'application/json' },
        signal: leave.signal,
      };
      void ask<{ notes: ValidationNote[]; waivers: Waiver[] }>('/api/v1/proof', request).then((outcome) => {
        // Without an answer, what the form itself shows still stands.
        if (outcome.kind !== 'done' || leave.signal.aborted) return;
        setAround(outcome.value.notes.filter((note) => AROUND.has(note.kind)));
        setWaivers(outcome.value.waivers);
      });
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      leave.abort();
    };
  }, [content, id, revision, turn]);
  const own = useMemo(() => {
    const venue = new Map(venues.map((v) => [v.id, v]));
    const organizer = new Map(organizers.map((o) => [o.id, o]));
    const { today, horizon, style, zone, listPictures } = start.site;
    const picture = new Map(pictures.map((p) => [p.id, p]));
    return validate(content, {
      ...{ today, horizon, style, zone, listPictures },
      category: standIn(content, start),
      picture: (p) => picture.get(p),
      venue: (v) => venue.get(v),
      organizer: (o) => organizer.get(o),
    });
  }, [content, pictures, venues, organizers, start]);
  const all = useMemo(() => {
    const order = { error: 0, warning: 1, good: 2 };
    return [...own, ...around].sort((a, b) => order[a.severity] - order[b.severity]);
  }, [own, around]);
  const parted = useMemo(() => waive(all, waivers), [all, waivers]);
  const tell = useCallback(
    async (body: object): Promise<string | undefined> => {
      if (!id) return w.saveTheListingFirst();
      const outcome = await send<{ waivers: Waiver[] }>('POST', `/api/v1/listings/${id}/proof`, body);
      if (outcome.kind !== 'done') return outcome.kind === 'refused' ? outcome.title : w.thatDidNotGet();
      setWaivers(outcome.value.waivers);
      return undefined;
    },
    [id],
  );
  return {
    ...parted,
    all,
    answerFor: (note, reason) => tell({ do: 'waive', key: keyOf(note), reason }),
    askAgain: async (key) => void (await tell({ do: 'ask-again', key })),
    looked: async (part) => {
      await tell({ do: 'looked', part });
      setTurn((n) => n + 1);
    },
    refresh: () => setTurn((n) => n + 1),
  };
}
