/** Readers in French: every public page, an event sent in and its mails, and the way between the languages. */
import { expect } from '@playwright/test';
import { expectAccessible, expectNoSidewaysScroll, openSetting, pageOf, signIn } from './support';
import { test } from './site';

test.describe.configure({ mode: 'serial' });

/** Words that a French page never has, but in what people wrote themselves. */
const ENGLISH = /\b(Today|Subscribe|Add an event|Clear filters|Show only|Where|When|Next:|See all dates|Coming dates|Times in)\b/;

test('all public pages come in French, and lead to each other in it', async ({ page }) => {
  for (const [path, heading] of [
    ['/fr', 'Mars 2027'],
    ['/fr/month/2027-05', 'Mai 2027'],
    ['/fr/list', 'À partir du 17 mars 2027'],
    ['/fr/list?words=choir', 'À partir du 17 mars 2027'],
    ['/fr/map', '17–23 mars 2027'],
    ['/fr/day/2027-03-20', 'Samedi 20 mars 2027'],
    ['/fr/what/harbour-choir', 'Le chœur du port'],
    ['/fr/what/harbour-choir/2027-03-23', 'Le chœur du port'],
    ['/fr/what/seed-swap', 'Seed Swap'],
    ['/fr/at/net-loft', 'Net Loft'],
    ['/fr/by/harbour-choir', 'Harbour Choir'],
    ['/fr/subscribe', 'Ces dates dans votre calendrier'],
    ['/fr/add', 'Proposer un événement'],
  ] as const) {
    const response = await page.goto(path);
    expect(response?.status(), path).toBe(200);
    await expect(page.locator('html'), path).toHaveAttribute('lang', 'fr-CA');
    await expect(page.getByRole('heading', { level: 1 }), path).toHaveText(heading);
    expect((await page.locator('header, main, footer').allTextContents()).join(' '), path).not.toMatch(ENGLISH);
    // Readers stay in their language: only the Desk and the other language are elsewhere.
    const links = await page.locator('a[href^="/"]').evaluateAll((all) => all.map((a) => a.getAttribute('href') ?? ''));
    const english = (await page.getByRole('link', { name: 'English', exact: true }).getAttribute('href')) ?? '';
    expect(
      links.filter((href) => !/^\/fr(\/|$|\?)/.test(href) && href !== '/desk' && href !== english && !href.startsWith('/picture/')),
      path,
    ).toEqual([]);
    expect(english, path).toBe(path.replace(/^\/fr/, '') || '/');
    if (['/fr/month/2027-05', '/fr/what/harbour-choir', '/fr/add'].includes(path)) await expectAccessible(page, path);
  }
  // The chart says in the reader's language what is only heard, its own buttons too.
  await page.goto('/fr/map');
  await expect(page.getByRole('region', { name: 'Carte mobile' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Rapprocher' })).toBeVisible();
  const heard = await page.locator('.chart [aria-label]').evaluateAll((all) => all.map((one) => one.getAttribute('aria-label') ?? ''));
  expect(heard.length).toBeGreaterThan(5);
  expect(heard.filter((label) => /\b(dates?|places|marker|map|zoom|movable|press)\b/i.test(label.replace(/: \d+ dates?$/, '')))).toEqual(
    [],
  );
  await page.goto('/fr/what/harbour-choir');
  await expect(page.locator('[data-part="sentence"]')).toContainText('Tous les mardis, 19\u00a0h–21\u00a0h, à partir du 21 juillet 2026');
  await page.getByRole('link', { name: 'English', exact: true }).click();
  await expect(page.locator('[data-part="sentence"]')).toContainText('Every Tuesday, 19:00–21:00, from 21 July 2026');
  await page.getByRole('link', { name: 'Français', exact: true }).click();
  await expect(page).toHaveURL(/\/fr\/what\/harbour-choir$/);
});

test('search engines are told of both, and each has an address of its own', async ({ request, baseURL }) => {
  for (const path of ['/fr/what/harbour-choir', '/what/harbour-choir']) {
    const html = await (await request.get(path)).text();
    expect(html).toContain(`<link rel="canonical" href="${baseURL}${path}"`);
    expect(html).toContain(`hreflang="en" href="${baseURL}/what/harbour-choir"`);
    expect(html).toContain(`hreflang="fr-CA" href="${baseURL}/fr/what/harbour-choir"`);
  }
  expect(await (await request.get('/sitemap.xml')).text()).toContain(`<loc>${baseURL}/fr/what/harbour-choir</loc>`);
  expect(await (await request.get('/fr/feed.ics')).text()).toMatch(/URL[^\r\n]*:http[^\r\n]*\/fr\/w/);
  const [english, french] = [await request.get('/list'), await request.get('/fr/list')];
  const tag = french.headers().etag ?? '';
  expect(tag).not.toBe(english.headers().etag);
  expect((await request.get('/fr/list', { headers: { 'if-none-match': tag } })).status()).toBe(304);
});

test('what has no French is not there: the Desk, interfaces, unknown pages', async ({ page, request }) => {
  const beyond = ['/fr/list/..%2fdesk', '/fr/what/..%2f..%2fapi%2fv1%2flistings', '/fr//desk'];
  for (const path of ['/fr/desk', '/fr/api/v1/listings', '/fr/desk/sign-in', '/fr/fr', '/fr/empty', ...beyond])
    expect((await request.get(path, { maxRedirects: 0 })).status(), path).toBe(404);
  // What is refused before any page runs is said in French too.
  const foreign = await request.post('/fr/add', { headers: { origin: 'https://elsewhere.example' }, form: { title: 'x' } });
  expect([foreign.status(), await foreign.text()]).toEqual([403, expect.stringContaining('Cela n’a pas fonctionné')]);
  expect(await foreign.text()).toContain('Cet envoi venait d’un autre site et a été refusé.');
  const lost = await page.goto('/fr/what/harbour-quire');
  expect(lost?.status()).toBe(404);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Page introuvable');
});

test('an event is sent in French, without a script; what is wrong, the receipt and the mails are in French too', async ({
  browser,
  request,
  baseURL,
}) => {
  const page = await (await browser.newContext({ javaScriptEnabled: false, baseURL, viewport: { width: 360, height: 740 } })).newPage();
  await page.goto('/fr/add');
  await expectNoSidewaysScroll(page);
  await page.getByLabel('Comment s’appelle-t-il?').fill('Veillée des phares');
  await page.getByLabel('Votre nom').fill('Rue Dunlin');
  await page.getByLabel('Votre adresse courriel').fill('rue');
  await page.getByLabel('Jour', { exact: true }).fill('2027-04-23');
  await page.getByLabel('Début').fill('dix-neuf');
  // The browser's own check of the address is not what is tested here.
  await page.locator('form.form').evaluate((form) => form.setAttribute('novalidate', ''));
  await page.getByRole('button', { name: 'Envoyer' }).click();
  await expect(page.getByRole('alert')).toHaveText('Veuillez revoir 2 champs; chacun dit ce qu’il faut.');
  await expect(page.locator('#starts-wrong')).toHaveText('Une heure s’écrit 19:30, 19h30 ou 9.');
  await page.getByLabel('Votre adresse courriel').fill('rue@dunlin.example');
  await page.getByLabel('Début').fill('19h30');
  await page.getByRole('button', { name: 'Envoyer' }).click();
  await page.waitForURL(/\/fr\/receipt\//, { timeout: 20_000 });
  await expect(page.locator('[data-state="waiting"]')).toContainText('Reçu. En attente de vérification.');
  await expect(page.locator('[data-steps]')).toContainText('mercredi 17 mars 2027, 9\u00a0h Vous l’avez envoyé');
  const receipt = page.url();

  const ivo = await pageOf(browser, request, 'ivo', { baseURL });
  await ivo.goto('/desk/intake');
  await ivo.locator('.pile').getByText('Veillée des phares').click();
  await ivo.getByRole('button', { name: /^Publish/ }).click();
  await expect(async () => {
    await page.goto(receipt);
    await expect(page.locator('[data-state]')).toContainText('Publié.');
  }).toPass();
  await page.getByRole('link', { name: /^Le voir sur/ }).click();
  await expect(page).toHaveURL(/\/fr\/what\/veillee-des-phares$/);
  await expect(page.locator('[data-part="sentence"]')).toContainText('Vendredi 23 avril 2027, 19\u00a0h\u00a030');

  const maud = await pageOf(browser, request, 'maud', { baseURL });
  await maud.goto('/desk/mail');
  await expect(maud.getByText('Reçu : Veillée des phares').first()).toBeVisible();
  await expect(maud.getByText('Publié : Veillée des phares').first()).toBeVisible();
  await expect(maud.locator('body')).toContainText('/fr/receipt/');
});

test('an editor writes a listing in French; readers of each language have theirs, and find it by its words', async ({ page }) => {
  await signIn(page, 'ivo');
  await page.goto('/desk/listings?words=Seed+Swap');
  await page.getByRole('link', { name: 'Seed Swap', exact: true }).first().click();
  await page.locator('[data-part="translation"] summary').click();
  await page.getByLabel('Title in French', { exact: true }).fill('Troc de graines');
  await page.getByLabel('Summary in French').fill('Apportez-en deux sachets.');
  await page.getByRole('button', { name: /^Publish changes/ }).click();
  await expect(page.locator('[data-note]')).toContainText('Published.');
  await page.goto('/fr/list?words=graines');
  await expect(page.locator('[data-part="ledger"]')).toContainText('Troc de graines');
  await expect(page.locator('[data-part="ledger"]')).toContainText('Apportez-en deux sachets.');
  await page.goto('/list?words=graines');
  await expect(page.locator('[data-part="ledger"]')).toContainText('Seed Swap');
  await page.goto('/fr/what/seed-swap');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Troc de graines');
  await expect(page).toHaveTitle(/^Troc de graines/);
});

test('without a second language there is no French, and no link to it', async ({ page }) => {
  await signIn(page, 'maud');
  await openSetting(page, 'secondLanguage');
  await page.getByLabel('Second language for readers').selectOption('None');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.locator('body')).toContainText('Saved.');
  expect((await page.goto('/fr/list'))?.status()).toBe(404);
  await page.goto('/list');
  await expect(page.getByRole('link', { name: 'Français' })).toHaveCount(0);
  expect(await page.content()).not.toContain('hreflang');
});
