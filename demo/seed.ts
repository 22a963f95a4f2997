/** Fills an empty site with the Kittiwick Isles. Given the same day, it makes the same listings, texts and pictures. */
import { eq } from 'drizzle-orm';
import sharp from 'sharp';
import { readOwnMap } from '@/core/geo/own-map';
import { isoDay } from '@/core/day/day';
import type { ListingContent } from '@/core/listing/content';
import { emptyContent } from '@/core/listing/fields';
import { instantToDateTime } from '@/core/day/zone';
import type { Auth } from '@/server/accounts/auth';
import { SITE_ACTOR } from '@/server/accounts/roles';
import { createAccount } from '@/server/accounts/write';
import { makeFallback, saveCategory } from '@/server/categories/write';
import type { Db } from '@/server/db/client';
import { listing, setting, submission, user, version } from '@/server/db/schema';
import { hashToken, newId, newToken } from '@/server/db/ids';
import { setTimes } from '@/server/listings/publication-times';
import { type Change, createListing, publishListing } from '@/server/listings/write';
import { BLANK_ORGANIZER, saveOrganizer } from '@/server/organizers/write';
import { keepPicture } from '@/server/pictures/take-in';
import type { TaskWorker } from '@/server/worker/task-worker';
import type { Now } from '@/server/site/clock';
import { DEFAULT_SETTINGS, type SiteSettings } from '@/server/site/settings';
import { findOrMakeTag } from '@/server/tags/write';
import { BLANK_VENUE } from '@/server/venues/input';
import { saveVenue } from '@/server/venues/write';
import { ISLES } from './chart';
import { GAZETTEER } from './gazetteer';
import { demoListings } from './listings';
import { CATEGORIES, HOLIDAYS, SIGN_INS } from './people';
import { SCENES } from './pictures/scenes';
import { ORGANIZERS, VENUES } from './places';
import { demoSubmissions } from './submissions';
import { FRENCH_WORDS } from './french';
import type { DemoListing } from './repeats';

export const DEMO_SETTINGS: SiteSettings = {
  ...DEFAULT_SETTINGS,
  name: 'Kittiwick Isles Almanac',
  about: 'What happens on Amble, Lantern, Gannet and Skerry.',
  zone: 'America/Halifax',
  lat: 43.18,
  lng: -57.45,
  secondLanguage: 'fr',
  holidays: HOLIDAYS.map((r) => ({ ...r })),
  yearMarks: ['seasons', 'clocks'],
  mailFrom: 'almanac@kittiwick.example',
};

interface Ids {
  categories: Map<string, string>;
  venues: Map<string, string>;
  organizers: Map<string, string>;
  pictures: Map<string, string>;
  tags: Map<string, string>;
}

const wanted = (map: Map<string, string>, key: string): string => {
  const id = map.get(key);
  if (!id) throw new Error(`the demo names “${key}”, which it does not have`);
  return id;
};

function contentOf(demo: DemoListing, ids: Ids): ListingContent {
  const french = FRENCH_WORDS.get(demo.title);
  return {
    ...emptyContent(),
    title: demo.title,
    shortTitle: demo.short ?? '',
    summary: demo.summary,
    text: demo.text,
    recurrence: { format: 3, zone: DEMO_SETTINGS.zone, parts: demo.when, exdates: demo.exdates ?? [], breaks: demo.breaks ?? [] },
    changes: demo.changes ?? [],
    categoryIds: [wanted(ids.categories, demo.cat)],
    tagIds: (demo.tags ?? []).map((name) => wanted(ids.tags, name)),
    venueIds: (demo.venue ?? []).map((key) => wanted(ids.venues, key)),
    organizerIds: (demo.org ?? []).map((key) => wanted(ids.organizers, key)),
    pictureId: demo.pic ? wanted(ids.pictures, demo.pic) : null,
    galleryIds: (demo.more ?? []).map((key) => wanted(ids.pictures, key)),
    cost: demo.cost ?? { kind: 'unsaid' },
    ...demo.rest,
    ...(french ? { translations: { fr: french } } : {}),
  };
}

async function seedPlaces(tx: Db, pictures: Map<string, string>): Promise<Omit<Ids, 'pictures' | 'tags'>> {
  const ids = { categories: new Map<string, string>(), venues: new Map<string, string>(), organizers: new Map<string, string>() };
  const { tint } = await import('@/core/colour/colour');
  for (const { key, name, shape, ink, icon, pic, children } of CATEGORIES) {
    const pictureId = pic ? wanted(pictures, pic) : null;
    const id = await saveCategory(tx, null, { name, shape, ink, icon, pictureId, parentId: null }, SITE_ACTOR);
    ids.categories.set(key, id);
    for (const [place, child] of children.entries()) {
      ids.categories.set(
        child.key,
        await saveCategory(tx, null, { name: child.name, shape, ink: tint(ink, place), parentId: id }, SITE_ACTOR),
      );
    }
  }
  await makeFallback(tx, wanted(ids.categories, 'town'));
  for (const { key, room, ...venue } of VENUES) {
    const parentId = room ? wanted(ids.venues, room) : null;
    ids.venues.set(key, (await saveVenue(tx, null, { ...BLANK_VENUE, ...venue, parentId }, SITE_ACTOR)).id);
  }
  for (const { key, category, ...organizer } of ORGANIZERS) {
    const categoryId = category ? wanted(ids.categories, category) : null;
    ids.organizers.set(key, (await saveOrganizer(tx, null, { ...BLANK_ORGANIZER, ...organizer, categoryId }, SITE_ACTOR)).id);
  }
  return ids;
}

async function seedTags(tx: Db, listings: readonly DemoListing[], by: Change['by']): Promise<Map<string, string>> {
  const ids = new Map<string, string>();
  for (const name of new Set(listings.flatMap(({ tags }) => tags ?? []))) ids.set(name, (await findOrMakeTag(tx, name, by)).id);
  return ids;
}

async function seedPictures(db: Db, pictureWorker: TaskWorker, at: Date): Promise<Map<string, string>> {
  const ids = new Map<string, string>();
  // Drawn here while the worker makes the sizes of those before.
  const draw = (scene: (typeof SCENES)[number]): Promise<Buffer> =>
    sharp(Buffer.from(scene.draw())).png({ compressionLevel: 1 }).toBuffer();
  let drawn = draw(SCENES[0] as (typeof SCENES)[number]);
  for (const [i, scene] of SCENES.entries()) {
    const bytes = await drawn;
    const next = SCENES[i + 1];
    if (next) drawn = draw(next);
    const words = { name: `${scene.key}.png`, alt: scene.alt, credit: scene.credit };
    const { picture } = await keepPicture({ db, pictureWorker }, { bytes, ...words, ownerId: null, at });
    ids.set(scene.key, picture.id);
  }
  return ids;
}

export interface SeedResult {
  listings: number;
  submissions: number;
  pictures: number;
}

interface SeededSite {
  db: Db;
  auth: Auth;
  pictureWorker: TaskWorker;
}

/** Seeds once; a site that has listings is left alone. */
export async function seedDemo({ db, auth, pictureWorker }: SeededSite, now: Now): Promise<SeedResult> {
  const [any] = await db.select({ id: listing.id }).from(listing).limit(1);
  if (any) return { listings: 0, submissions: 0, pictures: 0 };
  const drawing = readOwnMap(ISLES);
  if (!drawing?.bounds) throw new Error('the isles draw nothing');
  const { bounds, features } = drawing;
  const own = { name: 'isles.geojson', at: new Date(now.ms).toISOString(), credit: '', bounds, features };
  await db
    .insert(setting)
    .values([
      { key: 'site', value: DEMO_SETTINGS },
      { key: 'chart', value: { format: 2, bounds, features: [], own } },
      { key: 'gazetteer', value: GAZETTEER },
    ])
    .onConflictDoNothing();
  const pictures = await seedPictures(db, pictureWorker, new Date(now.ms));
  // The site had no zone before it was seeded: today is said in the demo's.
  const local: Now = { ms: now.ms, ...instantToDateTime(DEMO_SETTINGS.zone, now.ms) };
  const listings = demoListings(local.day);
  const submissions = demoSubmissions(local.day);
  await db.transaction(async (tx) => {
    for (const account of SIGN_INS) await createAccount(tx, auth, account, SITE_ACTOR);
    const ids: Ids = { ...(await seedPlaces(tx, pictures)), tags: await seedTags(tx, listings, SITE_ACTOR), pictures };
    const [maud] = await tx.select({ id: user.id, name: user.name }).from(user).where(eq(user.email, SIGN_INS[0].email));
    const [nan] = await tx.select({ id: user.id }).from(user).where(eq(user.email, SIGN_INS[2].email));
    const by = { id: maud?.id ?? null, name: maud?.name ?? 'Maud Petrel', role: 'coordinator' as const };
    for (const [i, demo] of listings.entries()) {
      const change: Change = { by, now: { ...local, ms: local.ms - (listings.length - i) * 5_400_000 }, settings: DEMO_SETTINGS };
      const row = await createListing(tx, contentOf(demo, ids), change);
      await publishListing(tx, row.id, row.revision, { ...change, now: { ...change.now } });
    }
    await seedDrafts(tx, ids, by, local, nan?.id ?? null);
    for (const one of submissions) {
      const change: Change = {
        by: { id: null, name: one.sender, role: 'reader' },
        now: { ...local, ms: local.ms - one.daysAgo * 86_400_000 - 3_600_000 },
        settings: DEMO_SETTINGS,
      };
      const row = await createListing(tx, contentOf(one.listing, ids), change, 'in-review');
      await tx.insert(submission).values({
        id: newId(),
        listingId: row.id,
        tokenHash: hashToken(newToken()),
        state: 'waiting',
        senderName: one.sender,
        senderMail: one.mail,
        message: one.message,
        said: { format: 1, where: one.where, who: '' },
        sentAt: new Date(change.now.ms),
      });
    }
    await tx.update(version).set({ byName: by.name }).where(eq(version.byName, 'The site'));
  });
  return { listings: listings.length, submissions: submissions.length, pictures: pictures.size };
}

/** A few that are not public: a draft of the contributor's, a withdrawn one. */
async function seedDrafts(tx: Db, ids: Ids, by: Change['by'], now: Now, contributorId: string | null): Promise<void> {
  const change: Change = { by, now, settings: DEMO_SETTINGS };
  const draft = await createListing(
    tx,
    contentOf(
      {
        title: 'Autumn Ferry Concert',
        cat: 'music',
        summary: '',
        text: '<p>On the car deck, if the captain agrees.</p>',
        when: [
          {
            start: `${new Date(now.ms + 40 * 86_400_000).toISOString().slice(0, 10)}T19:00`,
            length: null,
            rule: null,
            limit: { kind: 'open' },
          },
        ],
      },
      ids,
    ),
    change,
  );
  await tx.update(listing).set({ ownerId: contributorId }).where(eq(listing.id, draft.id));
  const when = (days: number): string => isoDay(now.day + days);
  const ferry = await createListing(
    tx,
    contentOf(
      {
        title: 'Summer Ferry Talk',
        cat: 'talks',
        venue: ['pilots'],
        pic: 'ferry',
        summary: 'The new crossing times, and why the last boat goes earlier.',
        text: '<p>The harbour master brings the tables; you bring the questions.</p>',
        when: [{ start: `${when(48)}T19:30`, length: { days: 0, minute: 1260 }, rule: null, limit: { kind: 'open' } }],
      },
      ids,
    ),
    change,
  );
  // It goes out with the timetable.
  await setTimes(tx, ferry.id, { revision: ferry.revision, publishAt: `${when(12)}T09:00`, withdrawAt: null }, change);
}
