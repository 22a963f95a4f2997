/** Addresses from files that the operator gave the site: taken in by streets, found by what somebody types. */
import { existsSync } from 'node:fs';
import nodePath from 'node:path';
import { and, arrayOverlaps, asc, eq, inArray, lt, ne, sql } from 'drizzle-orm';
import { addressPlace, matchStreet, type StreetMatch, type TypedAddress, typedAddress } from '@/core/geo/address-match';
import type { AddressField } from '@/core/geo/address-rows';
import type { AddressStreet } from '@/core/geo/address-streets';
import { WordBook } from '@/core/geo/address-words';
import { type FoundPlace, LEAST_LIKENESS, readings } from '@/core/geo/gazetteer';
import type { Point } from '@/core/geo/geo';
import { audited } from '../accounts/audit';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { newId } from '../db/ids';
import { addressFile, addressStreet } from '../db/schema';
import { Problem } from '../problem';
import type { AddressSummary } from '../worker/address-tasks';
import type { TaskWorker } from '../worker/task-worker';
import { serverWords } from '@/words/desk';

const w = serverWords.addressFile;

/** A file as it is listed. */
export type KeptAddresses = Omit<typeof addressFile.$inferSelect, 'ready'>;

/** Farther than this from the site its addresses help nobody, in kilometres. */
const FARTHEST_KM = 300;
/** What a process left that ended while it read is taken away after so long, in milliseconds. */
const LEFT_AFTER = 3_600_000;
/** The streets that fit are looked at closely, the nearest first: no more than so many. */
const MOST_STREETS = 80;
/** No more words of the streets are asked for at a time. */
const MOST_ALIKE = 60;

/** What is to be taken in. */
export interface AddAddresses {
  path: string;
  /** headings for fields, where they are not found */
  columns: Partial<Record<AddressField, string>>;
  credit: string;
}

/** What a file was taken in as. */
export interface AddedAddresses extends AddressSummary {
  name: string;
  /** a file of the same name was there */
  replaced: boolean;
}

/** The parts of a street that are looked at first; houses are read of the likest only. */
const LOOKED_AT = {
  fileId: addressStreet.fileId,
  n: addressStreet.n,
  name: addressStreet.name,
  town: addressStreet.town,
  region: addressStreet.region,
  postcodes: addressStreet.postcodes,
  lat: addressStreet.lat,
  lng: addressStreet.lng,
  words: addressStreet.words,
};

type Row = Omit<AddressStreet, 'houses'> & { fileId: string; n: number };

/** The addresses of a site. */
export class AddressBook {
  #words: { of: string; book: WordBook } | undefined;
  #reading: { name: string; done: number } | undefined;

  /** @param worker a thread or process of its own for reading a file; closed afterwards */
  constructor(
    private readonly db: Db,
    private readonly world: string,
    private readonly worker: () => TaskWorker,
  ) {}

  /** The file that is being read, and how many streets of it are there. */
  get reading(): { name: string; done: number } | undefined {
    return this.#reading;
  }

  /** The files that the site has. */
  async files(): Promise<KeptAddresses[]> {
    const rows = await this.db.select().from(addressFile).where(eq(addressFile.ready, true)).orderBy(asc(addressFile.name));
    return rows.map(({ ready: _, ...kept }) => kept);
  }

  /**
   * Takes a file in, in many short transactions: nothing of it is found before all of it is there, and then the one of the same name goes.
   * @throws Problem that says why it is not taken
   */
  async add({ path, columns, credit }: AddAddresses, middle: Point, by: Actor, at: Date): Promise<AddedAddresses> {
    if (!existsSync(path)) throw new Problem('invalid', w.noFile({ path }));
    if (this.#reading) throw new Problem('conflict', w.underWay());
    const name = nodePath.basename(path);
    this.#reading = { name, done: 0 };
    const id = newId();
    const worker = this.worker();
    try {
      await this.db.delete(addressFile).where(and(eq(addressFile.ready, false), lt(addressFile.at, new Date(at.getTime() - LEFT_AFTER))));
      let summary: AddressSummary | undefined;
      for await (const part of worker.run({ task: 'addresses', path, world: this.world, middle, columns })) {
        if (part.part === 'refused') throw new Problem('invalid', part.reason);
        if (part.part === 'address-summary') {
          summary = part.summary;
          await this.#begin(id, { name, credit, at }, summary);
        }
        if (part.part === 'address-streets') await this.#write(id, part.streets);
      }
      if (!summary) throw new Error('a file of addresses was read without a word');
      const replaced = await this.#end(id, name, by);
      return { ...summary, name, replaced };
    } catch (error) {
      await this.db.delete(addressFile).where(eq(addressFile.id, id));
      throw error;
    } finally {
      this.#reading = undefined;
      await worker.close();
    }
  }

  async #begin(id: string, { name, credit, at }: Pick<KeptAddresses, 'name' | 'credit' | 'at'>, summary: AddressSummary): Promise<void> {
    const { addresses, streets, leftOut, nearest } = summary;
    if (nearest > FARTHEST_KM) throw new Problem('invalid', w.elsewhere({ km: Math.round(nearest) }));
    await this.db.insert(addressFile).values({ id, name, addresses, streets, leftOut, credit, at });
  }

  async #write(fileId: string, streets: readonly AddressStreet[]): Promise<void> {
    const first = this.#reading?.done ?? 0;
    const rows = streets.map(({ point, ...street }, i) => ({ ...street, ...point, fileId, n: first + i }));
    await this.db.insert(addressStreet).values(rows);
    if (this.#reading) this.#reading.done += streets.length;
  }

  async #end(id: string, name: string, by: Actor): Promise<boolean> {
    const replaced = await this.db.transaction(async (tx) => {
      const gone = await tx
        .delete(addressFile)
        .where(and(eq(addressFile.name, name), ne(addressFile.id, id)))
        .returning({ id: addressFile.id });
      await tx.update(addressFile).set({ ready: true }).where(eq(addressFile.id, id));
      await audited(tx, by, { kind: 'settings', id: 'addresses', what: { code: 'changed' } });
      return gone.length > 0;
    });
    // Else the database would not know how rare a word is, and look at all streets.
    await this.db.execute(sql`analyze address_street`);
    return replaced;
  }

  /** Takes a file's addresses away. @throws Problem where there is none of that name */
  async remove(name: string, by: Actor): Promise<KeptAddresses> {
    return this.db.transaction(async (tx) => {
      const [gone] = await tx.delete(addressFile).where(eq(addressFile.name, name)).returning();
      if (!gone) {
        const there = (await tx.select({ name: addressFile.name }).from(addressFile)).map((one) => one.name);
        throw new Problem('missing', w.none({ there: there.join(', ') || '-' }));
      }
      await audited(tx, by, { kind: 'settings', id: 'addresses', what: { code: 'changed' } });
      return gone;
    });
  }

  /** Houses and streets that typed words may mean, likest first, those near the site before others. */
  async find(typed: string, middle: Point, most: number): Promise<FoundPlace[]> {
    const asked = typedAddress(typed);
    if (!asked.words.length) return [];
    const files = (await this.files()).map(({ id }) => id);
    if (!files.length) return [];
    const book = await this.#wordBook(files);
    const rows = new Map<string, Row>();
    for (const { sets, last } of wordSets(asked, book)) {
      if (last && rows.size) break;
      for (const row of await this.#streets(files, sets, middle)) rows.set(`${row.fileId} ${row.n}`, row);
    }
    const matches = [...rows.values()]
      .map((row) => matchStreet(asked, row))
      .filter(({ likeness }) => likeness >= LEAST_LIKENESS)
      .sort((a, b) => b.likeness - a.likeness || nearness(a.street, middle) - nearness(b.street, middle))
      .slice(0, most * 2);
    const places = (await this.#withHouses(matches)).map((match) => addressPlace(match, middle));
    return places.sort((a, b) => b.likeness - a.likeness).slice(0, most);
  }

  /** The words of these files' streets: read at the first question, and again when there are other files. */
  async #wordBook(files: readonly string[]): Promise<WordBook> {
    const of = [...files].sort().join(' ');
    if (this.#words?.of !== of) {
      const rows = await this.db
        .selectDistinct({ word: sql<string>`unnest(${addressStreet.words})` })
        .from(addressStreet)
        .where(inArray(addressStreet.fileId, [...files]));
      this.#words = { of, book: new WordBook(rows.map(({ word }) => word)) };
    }
    return this.#words.book;
  }

  /** The nearest streets that have a word of each set. */
  async #streets(files: readonly string[], sets: readonly string[][], middle: Point): Promise<Row[]> {
    const shrink = Math.cos((middle.lat * Math.PI) / 180) ** 2;
    const far = sql`(${addressStreet.lat} - ${middle.lat}) ^ 2 + (${addressStreet.lng} - ${middle.lng}) ^ 2 * ${shrink}`;
    const rows = await this.db
      .select(LOOKED_AT)
      .from(addressStreet)
      .where(and(inArray(addressStreet.fileId, [...files]), ...sets.map((words) => arrayOverlaps(addressStreet.words, words))))
      .orderBy(far)
      .limit(MOST_STREETS);
    return rows.map(({ lat, lng, ...row }) => ({ ...row, point: { lat, lng } }));
  }

  async #withHouses(matches: readonly StreetMatch<Row>[]): Promise<StreetMatch<AddressStreet>[]> {
    const pairs = matches.map(({ street: { fileId, n } }) => sql`(${fileId}::uuid, ${n}::int)`);
    const rows = pairs.length
      ? await this.db
          .select({ fileId: addressStreet.fileId, n: addressStreet.n, houses: addressStreet.houses })
          .from(addressStreet)
          .where(sql`(${addressStreet.fileId}, ${addressStreet.n}) in (${sql.join(pairs, sql`, `)})`)
      : [];
    const houses = new Map(rows.map((row) => [`${row.fileId} ${row.n}`, row.houses]));
    return matches.flatMap(({ street, ...match }) => {
      const own = houses.get(`${street.fileId} ${street.n}`);
      return own ? [{ ...match, street: { ...street, houses: own } }] : [];
    });
  }
}

/** How far away, as far as it says which is nearer. */
const nearness = ({ point }: Row, middle: Point): number =>
  (point.lat - middle.lat) ** 2 + ((point.lng - middle.lng) * Math.cos((middle.lat * Math.PI) / 180)) ** 2;

/** Words of streets that are asked for: a street has one of each set. */
interface Asked {
  sets: string[][];
  /** only where nothing was found before */
  last: boolean;
}

/**
 * One set for each word that was typed: all of them; without those that may be house numbers; and at last without one of them after the other,
 * for what nobody knows or is spelled too far off.
 */
function* wordSets({ words, numbers, open }: TypedAddress, book: WordBook): Generator<Asked> {
  const alike = words.map((word, i) => {
    const ending = open && i === words.length - 1;
    return [...new Set(readings(word).flatMap((one) => book.like(one, ending, MOST_ALIKE)))];
  });
  const isNumber = words.map((word) => numbers.includes(word));
  const named = alike.filter((_, i) => !isNumber[i]);
  if (alike.every((set) => set.length)) yield { sets: alike, last: false };
  if (named.length && named.length < alike.length && named.every((set) => set.length)) yield { sets: named, last: false };
  if (named.length > 1)
    for (const [i] of named.entries()) {
      const others = named.filter((_, j) => j !== i);
      if (others.every((set) => set.length)) yield { sets: others, last: true };
    }
}
