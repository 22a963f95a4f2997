/** What the Desk's "Go to" finds: pages, things to do, listings, venues, organizers, categories; only what this person may open. */
import { and, inArray, ne } from 'drizzle-orm';
import { STAGE_WORDS } from '@/core/listing/content';
import { ranked } from '@/core/match/go';
import { sayDay } from '@/core/phrase/format';
import { type Actor, editsAll } from '../accounts/roles';
import { listing } from '../db/schema';
import { mayUse, whoMay } from '../http/access';
import { titlesOf } from '../validation/titles';
import { referenceData } from '../reference/read';
import type { Runtime } from '../runtime-type';
import { allSettings, FORM_SECTIONS } from '../site/sections';
import { styleOf } from '../site/settings';
import { serverWords, settingsWords } from '@/words/desk';

const w = serverWords.deskGo;

/** Something that "Go to" leads to. */
export interface Goal {
  kind: 'page' | 'command' | 'listing' | 'venue' | 'organizer' | 'category';
  name: string;
  /** what else tells it apart */
  more: string;
  href: string;
}

interface Known extends Goal {
  also: string;
  /** its route in the table of who may use what */
  route: string;
}
const page = (name: string, href: string, also = '', route = href): Known => ({ kind: 'page', name, more: w.page(), href, also, route });
const command = (name: string, href: string, also: string, route: string): Known => ({
  kind: 'command',
  name,
  more: w.begin(),
  href,
  also,
  route,
});

/** The route of a section of the settings. */
const SECTION = '/desk/set-up/[section]';

const KNOWN: readonly Known[] = [
  command(w.typeAListing(), '/desk/listings/new', w.typeAListingAlso(), '/desk/listings/new'),
  page(w.today(), '/desk/today', w.todayAlso()),
  page(w.listings(), '/desk/listings', w.listingsAlso()),
  page(w.intake(), '/desk/intake', w.intakeAlso()),
  page(w.proof(), '/desk/proof', w.proofAlso()),
  page(w.pictures(), '/desk/pictures', w.picturesAlso()),
  page(w.venues(), '/desk/venues', w.venuesAlso()),
  page(w.organizers(), '/desk/organizers', w.organizersAlso()),
  page(w.categories(), '/desk/categories', w.categoriesAlso()),
  page(w.tags(), '/desk/tags'),
  page(w.import(), '/desk/bring-in', w.importAlso()),
  page(w.theBin(), '/desk/listings?stage=binned', w.theBinAlso(), '/desk/listings'),
  page(w.people(), '/desk/people', w.peopleAlso()),
  page(w.mailTray(), '/desk/mail', w.mailTrayAlso()),
  page(w.settings(), '/desk/set-up', w.settingsAlso()),
  page(w.days(), '/desk/set-up/days', w.daysAlso()),
  ...FORM_SECTIONS.map((id) => page(settingsWords.sections[id].title(), `/desk/set-up/${id}`, settingsWords.sections[id].about(), SECTION)),
  page(w.health(), '/desk/health', w.healthAlso()),
  command(w.addAVenue(), '/desk/venues/new', w.addAVenueAlso(), '/desk/venues/[id]'),
  command(w.addAnOrganizer(), '/desk/organizers/new', w.addAnOrganizerAlso(), '/desk/organizers/[id]'),
  command(w.addACategory(), '/desk/categories/new', w.addACategoryAlso(), '/desk/categories/[id]'),
  page(w.whatReadersSee(), '/', w.whatReadersSeeAlso(), '/'),
];

const MOST = { known: 5, settings: 4, listings: 6, places: 4 } as const;

/** The best of each sort; with nothing typed, the pages. */
export async function findGoals(rt: Pick<Runtime, 'db' | 'cache' | 'settings'>, actor: Actor, typed: string): Promise<Goal[]> {
  const mine = KNOWN.filter(({ route }) => mayUse(whoMay(route) ?? [], actor, false));
  const bare = ({ kind, name, more, href }: Goal): Goal => ({ kind, name, more, href });
  if (!typed.trim()) return mine.map(bare);
  const goals: Goal[] = ranked(typed, mine, MOST.known).map(bare);
  if (mayUse(whoMay(SECTION) ?? [], actor, false)) {
    const settings = allSettings(rt.settings()).map((one): Goal & { also: string } => ({
      kind: 'page',
      name: one.name,
      more: one.section,
      href: one.href,
      also: one.more,
    }));
    goals.push(...ranked(typed, settings, MOST.settings).map(bare));
  }
  goals.push(...(await findListings(rt, actor, typed)));
  if (!editsAll(actor)) return goals;
  const reference = await referenceData(rt);
  const places = [
    ...reference.venues.map((v): Goal => ({ kind: 'venue', name: v.name, more: v.town, href: `/desk/venues/${v.id}` })),
    ...reference.organizers.map((o): Goal => ({ kind: 'organizer', name: o.name, more: '', href: `/desk/organizers/${o.id}` })),
    ...reference.categories.map((c): Goal => ({ kind: 'category', name: c.name, more: '', href: `/desk/categories/${c.id}` })),
  ];
  goals.push(
    ...ranked(
      typed,
      places.map((p) => ({ ...p, also: p.more })),
      MOST.places,
    ).map(bare),
  );
  return goals;
}

async function findListings(rt: Pick<Runtime, 'db' | 'cache' | 'settings'>, actor: Actor, typed: string): Promise<Goal[]> {
  // More than are shown: a contributor's own are among them.
  const ids = (await titlesOf(rt.db, rt.cache)).search(typed, editsAll(actor) ? MOST.listings : 200);
  if (!ids.length) return [];
  const rows = await rt.db
    .select({ id: listing.id, title: listing.title, stage: listing.stage, nextDay: listing.nextDay, ownerId: listing.ownerId })
    .from(listing)
    .where(and(inArray(listing.id, [...ids]), ne(listing.stage, 'binned')));
  const style = styleOf(rt.settings());
  return ids
    .flatMap((id) => rows.find((row) => row.id === id && (editsAll(actor) || row.ownerId === actor.id)) ?? [])
    .slice(0, MOST.listings)
    .map((row) => ({
      kind: 'listing',
      name: row.title || w.withoutATitle(),
      more: [
        STAGE_WORDS[row.stage].toLowerCase(),
        row.nextDay === null ? '' : sayDay(row.nextDay, style, { weekday: 'short', month: 'short' }),
      ]
        .filter(Boolean)
        .join(', '),
      href: `/desk/listings/${row.id}`,
    }));
}
