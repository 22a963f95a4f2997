/** Measurements of work in the background: how long its pieces hold the database, what a listing costs, what stays in memory. */
import { NO_FILTERS } from '@/core/filters/filters';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { sql } from 'drizzle-orm';
import { dayOf, isoDay } from '@/core/day/day';
import { type Db, openDatabase } from '@/server/db/client';
import { importing, startImport } from '@/server/exchange/import-jobs';
import { keepFile, readBatch } from '@/server/exchange/import-file';
import { createListing, publishListing } from '@/server/listings/write';
import { readListPage } from '@/server/public/public-dates';
import type { Runtime } from '@/server/runtime-type';
import { change, choir, EDITOR, NOW, seedPlaces } from '../support/db';
import { siteOf } from '../support/site';

const now = (): number => Number(process.hrtime.bigint()) / 1e6;
/** By hand: so many, enough for a steady figure. */
const BY_HAND = 200;

/** Over most of a year, as many a day as on any other. */
const eventLines = (i: number): string => {
  const day = isoDay(dayOf(2027, 4, 3) + (i % 300)).replaceAll('-', '');
  return [
    'BEGIN:VEVENT',
    `UID:watch-${i}@harbour.example`,
    `SUMMARY:Tide Watch ${i}`,
    `DTSTART;TZID=America/Halifax:${day}T090000`,
    `DTEND;TZID=America/Halifax:${day}T100000`,
    'RRULE:FREQ=WEEKLY;COUNT=4',
    'LOCATION:Net Loft',
    'END:VEVENT',
  ].join('\r\n');
};

const calendarOf = (first: number, count: number): string =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', ...Array.from({ length: count }, (_, i) => eventLines(first + i)), 'END:VCALENDAR'].join('\r\n');

export interface JobFigures {
  /** milliseconds of a piece's own work: the median and the 99th percentile */
  median: number;
  p99: number;
  /** a listing by the job against one made and published by hand */
  ratio: number;
  seconds: number;
  /** looking at the same file once more, when nothing of it has changed */
  secondLook: number;
  /** how long a reader waits for a page of the list, from the file's coming in to the end, 99th percentile in milliseconds */
  readersP99: number;
  readersMost: number;
  /** what the process holds at the end of the job against its start, after collecting */
  memory: number;
  /** what the whole process holds more at its most than before, threads included */
  megabytes: number;
}

/** Brings so many events in, published, each with four dates. */
export async function bringInMany(count: number): Promise<JobFigures> {
  const folder = mkdtempSync(path.join(tmpdir(), 'almanac-jobs-'));
  const { db, close } = await openDatabase({ folder, root: process.cwd() });
  try {
    const places = await seedPlaces(db);
    const start = now();
    for (let i = 0; i < BY_HAND; i++) {
      await db.transaction(async (tx) => {
        const row = await createListing(tx, choir(places, { title: `By hand ${i}` }), change());
        await publishListing(tx, row.id, row.revision, change());
      });
    }
    const byHand = (now() - start) / BY_HAND;
    const pieces: number[] = [];
    const site = siteOf(db, {
      worker: path.resolve('dist/worker/thread.mjs'),
      // As a running site: what listings point to is read again only when it changed.
      revision: 'bench',
      works: {
        import: {
          ...importing,
          step: async (tx, row, size, context) => {
            const begun = now();
            const step = await importing.step(tx, row, size, context);
            pieces.push(now() - begun);
            return step;
          },
        },
      },
    });
    const calendar = calendarOf(0, count);
    // A site at work has its threads running.
    const warm = await keepFile(site, { name: 'first.ics', bytes: new TextEncoder().encode(calendarOf(count, 50)) }, EDITOR);
    await site.jobs.wait((await readBatch(db, warm)).jobId ?? '', Number.POSITIVE_INFINITY);
    const readers = await askAsReaders(db, site);
    const begun = now();
    const id = await keepFile(site, { name: 'watch.ics', bytes: new TextEncoder().encode(calendar) }, EDITOR);
    const { jobId } = await readBatch(db, id);
    if (jobId) await site.jobs.wait(jobId, Number.POSITIVE_INFINITY);
    const held = heap();
    const written = now();
    const job = await db.transaction((tx) => startImport(tx, id, true, change()));
    const { state, input } = await site.jobs.wait(job, Number.POSITIVE_INFINITY);
    if (state !== 'done' || input.made !== count) throw new Error(`${input.made} of ${count} came in`);
    const ended = now();
    const { waits, megabytes } = await readers.stop();
    const memory = heap() / held;
    const result = (await db.execute(sql`select count(*)::int as n from occurrence`)) as unknown as { rows: { n: number }[] };
    if (result.rows[0]?.n !== count * 4 + BY_HAND * 10) throw new Error('dates are missing');
    const again = now();
    const second = await keepFile(site, { name: 'watch.ics', bytes: new TextEncoder().encode(calendar) }, EDITOR);
    const previewing = await readBatch(db, second);
    if (previewing.jobId) await site.jobs.wait(previewing.jobId, Number.POSITIVE_INFINITY);
    const secondLook = (now() - again) / 1000;
    const { summary } = await readBatch(db, second);
    if (summary?.counts.same !== count) throw new Error(`${summary?.counts.same} of ${count} are as they are`);
    await site.worker.close();
    pieces.sort((a, b) => a - b);
    return {
      median: pieces[pieces.length >> 1] ?? 0,
      p99: pieces[Math.floor(pieces.length * 0.99)] ?? 0,
      ratio: (ended - written) / count / byHand,
      seconds: (ended - begun) / 1000,
      secondLook,
      readersP99: waits[Math.floor(waits.length * 0.99)] ?? 0,
      readersMost: waits.at(-1) ?? 0,
      memory,
      megabytes,
    };
  } finally {
    await close();
    rmSync(folder, { recursive: true, force: true });
  }
}

const READERS_EVERY_MS = 250;

/** A reader who asks for the first page of the list again and again; the answer is how long each took, sorted, and what memory was held meanwhile. */
async function askAsReaders(db: Db, site: Runtime): Promise<{ stop: () => Promise<{ waits: number[]; megabytes: number }> }> {
  const { reference } = await site.jobContext();
  const before = process.memoryUsage().rss;
  let most = before;
  const waits: number[] = [];
  let goesOn = true;
  const asking = (async () => {
    while (goesOn) {
      const begun = now();
      await readListPage(db, { from: NOW.day }, 40, NO_FILTERS, { reference, currency: 'CAD', around: undefined });
      waits.push(now() - begun);
      most = Math.max(most, process.memoryUsage().rss);
      await setTimeout(READERS_EVERY_MS);
    }
  })();
  return {
    stop: async () => {
      goesOn = false;
      await asking;
      return { waits: waits.sort((a, b) => a - b), megabytes: (most - before) / 1e6 };
    },
  };
}

function heap(): number {
  globalThis.gc?.();
  return process.memoryUsage().heapUsed;
}
