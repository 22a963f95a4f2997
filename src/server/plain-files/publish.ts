/** The public site as plain files, for a web server that knows nothing of it. */
import path from 'node:path';
import { z } from 'zod';
import { firstDayOfMonth, monthNumberOf } from '@/core/day/day';
import type { CopyPlan } from '@/core/plain-files/plan';
import type { Db } from '../db/client';
import { invalid, Problem, read } from '../problem';
import type { Now } from '../site/clock';
import type { SiteSettings } from '../site/settings';
import type { Ask } from './ask';
import { type Crawl, crawl } from './crawl';
import { type Asked, CopyFolder, type FolderReport, readList } from './folder';
import { formerAddresses } from './former';
import { serverWords } from '@/words/desk';

const w = serverWords.plainFiles;

/** Views reach so many months ahead unless somebody says otherwise. */
export const USUAL_MONTHS = 12;
const MOST_MONTHS = 60;
/** While something is published, what was read is read again, so that pages agree with each other; so often at most. */
const MOST_ROUNDS = 3;
/** So many addresses stand in a sentence by name. */
const MOST_NAMED = 8;

/** An address; empty or null = none, absent = that of last time. */
const address = z
  .string()
  .max(300)
  .transform((text) => text.trim().replace(/\/+$/, ''))
  .refine((text) => text === '' || isWebAddress(text), w.addressWrong())
  .transform((text) => text || null)
  .nullish();
const wrong = w.monthsWrong({ most: MOST_MONTHS });

/** What somebody asks for: where the files go, where they will be reached, and where the site itself answers. */
export const publishInput = z.object({
  folder: z.string().min(1, w.folderMissing()).max(4096),
  url: address,
  server: address,
  months: z.coerce.number(wrong).int(wrong).min(0, wrong).max(MOST_MONTHS, wrong).optional(),
});
/** The same, checked. */
export type PublishInput = z.infer<typeof publishInput>;

function isWebAddress(text: string): boolean {
  const url = URL.canParse(text) ? new URL(text) : undefined;
  return url !== undefined && /^https?:$/.test(url.protocol) && !url.search && !url.hash && !url.username;
}

/** What a site needs to be copied. */
export interface PublishSource {
  db: Db;
  ask: Ask;
  now: () => Pick<Now, 'day' | 'ms'>;
  settings: () => Pick<SiteSettings, 'firstWeekday' | 'secondLanguage' | 'views'>;
  /** how the site calls itself where the copy has no address */
  siteUrl: () => string;
  /** the same while readers would see the same */
  state: () => string;
  /** where its own data lies: no place for a copy */
  dataFolder: string;
}

/** What was written, and what was not. */
export interface PublishReport extends FolderReport, Pick<Crawl, 'server' | 'beyond' | 'dead'> {
  months: number;
  url: string | null;
  /** where what a copy cannot answer leads; null = left out */
  answers: string | null;
}

/** How far it is. */
export interface Progress {
  done: number;
  known: number;
}

/** Writes a copy. @throws Problem where the folder is not to be written, or pages lead to what the site does not answer */
export async function publishFiles(rt: PublishSource, input: PublishInput, progress?: (at: Progress) => void): Promise<PublishReport> {
  const folder = path.resolve(input.folder);
  refuseFolder(folder, rt.dataFolder);
  const into = await CopyFolder.open(folder);
  const how = likeLastTime(input, into.before?.asked);
  try {
    const found = await readSettled(rt, how, into, progress);
    into.keepOnly(found.files);
    const report = await into.finish(how, rt.now().ms);
    const { server, beyond, dead } = found;
    return { ...report, server, beyond, dead: dead.sort(), months: how.months, url: how.url ?? null, answers: how.server ?? null };
  } catch (error) {
    await into.abandon();
    throw error;
  }
}

/** What nobody said is as it was last time. */
function likeLastTime({ url, server, months }: PublishInput, last: Asked | undefined): Asked {
  return {
    url: url === undefined ? last?.url : (url ?? undefined),
    server: server === undefined ? last?.server : (server ?? undefined),
    months: months ?? last?.months ?? USUAL_MONTHS,
  };
}

/** Reads the site until nothing changed meanwhile. */
async function readSettled(
  rt: PublishSource,
  { months, ...copy }: Asked,
  into: CopyFolder,
  progress?: (at: Progress) => void,
): Promise<Crawl> {
  for (let round = 1; ; round++) {
    const state = rt.state();
    const found = await crawl({
      ask: rt.ask,
      plan: planOf(rt, months),
      copy,
      site: copy.url ?? copy.server ?? rt.siteUrl(),
      own: rt.siteUrl(),
      former: await formerAddresses(rt.db),
      put: (file, content) => into.put(file, content),
      progress: (done, known) => progress?.({ done, known }),
    });
    const settled = rt.state() === state || round === MOST_ROUNDS;
    if (settled && found.failed.length)
      throw new Problem('failed', w.pagesUnreadable({ addresses: found.failed.slice(0, MOST_NAMED).join(', ') }));
    if (settled) return found;
  }
}

/** From the month before on: who looks for what was on last week finds it. */
function planOf({ now, settings }: PublishSource, months: number): CopyPlan {
  const { firstWeekday, views, secondLanguage } = settings();
  const today = now().day;
  const month = monthNumberOf(today);
  return {
    today,
    firstWeekday,
    views,
    languages: secondLanguage ? [secondLanguage] : [],
    span: { from: firstDayOfMonth(month - 1), to: firstDayOfMonth(month + months + 1) - 1 },
  };
}

/** Neither the data nor what holds it becomes readable to everybody. */
function refuseFolder(folder: string, dataFolder: string): void {
  const within = (one: string, other: string): boolean =>
    one === other || one.startsWith(other.endsWith(path.sep) ? other : other + path.sep);
  const data = path.resolve(dataFolder);
  if (within(folder, data) || within(data, folder)) throw invalid('folder', w.notThere({ folder: data }));
}

/** Checks what somebody asks for. @throws Problem by field */
export const readPublishInput = (raw: unknown): PublishInput => read(publishInput, raw);

/** Copies of a site, one at a time. */
export class PlainFiles {
  #writing: { at: Progress; since: Date } | undefined;
  #last: { folder: string; report: PublishReport } | { folder: string; failure: unknown } | undefined;

  /** @param folder the one that coordinators may have written from the Desk; undefined = the operator named none */
  constructor(
    private readonly source: PublishSource,
    readonly folder: string | undefined,
  ) {}

  /** How far the one is that is being written; undefined = none is. */
  get writing(): { at: Progress; since: Date } | undefined {
    return this.#writing;
  }

  /** How the last one since the start went. */
  get last(): { folder: string; report: PublishReport } | { folder: string; failure: unknown } | undefined {
    return this.#last;
  }

  /** What lies in the Desk's folder. */
  async list(): Promise<Awaited<ReturnType<typeof readList>>> {
    return this.folder === undefined ? undefined : readList(this.folder);
  }

  /** Writes a copy. @throws Problem "conflict" while another is being written, and as publishFiles does */
  async write(input: PublishInput): Promise<PublishReport> {
    if (this.#writing) throw new Problem('conflict', w.underWay());
    const writing = { at: { done: 0, known: 0 }, since: new Date() };
    this.#writing = writing;
    try {
      const report = await publishFiles(this.source, input, (at) => {
        writing.at = at;
      });
      this.#last = { folder: input.folder, report };
      return report;
    } catch (failure) {
      this.#last = { folder: input.folder, failure };
      throw failure;
    } finally {
      this.#writing = undefined;
    }
  }
}
