/** What happens to every request: who asks, may they, is their copy still good, and the headers that guard readers. */
import { isKept } from '@/server/http/etag';
import { finished } from '@/server/http/finished';
import { responseOf } from '@/server/http/kept-pages';
import { metricsOf, pagesOf } from '@/server/http/metrics';
import { type CopyOf, copyOf } from '@/server/plain-files/ask';
import { isOpenData, openToAll } from '@/server/http/open-data';
import { bodyUnder, headersUnder } from '@/server/http/under-path';
import { createHash } from 'node:crypto';
import type { APIContext } from 'astro';
import { defineMiddleware } from 'astro:middleware';
import { isoDay } from './core/day/day';
import { readTileService } from './core/geo/tile-service';
import { LANGUAGE_TAGS, type Language } from './core/phrase/language';
import { ADDRESS_HEADER } from './server/accounts/auth';
import { readerOf } from './components/reader';
import type { Actor, Role } from './server/accounts/roles';
import { CHANGES_NOTHING, mayUse, methodsOf, whoMay } from './server/http/access';
import { checkAddress } from './server/http/form-body';
import { explain } from './server/explain';
import { comeBack, problemResponse, statusOf } from './server/http/problem';
import { Problem, problemIn, sayIn } from './server/problem';
import { withRequestId } from './server/health/request-id';
import { runtime } from './server/runtime';
import { clientWords } from './words/desk';
import { SENDING_WORDS } from './words/sending';
import type { Runtime } from './server/runtime-type';
import { styleOf } from './server/site/settings';

/** Bodies of pages and endpoints; pictures have their own limit (src/pages/api/v1/pictures). */
const MAX_BODY = 1024 * 1024;
const MAX_UPLOAD = 22 * 1024 * 1024;
const BUILD = import.meta.env.BUILD_ID ?? String(Date.now());
/** Methods that change nothing (RFC 9110 9.2.1). */
const READS = ['GET', 'HEAD'];
const SAFE = [...READS, 'OPTIONS'];
/** Pages whose content depends on more than the content's revision and the day, and pictures, which say themselves how long they keep. */
const NOT_KEPT = /^\/(fr\/)?(desk|api(?!\/open\/)|first-visit|add|receipt|empty|picture|base|streets|healthz|readyz|herez|metrics)(\/|$)/;

/** Developers' pages are reloaded by scripts of their own. */
const INLINE_SCRIPTS = import.meta.env.DEV ? "'unsafe-inline'" : (import.meta.env.INLINE_SCRIPTS as string);

const FRENCH = /^\/fr(?=\/|$)/;

export const onRequest = defineMiddleware((context, next) => withRequestId((id) => answered(context, next, id)));

async function answered(context: APIContext, next: () => Promise<Response>, id: string): Promise<Response> {
  // A page that is handed on to another one is one request.
  const outermost = !context.locals.handedOn;
  const began = performance.now();
  let response = await handle(context, next).catch((error: unknown) => answerError(context, error));
  const { rt } = context.locals;
  if (outermost && response.status === 404) response = (await leadOn(context)) ?? response;
  if (outermost) {
    const path = pathOf(context.locals);
    if (!context.locals.placed) response = await bodyUnder(path, response);
    headersUnder(path, response.headers);
  }
  response.headers.set('x-request-id', id);
  if (isOpenData(context.url.pathname)) openToAll(response.headers);
  if (rt && outermost)
    metricsOf(rt).answered(context.routePattern, context.request.method, response.status, (performance.now() - began) / 1000);
  return response;
}

/** An address of a former site, of which this one has no page, leads on; a copy in plain files is asked for pages alone. */
async function leadOn({ request, url, locals: { rt, plain } }: APIContext): Promise<Response | undefined> {
  if (!rt || plain || !READS.includes(request.method) || url.pathname.startsWith('/api/')) return undefined;
  const to = await rt.oldAddresses.leadOn(url).catch(() => undefined);
  if (to === undefined) return undefined;
  // A table may be mended: nobody keeps it longer than a day.
  const headers = new Headers({ location: to, 'cache-control': 'public, max-age=86400' });
  guard(headers, rt.siteUrl().startsWith('https:'));
  return new Response(null, { status: 301, headers });
}

/** Below which path of its host the site's addresses lead; a copy's are led where it lies when it is written. */
const pathOf = ({ rt, plain }: App.Locals): string => (plain ? '' : (rt?.addresses.path ?? ''));

async function handle(context: APIContext, next: () => Promise<Response>): Promise<Response> {
  const { request, url, locals } = context;
  checkAddress(url);
  const who = whoMay(context.routePattern);
  if (who === undefined) throw new Problem('missing', 'Page not found.');
  locals.plain = copyOf(request.headers, locals.operator);
  locals.alone = locals.plain !== undefined && locals.plain.server === undefined;
  const rt = calledHere(await runtime(), request.headers, locals.plain);
  locals.rt = rt;
  if (await waitsForSetUp(context, rt)) return notSetUp();
  locals.settings = rt.settings();
  // Asked once: a page in French is the English one, handed on.
  locals.language ??= locals.settings.secondLanguage === 'fr' && FRENCH.test(url.pathname) ? 'fr' : 'en';
  const { language } = locals;
  locals.path ??= url.pathname.replace(FRENCH, '') || '/';
  locals.reader = readerOf(language);
  locals.style = styleOf(locals.settings, language);
  locals.now = rt.now();
  const differs = differsOnPhones(locals);
  locals.phone ??= isPhone(request.headers, differs);
  const unsafe = !SAFE.includes(request.method);
  if (unsafe) refuseChange(context, rt);
  if (!locals.operator) request.headers.set(ADDRESS_HEADER, locals.address ?? context.clientAddress);
  locals.actor = await actorOf(request, rt);
  if (!mayUse(who, locals.actor, locals.operator === true)) return refuse(context, who);
  const methods = methodsOf(context.routePattern);
  if (!methods.includes(request.method)) return wrongMethod(methods);
  // A page that is handed on to another one is kept once, as whoever asks gets it.
  const outermost = !locals.handedOn;
  locals.handedOn = true;
  const keepable = outermost && !locals.plain && READS.includes(request.method) && locals.actor === null && !NOT_KEPT.test(url.pathname);
  const etag = keepable ? etagOf(url, rt, language, locals.phone) : undefined;
  if (etag && isKept(request.headers.get('if-none-match'), etag))
    return new Response(null, { status: 304, headers: keptHeaders(etag, differs) });
  const response = etag && request.method === 'GET' ? await kept(context, etag, next) : await finished(await next());
  if (unsafe && response.status < 400 && !locals.unchanged && !CHANGES_NOTHING.includes(context.routePattern)) await rt.contentChanged();
  if (etag && response.status === 200 && !response.headers.has('etag'))
    for (const [name, value] of Object.entries(keptHeaders(etag))) response.headers.set(name, value);
  else if (!response.headers.has('cache-control')) response.headers.set('cache-control', 'private, no-store');
  guard(varyOnPhones(response.headers, differs), rt.siteUrl().startsWith('https:'), mapHost(url.pathname, rt));
  return response;
}

/** The one other host that a page may ask: that of the map, where the site has one from elsewhere. The Desk asks nobody. */
function mapHost(path: string, rt: Runtime): string {
  const { tileService } = rt.settings();
  return tileService && !path.startsWith('/desk') ? (readTileService(tileService)?.origin ?? '') : '';
}

/** What answers while nobody has begun with the site: setting it up, and what watches over the process. */
const BEFORE_SET_UP = /^\/(first-visit|healthz|readyz|metrics)\/?$/;

const waitsForSetUp = async ({ url, locals }: APIContext, rt: Runtime): Promise<boolean> =>
  !locals.operator && !BEFORE_SET_UP.test(url.pathname) && !(await rt.isSetUp());

/** One sentence, without a word of what there is. */
function notSetUp(): Response {
  const text = clientWords.notSetUp.sentence();
  const body = `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${text}</title><style>body{font:16px/1.5 system-ui;max-width:36rem;margin:4rem auto;padding:0 1rem}</style><p>${text}</p></html>`;
  const headers = new Headers({ 'content-type': 'text/html; charset=utf-8', 'cache-control': 'no-store' });
  guard(headers, false);
  return new Response(body, { status: 503, headers });
}

/** A page that is the same for everybody: as it was made for whoever asked first. */
async function kept({ request, url, locals }: APIContext, etag: string, next: () => Promise<Response>): Promise<Response> {
  const { rt } = locals;
  const make = async (): Promise<Response> => bodyUnder(pathOf(locals), await finished(await next()));
  const address = `${rt.siteUrl()}${url.pathname}${url.search}${locals.phone ? ' on a phone' : ''}`;
  const page = await pagesOf(rt).answer({ address, etag, make });
  locals.placed = true;
  const response = await responseOf(page, request.headers.get('accept-encoding'));
  // For a moment under load it may be the one before: then it says so by its own tag.
  if (response.status === 200) for (const [name, value] of Object.entries(keptHeaders(page.etag))) response.headers.set(name, value);
  return response;
}

/** What is asked of a page in a way that it does not answer. */
function wrongMethod(methods: readonly string[]): Response {
  return new Response(null, { status: 405, headers: { allow: methods.join(', '), 'cache-control': 'no-store' } });
}

/** The same page for everybody: its tag changes with the build, the settings, the content, what it is looked up in and the site's day. */
function etagOf(url: URL, rt: Runtime, language: Language, phone: boolean): string {
  const parts = [
    BUILD,
    language,
    rt.settingsRevision(),
    rt.seenRevision(),
    rt.finder.build,
    isoDay(rt.now().day),
    rt.siteUrl(),
    url.pathname,
    url.search,
    phone,
  ];
  // Weak, since one page goes out in several encodings.
  return `W/"${createHash('sha1').update(parts.join('\n')).digest('base64url')}"`;
}

const VARY = 'accept-encoding, cookie';
/** What a browser says of itself: a phone says so by a hint of its own, or by its name. */
const PHONE_HEADERS = 'sec-ch-ua-mobile, user-agent';
/** Is this the site's own address, where phones begin with another view? Every other page is one for everybody. */
const differsOnPhones = ({ path: at, settings: { firstView, firstViewPhone } }: App.Locals): boolean =>
  at === '/' && firstViewPhone !== '' && firstViewPhone !== firstView;

function varyOnPhones(headers: Headers, differs: boolean): Headers {
  if (differs) headers.append('vary', PHONE_HEADERS);
  return headers;
}

/** @param differs does it matter? */
function isPhone(headers: Headers, differs: boolean): boolean {
  if (!differs) return false;
  const hint = headers.get('sec-ch-ua-mobile');
  return hint ? hint === '?1' : /\bMobi/.test(headers.get('user-agent') ?? '');
}

function keptHeaders(etag: string, differs = false): Record<string, string> {
  return { etag, 'cache-control': 'public, max-age=0, must-revalidate', vary: differs ? `${VARY}, ${PHONE_HEADERS}` : VARY };
}

/** Headers that guard whoever reads; over https nothing goes back to http, and cookies go nowhere else. */
function guard(headers: Headers, secure: boolean, mapFrom = ''): void {
  headers.set('x-content-type-options', 'nosniff');
  headers.set('referrer-policy', 'same-origin');
  headers.set('x-frame-options', 'SAMEORIGIN');
  // A reader may say where they are, to this site alone and on a press.
  headers.set('permissions-policy', 'camera=(), microphone=(), geolocation=(self)');
  // Islands start from a few inline scripts, known by their hashes; everything that is loaded comes from this site.
  const from = mapFrom && ` ${mapFrom}`;
  const policy = `default-src 'self'; script-src 'self' ${INLINE_SCRIPTS}; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:${from}; worker-src 'self' blob:; connect-src 'self'${from}; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'self'`;
  headers.set('content-security-policy', policy);
  if (!secure) return;
  headers.set('strict-transport-security', 'max-age=31536000');
  const cookies = headers.getSetCookie();
  headers.delete('set-cookie');
  for (const cookie of cookies) headers.append('set-cookie', /;\s*secure/i.test(cookie) ? cookie : `${cookie}; Secure`);
}

/** A change is refused where it comes from elsewhere, and where there is no room for it. */
function refuseChange({ request, url, locals, routePattern }: APIContext, rt: Runtime): void {
  refuseForeign(request, url);
  if (!locals.operator && !CHANGES_NOTHING.includes(routePattern) && !rt.hasRoom()) throw problemIn('busy', (w) => w.wrong.full());
}

/** A change that another site's page sends in a visitor's name is refused, whatever its body looks like. */
function refuseForeign(request: Request, url: URL): void {
  const origin = request.headers.get('origin');
  const site = request.headers.get('sec-fetch-site');
  const foreign =
    origin !== null && (origin === 'null' || !URL.canParse(origin) || new URL(origin).host !== (request.headers.get('host') ?? url.host));
  if (foreign || site === 'cross-site') throw problemIn('refused', (w) => w.wrong.foreign());
  const length = Number(request.headers.get('content-length') ?? '0');
  const type = request.headers.get('content-type') ?? '';
  // A file, or a part of one.
  const upload = type.startsWith('multipart/form-data') || type === 'application/offset+octet-stream';
  if (length > (upload ? MAX_UPLOAD : MAX_BODY)) throw problemIn('too-large', (w) => (upload ? w.wrong.pictureLarge() : w.wrong.tooMuch()));
}

/** The site as this request reaches it: one of several names that are the site's own; for a copy by the copy's address, else its server's. */
function calledHere(rt: Runtime, headers: Headers, copy: CopyOf | undefined): Runtime {
  const own = copy ? (copy.url ?? copy.server ?? rt.siteUrl()) : rt.addresses.forRequest(headers);
  if (own === rt.siteUrl()) return rt;
  return { ...rt, siteUrl: () => own, settings: () => ({ ...rt.settings(), address: own }) };
}

async function actorOf(request: Request, rt: Runtime): Promise<Actor | null> {
  // Readers have no cookie: they cost no query.
  if (!request.headers.get('cookie')?.includes('almanac.')) return null;
  const found = await rt.auth.api.getSession({ headers: request.headers });
  const user = found?.user as { id: string; name: string; role: Role; active: boolean } | undefined;
  return user?.active ? { id: user.id, name: user.name, role: user.role } : null;
}

function refuse({ url, request, locals }: APIContext, who: unknown): Response {
  if (who === 'operator') return problemResponse(new Problem('missing', 'Page not found.'));
  const api = url.pathname.startsWith('/api/');
  if (!locals.actor) {
    if (api) return problemResponse(new Problem('signed-out', 'Your session has ended. Sign in again; what you typed is kept.'));
    if (request.method !== 'GET') return new Response(null, { status: 401 });
    return new Response(null, { status: 302, headers: { location: `/desk/sign-in?to=${encodeURIComponent(url.pathname + url.search)}` } });
  }
  const problem = new Problem('refused', `This is not open to you as ${locals.actor.role}.`);
  return api ? problemResponse(problem) : page(problem);
}

/** Errors of pages are a plain page of their own, which needs nothing that could fail. */
function page(problem: Problem, language: Language = 'en'): Response {
  const { words, to } = readerOf(language);
  const text = sayIn(problem, SENDING_WORDS[language]).title.replace(/[&<>]/g, (c) => `&#${c.charCodeAt(0)};`);
  const body = `<!doctype html><html lang="${LANGUAGE_TAGS[language]}"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${statusOf(problem)}</title><style>body{font:16px/1.5 system-ui;max-width:36rem;margin:4rem auto;padding:0 1rem}</style><h1>${words.lost.failed()}</h1><p>${text}</p><p><a href="${to('/')}">${words.site.home()}</a></p></html>`;
  return new Response(body, {
    status: statusOf(problem),
    headers: { 'content-type': 'text/html; charset=utf-8', 'cache-control': 'no-store', ...comeBack(problem) },
  });
}

async function answerError(context: APIContext, error: unknown): Promise<Response> {
  const problem = explain(error);
  const response = context.url.pathname.startsWith('/api/')
    ? problemResponse(problem)
    : problem.kind === 'missing'
      ? await lost(context)
      : page(problem, context.locals.language);
  guard(response.headers, context.locals.rt?.siteUrl().startsWith('https:') ?? false);
  return response;
}

async function lost(context: APIContext): Promise<Response> {
  try {
    return await context.rewrite('/404');
  } catch {
    return page(new Problem('missing', 'Page not found.'));
  }
}
