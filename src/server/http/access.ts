/**
 * Who may use which route: one table, asked by the middleware before anything runs. A route that is not in it is
 * refused to everybody, and a test walks all files of src/pages to find such routes.
 */
import type { Actor, Role } from '../accounts/roles';

/** anyone = readers too; operator = the command line, through the socket in the data folder. */
export type Who = 'anyone' | 'operator' | readonly Role[];

const TEAM: Who = ['coordinator', 'editor', 'contributor'];
const EDITORS: Who = ['coordinator', 'editor'];
const COORDINATORS: Who = ['coordinator'];

/** Who may use each route, by its pattern. */
export const ACCESS: Record<string, Who> = {
  '/': 'anyone',
  '/404': 'anyone',
  '/fr/[...path]': 'anyone',
  '/[view]': 'anyone',
  '/[view]/[at]': 'anyone',
  '/go': 'anyone',
  '/what/[listing]': 'anyone',
  '/what/[listing]/[date]': 'anyone',
  '/what/[listing]/dates.ics': 'anyone',
  '/what/[listing]/tell': 'anyone',
  '/what/[listing]/[date]/date.ics': 'anyone',
  '/at': 'anyone',
  '/at/[venue]': 'anyone',
  '/by': 'anyone',
  '/tags': 'anyone',
  '/by/[organizer]': 'anyone',
  '/add': 'anyone',
  '/receipt/[token]': 'anyone',
  '/subscribe': 'anyone',
  '/feed.ics': 'anyone',
  '/feed.rss': 'anyone',
  '/feed.atom': 'anyone',
  '/feed.json': 'anyone',
  '/dates.geojson': 'anyone',
  '/dates.csv': 'anyone',
  '/sitemap.xml': 'anyone',
  '/sitemap/[part].xml': 'anyone',
  '/robots.txt': 'anyone',
  '/site.webmanifest': 'anyone',
  // Asks itself: whoever has the key of a site that nobody has begun with.
  '/first-visit': 'anyone',
  '/healthz': 'anyone',
  '/readyz': 'anyone',
  '/herez': 'anyone',
  // Asks itself: this machine, or the operator's token.
  '/metrics': 'anyone',
  '/chart.json': 'anyone',
  '/base/[version]/[z]/[x]/[y]': 'anyone',
  '/streets/[version]/[z]/[x]/[y]': 'anyone',
  '/picture/[id]/[width]': 'anyone',
  '/picture/[id]/[version]/[file]': 'anyone',
  '/empty': 'anyone',
  '/data': 'anyone',
  '/api/open/v1': 'anyone',
  '/api/open/v1/openapi.json': 'anyone',
  '/api/open/v1/[collection]': 'anyone',
  '/api/open/v1/[collection]/[slug]': 'anyone',
  '/api/auth/[...all]': 'anyone',
  '/desk/sign-in': 'anyone',
  '/desk/forgotten': 'anyone',
  '/desk/new-password': 'anyone',
  '/desk/invitation/[token]': 'anyone',
  '/desk': TEAM,
  '/desk/sign-out': TEAM,
  '/desk/today': TEAM,
  '/desk/listings': TEAM,
  '/desk/listings/new': TEAM,
  '/desk/entry': TEAM,
  '/desk/empty': TEAM,
  '/desk/views/[view]': TEAM,
  '/desk/listings/[id]': TEAM,
  '/desk/listings/[id]/preview': TEAM,
  '/desk/listings/[id]/preview-page': TEAM,
  '/desk/listings/[id]/versions': TEAM,
  '/desk/month/[month]': TEAM,
  '/desk/half-year/[month]': TEAM,
  '/desk/export/[file]': TEAM,
  '/desk/pictures': TEAM,
  '/desk/pictures/[id]': TEAM,
  '/desk/proof': EDITORS,
  '/desk/intake': EDITORS,
  '/desk/remarks': EDITORS,
  '/desk/intake/[id]': EDITORS,
  '/desk/bring-in': EDITORS,
  '/desk/bring-in/[id]': EDITORS,
  '/desk/venues': EDITORS,
  '/desk/venues/[id]': EDITORS,
  '/desk/organizers': EDITORS,
  '/desk/organizers/[id]': EDITORS,
  '/desk/tags': EDITORS,
  '/desk/undo': EDITORS,
  '/desk/categories': EDITORS,
  '/desk/categories/[id]': EDITORS,
  '/desk/people': COORDINATORS,
  '/desk/mail': COORDINATORS,
  '/desk/set-up': COORDINATORS,
  '/desk/set-up/days': COORDINATORS,
  '/desk/set-up/[section]': COORDINATORS,
  '/desk/health': COORDINATORS,
  '/desk/plain-files': COORDINATORS,
  '/desk/first-steps': COORDINATORS,
  '/api/v1/listings': TEAM,
  '/api/v1/listings/[id]': TEAM,
  '/api/v1/listings/[id]/[action]': TEAM,
  '/api/v1/listings/[id]/proof': TEAM,
  '/api/v1/listings/[id]/merge': TEAM,
  '/api/v1/listings/[id]/copy': TEAM,
  '/api/v1/edits/[key]': TEAM,
  '/api/v1/listings/[id]/row': TEAM,
  '/api/v1/entry': TEAM,
  '/api/v1/bulk': TEAM,
  '/api/v1/bulk/plan': TEAM,
  '/api/v1/proof': TEAM,
  '/api/v1/go': TEAM,
  '/api/v1/bookings': TEAM,
  '/api/v1/dates': TEAM,
  '/api/v1/jobs/[id]': TEAM,
  '/api/v1/pictures': TEAM,
  '/api/v1/pictures/[id]': TEAM,
  '/api/v1/pictures/[id]/file': TEAM,
  '/api/v1/gazetteer': EDITORS,
  '/api/v1/streets': EDITORS,
  '/api/v1/tags': TEAM,
  '/api/v1/categories': EDITORS,
  '/api/v1/categories/order': EDITORS,
  '/api/v1/venues': EDITORS,
  '/api/v1/organizers': EDITORS,
  '/api/v1/intake/[id]/[decision]': EDITORS,
  '/api/v1/uploads/[...id]': COORDINATORS,
  '/api/v1/uploads/[id]/take': COORDINATORS,
  '/api/operator/[command]': 'operator',
};

const READ = ['GET', 'HEAD'] as const;
const FORM = ['GET', 'HEAD', 'POST'] as const;

/** Which methods a route answers, where that is not reading alone. A test compares these with what the files export and the forms that they hold. */
export const METHODS: Record<string, readonly string[]> = {
  ...Object.fromEntries(
    [
      // A page in French is the English one, handed on: that one is asked again.
      '/fr/[...path]',
      '/add',
      '/first-visit',
      '/receipt/[token]',
      '/what/[listing]/tell',
      '/desk/sign-in',
      '/desk/forgotten',
      '/desk/new-password',
      '/desk/invitation/[token]',
      '/desk/listings',
      '/desk/listings/[id]/versions',
      '/desk/pictures/[id]',
      '/desk/proof',
      '/desk/plain-files',
      '/desk/first-steps',
      '/desk/bring-in',
      '/desk/bring-in/[id]',
      '/desk/venues/[id]',
      '/desk/organizers/[id]',
      '/desk/tags',
      '/desk/remarks',
      '/desk/categories/[id]',
      '/desk/people',
      '/desk/set-up/days',
      '/desk/set-up/[section]',
      '/desk/health',
      '/api/v1/pictures',
    ].map((route) => [route, FORM]),
  ),
  ...Object.fromEntries(
    [
      '/api/auth/[...all]',
      '/desk/sign-out',
      '/desk/undo',
      '/api/operator/[command]',
      '/api/v1/listings',
      '/api/v1/listings/[id]/[action]',
      '/api/v1/listings/[id]/proof',
      '/api/v1/listings/[id]/merge',
      '/api/v1/listings/[id]/copy',
      '/api/v1/listings/[id]/row',
      '/api/v1/entry',
      '/api/v1/bulk',
      '/api/v1/bulk/plan',
      '/api/v1/proof',
      '/api/v1/pictures/[id]/file',
      '/api/v1/tags',
      '/api/v1/categories',
      '/api/v1/venues',
      '/api/v1/organizers',
      '/api/v1/intake/[id]/[decision]',
      '/api/v1/uploads/[id]/take',
    ].map((route) => [route, ['POST']]),
  ),
  ...Object.fromEntries(['/api/v1/edits/[key]', '/api/v1/pictures/[id]', '/api/v1/categories/order'].map((route) => [route, ['PUT']])),
  '/api/v1/listings/[id]': ['GET', 'HEAD', 'PUT'],
  '/api/v1/uploads/[...id]': ['POST', 'HEAD', 'PATCH', 'DELETE'],
  // Browsers ask before they ask.
  ...Object.fromEntries(
    ['/api/open/v1', '/api/open/v1/openapi.json', '/api/open/v1/[collection]', '/api/open/v1/[collection]/[slug]'].map((route) => [
      route,
      ['GET', 'HEAD', 'OPTIONS'],
    ]),
  ),
};

/** The methods that a route answers, by its pattern. */
export function methodsOf(pattern: string): readonly string[] {
  return Object.hasOwn(METHODS, pattern) ? (METHODS[pattern] ?? READ) : READ;
}

/** Forms that change nothing of what readers or the Desk see: who is signed in, and by which password. */
export const CHANGES_NOTHING: readonly string[] = [
  '/desk/sign-in',
  '/desk/sign-out',
  '/desk/forgotten',
  '/desk/new-password',
  '/api/auth/[...all]',
];

/** Who may use a route, by its pattern; undefined for one that nobody has said anything of. */
export function whoMay(pattern: string): Who | undefined {
  return Object.hasOwn(ACCESS, pattern) ? ACCESS[pattern] : undefined;
}

/** May this person, or the operator, use what is open to `who`? */
export function mayUse(who: Who, actor: Actor | null, isOperator: boolean): boolean {
  if (who === 'anyone') return true;
  if (who === 'operator') return isOperator;
  return actor !== null && who.some((role) => role === actor.role);
}
