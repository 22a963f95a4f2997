/** Backups that a site makes by itself: one a day, in a folder, of which some are kept by rule. */
import { mkdir, readdir, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { USUAL_RULE, whichGo } from '@/core/collections/keep-rule';
import { isoDay, parseIsoDay } from '@/core/day/day';
import { isoTime } from '@/core/day/plain-date-time';
import type { Db } from '../db/client';
import type { Now } from '../site/clock';
import { type BackupReport, writeBackup } from './write';

/** From this minute of the site's day on: when hardly anybody reads. */
const FROM_MINUTE = 180;
const NAME = /^almanac-(\d{4}-\d{2}-\d{2})T(\d{4})\.zip$/;

/** A backup that lies in the folder. */
export interface KeptBackup {
  name: string;
  /** the site's day on which it was made */
  day: number;
  at: Date;
  bytes: number;
}

/** A backup that is older than so many days, or none after the first day, is worth a word. */
const OLD_DAYS = 3;
/** Every page of a coordinator's Desk asks for trouble: the folder is looked at again after so long, in milliseconds. */
const LOOK_AGAIN = 60_000;
const DAY_MS = 86_400_000;

/** What is wrong with the backups of a site. */
export type BackupTrouble = { kind: 'none' } | { kind: 'old'; days: number };

/** What backups need of a site. */
export interface BackupSite {
  /** over the database as it is at one moment */
  aside: <T>(run: (db: Db) => Promise<T>) => Promise<T>;
  now: () => Now;
  /** where they lie; undefined = the site makes none by itself */
  folder: string | undefined;
}

/** Makes and keeps a site's backups. */
export class Backups {
  #looked: { at: number; last: KeptBackup | undefined } | undefined;
  #making: { since: Date; done: Promise<BackupReport | undefined> } | undefined;

  constructor(private readonly site: BackupSite) {}

  /** Where they lie; undefined = the site makes none by itself. */
  get folder(): string | undefined {
    return this.site.folder;
  }

  /** Since when one is being made; undefined = none is. */
  get makingSince(): Date | undefined {
    return this.#making?.since;
  }

  /** Those that there are, oldest first. */
  async list(): Promise<KeptBackup[]> {
    const { folder } = this.site;
    if (!folder) return [];
    const names = await readdir(folder).catch(() => []);
    const found = await Promise.all(
      names.sort().map(async (name): Promise<KeptBackup[]> => {
        const day = parseIsoDay(NAME.exec(name)?.[1] ?? '');
        const file = day === undefined ? undefined : await stat(path.join(folder, name)).catch(() => undefined);
        return file && day !== undefined ? [{ name, day, at: file.mtime, bytes: file.size }] : [];
      }),
    );
    return found.flat();
  }

  /** What is wrong with them; undefined while nothing is, and where the site makes none by itself. @param startedAt when it was started */
  async trouble(now: Date, startedAt: Date): Promise<BackupTrouble | undefined> {
    if (!this.site.folder) return undefined;
    const at = performance.now();
    if (!this.#looked || at - this.#looked.at > LOOK_AGAIN) this.#looked = { at, last: (await this.list()).at(-1) };
    const { last } = this.#looked;
    if (!last) return now.getTime() - startedAt.getTime() > DAY_MS ? { kind: 'none' } : undefined;
    const days = Math.floor((now.getTime() - last.at.getTime()) / DAY_MS);
    return days >= OLD_DAYS ? { kind: 'old', days } : undefined;
  }

  /** Makes today's where there is none yet and the night has come; what of it was made. */
  async makeDue(): Promise<BackupReport | undefined> {
    const { folder, now } = this.site;
    if (!folder) return undefined;
    const last = (await this.list()).at(-1);
    const { day, minute } = now();
    // A site that has none yet does not wait for the night.
    if (last && (last.day >= day || (minute < FROM_MINUTE && last.day === day - 1))) return undefined;
    return this.make();
  }

  /** Makes one now, and removes what the rule keeps no longer; whoever asks while one is being made waits for that one. */
  make(): Promise<BackupReport | undefined> {
    this.#making ??= {
      since: new Date(),
      done: this.#make().finally(() => {
        this.#making = undefined;
      }),
    };
    return this.#making.done;
  }

  async #make(): Promise<BackupReport | undefined> {
    const { aside, folder, now } = this.site;
    if (!folder) return undefined;
    await mkdir(folder, { recursive: true, mode: 0o700 });
    const { day, minute } = now();
    const name = `almanac-${isoDay(day)}T${isoTime(minute).replace(':', '')}.zip`;
    const report = await aside((db) => writeBackup(db, { path: path.join(folder, name), madeAt: new Date(), current: true }));
    this.#looked = undefined;
    for (const old of whichGo(await this.list(), (one) => one.day, USUAL_RULE)) await rm(path.join(folder, old.name), { force: true });
    return report;
  }
}
