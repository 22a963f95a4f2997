/** What a site does by itself, again and again. A failure is logged and seen on the health page, and the next round tries again. */
import type { Db } from './db/client';
import type { Backups } from './backup/scheduled';
import { countListings, startRebuild, whyRebuild } from './dates/rebuild';
import { refreshStatistics } from './db/statistics';
import type { SiteFinder } from './finder/site-finder';
import type { Task, Tasks } from './health/tasks';
import type { JobRunner } from './jobs/runner';
import { keepTimes } from './listings/publication-times';
import { tidy } from './listings/tidy';
import { sendWaiting } from './mail/outbox';
import type { Now } from './site/clock';
import type { PictureFiles } from './pictures/file-store';
import { keepChart } from './site/chart';
import type { SiteSettings } from './site/settings';
import { startValidation } from './validation/write';
import type { World } from './world/world';

const SECOND = 1_000;
const MAIL_EVERY = 15 * SECOND;
const HOUR = 3_600 * SECOND;
const VALIDATION_EVERY = 60 * SECOND;
const TIMES_EVERY = 10 * SECOND;
/** It takes over what changed even when no reader asks: notes of changes are kept for an hour. */
const FINDER_EVERY = 600 * SECOND;
/** While somebody is at work, Proof waits for a pause. */
const VALIDATION_AFTER = 2 * SECOND;
/** A mail under way may take so long when the site is told to stop. */
const STOP_WITHIN = 5 * SECOND;
/** The first round comes after the start, which it does not hold up. */
const FIRST_AFTER = 5 * SECOND;

/** What the schedules need of a site. */
export interface ScheduledSite {
  db: Db;
  tasks: Tasks;
  jobs: JobRunner;
  /** where mail goes; undefined = it stays in the outbox */
  smtp: string | undefined;
  now: () => Now;
  settings: () => SiteSettings;
  contentChanged: () => Promise<void>;
  finder: Pick<SiteFinder, 'current' | 'check'>;
  world: World;
  backups: Backups;
  /** where files lie that are cut from pictures; undefined = in the database, with them */
  pictureFiles: PictureFiles | undefined;
  /** is it embedded? A server looks after itself */
  embedded: boolean;
  /** may something be written? Without room nothing is begun */
  hasRoom: () => boolean;
}

/** Starts and stops what a site does by itself. */
export class Schedules {
  private readonly timers: NodeJS.Timeout[] = [];
  private pause: NodeJS.Timeout | undefined;
  private sending: Promise<void> | undefined;
  private stopped = false;

  constructor(private readonly site: ScheduledSite) {}

  start(): void {
    const { smtp } = this.site;
    const every = (ms: number, round: () => void): void =>
      void this.timers.push(setInterval(() => this.site.hasRoom() && round(), ms).unref());
    if (smtp) every(MAIL_EVERY, () => this.sendMail(smtp));
    every(HOUR, () => this.hourly());
    every(VALIDATION_EVERY, () => this.validate());
    every(FINDER_EVERY, () => void this.attempt('finder', () => this.site.finder.current()));
    every(TIMES_EVERY, () => void this.attempt('times', () => this.keepTimes()));
    const first = setTimeout(() => {
      this.hourly();
      void this.attempt('times', () => this.keepTimes());
      this.validateSoon();
    }, FIRST_AFTER);
    this.timers.push(first.unref());
  }

  /** Looks at what changed, when nobody changes anything for a moment. */
  validateSoon(): void {
    clearTimeout(this.pause);
    this.pause = setTimeout(() => this.validate(), VALIDATION_AFTER).unref();
  }

  /** Ends after the mail that is being sent, if that does not take long: else it is sent again when its lease is over, as the same mail. */
  async stop(): Promise<void> {
    this.stopped = true;
    for (const timer of this.timers) clearInterval(timer);
    clearTimeout(this.pause);
    await Promise.race([this.sending, new Promise((done) => setTimeout(done, STOP_WITHIN).unref())]);
  }

  /** What fails because the site is being stopped did not fail: the database went away under it. */
  private attempt(task: Task, work: () => Promise<unknown>): Promise<void> {
    return this.site.tasks.attempt(task, async () => {
      try {
        await work();
      } catch (error) {
        if (!this.stopped) throw error;
      }
    });
  }

  private sendMail(smtpUrl: string): void {
    if (this.sending) return;
    const { db, settings } = this.site;
    const round = this.attempt('mail', () => sendWaiting(db, { smtpUrl, settings: settings(), stopped: () => this.stopped }));
    this.sending = round.finally(() => {
      this.sending = undefined;
    });
  }

  private hourly(): void {
    const { jobs } = this.site;
    // What was under way when a process ended, this one or another, goes on.
    jobs.wake();
    void this.attempt('horizon', () => this.keepHorizon());
    void this.attempt('chart', () => this.keepChart());
    void this.attempt('tidy', () => this.tidyUp());
    if (this.site.backups.folder) void this.attempt('backup', () => this.site.backups.makeDue());
    void this.lookAfterDatabase().then(() => this.attempt('finder', () => this.site.finder.check()));
  }

  private validate(): void {
    const { db, jobs, now } = this.site;
    void this.attempt('validation', async () => {
      if (await db.transaction((tx) => startValidation(tx, now()))) jobs.wake();
    });
  }

  private async keepChart(): Promise<void> {
    if (await keepChart(this.site)) await this.site.contentChanged();
  }

  private async keepTimes(): Promise<void> {
    const { db, now, settings, contentChanged } = this.site;
    const due = await db.transaction((tx) => keepTimes(tx, { now: now(), settings: settings() }));
    if (due.published + due.withdrawn + due.held) await contentChanged();
  }

  private async keepHorizon(): Promise<void> {
    const { db, now, settings, jobs } = this.site;
    const why = await whyRebuild(db, settings(), now());
    if (!why) return;
    const total = await countListings(db);
    await db.transaction((tx) => startRebuild(tx, 'horizon', total, now(), why));
    jobs.wake();
  }

  private async lookAfterDatabase(): Promise<void> {
    const { db, embedded } = this.site;
    if (embedded) await this.attempt('statistics', () => refreshStatistics(db));
  }

  private async tidyUp(): Promise<void> {
    const { db, now, contentChanged, pictureFiles } = this.site;
    const { listings, pictures } = await db.transaction((tx) => tidy(tx, new Date(now().ms), new Date()));
    if (listings) await contentChanged();
    await pictureFiles?.forget(pictures);
  }
}
