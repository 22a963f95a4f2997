/** What a reader's phone gets: how much script, how much the page moves while it comes, and the marks of Lighthouse. */
import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync } from 'node:fs';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { chromium } from '@playwright/test';
import { serve } from '../support/served';
import type { Output } from './pages';

const ARGS = ['--headless', '--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking'];
const PAGES = [
  // The site's own address, where its month of today stands.
  ['month', '/'],
  ['list', '/list'],
  ['event', '/what/harbour-choir'],
  ['add', '/add'],
] as const;
const MARKS = ['performance', 'accessibility', 'best-practices', 'seo'] as const;
/** A phone of middling speed on a mobile line, which Lighthouse reckons; each page so many times, the median counts. */
const ROUNDS = 3;
const median = (list: number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? 0;

/** What is read of what it says. */
interface Said {
  lhr: {
    categories: Record<string, { score: number | null; auditRefs: { id: string; weight: number }[] } | undefined>;
    audits: Record<
      string,
      { score: number | null; numericValue?: number; displayValue?: string; title: string; details?: unknown } | undefined
    >;
  };
}
type Lighthouse = (url: string, options: Record<string, unknown>) => Promise<Said | undefined>;

/** Nothing else needs it, and it is large: the measurement installs it for itself, once. */
const VERSION = 'lighthouse@12.8.2';
async function loadLighthouse(): Promise<Lighthouse> {
  const folder = path.resolve('.cache/lighthouse');
  const entry = path.join(folder, 'node_modules/lighthouse/core/index.js');
  if (!existsSync(entry)) {
    mkdirSync(folder, { recursive: true });
    execFileSync('npm', ['install', '--silent', '--no-save', '--prefix', folder, VERSION], { stdio: 'inherit' });
  }
  const { default: lighthouse } = (await import(pathToFileURL(entry).href)) as { default: Lighthouse };
  return lighthouse;
}

/** Measures the demo's pages as Lighthouse's phone loads them. */
export async function measureReaders({ report, say }: Output, folder: string): Promise<void> {
  const lighthouse = await loadLighthouse();
  const site = await serve({ data: folder, more: ['--fresh'] });
  const port = 9200 + (process.pid % 700);
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: [...ARGS, `--remote-debugging-port=${port}`],
  });
  try {
    for (const [name, at] of PAGES) {
      const marks = new Map<string, number[]>(MARKS.map((mark) => [mark, []]));
      const shifts: number[] = [];
      let script = 0;
      const lost = new Set<string>();
      for (let round = 0; round < ROUNDS; round++) {
        const result = await lighthouse(site.url + at, { port, output: 'json', logLevel: 'error', onlyCategories: [...MARKS] });
        if (!result) throw new Error(`Lighthouse said nothing of ${at}`);
        const { categories, audits } = result.lhr;
        for (const mark of MARKS) marks.get(mark)?.push((categories[mark]?.score ?? 0) * 100);
        shifts.push(audits['cumulative-layout-shift']?.numericValue ?? 1);
        const requests = audits['network-requests']?.details as { items?: { resourceType?: string; transferSize?: number }[] } | undefined;
        script = (requests?.items ?? [])
          .filter(({ resourceType }) => resourceType === 'Script')
          .reduce((sum, { transferSize = 0 }) => sum + transferSize, 0);
        for (const mark of MARKS)
          for (const { id, weight } of categories[mark]?.auditRefs ?? [])
            if (weight > 0 && (audits[id]?.score ?? 1) < 0.9) lost.add(`${id} (${audits[id]?.displayValue ?? audits[id]?.title})`);
      }
      for (const mark of MARKS) report(`${name} on a phone: ${mark}, of 100`, median(marks.get(mark) ?? []), '>=', 95);
      report(`${name} on a phone: layout shift`, median(shifts), '<', 0.001);
      report(`${name}: script, KB compressed`, script / 1024, '<', 40);
      if (lost.size) say(`${name} loses by ${[...lost].join('; ')}`);
    }
  } finally {
    await browser.close();
    await site.stop();
  }
}
