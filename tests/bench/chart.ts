/** The movable chart with thousands of places, in a browser: how much of each frame is script while it is moved. */
import { type CDPSession, chromium, type Page } from '@playwright/test';
import { serve } from '../support/served';
import type { Output } from './pages';

const PLACES = 5_000;
const ARGS = ['--headless', '--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking'];

/** The page of a map as it was, with so many places in the isles' towns on its chart. */
function withPlaces(page: string, many: number): string {
  const island = page.indexOf('ChartMap');
  const [, raw = ''] = /props="([^"]*)"/.exec(page.slice(island)) ?? [];
  const props = JSON.parse(raw.replaceAll('&quot;', '"').replaceAll('&amp;', '&')) as Record<string, [number, unknown]>;
  // As Astro writes them: any value but a list is [0, …].
  const places = Array.from({ length: many }, (_, i) => {
    const [lng, lat] = [-63 + Math.sin(i * 78.233) * 0.8 * ((i % 5) / 5), 44 + Math.sin(i * 12.9898) * 0.5 * ((i % 7) / 7) + 0.2];
    return { id: `v${i}`, name: `Hall ${i}`, lat, lng, kind: 0, dates: [i] };
  });
  Object.assign(props, {
    places: [0, JSON.stringify(places)],
    bounds: [0, { west: [0, -63.6], east: [0, -62.4], south: [0, 43.8], north: [0, 44.6] }],
  });
  const written = JSON.stringify(props).replaceAll('&', '&amp;').replaceAll('"', '&quot;');
  return page.slice(0, island) + page.slice(island).replace(raw, () => written);
}

/** Script a frame while something is done, in ms. */
async function scriptPerFrame(page: Page, session: CDPSession, act: () => Promise<void>): Promise<number> {
  const read = async (): Promise<{ script: number; frames: number }> => {
    const { metrics } = await session.send('Performance.getMetrics');
    const frames = await page.evaluate(() => Number(document.documentElement.dataset.frames ?? 0));
    return { script: metrics.find(({ name }) => name === 'ScriptDuration')?.value ?? 0, frames };
  };
  const before = await read();
  await act();
  const after = await read();
  return (1000 * (after.script - before.script)) / Math.max(1, after.frames - before.frames);
}

/** Measures the chart while it is dragged, and while it comes closer and goes back. */
export async function measureChart({ report, say }: Output, folder: string): Promise<void> {
  const site = await serve({ data: folder, more: ['--fresh'] });
  const browser = await chromium.launch({ executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium', args: ARGS });
  try {
    for (const many of [10, PLACES]) {
      const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
      await page.route('**/map/2027-03-17', async (route) => {
        const response = await route.fetch();
        await route.fulfill({ response, body: withPlaces(await response.text(), many) });
      });
      await page.goto(`${site.url}/map/2027-03-17`);
      await page.locator('button.place').first().waitFor();
      await page.waitForTimeout(2_000);
      // As text: the loader of this file would name functions by a helper that the page has not.
      await page.evaluate(
        '(function tick() { const { dataset } = document.documentElement; dataset.frames = Number(dataset.frames ?? 0) + 1; requestAnimationFrame(tick); })()',
      );
      const session = await page.context().newCDPSession(page);
      await session.send('Performance.enable');
      const box = (await page.locator('.maplibregl-canvas').boundingBox()) ?? { x: 0, y: 0 };
      const drag = await scriptPerFrame(page, session, async () => {
        await page.mouse.move(box.x + 500, box.y + 300);
        await page.mouse.down();
        for (let i = 0; i < 60; i++) {
          await page.mouse.move(box.x + 500 - i * 5, box.y + 300 + i * 2);
          await page.waitForTimeout(16);
        }
        await page.mouse.up();
        await page.waitForTimeout(500);
      });
      const zoom = await scriptPerFrame(page, session, async () => {
        for (let i = 0; i < 30; i++) {
          await page.mouse.wheel(0, i < 15 ? -120 : 120);
          await page.waitForTimeout(40);
        }
        await page.waitForTimeout(500);
      });
      if (many === PLACES) {
        report('map of 5,000 places: script a frame while dragged, ms', drag, '<', 8);
        report('map of 5,000 places: script a frame while it comes closer, ms', zoom, '<', 8);
      } else say(`map of ${many} places: script a frame while dragged ${drag.toFixed(2)} ms, while it comes closer ${zoom.toFixed(2)} ms`);
      await page.close();
    }
  } finally {
    await browser.close();
    await site.stop();
  }
}
