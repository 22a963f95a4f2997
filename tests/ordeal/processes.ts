/** What two processes on one database server make, against one: pages a second of processor time, while something is published. */
import { readFileSync } from 'node:fs';
import autocannon from 'autocannon';
import { random, seedOf } from '../support/generate';
import type { Served } from '../support/served';
import { Editor, evening, type Figures, freshPage, wait } from './ordeal';
import { twoProcesses } from './two-processes';

/** Clock ticks a second of Linux' process times. */
const TICKS = 100;

/** Seconds of processor time that a process has had, its threads with it. */
function processorTime(site: Served): number {
  const fields = readFileSync(`/proc/${site.process.pid}/stat`, 'utf8').split(') ')[1]?.split(' ') ?? [];
  return (Number(fields[11]) + Number(fields[12])) / TICKS;
}

export async function processes(figures: Figures): Promise<void> {
  const r = random(seedOf());
  await twoProcesses(async (sites) => {
    const editor = await Editor.signIn(sites[0].url);
    let n = 0;
    /** Pages a second of processor time of these processes. */
    const measure = async (read: readonly Served[]): Promise<number> => {
      let working = true;
      const publishing = (async () => {
        for (; working; await wait(1_000)) {
          const made = await editor.write(evening(r, `Turn ${n++}`));
          if (made) await editor.publish(made.id, made.revision);
        }
      })();
      const before = read.reduce((sum, site) => sum + processorTime(site), 0);
      const runs = read.map((site) =>
        autocannon({
          url: site.url,
          connections: 20 / read.length,
          duration: 15,
          requests: [{ setupRequest: (request) => ({ ...request, path: freshPage(r, n++) }) }],
        }),
      );
      const done = await Promise.all(runs);
      const spent = read.reduce((sum, site) => sum + processorTime(site), 0) - before;
      working = false;
      await publishing;
      figures.is(
        'readers who got an error',
        done.reduce((sum, one) => sum + one.errors + one.non2xx, 0),
        0,
      );
      const pages = done.reduce((sum, one) => sum + one.requests.total, 0);
      figures.say(`${read.length} process(es): ${pages} pages made anew in 15 s, ${spent.toFixed(1)} s of processor time`);
      return pages / spent;
    };
    for (const site of sites) await measure([site]);
    const one = await measure([sites[0]]);
    const two = await measure(sites);
    figures.atLeast('pages a second of processor time by two processes, against one', two / one, 0.85);
  });
}
