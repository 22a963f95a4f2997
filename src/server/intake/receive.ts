/** What /add and the receipt page do with a posted form: bounds, picture, one transaction. */
import type { ListingContent } from '@/core/listing/content';
import type { Db } from '../db/client';
import { formFields, readForm } from '../http/posted';
import { countOne } from '../limits/limits';
import { keepPicture } from '../pictures/take-in';
import { lookup } from '../public/lookup';
import type { Runtime } from '../runtime';
import { type Fields, readAddForm } from './form';
import type { SubmissionRow } from './read';
import { mendSubmission, submitEvent } from './write';

export const ADD_BOUND = { most: 6, seconds: 3600 } as const;

export interface Posted {
  fields: Fields;
  picture: File | undefined;
}

export async function readPosted(request: Request): Promise<Posted> {
  const form = await readForm(request);
  const file = form.get('picture');
  return { fields: formFields(form), picture: file instanceof File && file.size > 0 ? file : undefined };
}

async function withPicture(
  rt: Runtime,
  content: ListingContent,
  { fields, picture }: Posted,
  before: string | null,
): Promise<ListingContent> {
  if (!picture) return { ...content, pictureId: before };
  const bytes = Buffer.from(await picture.arrayBuffer());
  const words = { name: picture.name, alt: fields.alt ?? '', credit: '' };
  const kept = await keepPicture(rt, { bytes, ...words, ownerId: null, at: new Date(rt.now().ms) });
  return { ...content, pictureId: kept.picture.id };
}

/** Takes a stranger's event in and returns the token of its receipt. `from` is the address of the connection. */
export async function receiveEvent(rt: Runtime, posted: Posted, from: string): Promise<string> {
  const now = rt.now();
  const settings = rt.settings();
  const { content, ...words } = readAddForm(posted.fields, await lookup(rt), settings, now.day);
  await countOne(rt.db, { key: `add:${from}`, ...ADD_BOUND }, Date.now());
  const whole = await withPicture(rt, content, posted, null);
  const change = { by: { id: null, name: words.name, role: 'reader' as const }, now, settings };
  return rt.db.transaction((tx) => submitEvent(tx as unknown as Db, { content: whole, ...words, site: rt.address() }, change));
}

/** The sender mends their event. What editors added meanwhile (summary, standing, a position in the tree) stays. */
export async function receiveMending(rt: Runtime, posted: Posted, row: SubmissionRow, before: ListingContent, from: string): Promise<void> {
  const now = rt.now();
  const settings = rt.settings();
  const { content, ...words } = readAddForm(posted.fields, await lookup(rt), settings, now.day);
  await countOne(rt.db, { key: `mend:${from}`, most: 20, seconds: 3600 }, Date.now());
  const { title, text, recurrence, categoryIds, venueIds, organizerIds, cost, website, contact } = content;
  const mended = await withPicture(
    rt,
    { ...before, title, text, recurrence, categoryIds, venueIds, organizerIds, cost, website, contact },
    posted,
    before.pictureId,
  );
  const change = { by: { id: null, name: words.name, role: 'reader' as const }, now, settings };
  await rt.db.transaction((tx) => mendSubmission(tx as unknown as Db, row, mended, words.message, change));
}
