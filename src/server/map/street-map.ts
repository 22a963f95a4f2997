/** The site's street map: one archive in its data folder, which the operator gave it. Tiles are read from it as they are asked for. */
import { createHash } from 'node:crypto';
import { createReadStream, existsSync } from 'node:fs';
import { copyFile, mkdir, readdir, rename, rm, stat, statfs } from 'node:fs/promises';
import nodePath from 'node:path';
import { pipeline } from 'node:stream/promises';
import { setImmediate } from 'node:timers/promises';
import { eq, sql } from 'drizzle-orm';
import { LRUCache } from 'lru-cache';
import { type Bounds, type Point, projection } from '@/core/geo/geo';
import { type StreetPath, streetPaths } from '@/core/geo/street-paths';
import { readStreetTile, type StreetShape, type TilePlace, tilesOver, zoomFor } from '@/core/geo/street-tiles';
import { audited } from '../accounts/audit';
import type { Actor } from '../accounts/roles';
import type { Db } from '../db/client';
import { setting } from '../db/schema';
import { log } from '../health/log';
import { Problem } from '../problem';
import type { ContentCache } from '../site/content-cache';
import { ArchiveFile, inWords, lookAtArchive } from './archive-file';
import type { KeptStreets } from './kept-streets';
import { serverWords } from '@/words/desk';

const w = serverWords.streets;
const KEY = 'streets';
/** So much stays free on the disk when an archive was copied, in bytes. */
const ROOM = 200e6;
/** So many small charts are kept. */
const CHARTS_KEPT = 200;
/** A small chart is made of at most so many tiles. */
const MOST_TILES = 6;

/** What has streets, and reads them. One a process; another that serves the same site learns of a change by the settings' revision. */
export class StreetMap {
  private opened: { version: string; archive: Promise<ArchiveFile | undefined> } | undefined;
  private readonly drawn = new LRUCache<string, StreetPath[]>({ max: CHARTS_KEPT });

  constructor(
    private readonly db: Db,
    private readonly folder: string,
  ) {}

  private get maps(): string {
    return nodePath.join(this.folder, 'maps');
  }

  private pathOf({ version }: Pick<KeptStreets, 'version'>): string {
    return nodePath.join(this.maps, `${version}.pmtiles`);
  }

  /** What the map shows; undefined without streets. */
  async current(): Promise<KeptStreets | undefined> {
    const kept = await this.kept();
    return kept?.off ? undefined : kept;
  }

  /** What the site has, shown or not; undefined without a street map, or where its file is not on this machine. */
  async kept(): Promise<KeptStreets | undefined> {
    const [row] = await this.db.select({ value: setting.value }).from(setting).where(eq(setting.key, KEY));
    const kept = row?.value as KeptStreets | undefined;
    return kept && existsSync(this.pathOf(kept)) ? kept : undefined;
  }

  private async archive(kept: KeptStreets): Promise<ArchiveFile | undefined> {
    if (this.opened?.version !== kept.version) {
      const before = this.opened;
      this.opened = { version: kept.version, archive: ArchiveFile.open(this.pathOf(kept)).catch(() => undefined) };
      await (await before?.archive)?.close();
    }
    return this.opened.archive;
  }

  /** A tile as it is stored, and whether it is compressed by gzip; undefined where there is none. */
  async tile(version: string, place: TilePlace): Promise<{ bytes: Uint8Array; packed: boolean } | undefined> {
    // What a version has never changes: one that is open needs no look at the database.
    const archive = await (this.opened?.version === version ? this.opened.archive : this.open(version));
    const bytes = await archive?.tile(place);
    return archive && bytes && { bytes, packed: archive.packed };
  }

  private async open(version: string): Promise<ArchiveFile | undefined> {
    const kept = await this.current();
    return kept?.version === version ? this.archive(kept) : undefined;
  }

  /**
   * The streets of a part of the map as a drawing of `width` × `height` has them; undefined where the map has none. A tile that cannot be read
   * is left out: the page that shows the drawing is about something else.
   */
  async paths(kept: KeptStreets, bounds: Bounds, width: number, height: number): Promise<StreetPath[] | undefined> {
    if (!overlaps(kept.bounds, bounds)) return undefined;
    const zoom = zoomFor(bounds, width, { most: kept.maxZoom, tiles: MOST_TILES });
    if (zoom < kept.minZoom) return undefined;
    const key = [kept.version, width, height, bounds.west, bounds.south, bounds.east, bounds.north].join(' ');
    const known = this.drawn.get(key);
    if (known) return known;
    const archive = await this.archive(kept);
    if (!archive) return undefined;
    const shapes: StreetShape[] = [];
    for (const place of tilesOver(bounds, zoom)) {
      try {
        const tile = await archive.unpacked(place);
        if (tile) shapes.push(...readStreetTile(tile, place, bounds));
      } catch (error) {
        log.warn({ place, error: String(error) }, 'A tile of the street map cannot be read');
      }
      // A dense town's tile takes some 20 ms: others are answered between two.
      await setImmediate();
    }
    const paths = streetPaths(shapes, projection(bounds, width, height), width, height);
    this.drawn.set(key, paths);
    return paths;
  }

  /**
   * Takes an archive in: looked at where it lies, copied, and only then the site's. The one before stays until then.
   * @throws Problem that says what is wrong with it
   */
  async add(path: string, middle: Point, by: Actor, at: Date): Promise<KeptStreets> {
    const found = await stat(path).catch(() => undefined);
    if (!found?.isFile()) throw new Problem('invalid', w.noFile({ path }));
    if (!middle.lat && !middle.lng) throw new Problem('conflict', w.noMiddle());
    const source = await ArchiveFile.open(path);
    const looked = await lookAtArchive(source, middle).finally(() => source.close());
    await mkdir(this.maps, { recursive: true });
    const { bavail, bsize } = await statfs(this.maps);
    if (found.size + ROOM > bavail * bsize)
      throw new Problem('too-large', w.noRoom({ has: inWords(bavail * bsize), needs: inWords(found.size + ROOM) }));
    const version = await hashOf(path);
    const kept: KeptStreets = { format: 1, version, name: nodePath.basename(path), bytes: found.size, at: at.toISOString(), ...looked };
    const to = this.pathOf(kept);
    if (!existsSync(to)) {
      // Beside its place first: a process that ends while it copies leaves no half of a map.
      await copyFile(path, `${to}.new`);
      await rename(`${to}.new`, to);
    }
    await this.keep(kept, by);
    await this.clear(version);
    return kept;
  }

  /** Takes the streets off the map, or puts them back: their file stays. */
  async show(shown: boolean, by: Actor): Promise<void> {
    const kept = await this.kept();
    if (!kept) throw new Problem('missing', w.noStreets());
    const { off: _, ...rest } = kept;
    await this.keep(shown ? rest : { ...rest, off: true }, by);
  }

  /** Takes the street map away with its file; returns what it was. */
  async remove(by: Actor): Promise<KeptStreets | undefined> {
    const kept = await this.kept();
    await this.keep(undefined, by);
    await this.clear('');
    return kept;
  }

  private async keep(value: KeptStreets | undefined, by: Actor): Promise<void> {
    await this.db.transaction(async (tx) => {
      if (value)
        await tx
          .insert(setting)
          .values({ key: KEY, value })
          .onConflictDoUpdate({ target: setting.key, set: { value, revision: sql`${setting.revision} + 1` } });
      else await tx.delete(setting).where(eq(setting.key, KEY));
      await audited(tx, by, { kind: 'settings', id: KEY, what: { code: 'changed' } });
    });
  }

  /** Files of maps that the site had before. */
  private async clear(version: string): Promise<void> {
    if (this.opened && this.opened.version !== version) {
      await (await this.opened.archive)?.close();
      this.opened = undefined;
    }
    for (const file of existsSync(this.maps) ? await readdir(this.maps) : [])
      if (!version || !file.startsWith(version)) await rm(nodePath.join(this.maps, file), { force: true });
  }

  /** Closes its file. */
  async stop(): Promise<void> {
    await (await this.opened?.archive)?.close();
    this.opened = undefined;
  }
}

const overlaps = (a: Bounds, b: Bounds): boolean => a.west < b.east && a.east > b.west && a.south < b.north && a.north > b.south;

/** What tells one archive from another: its bytes. */
async function hashOf(path: string): Promise<string> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(path), hash);
  return hash.digest('hex').slice(0, 16);
}

/** What the map of a site shows, for readers' pages: read once for each state of what they may see. */
export const siteStreets = ({ cache, streets }: { cache: ContentCache; streets: StreetMap }): Promise<KeptStreets | undefined> =>
  cache.ofReaders().of('streets', () => streets.current());
