/**
 * What a site in service goes through, longer than tests may take: `npm run ordeal`, or one by its name. Each prints figures with what they
 * are to be; it ends with 1 when one is not. `KILLS`, `RESTARTS` and `MINUTES` make it shorter or longer.
 */
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fillSite } from '../bench/many';
import { serve } from '../support/served';
import { fullDisk } from './disk';
import { floods } from './floods';
import { kills } from './kills';
import { slowMails } from './mails';
import { Figures } from './ordeal';
import { processes } from './processes';
import { restarts } from './restarts';
import { soak } from './soak';

const figures = new Figures();
const folder = mkdtempSync(path.join(tmpdir(), 'almanac-ordeal-'));
const number = (name: string, usual: number): number => Number(process.env[name] ?? usual);
const demo = path.join(folder, 'demo');

/** A copy of the demo's folder, or of that with many listings. */
function copyOf(from: string, name: string): string {
  const to = path.join(folder, name);
  cpSync(from, to, { recursive: true, filter: (file) => !file.endsWith('.sock') });
  return to;
}

let filled: string | undefined;
async function many(name: string): Promise<string> {
  if (!filled) {
    filled = copyOf(demo, 'many');
    const dates = await fillSite(filled, { listings: 4_000, dates: 24, published: () => true });
    figures.say(`4,000 listings with ${dates.toLocaleString('en')} public dates`);
  }
  return copyOf(filled, name);
}

const ORDEALS: Record<string, () => Promise<void>> = {
  kills: () => kills(figures, copyOf(demo, 'killed'), number('KILLS', 100)),
  restarts: () => restarts(figures, number('RESTARTS', 20)),
  disk: () => fullDisk(figures, demo),
  mails: () => slowMails(figures),
  processes: () => processes(figures),
  floods: async () => floods(figures, await many('flooded')),
  soak: async () => soak(figures, await many('soaked'), number('MINUTES', 20)),
};

const asked = process.argv.slice(2);
const unknown = asked.filter((name) => !ORDEALS[name]);
if (unknown.length) {
  console.error(`There is no ordeal “${unknown[0]}”; there are ${Object.keys(ORDEALS).join(', ')}.`);
  process.exit(2);
}
try {
  await (await serve({ data: demo, more: ['--fresh'] })).stop();
  for (const name of asked.length ? asked : Object.keys(ORDEALS)) {
    console.log(`\n== ${name}`);
    try {
      await ORDEALS[name]?.();
    } catch (error) {
      figures.failed++;
      console.log(`NOT DONE: ${error instanceof Error ? error.message : String(error)}`);
    }
  }
} finally {
  rmSync(folder, { recursive: true, force: true });
}
process.exit(figures.failed ? 1 : 0);
