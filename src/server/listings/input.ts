/** What may come in as a listing's content. Everything is bounded; HTML is sanitised; dates must exist. */
import { z } from 'zod';
import { CONTENT_FORMAT, type ListingContent, upgradeContent } from '@/core/listing/content';
import { type ContentField, FIELD_NAMES, type FieldOf, fieldOf, MOST_IN, mostOf } from '@/core/listing/fields';
import { isUntranslated } from '@/core/listing/translation';
import { readAmount } from '@/core/listing/cost';
import { readWebAddress } from '@/core/validation/links';
import { parseIsoDay } from '@/core/day/day';
import { parseIsoDateTime } from '@/core/day/plain-date-time';
import { isZone } from '@/core/day/zone';
import { FREQUENCIES, EVENT_STATUSES } from '@/core/recurrence/model';
import { MOST_SUN_MINUTES } from '@/core/recurrence/sun-start';
import { whyNotTaken } from '@/core/recurrence/problems';
import { atSunOfItsDay, partFrom, RECURRENCE_FORMAT, type StoredRecurrence, upgradeRecurrence } from '@/core/recurrence/stored';
import { cleanHtml } from './html';
import { serverWords } from '@/words/desk';

const w = serverWords.listingsInput;

const line = (most: number, what: string) =>
  z
    .string({ error: w.mustBeText({ what }) })
    .transform((text) => text.replace(/\s+/g, ' ').trim())
    .pipe(z.string().max(most, w.hasAtMostCharacters({ what, most })));

/** An address that can be followed; what is none stays as it was typed, and Proof says what is wrong with it. */
const web = (most: number, what: string) => line(most, what).transform((text) => readWebAddress(text) ?? text);

const html = (most: number, what: string) =>
  z
    .string()
    .max(most, w.hasAtMostCharacters({ what, most: most.toLocaleString('en') }))
    .transform(cleanHtml);

const day = z.string().refine((text) => parseIsoDay(text) !== undefined, { error: w.thereIsNoSuch() });
const wall = z.string().refine((text) => parseIsoDateTime(text) !== undefined, { error: w.thereIsNoSuchDate() });
const minute = z.number().int().min(0).max(1439);
const length = z.object({ days: z.number().int().min(-1).max(366), minute: minute.nullable() });
const monthDay = z
  .number()
  .int()
  .min(-31)
  .max(31)
  .refine((n) => n !== 0, { error: w.aDayOfThe() });

const counted = (most: number) =>
  z
    .number()
    .int()
    .min(-most)
    .max(most)
    .refine((n) => n !== 0, { error: w.countingBeginsAt1() });
const clock = (most: number) => z.array(z.number().int().min(0).max(most)).min(1).max(60).optional();
const monthAndDay = z.number().int().min(101).max(1231);

const rule = z.object({
  freq: z.enum(FREQUENCIES),
  interval: z.number().int().min(1, w.every123()).max(10_000_000),
  byMonth: z.array(z.number().int().min(1).max(12)).max(12),
  byMonthDay: z.array(monthDay).max(31),
  byDay: z.array(z.object({ weekday: z.number().int().min(0).max(6), nth: z.number().int().min(-53).max(53) })).max(35),
  weekStart: z.number().int().min(0).max(6),
  byYearDay: z.array(counted(366)).min(1).max(400).optional(),
  byWeekNo: z.array(counted(53)).min(1).max(106).optional(),
  byHour: clock(23),
  byMinute: clock(59),
  bySecond: clock(60),
  bySetPos: z.array(counted(366)).min(1).max(400).optional(),
  seasons: z
    .array(z.object({ from: monthAndDay, to: monthAndDay }))
    .min(1)
    .max(12, w.atMost12Seasons())
    .optional(),
});

const limit = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('open') }),
  z.object({ kind: z.literal('until'), day, second: z.number().int().min(0).max(86_399).optional() }),
  z.object({ kind: z.literal('count'), count: z.number().int().min(1, w.atLeast1Time()).max(5000, w.atMost5000()) }),
]);

const sun = z.object({
  event: z.enum(['sunrise', 'sunset']),
  minutes: z
    .number()
    .int()
    .min(-MOST_SUN_MINUTES, w.sunMinutes({ most: MOST_SUN_MINUTES }))
    .max(MOST_SUN_MINUTES, w.sunMinutes({ most: MOST_SUN_MINUTES })),
  lat: z.number().min(-90).max(90),
  lng: z.number().min(-180).max(180),
  ends: z.enum(['clock', 'length']),
});
const recurrencePart = z.object({ start: wall, length: length.nullable(), rule: rule.nullable(), limit, sun: sun.optional() });

const recurrence = z.object({
  format: z.literal(RECURRENCE_FORMAT),
  zone: z.string().max(60).refine(isZone, { error: w.thisTimeZoneIs() }),
  parts: z
    .array(recurrencePart)
    .min(1)
    .max(200, w.atMost200Rules())
    .superRefine((parts, context) => {
      const refused = parts.every((one) => parseIsoDateTime(one.start))
        ? whyNotTaken(parts.map((part) => partFrom(part, 'UTC')))
        : undefined;
      if (refused) context.addIssue({ code: 'custom', path: [refused.recurrencePart, 'rule'], message: refused.reason });
    }),
  exdates: z.array(wall).max(1000, w.atMost1000()),
  breaks: z.array(z.object({ from: day, to: day })).max(50, w.atMost50Breaks()),
});
/** Earlier formats are read too; a first start by the sun is kept at the minute of its own day, whatever minute came with it. */
export const recurrenceInput = z.preprocess(
  upgradeRecurrence,
  recurrence.transform((sent) => atSunOfItsDay(sent as StoredRecurrence)),
) as unknown as z.ZodType<StoredRecurrence>;

/** What may come in as a change of one date. */
export const changeInput = z.object({
  original: wall,
  movedTo: wall.nullable(),
  length: length.nullable(),
  eventStatus: z.enum(EVENT_STATUSES).nullable(),
  note: line(300, w.aNote()),
  venueId: z.uuid().optional(),
});

const cost = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('unsaid') }),
  z.object({ kind: z.literal('free') }),
  z
    .object({
      kind: z.literal('amount'),
      amount: line(MOST_IN.amount, w.theAmount()),
      currency: z.string().regex(/^[A-Z]{3}$/, w.aCurrencyIsThree()),
    })
    .transform((cost) => ({ ...cost, amount: readAmount(cost.amount, cost.currency) ?? cost.amount })),
  z.object({ kind: z.literal('words'), words: line(MOST_IN.costWords, w.theCostInWords()) }),
]);

const ids = (most: number) =>
  z
    .array(z.uuid())
    .max(most, w.atMost({ most }))
    .transform((list) => [...new Set(list)]);

const translation = z.object({
  title: line(mostOf('title'), w.theTitle()),
  shortTitle: line(mostOf('shortTitle'), w.theShortTitle()),
  summary: line(mostOf('summary'), w.theSummary()),
  text: html(mostOf('text'), w.theText()),
});

/** What has a shape of its own. */
const OWN: Record<FieldOf<'own'>, z.ZodType> = {
  recurrence: recurrenceInput.nullable(),
  changes: z.array(changeInput).max(500, w.atMost500Changed()),
  cost,
  contact: z.object({
    name: line(MOST_IN.contactName, w.theName()),
    phone: line(MOST_IN.phone, w.thePhoneNumber()),
    mail: line(MOST_IN.mail, w.theMailAddress()),
  }),
  translations: z
    .object({ fr: translation.optional() })
    .optional()
    // Of what is emptied nothing is kept.
    .transform((all) => (all?.fr && !isUntranslated(all.fr) ? { fr: all.fr } : undefined)),
};

/** The check of a field, made of its declaration. */
function checkOf(name: ContentField): z.ZodType {
  const { type, label, subject = label } = fieldOf(name);
  switch (type.is) {
    case 'line':
      return line(type.most, subject);
    case 'html':
      return html(type.most, subject);
    case 'web':
      return web(type.most, subject);
    case 'choice':
      return z.enum(Object.keys(type.words));
    case 'flag':
      return z.boolean();
    case 'number':
      return z
        .number({ error: w.isAWholeNumber({ subject }) })
        .int(w.isAWholeNumber({ subject }))
        .min(type.least, w.atLeast({ least: type.least.toLocaleString('en') }))
        .max(type.most, w.atMost({ most: type.most.toLocaleString('en') }))
        .nullable();
    case 'day':
      return day.nullable();
    case 'ids':
      return ids(type.most);
    case 'id':
      return z.uuid().nullable();
    case 'own':
      return OWN[name as FieldOf<'own'>];
  }
}

const content = z.object({
  format: z.literal(CONTENT_FORMAT),
  ...Object.fromEntries(FIELD_NAMES.map((name) => [name, checkOf(name)])),
});

/** What may come in as a listing's content, in any format that there was. */
export const contentInput = z.preprocess(
  (raw) => (typeof raw === 'object' && raw !== null ? upgradeContent(raw as Record<string, unknown>) : raw),
  content,
) as unknown as z.ZodType<ListingContent>;
