/**
 * A site's finder, in step with its database. The database notes which listings changed (triggers write `finder_change`), so that no way of
 * writing something can forget to tell; before a reader is answered, what changed since is taken over.
 */
import { setTimeout } from 'node:timers/promises';
import { sql } from 'drizzle-orm';
import { Finder } from '@/core/finder/finder';
import type { FoundChange } from '@/core/finder/found';
import type { Db } from '../db/client';
import { queryRows } from '../db/json-rows';
import { inSteps } from '../worker/turns';
import { readFound, readFoundAfter } from './rows';

/** So many listings are read at once: the database has others to answer. */
const AT_ONCE = 100;
/** When more changed, all is made anew beside readers, who ask the database meanwhile. */
const MOST_TAKEN_OVER = 400;
/** Notes of changes are kept for an hour; whoever did not ask for so long may have missed some, in milliseconds. */
const MISSED_AFTER = 45 * 60_000;
/** So long it rests after it could not be made, in milliseconds. */
const AGAIN_AFTER = 10_000;

/** Gathering that took longer stands in the log, in milliseconds. */
const WORTH_SAYING = 2_000;

const NO_ID = '00000000-0000-0000-0000-000000000000';

/** What it needs of a site. */
export interface FinderSite {
  db: Db;
  /** names the state of the content: the same while nothing changes */
  revision: () => string;
  log: { info: (of: object, message: string) => void; error: (of: object, message: string) => void };
  /** milliseconds that never go back */
  clock?: () => number;
}

/** A finder as it was at a state of the content. */
interface Kept {
  finder: Finder;
  revision: string;
  /** transactions before this one are in it, or were never to be */
  since: string;
  /** notes of later ones that are in it already */
  taken: ReadonlySet<number>;
  /** when the database was last asked for changes */
  askedAt: number;
}

/** How it stands, for whoever looks after the site. */
export interface FinderState {
  /** 'making' = readers ask the database meanwhile */
  is: 'ready' | 'making' | 'not-asked-for';
  listings: number;
  dates: number;
}

/** Keeps a site's finder. */
export class SiteFinder {
  #kept: Kept | undefined;
  #builds = 0;
  #making: Promise<void> | undefined;
  #following: Promise<void> | undefined;
  #restsUntil = Number.NEGATIVE_INFINITY;
  #stopped = false;
  readonly #clock: () => number;

  constructor(private readonly site: FinderSite) {
    this.#clock = site.clock ?? (() => performance.now());
  }

  /** How it stands. */
  get state(): FinderState {
    const { finder } = this.#kept ?? {};
    if (finder) return { is: 'ready', listings: finder.listings, dates: finder.dates };
    return { is: this.#making ? 'making' : 'not-asked-for', listings: 0, dates: 0 };
  }

  /**
   * Which one is at hand: 0 = none, when the database answers, which forgives no slip and knows nothing related. An answer made
   * then is not the one that is made later of the same content.
   */
  get build(): number {
    return this.#kept ? this.#builds : 0;
  }

  /** The finder with everything that readers may see now; undefined while it is being made, when the database is to be asked. */
  async current(): Promise<Finder | undefined> {
    // One that is under way may have begun before what is asked for was written; the one after it did not.
    for (let round = 0; round < 2 && this.#kept && this.#kept.revision !== this.site.revision(); round++) {
      await this.#followOnce(this.#kept);
    }
    if (!this.#kept) this.#makeSoon();
    return this.#kept?.finder;
  }

  /** Waits until it is made, if it can be, but no longer than this, in milliseconds. */
  async made(longest = Number.POSITIVE_INFINITY): Promise<Finder | undefined> {
    const at = await this.current();
    if (at) return at;
    if (Number.isFinite(longest)) await Promise.race([this.#making, setTimeout(longest, undefined, { ref: false })]);
    else await this.#making;
    return this.current();
  }

  /** Compares it with the database; where they disagree it is made anew. Says whether they agreed. */
  async check(): Promise<boolean> {
    if (!(await this.current()) || (await this.#agrees())) return true;
    // Something may be written whose writer has not told yet: notes are read whatever the content's state is called.
    await this.#following;
    if (this.#kept) await this.#followOnce(this.#kept);
    if (!this.#kept || (await this.#agrees())) return true;
    const { dates } = this.#kept.finder;
    this.site.log.error({ dates }, 'What readers find is not what the database has: it is made anew');
    this.#drop();
    return false;
  }

  /** Has the database as many public dates, and as late ones? While something is written meanwhile it counts as so: the next round looks. */
  async #agrees(): Promise<boolean> {
    const kept = this.#kept;
    const [row] = await queryRows<{ n: number; sum: number }>(
      this.site.db,
      sql`select count(*)::float8 as n, coalesce(sum(o.start_day), 0)::float8 as sum from occurrence o join published p on p.listing_id = o.listing_id
        where o.public and not exists (select 1 from job j where j.id = p.job_id and j.hidden)`,
    );
    if (!kept || this.#kept !== kept || this.site.revision() !== kept.revision) return true;
    return row?.n === kept.finder.dates && row.sum === kept.finder.sum;
  }

  /** Makes nothing more. */
  async stop(): Promise<void> {
    this.#stopped = true;
    await this.#making;
  }

  #makeSoon(): void {
    if (this.#making || this.#stopped || this.#clock() < this.#restsUntil) return;
    this.#making = this.#make()
      .catch((error: unknown) => {
        this.#restsUntil = this.#clock() + AGAIN_AFTER;
        if (!this.#stopped) this.site.log.error({ err: error }, 'What readers find could not be gathered; their pages ask the database');
      })
      .finally(() => {
        this.#making = undefined;
      });
  }

  async #make(): Promise<void> {
    const { db, revision } = this.site;
    const began = this.#clock();
    const asOf = revision();
    // What is written from now on is taken over afterwards, whether it was read already or not.
    const since = await this.#oldestUnderWay();
    const builder = Finder.builder();
    for (let last = NO_ID; ; ) {
      const rows = await readFoundAfter(db, last, AT_ONCE);
      if (this.#stopped) return;
      await inSteps(
        (function* () {
          for (const { listing, dates } of rows) yield builder.add(listing, dates);
        })(),
      );
      const id = rows.at(-1)?.listing.listingId;
      if (id === undefined) break;
      last = id;
    }
    const finder = await inSteps(builder.finish());
    this.#kept = { finder, revision: asOf, since, taken: new Set(), askedAt: began };
    this.#builds++;
    const { listings, dates } = finder;
    const ms = Math.round(this.#clock() - began);
    // A small site has it before anybody asks: nothing to tell.
    if (ms > WORTH_SAYING) this.site.log.info({ listings, dates, ms }, 'Everything that readers can find is at hand');
  }

  /** One at a time: two that read at different moments would put the older of what they read over the newer. */
  #followOnce(kept: Kept): Promise<void> {
    this.#following ??= this.#follow(kept).finally(() => {
      this.#following = undefined;
    });
    return this.#following;
  }

  /** Takes over what changed since. Where the database cannot be asked, the finder stays as it is, for later. */
  async #follow(kept: Kept): Promise<void> {
    const asOf = this.site.revision();
    const askedAt = this.#clock();
    if (askedAt - kept.askedAt > MISSED_AFTER) return this.#drop();
    const { next, notes } = await this.#notes(kept.since, kept.taken);
    const ids = [...new Set(notes.map(([, listingId]) => listingId))];
    if (ids.length > MOST_TAKEN_OVER) return this.#drop();
    const changes: FoundChange[] = [];
    for (let at = 0; at < ids.length; at += AT_ONCE) {
      const some = ids.slice(at, at + AT_ONCE);
      const rows = new Map((await readFound(this.site.db, some)).map((row) => [row.listing.listingId, row]));
      for (const listingId of some) changes.push({ listingId, is: rows.get(listingId) });
    }
    const before = next === kept.since ? kept.taken : [];
    this.#kept = undefined;
    if (changes.length) kept.finder.replace(changes);
    this.#kept = { ...kept, revision: asOf, since: next, askedAt, taken: new Set([...before, ...notes.map(([id]) => id)]) };
  }

  /** So much changed, or so long ago, that all is made anew. */
  #drop(): void {
    this.#kept = undefined;
    this.#makeSoon();
  }

  /** The oldest transaction that is not over: whatever those before it wrote is there to be read. */
  async #oldestUnderWay(): Promise<string> {
    const [row] = await queryRows<{ xmin: string }>(this.site.db, sql`select pg_snapshot_xmin(pg_current_snapshot())::text as xmin`);
    return row?.xmin ?? '0';
  }

  /** Notes of transactions that may not have been over when it was last asked, but for those that are taken already. */
  async #notes(since: string, taken: ReadonlySet<number>): Promise<{ next: string; notes: [id: number, listingId: string][] }> {
    const [row] = await queryRows<{ next: string; notes: string }>(
      this.site.db,
      sql`select pg_snapshot_xmin(pg_current_snapshot())::text as next,
        coalesce((select json_agg(json_build_array(c.id, c.listing_id)) from finder_change c where c.listing_id is not null and c.transaction >= ${since}::xid8), '[]')::text as notes`,
    );
    const notes = JSON.parse(row?.notes ?? '[]') as [number, string][];
    return { next: row?.next ?? since, notes: notes.filter(([id]) => !taken.has(id)) };
  }
}
