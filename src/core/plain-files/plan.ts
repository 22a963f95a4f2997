/**
 * What a copy of the public site in plain files has. Every link of a page is asked here: it leads to a file of the copy, to a page that
 * only the site's own server can answer (a search, a form), or to a time that the copy does not reach.
 */
import { type EpochDay, parseIsoDay, parseIsoMonth, type Weekday } from '../day/day';
import { isViewName, readViewAddress, type ViewName, viewLast, viewPath } from '../views/views';

/** What a copy is made of. */
export interface CopyPlan {
  /** the site's day */
  today: EpochDay;
  firstWeekday: Weekday;
  /** those that have a tab */
  views: readonly ViewName[];
  /** paths begin with these in languages other than the site's own: `fr` */
  languages: readonly string[];
  /** views reach from and to these days; dates outside have no page of their own but their listing's */
  span: { from: EpochDay; to: EpochDay };
}

/** A page or file of the copy: where the site has it, and under which name the copy does, from its root, without encoding. */
export interface CopyFile {
  address: string;
  file: string;
}

/** Where a link of the site leads in its copy. */
export type Target = CopyFile | 'server' | 'beyond';

/** A page's path without its language, and the one part of its query that a copy keeps. */
interface Page {
  path: string;
  part?: [name: string, value: string] | undefined;
}

const FEEDS = /^\/(feed\.(ics|rss|atom|json)|dates\.(csv|geojson))$/;
/** One of these makes a file of a feed, or a list. */
const FEED_PARTS = ['kind', 'tag', 'venue', 'by'];
const LIST_PARTS = ['kind', 'tag'];
/** Pages and files that are as they are, whatever is asked of them. */
const WHOLE =
  /^\/(subscribe|at|by|tags|site\.webmanifest|robots\.txt|sitemap\.xml|sitemap\/\d+\.xml|chart\.json|card\.png|mark[\w.-]*|_astro\/[\w.@-]+|picture\/[\w-]+\/[\w-]+(\/[\w.-]+)?)$/;
/** What becomes part of a file's name, whoever wrote the link: nothing that a disk or a web server reads otherwise. */
const NAMEABLE = /^[\p{L}\p{N}_][\p{L}\p{N}._@-]{0,199}$/u;

/** Where an address of the site (`/list/2027-03-17?kind=music`) leads in a copy. */
export function targetOf(address: string, plan: CopyPlan): Target {
  const url = new URL(address, 'http://copy.invalid');
  const [first = '', ...others] = url.pathname.slice(1).replace(/\/$/, '').split('/');
  if (first && ![first, ...others].every(isNameable)) return 'server';
  const language = plan.languages.includes(first) ? `/${first}` : '';
  const path = url.pathname.slice(language.length).replace(/\/$/, '') || '/';
  const page = pageOf(path, [...url.searchParams], plan);
  if (typeof page === 'string') return page;
  const { part } = page;
  if (part && !NAMEABLE.test(part[1])) return 'server';
  const within = language + (page.path === '/' ? '' : page.path);
  return { address: (within || '/') + (part ? `?${new URLSearchParams([part])}` : ''), file: fileOf(within, part) };
}

function isNameable(encoded: string): boolean {
  try {
    return NAMEABLE.test(decodeURIComponent(encoded));
  } catch {
    return false;
  }
}

/** The name of a page's file: a folder's own page for what has no ending, so that its address stays what it was. */
function fileOf(path: string, part: Page['part']): string {
  const plain = decodeURIComponent(path).slice(1);
  const ending = /\.[a-z0-9]+$/.exec(plain)?.[0];
  const chosen = part?.join('=');
  if (ending) return chosen ? `${plain.slice(0, -ending.length)}/${chosen}${ending}` : plain;
  return [plain, chosen, 'index.html'].filter(Boolean).join('/');
}

function pageOf(path: string, query: readonly [string, string][], plan: CopyPlan): Page | 'server' | 'beyond' {
  const [name = '', at, more, ...rest] = path.slice(1).split('/');
  const [part, second] = query;
  if (path === '/' && !part) return { path };
  if (isViewName(name) && more === undefined) return second ? 'server' : viewPage(name, at, part, plan);
  if (name === 'what' && at !== undefined && !second) return eventPage(at, [more, ...rest], part, plan);
  if (FEEDS.test(path)) return second ? 'server' : withPart(path, part, FEED_PARTS);
  if ((name === 'at' || name === 'by') && at !== undefined && more === undefined)
    return second || (part && !(part[0] === 'page' && /^[1-9]\d{0,3}$/.test(part[1]))) ? 'server' : { path, part };
  return WHOLE.test(path) && !part ? { path } : 'server';
}

const withPart = (path: string, part: Page['part'], names: readonly string[]): Page | 'server' =>
  part && !names.includes(part[0]) ? 'server' : { path, part };

/** A view at a time. What another view shows as well leads there. */
function viewPage(view: ViewName, at: string | undefined, part: Page['part'], plan: CopyPlan): Page | 'server' | 'beyond' {
  const { today, firstWeekday, span, views } = plan;
  const read = readViewAddress({ view, at, today, firstWeekday });
  if (!read) return 'server';
  const path = at === undefined ? `/${view}` : viewPath(view, read.day, firstWeekday);
  if (part?.[0] === 'day') {
    const day = parseIsoDay(part[1]);
    if (day === undefined) return 'server';
    return views.includes('day') ? viewPage('day', part[1], undefined, plan) : viewPage(view, at, undefined, plan);
  }
  if (view === 'day' && part?.[0] === 'as') return views.includes('list') ? viewPage('list', at, undefined, plan) : 'server';
  if (at !== undefined && (read.day > span.to || viewLast(view, read.day, firstWeekday) < span.from)) return 'beyond';
  const own = { list: LIST_PARTS, week: ['days'], year: ['as'], 'half-year': ['as'] }[view as string] ?? [];
  return withPart(path, part, own);
}

/** A listing, one of its dates, or their files for a calendar. */
function eventPage(slug: string, [date, file, ...rest]: (string | undefined)[], part: Page['part'], { span }: CopyPlan): Page | 'server' {
  const listing = `/what/${slug}`;
  if (rest.length || date === 'tell') return 'server';
  if (date === 'dates.ics' && !file && !part) return { path: `${listing}/dates.ics` };
  const day = date === undefined ? undefined : (parseIsoDay(date.slice(0, 10)) ?? span.from);
  const outside = day !== undefined && (day < span.from || day > span.to);
  // Other dates of a date's listing stand on the listing's own page.
  if (part) return part[0] === 'from' && parseIsoMonth(part[1]) !== undefined && !file ? { path: listing, part } : 'server';
  if (date === undefined || (outside && !file)) return { path: listing };
  if (outside || (file !== undefined && file !== 'date.ics')) return 'server';
  return { path: [listing, date, ...(file ? [file] : [])].join('/') };
}
