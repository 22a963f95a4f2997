/** Addresses of a site's former life lead on, and each that somebody followed is counted. */
import { desc, inArray, sql } from 'drizzle-orm';
import { addressKeys } from '@/core/text/old-addresses';
import type { Db } from '../db/client';
import { oldAddress } from '../db/schema';

/** So long counts wait for each other before they are written, in ms: readers cause no writing of their own. */
const WRITTEN_AFTER = 5_000;
/** The most addresses whose counts wait. */
const MOST_WAITING = 500;

/** The old addresses of a site. */
export class OldAddresses {
  #waiting = new Map<string, number>();
  #timer: NodeJS.Timeout | undefined;

  constructor(
    private readonly db: Db,
    private readonly now: () => Date,
  ) {}

  /** Where an address leads that the site itself does not have; undefined where nobody said. */
  async leadOn(url: Pick<URL, 'pathname' | 'search'>): Promise<string | undefined> {
    const keys = addressKeys(url);
    const rows = await this.db.select().from(oldAddress).where(inArray(oldAddress.from, keys));
    const found = keys.map((key) => rows.find((row) => row.from === key)).find((row) => row !== undefined);
    if (found) this.#count(found.from);
    return found?.to;
  }

  #count(from: string): void {
    this.#waiting.set(from, (this.#waiting.get(from) ?? 0) + 1);
    if (this.#waiting.size >= MOST_WAITING) void this.write();
    this.#timer ??= setTimeout(() => void this.write(), WRITTEN_AFTER).unref();
  }

  /** Writes the counts that wait; where that cannot be done they wait on. */
  async write(): Promise<void> {
    clearTimeout(this.#timer);
    this.#timer = undefined;
    const counts = [...this.#waiting].sort(([a], [b]) => (a < b ? -1 : 1));
    this.#waiting = new Map();
    if (!counts.length) return;
    try {
      await this.db.transaction(async (tx) => {
        for (const [from, n] of counts)
          await tx
            .update(oldAddress)
            .set({ hits: sql`${oldAddress.hits} + ${n}`, lastAt: this.now() })
            .where(sql`${oldAddress.from} = ${from}`);
      });
    } catch {
      for (const [from, n] of counts) this.#waiting.set(from, (this.#waiting.get(from) ?? 0) + n);
    }
  }

  /** Writes what waits; the site closes. */
  stop(): Promise<void> {
    return this.write();
  }

  /** All of them, the most followed first. */
  async all(): Promise<{ from: string; to: string; hits: number; lastAt: Date | null }[]> {
    await this.write();
    return this.db.select().from(oldAddress).orderBy(desc(oldAddress.hits), oldAddress.from);
  }
}
