/** Measurements of an address file: half a million rows taken in, and places found in them as somebody types. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Db } from '@/server/db/client';
import { AddressBook } from '@/server/places/address-book';
import { TaskWorker } from '@/server/worker/task-worker';
import { addressTable, makeAddresses } from '../support/address-file';
import { EDITOR } from '../support/db';

interface Report {
  report: (name: string, value: number, op: '>=' | '<', goal: number) => void;
  say: (line: string) => void;
}

const now = (): number => Number(process.hrtime.bigint()) / 1e6;
const percentile = (times: number[], share: number): number => [...times].sort((a, b) => a - b)[Math.floor(times.length * share)] ?? 0;
const MIDDLE = { lat: 43.18, lng: -57.45 };
const ROWS = 500_000;

/** A slip of the hand: two neighbours exchanged in the middle of a word. */
function slipped(word: string): string {
  const at = Math.floor(word.length / 2);
  return word.length < 5 ? word : word.slice(0, at - 1) + word.charAt(at) + word.charAt(at - 1) + word.slice(at + 1);
}

/** @param worker the built worker, as a site has it */
export async function measureAddresses(db: Db, worker: string, { report, say }: Report): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), 'alm-bench-'));
  // A worker that is waited for keeps no process; a site has its server.
  const awake = setInterval(() => undefined, 1000);
  try {
    const made = makeAddresses(ROWS, MIDDLE);
    const file = path.join(folder, 'isles.csv');
    writeFileSync(file, addressTable(made));
    const book = new AddressBook(db, 'world', () => new TaskWorker(worker, 'apart'));
    const start = now();
    const added = await book.add({ path: file, columns: {}, credit: '' }, MIDDLE, EDITOR, new Date());
    const seconds = (now() - start) / 1000;
    const first = now();
    await book.find('chapel brae', MIDDLE, 8);
    say(
      `${added.addresses} addresses in ${added.streets} streets taken in within ${seconds.toFixed(1)} s; the first question took ${(now() - first).toFixed(0)} ms`,
    );
    const times: number[] = [];
    let well = 0;
    let asked = 0;
    for (let i = 0; i < made.length; i += 2_500) {
      const { number, street, town } = made[i] as (typeof made)[number];
      const [head = '', ...rest] = street.split(' ');
      const phrase = `${number} ${[slipped(head), ...rest].join(' ')}, ${town}`;
      // As it is typed: from four letters on, every third.
      for (let n = 4; n < phrase.length + 3; n += 3) {
        const before = now();
        const found = await book.find(phrase.slice(0, n), MIDDLE, 8);
        times.push(now() - before);
        if (n < phrase.length) continue;
        asked++;
        if (found.some(({ label }) => label === `${number} ${street}, ${town}`)) well++;
      }
    }
    say(
      `${times.length} searches: p50 ${percentile(times, 0.5).toFixed(1)} ms, p95 ${percentile(times, 0.95).toFixed(1)} ms, most ${Math.max(...times).toFixed(0)} ms`,
    );
    report('address search with a slip in 500,000 rows, p95 ms', percentile(times, 0.95), '<', 50);
    report('share of addresses that were found with a slip', well / asked, '>=', 0.97);
  } finally {
    clearInterval(awake);
    rmSync(folder, { recursive: true });
  }
}
