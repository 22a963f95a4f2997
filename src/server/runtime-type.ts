/** What one server process holds, as those who are handed it see it; made in runtime.ts. */
import type { Auth } from './accounts/auth';
import type { Backups } from './backup/scheduled';
import type { Db } from './db/client';
import type { SiteFinder } from './finder/site-finder';
import type { Tasks } from './health/tasks';
import type { YearMarks } from './holidays/year-marks';
import type { OldAddresses } from './old-addresses/old-addresses';
import type { Ask } from './plain-files/ask';
import type { JobContext, JobRunner } from './jobs/runner';
import type { PictureFiles } from './pictures/file-store';
import type { Mail } from './mail/outbox';
import type { StreetMap } from './map/street-map';
import type { Uploads } from './uploads/uploads';
import type { AddressBook } from './places/address-book';
import type { Geocoder } from './places/geocoder';
import type { Reached } from './site/reach';
import type { SiteAddresses } from './site/site-url';
import type { PlainFiles } from './plain-files/publish';
import type { FirstVisitKey } from './first-visit/key';
import type { Now } from './site/clock';
import type { ContentCache } from './site/content-cache';
import type { SiteSettings } from './site/settings';
import type { TaskWorker } from './worker/task-worker';
import type { World } from './world/world';

/** A site as those who are handed it see it. */
export interface Runtime {
  db: Db;
  /** runs over the database as it is at this moment, without holding up anybody for long */
  aside: <T>(run: (db: Db) => Promise<T>) => Promise<T>;
  auth: Auth;
  demo: boolean;
  /** is there a service that takes mail? */
  sendsMail: boolean;
  /** hands a mail to it at once and says what became of it; undefined where there is none */
  sendNow: ((mail: Mail) => Promise<Reached>) | undefined;
  /** as they are in force: the address is the one that the site is reached at, whether somebody set it or not */
  settings: () => SiteSettings;
  /** as they were stored, for the form that changes them */
  storedSettings: () => SiteSettings;
  /** has anybody begun with the site? Asked of the database until somebody has */
  isSetUp: () => Promise<boolean>;
  /** the key with which it is set up */
  firstVisit: FirstVisitKey;
  /** what the year says of days */
  yearMarks: YearMarks;
  /** where addresses of a former site lead */
  oldAddresses: OldAddresses;
  /** asks the site itself for one of its addresses, as a copy in plain files has it */
  ask: Ask;
  /** addresses of files that an operator gave the site */
  addressBook: AddressBook;
  /** asks the geocoder that a site names */
  geocoder: Geocoder;
  /** large files that are being sent */
  uploads: Uploads;
  /** the streets of its map, where it has them */
  streets: StreetMap;
  /** towns and coasts of the world */
  world: World;
  settingsRevision: () => number;
  /** reads the settings again after they were changed */
  reloadSettings: () => Promise<void>;
  now: () => Now;
  /** rises with every change of the content, drafts too */
  contentRevision: () => string;
  /** rises with every change that readers could see; part of each page's ETag */
  seenRevision: () => string;
  contentChanged: () => Promise<void>;
  /** what is known of the content while it stays as it is */
  cache: ContentCache;
  /** what readers may see, in memory */
  finder: SiteFinder;
  /** those that the site makes by itself */
  backups: Backups;
  /** copies of the public site in plain files */
  plainFiles: PlainFiles;
  /** may something be written, or is the disk of the data folder full? */
  hasRoom: () => boolean;
  /** which addresses are this site's */
  addresses: SiteAddresses;
  siteUrl: () => string;
  /** a short proof that this site wrote a text; the same for the same text */
  sign: (text: string) => string;
  /** the name of its machine, which its own calendar files carry */
  host: () => string;
  /** work in the background, and the threads for long computations: files and dates, pictures */
  jobs: JobRunner;
  worker: TaskWorker;
  pictureWorker: TaskWorker;
  /** where the files lie that are cut from pictures; undefined = in the database */
  pictureFiles: PictureFiles | undefined;
  jobContext: () => Promise<JobContext>;
  /** what the server does by itself, and how that went */
  tasks: Tasks;
  startedAt: Date;
  close: () => Promise<void>;
}
