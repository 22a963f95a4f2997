/** What journeys share: signing in, axe, a scroll check. */
import AxeBuilder from '@axe-core/playwright';
import { type APIRequestContext, type Browser, expect, type Page } from '@playwright/test';
import { SIGN_INS } from '../../demo/people';
import { sessions } from './site';

export type Who = 'maud' | 'ivo' | 'nan';

const signInOf = (who: Who) => SIGN_INS.find((s) => s.email.startsWith(who)) ?? SIGN_INS[0];

export async function signIn(page: Page, who: Who): Promise<void> {
  const { email, password } = signInOf(who);
  await page.goto('/desk/sign-in');
  await page.getByLabel('Mail address').fill(email);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.waitForURL('**/desk/today');
}

/** The cookie of a role, signed in once a site: tries are bounded. */
export async function cookieOf(request: APIRequestContext, who: Who): Promise<string> {
  const known = sessions.get(who);
  if (known) return known;
  const { email, password } = signInOf(who);
  const response = await request.post('/desk/sign-in', { form: { email, password }, maxRedirects: 0 });
  expect(response.status()).toBe(303);
  const cookie = response
    .headersArray()
    .filter((h) => h.name.toLowerCase() === 'set-cookie')
    .map((h) => h.value.split(';')[0])
    .join('; ');
  sessions.set(who, cookie);
  return cookie;
}

/** A page that is signed in with the run's cookie. */
export async function pageOf(
  browser: Browser,
  request: APIRequestContext,
  who: Who,
  options: { width?: number; height?: number; baseURL: string | undefined },
): Promise<Page> {
  const context = await browser.newContext({
    viewport: { width: options.width ?? 1280, height: options.height ?? 800 },
    baseURL: options.baseURL,
  });
  const cookie = await cookieOf(request, who);
  await context.addCookies(
    cookie.split('; ').map((c) => ({ name: c.slice(0, c.indexOf('=')), value: c.slice(c.indexOf('=') + 1), url: options.baseURL ?? '' })),
  );
  return context.newPage();
}

/** The editor says that what was pressed is done. */
export const saved = (page: Page, text: RegExp): Promise<void> => expect(page.locator('[data-note]')).toContainText(text);

/** The editor on a listing that is begun: its title, and when it is if that is said. */
export async function newListing(page: Page, title: string, when?: string): Promise<void> {
  await page.goto('/desk/listings/new');
  await page.getByLabel('Title', { exact: true }).fill(title);
  if (when) await page.getByLabel('In words').fill(when);
}

/** The section of the settings that has this one, by the link on their first page. */
export async function openSetting(page: Page, name: string): Promise<void> {
  await page.goto('/desk/set-up');
  await page.locator(`main a[href$="#${name}"]`).click();
  await page.waitForURL(/\/desk\/set-up\/\w+#/);
}

/** Chooses from a list of the settings that is found in by typing. */
export async function chooseSetting(page: Page, label: string, typed: string, option: RegExp | string): Promise<void> {
  // Once its scripts run: before, it is a plain list.
  await page.getByRole('combobox', { name: label }).and(page.locator('input')).fill(typed);
  await page.getByRole('option', { name: option }).click();
}

export async function expectAccessible(page: Page, what: string): Promise<void> {
  // Places on the chart stand where they are and may touch (WCAG 2.5.8 names this exception); the list beside has them all.
  // All frames are of the site itself, so one pass in the page reaches them; what passed is not described, which takes most of the time.
  const { violations } = await new AxeBuilder({ page })
    .exclude('button.place')
    .options({ resultTypes: ['violations'] })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
    .setLegacyMode(true)
    .analyze();
  const serious = violations.filter((v) => v.impact === 'serious' || v.impact === 'critical');
  expect(
    serious.map((v) => `${v.id}: ${v.nodes[0]?.html} (${v.nodes.length})`),
    what,
  ).toEqual([]);
}

export async function expectNoSidewaysScroll(page: Page): Promise<void> {
  const over = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
  expect(over, `${page.url()} scrolls sideways`).toBeLessThanOrEqual(0);
}

/** Fills the form for an event in June and sends it. */
export async function sendEvent(page: Page, title: string): Promise<void> {
  await page.getByLabel('What is it called?').fill(title);
  await page.getByLabel('Day', { exact: true }).fill('2027-06-20');
  await page.getByLabel('Starts').fill('2pm');
  await page.getByLabel('Ends').fill('16:00');
  await page.getByLabel('Where').fill('causeway slip');
  await page.getByLabel('Your name').fill('Edda Tern');
  await page.getByLabel('Your mail address').fill('edda@isles.example');
  await page.getByRole('button', { name: 'Send it' }).click();
  await page.waitForURL(/\/receipt\//);
}
