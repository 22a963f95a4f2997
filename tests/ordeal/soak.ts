/** Readers and editors for a long while: the site is as quick and as large at the end as at the beginning. */
import { readFileSync } from 'node:fs';
import { random, seedOf } from '../support/generate';
import { serve } from '../support/served';
import { Editor, evening, type Figures, freshPage, now, percentile, Readers, wait } from './ordeal';

const MINUTE = 60_000;

/** Megabytes of a process in memory. */
function megabytes(pid: number | undefined): number {
  return Number(/VmRSS:\s+(\d+) kB/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1]) / 1024;
}

/** @param data a site's folder with many listings, which is written to @param minutes more than six */
export async function soak(figures: Figures, data: string, minutes: number): Promise<void> {
  const r = random(seedOf());
  const served = await serve({ data });
  try {
    const editor = await Editor.signIn(served.url);
    const start = now();
    const sizes: { minute: number; size: number }[] = [];
    let refused = 0;
    let written = 0;
    const readers = new Readers(served.url, 200, (n) => (n % 2 ? `/month/2027-0${4 + (n % 5)}` : freshPage(r, n)));
    while (now() - start < minutes * MINUTE) {
      const made = await editor.write(evening(r, `Watch ${written++}`));
      if (!made || !(await editor.publish(made.id, made.revision))) refused++;
      sizes.push({ minute: (now() - start) / MINUTE, size: megabytes(served.process.pid) });
      await wait(3_000);
    }
    const { times, failed, refused: away } = await readers.stop();
    const between = (from: number, to: number): number =>
      percentile(
        sizes.filter(({ minute }) => minute >= from && minute < to).map(({ size }) => size),
        0.5,
      );
    const [early, late] = [between(5, 6), between(minutes - 1, minutes)];
    figures.say(
      `${minutes} minutes, ${times.length} pages (p50 ${percentile(times, 0.5).toFixed(0)} ms, p99 ${percentile(times, 0.99).toFixed(0)} ms), ${written} listings published`,
    );
    figures.say(
      `in memory after a minute ${between(1, 2).toFixed(0)} MB, after five ${early.toFixed(0)} MB, at the end ${late.toFixed(0)} MB`,
    );
    figures.is('readers who got no page', failed + away, 0);
    figures.is('writes refused', refused, 0);
    figures.under('memory at the end against after five minutes', late / early, 1.1);
    const third = Math.floor(times.length / 3);
    figures.under(
      'readers’ p95 in the last third against the first',
      percentile(times.slice(-third), 0.95) / percentile(times.slice(0, third), 0.95),
      1.5,
    );
  } finally {
    await served.stop();
  }
}
