import { expect, type Locator, type Page } from '@playwright/test';
import sharp from 'sharp';
import { cookieOf, expectAccessible, expectNoSidewaysScroll, newListing, pageOf } from './support';
import { test } from './site';

// Journeys of one file share a site and may build on each other: a second try begins with the first of them.
test.describe.configure({ mode: 'serial' });

const drawn = (ink: string, width = 1400, height = 1000): Promise<Buffer> =>
  sharp({ create: { width, height, channels: 3, background: ink } })
    .composite([{ input: { create: { width: 200, height: 200, channels: 3, background: '#fbf0d8' } }, left: 40, top: 60 }])
    .jpeg()
    .toBuffer();
const file = async (name: string, ink: string) => ({ name, mimeType: 'image/jpeg', buffer: await drawn(ink) });
const frames = (page: Page): Locator => page.getByRole('grid', { name: 'Pictures of this listing' }).getByRole('row');

test('the library takes many at once, says what was refused, and finds what is there', async ({ browser, request, baseURL }) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  await page.goto('/desk/pictures');
  await expectAccessible(page, 'the library');
  const files = [
    await file('dulse-one.jpg', '#0c5a63'),
    await file('dulse-two.jpg', '#86308f'),
    await file('dulse-one-again.jpg', '#0c5a63'),
  ];
  await page
    .locator('.library-desk input[type=file]')
    .setInputFiles([...files, { name: 'tide-table.png', mimeType: 'image/png', buffer: Buffer.from('#!/bin/sh\n') }]);
  const sending = page.getByRole('region', { name: 'Pictures being sent' });
  await expect(sending.getByRole('status')).toHaveText('3 of 4 pictures in', { timeout: 90_000 });
  await expect(sending.getByRole('listitem').filter({ hasText: 'dulse-one-again.jpg' })).toContainText('was in the library already');
  await expect(sending.getByRole('listitem').filter({ hasText: 'tide-table.png' })).toContainText('no picture of a kind we take');
  await expectAccessible(page, 'pictures being sent');
  await page.goto('/desk/pictures?words=dulse');
  await expect(page.getByRole('list', { name: 'Pictures' }).getByRole('listitem')).toHaveCount(2);
  await page.goto('/desk/pictures?use=unused&lacking=alt');
  await expect(page.getByRole('list', { name: 'Pictures' }).getByRole('listitem')).toHaveCount(2);
  await page.goto('/desk/pictures?shape=tall');
  await expect(page.locator('.empty')).toContainText('No pictures match');
  await page.setViewportSize({ width: 360, height: 740 });
  await page.goto('/desk/pictures');
  await expectNoSidewaysScroll(page);
  await page.context().close();
});

test('a gallery in order, what stays in sight, another file everywhere: by keyboard, to the public page', async ({
  browser,
  request,
  baseURL,
}) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  await newListing(page, 'Kelp Pressing', 'Saturday 10 April 2027 14:00 to 16:00');
  await page.getByRole('button', { name: 'From the library' }).click();
  const dialog = page.getByRole('dialog', { name: 'Pictures from the library' });
  await dialog.getByRole('searchbox').fill('gannets');
  await expect(dialog.getByRole('status')).toContainText('1 found');
  await expectAccessible(page, 'choosing from the library');
  await dialog.locator('.frame').first().click();
  await dialog.getByRole('button', { name: 'Take it' }).click();
  await expect(frames(page)).toHaveCount(1);
  await page.locator('#picture input[type=file]').setInputFiles([await file('press.jpg', '#465562'), await file('frame.jpg', '#2f6b1f')]);
  await expect(frames(page)).toHaveCount(3);
  await expect(page.locator('.proof')).toContainText('2 pictures have no description');
  // The third becomes the cover.
  await frames(page).nth(2).focus();
  await page.keyboard.press('Alt+ArrowLeft');
  await page.keyboard.press('Alt+ArrowLeft');
  await expect(frames(page).nth(0)).toContainText('Cover');
  await page.keyboard.press('Enter');
  await page.getByLabel('What it shows').fill('Kelp pressed between boards');
  await page.getByLabel('Made by').fill('Ada Fenwright');
  await page.getByLabel('Title', { exact: true }).click();
  await expect(page.getByText('Kept.')).toBeVisible();
  await expectAccessible(page, 'the editor with a gallery');
  await page.getByRole('button', { name: 'Publish', exact: true }).click();
  await expect(page.locator('[data-note]')).toContainText('Published');
  const link = await page.getByRole('link', { name: 'What stays in sight' }).getAttribute('href');

  const reader = await (await browser.newContext({ baseURL, javaScriptEnabled: false })).newPage();
  await reader.goto('/what/kelp-pressing');
  const cover = reader.locator('figure img').first();
  await expect(cover).toHaveAttribute('alt', 'Kelp pressed between boards');
  await expect(cover).toHaveAttribute('width', '1400');
  await expect(cover).toHaveAttribute('height', /^78[78]$/);
  await expect(reader.locator('.gallery figure')).toHaveCount(2);
  const seen = async (): Promise<{ type: string | undefined; src: string; ink: number[] }> => {
    await reader.goto('/what/kelp-pressing');
    const src = (await reader.locator('meta[property="og:image"]').getAttribute('content')) ?? '';
    const response = await request.get(new URL(src).pathname);
    expect(response.headers()['cache-control']).toContain('immutable');
    const { data } = await sharp(await response.body())
      .resize(1, 1)
      .raw()
      .toBuffer({ resolveWithObject: true });
    return { type: response.headers()['content-type'], src, ink: [...data] };
  };
  const first = await seen();
  expect(first.type).toBe('image/jpeg');
  expect(first.src).toContain('share-1200');

  // What must stay in sight: moved with the arrows, saved, and the addresses are new.
  await page.goto('/what/kelp-pressing');
  await expectAccessible(page, 'event with a gallery');
  // Large, one after another, by keys; Escape leads back to where it was pressed.
  await page.locator('.gallery a').first().click();
  const large = page.getByRole('dialog', { name: 'More pictures' });
  await expect(large.getByRole('status')).toContainText('Picture 1 of 2');
  await expectAccessible(page, 'a picture, large');
  await page.keyboard.press('ArrowRight');
  await expect(large.getByRole('status')).toContainText('Picture 2 of 2');
  await page.keyboard.press('ArrowRight');
  await expect(large.getByRole('status')).toContainText('Picture 1 of 2');
  await page.keyboard.press('Escape');
  await expect(large).toBeHidden();
  await expect(page.locator('.gallery a').first()).toBeFocused();
  await page.goto(link ?? '');
  await page.getByRole('slider', { name: 'Focal point' }).focus();
  for (let i = 0; i < 10; i++) await page.keyboard.press('Shift+ArrowUp');
  await expect(page.getByRole('slider', { name: 'Focal point' })).toHaveAttribute('aria-valuetext', '50 % from the left, 0 % from the top');
  await page.getByRole('button', { name: 'Save what stays in sight' }).click();
  await expect(page.getByText('Saved: every page that shows it follows.')).toBeVisible();
  await expectAccessible(page, 'what stays in sight');
  expect((await seen()).src).not.toBe(first.src);
  // Dragged: one way is one step back.
  const point = page.getByRole('slider', { name: 'Focal point' });
  const ring = await point.boundingBox();
  await page.mouse.move((ring?.x ?? 0) + 13, (ring?.y ?? 0) + 13);
  await page.mouse.down();
  for (const step of [20, 40, 60]) await page.mouse.move((ring?.x ?? 0) + 13 + step, (ring?.y ?? 0) + 13 + step);
  await page.mouse.up();
  await expect(point).not.toHaveAttribute('aria-valuetext', '50 % from the left, 0 % from the top');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(point).toHaveAttribute('aria-valuetext', '50 % from the left, 0 % from the top');
  await page.getByLabel('A part of its own for “cover”').check();
  await page.getByRole('slider', { name: 'Size' }).fill('40');
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: 'Save what stays in sight' })).toBeDisabled();

  // Another file in its place, and back.
  await expect(page.locator('.uses')).toContainText('Kelp Pressing');
  await page.getByLabel('Replace with another file').setInputFiles(await file('new.jpg', '#a5123a'));
  await expect(page.getByText('Replaced in 1 place')).toBeVisible();
  expect((await seen()).ink[0]).toBeGreaterThan(120);
  await Promise.all([page.waitForEvent('load'), page.getByRole('button', { name: 'Undo', exact: true }).click()]);
  await expect(page.locator('.framing-point')).toBeVisible();
  expect((await seen()).ink[0]).toBeLessThan(120);
  await expect(page.getByRole('button', { name: 'Put it into the bin' })).toBeDisabled();
  await page.context().close();
  await reader.context().close();
});

test('pictures in bad requests: nothing is made, each says why', async ({ request, playwright, baseURL }) => {
  const [ivo, nan] = [await cookieOf(request, 'ivo'), await cookieOf(request, 'nan')];
  const origin = baseURL ?? '';
  const library = await (await request.get('/api/v1/pictures', { headers: { cookie: nan } })).json();
  const id = library.pictures[0].id as string;
  const stranger = await playwright.request.newContext({ baseURL: origin });
  expect((await stranger.get('/api/v1/pictures')).status()).toBe(401);
  await stranger.dispose();
  const put = (cookie: string, data: object) => request.put(`/api/v1/pictures/${id}`, { headers: { cookie, origin }, data });
  expect((await put(nan, { alt: 'Mine now' })).status()).toBe(403);
  expect((await put(ivo, { focus: { x: 2, y: 0 } })).status()).toBe(422);
  expect((await put(ivo, { crops: { format: 9 } })).status()).toBe(422);
  expect((await put(ivo, { alt: 'x'.repeat(301) })).status()).toBe(422);
  const post = (cookie: string, data: object) => request.post(`/api/v1/pictures/${id}/file`, { headers: { cookie, origin }, data });
  expect((await post(ivo, { before: 'f'.repeat(64) })).status()).toBe(409);
  expect((await post(ivo, { before: '../etc' })).status()).toBe(422);
  expect((await post(nan, { before: 'f'.repeat(64) })).status()).toBeGreaterThanOrEqual(403);
  for (const wrong of ['wide-640.exe', 'wide-0.webp', '..%2Fx', 'tall-1.webp'])
    expect((await request.get(`/picture/${id}/1/${wrong}`)).status(), wrong).toBe(404);
  // A width that is not made gives the nearest that is: nobody can fill the disk by asking.
  const odd = await request.get(`/picture/${id}/1/square-333.webp`);
  expect((await sharp(await odd.body()).metadata()).width).toBe(640);
  // A version that is not the present one is kept for minutes only.
  expect((await request.get(`/picture/${id}/999/square-320.webp`)).headers()['cache-control']).toBe('public, max-age=300');
  const text = await request.get(`/picture/${id}/640`);
  expect([text.status(), text.headers()['content-type']]).toEqual([200, 'image/webp']);
});

test('pictures that were chosen before the page was alive are sent all the same', async ({ browser, request, baseURL }) => {
  const page = await pageOf(browser, request, 'ivo', { baseURL });
  // The page stands there and does nothing until its scripts come.
  let letGo = (): void => undefined;
  const held = new Promise<void>((resolve) => {
    letGo = resolve;
  });
  await page.route('**/_astro/**.js', async (route) => {
    await held;
    await route.continue();
  });
  await page.goto('/desk/pictures', { waitUntil: 'commit' });
  const input = page.locator('.library-desk input[type=file]');
  await input.setInputFiles([await file('early-dulse.jpg', '#2f6b1f')]);
  letGo();
  const sending = page.getByRole('region', { name: 'Pictures being sent' });
  await expect(sending.getByRole('status')).toContainText('1 picture in');
});
