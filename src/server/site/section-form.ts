/** One section of the settings: read from its form, saved with what it was before, and put back. */
import { createHash } from 'node:crypto';
import { eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { settingsWords } from '@/words/desk';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { countListings, startRebuild } from '../dates/rebuild';
import { setting } from '../db/schema';
import { Problem, read } from '../problem';
import type { Runtime } from '../runtime-type';
import type { Now } from './clock';
import { chartAfterMove, writeBaseChart } from './chart';
import { type FormSection, namesOf, type SettingsSection } from './sections';
import type { LastChange } from './last-change';
import { readSettings } from './read';
import type { SiteSettings } from './settings';
import {
  checkTogether,
  factField,
  filterField,
  readFilterOrder,
  readShownFacts,
  readViews,
  saveSettings,
  settingsInput,
  viewField,
} from './write';

const keyOf = (section: SettingsSection): string => `before:${section}`;

const only = (settings: SiteSettings, names: readonly (keyof SiteSettings)[]): Partial<SiteSettings> =>
  Object.fromEntries(names.map((name) => [name, settings[name]]));

/**
 * The settings with what a section's form has. A field that the form did not have stays as it was.
 * @throws Problem at the field that is wrong
 */
export function readSection(section: FormSection, sent: Readonly<Record<string, string>>, stored: SiteSettings): SiteSettings {
  const given = namesOf(section).filter((name) => name in sent);
  const shape = Object.fromEntries(Object.entries(settingsInput.shape).filter(([name]) => given.some((one) => one === name)));
  let next: SiteSettings = { ...stored, ...(read(z.object(shape), sent) as Partial<SiteSettings>) };
  if (section === 'readers')
    next = {
      ...next,
      views: readViews(sent, next.firstView, next.firstViewPhone),
      filters: readFilterOrder(sent),
      ...readShownFacts(sent),
    };
  if (section === 'sending' || section === 'map') checkTogether(next);
  return next;
}

/** What a section's settings are now, as a mark that its form carries: another one means that somebody changed them meanwhile. */
export const stampOf = (section: FormSection, settings: SiteSettings): string =>
  createHash('sha256')
    .update(JSON.stringify(only(settings, namesOf(section) as (keyof SiteSettings)[])))
    .digest('hex')
    .slice(0, 12);

/** @throws Problem where a section was changed since its form was opened */
export function checkStamp(section: FormSection, sent: Readonly<Record<string, string>>, stored: SiteSettings): void {
  if (sent.was !== undefined && sent.was !== stampOf(section, stored)) throw new Problem('conflict', settingsWords.page.meanwhile());
}

/** What differs between two sets of settings, as it is in the second. */
export function differing(from: SiteSettings, to: SiteSettings): (keyof SiteSettings)[] {
  return (Object.keys(to) as (keyof SiteSettings)[]).filter((name) => JSON.stringify(from[name]) !== JSON.stringify(to[name]));
}

/** Who changes a section, and when. */
export interface SectionChange {
  section: SettingsSection;
  by: Actor;
  at: Date;
  undone?: boolean;
}

/** Saves settings and keeps how those that changed were before; returns which these are. Nothing is written where none did. */
export async function saveSection(
  tx: Db,
  stored: SiteSettings,
  next: SiteSettings,
  { section, by, at, undone = false }: SectionChange,
): Promise<(keyof SiteSettings)[]> {
  const names = differing(stored, next);
  if (!names.length) return names;
  // Somebody else may have saved another section since these were read: theirs stays.
  await tx.select({ key: setting.key }).from(setting).where(eq(setting.key, 'site')).for('update');
  const { settings: current } = await readSettings(tx);
  await saveSettings(tx, { ...current, ...only(next, names) }, by);
  const value: LastChange = {
    format: 1,
    before: only(stored, names),
    after: only(next, names),
    at: at.toISOString(),
    by: by.name,
    undone,
  };
  await tx
    .insert(setting)
    .values({ key: keyOf(section), value })
    .onConflictDoUpdate({ target: setting.key, set: { value, revision: sql`${setting.revision} + 1` } });
  return names;
}

/** The last change of a section that can still be taken back: what it made is as it made it. */
export async function lastChange(db: Db, section: SettingsSection, stored: SiteSettings): Promise<LastChange | undefined> {
  const [row] = await db
    .select({ value: setting.value })
    .from(setting)
    .where(eq(setting.key, keyOf(section)));
  const last = row?.value as LastChange | undefined;
  const stands = (name: string, value: unknown): boolean => JSON.stringify(stored[name as keyof SiteSettings]) === JSON.stringify(value);
  return last && Object.entries(last.after).every(([name, value]) => stands(name, value)) ? last : undefined;
}

/**
 * The settings as they were before a section's last change, and whether that takes it back or puts it back again.
 * @throws Problem where there was none, or what it made has been changed since
 */
export async function putBack(db: Db, section: SettingsSection, stored: SiteSettings): Promise<{ next: SiteSettings; undone: boolean }> {
  const last = await lastChange(db, section, stored);
  if (!last) throw new Problem('conflict', settingsWords.page.moved());
  return { next: { ...stored, ...last.before }, undone: !last.undone };
}

/** A section as its form has it, by field: settings as text, orders as numbers, ticks as "on". */
export function formValues(settings: SiteSettings): Record<string, string> {
  const numbered = <T extends string>(names: readonly T[], fieldOf: (name: T) => string): [string, string][] =>
    names.map((name, i) => [fieldOf(name), String(i + 1)]);
  const plain = Object.entries(settings).flatMap(([name, value]): [string, string][] =>
    typeof value === 'string' || typeof value === 'number' ? [[name, String(value)]] : [],
  );
  return Object.fromEntries([
    ...plain,
    ...numbered(settings.views, viewField),
    ...numbered(settings.filters, filterField),
    ...settings.venueShows.map((fact) => [factField('venue', fact), 'on'] as const),
    ...settings.organizerShows.map((fact) => [factField('organizer', fact), 'on'] as const),
  ]);
}

/** What a section's change did: which settings, and the job that makes all dates again, '' where none has to. */
export interface SectionChanged {
  names: (keyof SiteSettings)[];
  job: string;
}

/** Saves what differs, with what follows from it: a chart around a new middle, all dates by a new clock or up to a new horizon. */
export async function changeSection(
  { db, world }: Pick<Runtime, 'db' | 'world'>,
  { stored, next, now, ...change }: Omit<SectionChange, 'at'> & { stored: SiteSettings; next: SiteSettings; now: Now },
): Promise<SectionChanged> {
  const chart = await chartAfterMove({ db, world }, stored, next);
  const listings = await countListings(db);
  return db.transaction(async (tx) => {
    const names = await saveSection(tx, stored, next, { ...change, at: new Date(now.ms) });
    if (chart) await writeBaseChart(tx, chart, world.version());
    const anew = names.includes('zone') || names.includes('horizonMonths');
    return { names, job: anew ? await startRebuild(tx, 'rebuild', listings, now) : '' };
  });
}
