/** What /add and the receipt page do with a posted form: bounds, picture, one transaction. */
import type { ListingContent } from '@/core/listing/content';
import type { Language } from '@/core/phrase/language';
import { fold } from '@/core/text/text';
import { isId } from '../db/ids';
import { type FieldError, fieldError, invalidFields, invalidIn, type Problem, problemIn } from '../problem';
import { explain } from '../explain';
import { formFields, readForm } from '../http/form-body';
import { countOne } from '../site/rate-limits';
import type { SiteSettings } from '../site/settings';
import { readPicture } from '../pictures/read';
import { keepPicture } from '../pictures/take-in';
import { binUnused, restorePicture } from '../pictures/write';
import { referenceData } from '../reference/read';
import type { Runtime } from '../runtime-type';
import { type Fields, fieldsOf, type FormResult, readAddForm, TRAP } from './form';
import { readSenderChanges } from './sender-changes';
import { readSentContent, type Waiting } from './read';
import { changeSubmission, senderView, submitEvent } from './write';

/** So many events are taken from one address in so many seconds. */
export const ADD_BOUND = { most: 6, seconds: 3600 } as const;
const PICTURE_BOUND = { most: 20, seconds: 3600 } as const;

/** A form that came in, with its picture. */
export interface Posted {
  fields: Fields;
  picture: File | undefined;
}

/** Reads a posted form. Throws a Problem for what is no form, or too large. */
export async function readPosted(request: Request): Promise<Posted> {
  const form = await readForm(request);
  const file = form.get('picture');
  return { fields: formFields(form), picture: file instanceof File && file.size > 0 ? file : undefined };
}

/** The form's field that stands for a picture which came with an earlier try: its id, signed, so that nobody names another's. */
export const KEPT_PICTURE = 'keptPicture';

const signed = (rt: Runtime, id: string): string => `${id}.${rt.sign(`sent picture ${id}`)}`;

function keptPicture(rt: Runtime, { fields }: Posted): string | undefined {
  if (fields.noPicture === '1') return undefined;
  const [id = ''] = (fields[KEPT_PICTURE] ?? '').split('.');
  return isId(id) && fields[KEPT_PICTURE] === signed(rt, id) ? id : undefined;
}

/** The picture of this try or of an earlier one; a Problem at the field when it is none. */
async function takePicture(rt: Runtime, posted: Posted, from: string): Promise<string | undefined> {
  const { picture, fields } = posted;
  if (!picture) return keptPicture(rt, posted);
  await countOne(rt.db, { key: `add-picture:${from}`, ...PICTURE_BOUND }, Date.now());
  const bytes = Buffer.from(await picture.arrayBuffer());
  const kept = await keepPicture(rt, {
    bytes,
    name: picture.name,
    alt: fields.alt ?? '',
    credit: '',
    ownerId: null,
    at: new Date(rt.now().ms),
  });
  return kept.picture.id;
}

/** What a refused form shows again of a picture that came with it: it need not be chosen anew. */
export interface KeptPicture {
  token: string;
  name: string;
}

/** The picture that a refused form keeps, for its next try. */
export async function keptOf(rt: Runtime, problem: Problem): Promise<KeptPicture | undefined> {
  const { keptPicture: id } = problem.extra;
  if (typeof id !== 'string') return undefined;
  const row = await readPicture(rt.db, id);
  return row ? { token: signed(rt, id), name: row.name } : undefined;
}

/** Reads form and picture, so that all that needs mending is said at once; what came of the picture is kept for the next try. */
async function readWhole<T extends FormResult>(
  rt: Runtime,
  posted: Posted,
  from: string,
  read: () => T,
  before: FieldError[] = [],
): Promise<{ form: T; pictureId: string | undefined }> {
  if ((posted.fields[TRAP] ?? '').trim()) throw invalidIn(TRAP, (w) => w.wrong.trap());
  const problems: Problem[] = before.length ? [invalidFields(before)] : [];
  const noted = (error: unknown): undefined => {
    const problem = explain(error);
    if (!problem.fields.length) throw problem;
    problems.push(problem);
  };
  let form: T | undefined;
  try {
    form = read();
  } catch (error) {
    noted(error);
  }
  // A picture costs work and room: it is taken of somebody who may send one.
  const pictureId = before.length ? undefined : await takePicture(rt, posted, from).catch(noted);
  if (form && !problems.length) return { form, pictureId };
  const fields = problems.flatMap((problem) => problem.fields);
  // Whoever gives up leaves nothing in the library: it waits in the bin.
  if (pictureId) await rt.db.transaction((tx) => binUnused(tx, pictureId, new Date(rt.now().ms)));
  throw invalidFields(fields, pictureId ? { keptPicture: pictureId } : {});
}

const PHRASE_BOUND = { most: 20, seconds: 3600 } as const;

/** What stands against taking an event of somebody who typed this passphrase. Throws a Problem where nobody may send. */
async function mayNotSend(rt: Runtime, { senders, passphrase }: SiteSettings, typed: string, from: string): Promise<FieldError[]> {
  if (senders === 'everybody') return [];
  if (senders === 'nobody') throw problemIn('refused', (w) => w.wrong.nobodySends());
  const alike = (text: string): string => fold(text).replace(/\s+/g, ' ').trim();
  if (passphrase && alike(typed) === alike(passphrase)) return [];
  // Whoever tries one after the other is slowed down.
  if (typed.trim()) await countOne(rt.db, { key: `passphrase:${from}`, ...PHRASE_BOUND }, Date.now());
  return [fieldError('passphrase', (w) => (typed.trim() ? w.wrong.passphrase() : w.wrong.noPassphrase()))];
}

/** Takes a stranger's event in and returns the token of its receipt. `from` is the address of the connection. */
export async function receiveEvent(rt: Runtime, posted: Posted, from: string, language: Language): Promise<string> {
  const now = rt.now();
  const settings = rt.settings();
  const reference = await referenceData(rt);
  const against = await mayNotSend(rt, settings, posted.fields.passphrase ?? '', from);
  const read = (): FormResult => readAddForm(posted.fields, reference, settings, now.day);
  const { form, pictureId } = await readWhole(rt, posted, from, read, against);
  await countOne(rt.db, { key: `add:${from}`, ...ADD_BOUND }, Date.now());
  const content: ListingContent = { ...form.content, pictureId: pictureId ?? null };
  const change = { by: { id: null, name: form.name, role: 'reader' as const }, now, settings };
  return rt.db.transaction(async (tx) => {
    if (pictureId) await restorePicture(tx, pictureId, posted.fields.alt);
    return submitEvent(tx, { ...form, content, language }, change);
  });
}

/** The sender mends their event: what they touched changes, everything that editors made of it stays. */
export async function receiveSenderChanges(rt: Runtime, posted: Posted, { submission, listing }: Waiting, from: string): Promise<void> {
  const now = rt.now();
  const settings = rt.settings();
  const reference = await referenceData(rt);
  // The page may be older than what an editor saved since: what was shown on it is what counts as left alone.
  const opened = Number(posted.fields.opened);
  const before = senderView(listing.working, submission.proposal);
  const shownContent =
    submission.proposal || opened === listing.revision ? before : ((await readSentContent(rt.db, listing.id, opened)) ?? before);
  const shown = fieldsOf(shownContent, { ...submission, said: submission.proposal?.said ?? submission.said }, reference);
  const { form, pictureId } = await readWhole(rt, posted, from, () =>
    readSenderChanges(before, posted.fields, { shown, reference, settings, today: now.day }),
  );
  await countOne(rt.db, { key: `mend:${from}`, most: 20, seconds: 3600 }, Date.now());
  const senderChanges = pictureId ? { ...form, content: { ...form.content, pictureId }, parts: [...form.parts, 'picture' as const] } : form;
  const change = { by: { id: null, name: form.name, role: 'reader' as const }, now, settings };
  await rt.db.transaction(async (tx) => {
    if (pictureId) await restorePicture(tx, pictureId, posted.fields.alt);
    await changeSubmission(tx, submission, senderChanges, change);
  });
}
