/** Two hundred events a minute sent in by strangers, and thirty pictures of 20 MB, while readers read. */
import sharp from 'sharp';
import { random, seedOf } from '../support/generate';
import { serve } from '../support/served';
import { Editor, type Figures, freshPage, now, percentile, Readers, wait } from './ordeal';

const MINUTE = 60_000;
const EVENTS = 200;
const PICTURES = 30;
const MOST_BYTES = 20 * 1024 * 1024;

/** A picture of nearly 20 MB whose bytes are no other's. */
async function largePicture(): Promise<(i: number) => Blob> {
  const side = 2_600;
  const noise = { width: side, height: side, channels: 3 as const, background: '#888' };
  const png = await sharp({ create: { ...noise, noise: { type: 'gaussian', mean: 128, sigma: 40 } } })
    .png({ compressionLevel: 0 })
    .toBuffer();
  // What follows a picture's end is no part of it, and makes it another file.
  return (i) => new Blob([png, Buffer.alloc(Math.min(1_000, MOST_BYTES - png.length), i + 1)], { type: 'image/png' });
}

/** A form as a stranger fills it, from an address of their own. */
async function sendEvent(base: string, i: number): Promise<number> {
  const body = new FormData();
  const fields = {
    title: `Lantern walk of somebody ${i}`,
    day: `2027-05-${String(1 + (i % 28)).padStart(2, '0')}`,
    starts: '19:00',
    where: 'Net Loft',
    text: 'Bring a lantern.',
    name: `Rue Dunlin ${i}`,
    mail: `rue-${i}@dunlin.example`,
  };
  for (const [name, value] of Object.entries(fields)) body.set(name, value);
  const headers = { origin: base, 'x-forwarded-for': `203.0.113.${i % 250}, 198.51.100.${i % 250}` };
  const answer = await fetch(`${base}/add`, { method: 'POST', body, headers, redirect: 'manual' });
  await answer.arrayBuffer();
  return answer.status;
}

async function sendPicture(base: string, cookie: string, file: Blob): Promise<number> {
  const body = new FormData();
  body.set('file', file, 'noise.png');
  const answer = await fetch(`${base}/api/v1/pictures`, { method: 'POST', body, headers: { origin: base, cookie } });
  await answer.arrayBuffer();
  return answer.status;
}

/** So many evenly spread over a minute; their answers. */
async function spread(count: number, send: (i: number) => Promise<number>): Promise<number[]> {
  const start = now();
  const under: Promise<number>[] = [];
  for (let i = 0; i < count; i++) {
    await wait(Math.max(0, start + (i * MINUTE) / count - now()));
    under.push(send(i).catch(() => 0));
  }
  return Promise.all(under);
}

/** @param data a site's folder with many listings, which is written to */
export async function floods(figures: Figures, data: string): Promise<void> {
  const r = random(seedOf());
  const picture = await largePicture();
  const served = await serve({ data, env: { ALMANAC_BEHIND_PROXY: '1' } });
  try {
    const { cookie } = await Editor.signIn(served.url);
    const measured = async (name: string, flood: () => Promise<void>): Promise<{ kept: number; fresh: number }> => {
      const kept = new Readers(served.url, 100, (n) => ['/month/2027-04', '/list/2027-04-01', '/map/2027-04-01'][n % 3] as string);
      const fresh = new Readers(served.url, 400, (n) => `${freshPage(r, n)}&${name}`);
      await flood();
      for (const one of [kept, fresh]) figures.is(`readers who got no page, ${name}`, (await one.stop()).failed + one.refused, 0);
      const [of, anew] = [percentile(kept.times, 0.95), percentile(fresh.times, 0.95)];
      figures.say(`${name}: pages that everybody reads p95 ${of.toFixed(0)} ms, made anew p95 ${anew.toFixed(0)} ms`);
      return { kept: of, fresh: anew };
    };
    await wait(20_000);
    const rest = await measured('at rest', () => wait(30_000));
    const events = await measured('with events', async () => {
      const answers = await spread(EVENTS, (i) => sendEvent(served.url, i));
      figures.is('events taken', answers.filter((status) => status === 303).length, EVENTS);
    });
    const pictures = await measured('with pictures', async () => {
      const answers = await spread(PICTURES, (i) => sendPicture(served.url, cookie, picture(i)));
      figures.is('pictures taken', answers.filter((status) => status === 200).length, PICTURES);
    });
    for (const [name, flood] of Object.entries({ events, pictures })) {
      figures.under(`readers’ p95 while ${name} come in, against at rest, pages that everybody reads`, flood.kept / rest.kept, 2);
      figures.under(`readers’ p95 while ${name} come in, against at rest, pages made anew`, flood.fresh / rest.fresh, 2);
    }
  } finally {
    await served.stop();
  }
}
