import { existsSync } from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { build } from 'esbuild';
import sharp from 'sharp';
import { choir, NOW, SETTINGS } from '../../../tests/support/db';
import { emptyContent } from '@/core/listing/fields';
import { indexRows } from '../dates/date-index';
import type { Part, Task } from './tasks';
import { TaskWorker } from './task-worker';

const FILE = path.resolve('.cache/worker-test.mjs');
let worker: TaskWorker;
beforeAll(async () => {
  await build({
    entryPoints: ['src/server/worker/thread.ts'],
    outfile: FILE,
    bundle: true,
    platform: 'node',
    format: 'esm',
    packages: 'external',
  });
  worker = new TaskWorker(FILE);
});
afterAll(() => worker.close());

const all = async (shop: TaskWorker, task: Task): Promise<Part[]> => {
  const parts: Part[] = [];
  for await (const part of shop.run(task)) parts.push(part);
  return parts;
};
const horizon = NOW.day + 1100;
const listings = (count: number) =>
  Array.from({ length: count }, (_, i) => ({
    listingId: `id-${i}`,
    content: { ...choir({ category: 'c', venue: 'v' }), title: `T${i}` },
    isPublic: true,
  }));
const reading = {
  now: NOW,
  style: { date: 'day-month', hours: '24' },
  firstWeekday: 0,
  currency: 'CAD',
  sunAt: undefined,
  columns: undefined,
  order: undefined,
} as const;
const csv = (text: string): Task => ({ task: 'read', kind: 'csv', text, host: 'h', siteZone: SETTINGS.zone, zones: {}, ...reading });

describe('the thread for long computations', () => {
  it('is built, expands listings part by part, in order, as they would be here', async () => {
    expect(existsSync(FILE)).toBe(true);
    const task: Task = { task: 'expand', listings: listings(450), settings: SETTINGS, horizon };
    const parts = await all(worker, task);
    expect(parts.map((p) => (p.part === 'rows' ? p.rows.length : 0))).toEqual([200, 200, 50]);
    const rows = parts.flatMap((p) => (p.part === 'rows' ? p.rows : []));
    expect(rows.map((r) => r.listingId)).toEqual(listings(450).map((l) => l.listingId));
    expect(rows[449]?.rows).toEqual(
      indexRows({ ...(listings(450)[449] as ReturnType<typeof listings>[number]), settings: SETTINGS, horizon }),
    );
    expect(await all(new TaskWorker(undefined), task)).toEqual(parts);
  });
  it('hands out the first part while the rest is still being made, and leaves this thread free', async () => {
    let ticks = 0;
    const timer = setInterval(() => ticks++, 1);
    const times: number[] = [];
    for await (const part of worker.run({ task: 'expand', listings: listings(4000), settings: SETTINGS, horizon }))
      if (part.part === 'rows') times.push(ticks);
    clearInterval(timer);
    expect(times).toHaveLength(20);
    expect(times.at(-1)).toBeGreaterThan(times[0] ?? Number.POSITIVE_INFINITY);
  });
  it('answers several at once, each with its own', async () => {
    const texts = ['A', 'B', 'C'].map((title) => `Title;Date\n${title};2027-04-03`);
    const found = await Promise.all(texts.map((text) => all(worker, csv(text))));
    expect(found.map((parts) => (parts[0]?.part === 'items' ? parts[0].items[0]?.content.title : ''))).toEqual(['A', 'B', 'C']);
  });
  it('says why a file is none, and what no listing could hold, without taking the rest along', async () => {
    expect(await all(worker, csv('nothing'))).toEqual([{ part: 'refused', reason: expect.stringContaining('no row') }]);
    const content = {
      ...emptyContent(),
      title: 'Tea',
      recurrence: { format: 3, zone: 'Nowhere/Else', parts: [], exdates: [], breaks: [] },
    };
    const file = {
      kind: 'plain-almanac-listings',
      format: 1,
      listings: ['a', 'b'].map((c, i) => ({ id: c.repeat(36), content: i ? content : { ...content, recurrence: null } })),
    };
    const task: Task = {
      task: 'read',
      kind: 'json',
      text: JSON.stringify(file),
      host: 'h',
      siteZone: SETTINGS.zone,
      zones: {},
      ...reading,
    };
    const [items, end] = await all(worker, task);
    expect(items).toMatchObject({ part: 'items', items: [{ uid: `json:${'a'.repeat(36)}` }] });
    expect(end).toMatchObject({ part: 'end', end: { unreadable: [{ line: 2, reason: expect.stringContaining('zone') }] } });
    for (const text of ['{', '[]', '{"kind":"x"}', '{"kind":"plain-almanac-listings","format":9}'])
      expect((await all(worker, { ...task, text } as Task))[0]).toMatchObject({ part: 'refused' });
    const odd = {
      ...file,
      listings: [
        1,
        {},
        { id: 'x', content: {} },
        { id: 'c'.repeat(36), content: { format: 7 } },
        { id: 'd'.repeat(36), stage: 'binned', content },
      ],
    };
    const parts = await all(worker, { ...task, text: JSON.stringify(odd) } as Task);
    expect(parts[0]).toMatchObject({ part: 'end' });
    expect(parts[0]?.part === 'end' ? parts[0].end.unreadable.map((u) => u.line) : []).toEqual([1, 2, 3, 4, 5]);
  });
  it('does the same in a process of its own, bytes too, and goes on after that ended', async () => {
    const other = new TaskWorker(FILE, 'apart');
    const task: Task = { task: 'expand', listings: listings(3), settings: SETTINGS, horizon };
    expect(await all(other, task)).toEqual(await all(worker, task));
    const png = await sharp({ create: { width: 90, height: 60, channels: 3, background: '#86748f' } })
      .png()
      .toBuffer();
    const [taken] = await all(other, { task: 'take-picture', bytes: png });
    expect(taken).toMatchObject({ part: 'picture', picture: { width: 90, height: 60 } });
    const { source } = (taken as Extract<Part, { part: 'picture' }>).picture;
    expect((await sharp(source).metadata()).format).toBe('webp');
    await other.close();
    expect(await all(other, task)).toEqual(await all(worker, task));
    await other.close();
    await expect(all(new TaskWorker(path.resolve('.cache/no-such-worker.mjs'), 'apart'), task)).rejects.toThrow('ended');
  });
  it('fails aloud when the thread ends', async () => {
    const broken = new TaskWorker(path.resolve('.cache/no-such-worker.mjs'));
    await expect(all(broken, csv('Title;Date\nA;2027-04-03'))).rejects.toThrow();
  });
});
