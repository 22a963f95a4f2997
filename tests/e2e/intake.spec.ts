import { expect } from '@playwright/test';
import sharp from 'sharp';
import { expectAccessible, pageOf } from './support';
import { test } from './site';

// Journeys of one file share a site and may build on each other: a second try begins with the first of them.
test.describe.configure({ mode: 'serial' });

const picture = (): Promise<Buffer> =>
  sharp({ create: { width: 800, height: 500, channels: 3, background: '#7fa6a4' } })
    .png()
    .toBuffer();

for (const width of [1280, 360]) {
  test(`a stranger’s event is sent without JavaScript, decided with one key, and seen, at ${width} px`, async ({
    browser,
    request,
    baseURL,
  }) => {
    const title = `Kelp Walk ${width}`;
    const stranger = await (await browser.newContext({ viewport: { width, height: 800 }, javaScriptEnabled: false, baseURL })).newPage();
    await stranger.goto('/add');
    await stranger.getByLabel('What is it called?').fill(title);
    await stranger.getByLabel('Day', { exact: true }).fill('2027-03-25');
    await stranger.getByLabel('Starts').fill('10am');
    await stranger.getByLabel('Ends').fill('09:00');
    await stranger.getByLabel('Does it repeat?').selectOption('weekly');
    await stranger.getByLabel('Until').fill('2027-04-22');
    await stranger.getByLabel('Where').fill('causeway slip');
    await stranger.getByLabel('Who organizes it').fill(`Kelp Friends ${width}`);
    await stranger.getByLabel('In your words').fill('Bring a basket.\n\n<script>alert(1)</script>');
    await stranger.getByLabel('Cost').fill('$3');
    await stranger.locator('input[name="picture"]').setInputFiles({ name: 'kelp.png', mimeType: 'image/png', buffer: await picture() });
    await stranger.getByLabel('What the picture shows').fill('Kelp on a rope');
    await stranger.getByLabel('Your name').fill('Rue Dunlin');
    await stranger.getByLabel('Your mail address').fill('rue@dunlin.example');
    await stranger.getByRole('button', { name: 'Send it' }).click();
    await expect(stranger.getByText('It ends before it starts').first()).toBeVisible();
    await expect(stranger.getByLabel('In your words')).toHaveValue(/Bring a basket/);
    await stranger.getByLabel('Ends').fill('12:00');
    await stranger.locator('input[name="picture"]').setInputFiles({ name: 'kelp.png', mimeType: 'image/png', buffer: await picture() });
    await stranger.getByRole('button', { name: 'Send it' }).click();
    await expect(stranger).toHaveURL(/\/receipt\/[\w-]{32}$/);
    await expect(stranger.locator('[data-state="waiting"]')).toBeVisible();
    // The place is one that the site knows; the people are not, and come along with the decision.
    await expect(
      stranger.getByText(`New to the site, and added by the editors with your event: who organizes it, “Kelp Friends ${width}”.`),
    ).toBeVisible();
    const editor = await pageOf(browser, request, 'ivo', { width, baseURL });
    await editor.goto('/desk/intake');
    await expectAccessible(editor, 'Intake');
    await editor.locator('.pile').getByText(title).click();
    await expect(editor.locator('.reading h2')).toHaveText(title);
    await expect(editor.locator('.reading')).toContainText('Every Thursday');
    await expect(editor.locator('.reading .prose script')).toHaveCount(0);
    await editor.keyboard.press('p');
    await expect(editor.getByText('Published; the sender has a mail.')).toBeVisible();
    await stranger.reload();
    await expect(stranger.locator('[data-state="published"]')).toBeVisible();
    await stranger.getByRole('link', { name: /See it on/ }).click();
    await expect(stranger.getByRole('heading', { level: 1 })).toHaveText(title);
    await expect(stranger.locator('.prose')).toContainText('<script>alert(1)</script>');
    await stranger.close();
    await editor.close();
  });
}

test('an event is returned with a note, mended on its receipt, and waits again; nobody decides twice', async ({
  browser,
  request,
  baseURL,
}) => {
  const maud = await pageOf(browser, request, 'maud', { baseURL });
  const ivo = await pageOf(browser, request, 'ivo', { baseURL });
  await maud.goto('/desk/intake');
  await maud.locator('.pile').getByText('SEED SWAP').click();
  await ivo.goto(maud.url());
  await maud.keyboard.press('r');
  await maud.getByLabel(/What should be different/).fill('Which hall, please?');
  await maud.getByRole('button', { name: 'Send', exact: true }).click();
  await expect(maud.getByText('Returned with your note.')).toBeVisible();
  await ivo.keyboard.press('p');
  await expect(ivo.locator('[data-said]')).toContainText('Maud Petrel returned it with a note already.');
  await maud.goto('/desk/mail');
  await expect(maud.getByText('A question about: SEED SWAP')).toBeVisible();
  await maud.close();
  await ivo.close();
});
