/** A PMTiles archive (version 3) on the disk: read in parts, and looked at before the site takes it. */
import { type FileHandle, open } from 'node:fs/promises';
import { promisify } from 'node:util';
import { gunzip } from 'node:zlib';
import { bytesToHeader, Compression, type Header, PMTiles, type Source, TileType } from 'pmtiles';
import { z } from 'zod';
import { inBounds, type Point } from '@/core/geo/geo';
import { layersOf, readStreetTile, STREET_LAYERS, type TilePlace, tileAt } from '@/core/geo/street-tiles';
import { Problem } from '../problem';
import type { Looked } from './kept-streets';
import { serverWords } from '@/words/desk';

const w = serverWords.streets;
const unpack = promisify(gunzip);

/** A header has so many bytes. */
const HEADER_BYTES = 127;
/** No directory and no tile is as large as this, in bytes: what a file says of itself is not believed. */
const MOST_BYTES = 32 * 1024 * 1024;

/** An archive that is open: its tiles as they are stored, compressed. */
export class ArchiveFile {
  private constructor(
    private readonly handle: FileHandle,
    private readonly tiles: PMTiles,
    readonly header: Header,
    /** are its tiles compressed by gzip? */
    readonly packed: boolean,
  ) {}

  /** @throws Problem where the file is no such archive, or is cut off */
  static async open(path: string): Promise<ArchiveFile> {
    const handle = await open(path, 'r');
    try {
      const header = await readHeader(handle);
      const tiles = new PMTiles(sourceOf(handle, path), undefined, decompress);
      const known = await tiles.getHeader();
      const packed = known.tileCompression === Compression.Gzip;
      // Readers get tiles as they are stored: only directories are unpacked here.
      known.tileCompression = Compression.None;
      return new ArchiveFile(handle, tiles, header, packed);
    } catch (error) {
      await handle.close();
      throw error instanceof Problem ? error : new Problem('invalid', w.broken(), [], { cause: String(error) });
    }
  }

  /** A tile as it is stored; undefined where the archive has none. */
  async tile({ z, x, y }: TilePlace): Promise<Uint8Array | undefined> {
    const found = await this.tiles.getZxy(z, x, y);
    return found && new Uint8Array(found.data);
  }

  /** A tile as it is read. */
  async unpacked(place: TilePlace): Promise<Uint8Array | undefined> {
    const stored = await this.tile(place);
    return stored && this.packed ? new Uint8Array(await unpack(stored, { maxOutputLength: MOST_BYTES })) : stored;
  }

  metadata(): Promise<unknown> {
    return this.tiles.getMetadata();
  }

  close(): Promise<void> {
    return this.handle.close();
  }
}

async function decompress(data: ArrayBuffer, compression: Compression): Promise<ArrayBuffer> {
  if (compression === Compression.None || compression === Compression.Unknown) return data;
  const out = await unpack(new Uint8Array(data), { maxOutputLength: MOST_BYTES });
  return out.buffer.slice(out.byteOffset, out.byteOffset + out.byteLength) as ArrayBuffer;
}

const sourceOf = (handle: FileHandle, key: string): Source => ({
  getKey: () => key,
  getBytes: async (offset, length) => {
    const buffer = new Uint8Array(Math.min(length, MOST_BYTES));
    const { bytesRead } = await handle.read(buffer, 0, buffer.length, offset);
    return { data: buffer.buffer.slice(0, bytesRead) as ArrayBuffer };
  },
});

/** Files that people take for such an archive, by how they begin. */
const OTHERS: readonly [begins: string, what: () => string][] = [
  ['SQLite', w.aDatabase],
  ['PK', w.aZip],
  ['\u001f\u008b', w.gzipped],
  ['{', w.json],
];

async function readHeader(handle: FileHandle): Promise<Header> {
  const { size } = await handle.stat();
  const bytes = new Uint8Array(HEADER_BYTES);
  const { bytesRead } = await handle.read(bytes, 0, HEADER_BYTES, 0);
  const begins = Buffer.from(bytes.subarray(0, 16)).toString('latin1');
  if (!begins.startsWith('PMTiles')) {
    const other = OTHERS.find(([start]) => begins.trimStart().startsWith(start));
    throw new Problem('invalid', other ? other[1]() : w.noArchive());
  }
  const version = bytes[7];
  if (version !== 3) throw new Problem('invalid', w.otherVersion({ version: String(version) }));
  if (bytesRead < HEADER_BYTES) throw new Problem('invalid', w.cutOff({ has: inWords(size), says: inWords(HEADER_BYTES) }));
  const header = bytesToHeader(bytes.buffer as ArrayBuffer);
  const says = Math.max(
    header.rootDirectoryOffset + header.rootDirectoryLength,
    header.jsonMetadataOffset + header.jsonMetadataLength,
    (header.leafDirectoryOffset ?? 0) + (header.leafDirectoryLength ?? 0),
    header.tileDataOffset + (header.tileDataLength ?? 0),
  );
  if (says > size) throw new Problem('invalid', w.cutOff({ has: inWords(size), says: inWords(says) }));
  return header;
}

/** "1.3 GB" */
export function inWords(bytes: number): string {
  const [amount, unit] = bytes >= 1e9 ? [bytes / 1e9, 'GB'] : bytes >= 1e6 ? [bytes / 1e6, 'MB'] : [bytes / 1e3, 'kB'];
  return `${amount.toFixed(amount < 10 ? 1 : 0)} ${unit}`;
}

/** What an archive says of itself, as far as it is used. */
const metadataShape = z.object({
  attribution: z.string().max(2000).default(''),
  vector_layers: z.array(z.object({ id: z.string() })).default([]),
});

/**
 * Looks whether the site can draw an archive: streets in layers that it knows, where the site is.
 * @throws Problem that says what is wrong, and what would be right
 */
export async function lookAtArchive(archive: ArchiveFile, middle: Point): Promise<Looked> {
  const { header, packed } = archive;
  if (header.tileType !== TileType.Mvt) throw new Problem('invalid', w.pictures());
  if (!packed && header.tileCompression !== Compression.None && header.tileCompression !== Compression.Unknown)
    throw new Problem('invalid', w.otherCompression());
  const read = metadataShape.safeParse(await archive.metadata());
  const { attribution, vector_layers: layers } = read.success ? read.data : metadataShape.parse({});
  const bounds = { west: header.minLon, south: header.minLat, east: header.maxLon, north: header.maxLat };
  if (!(bounds.west < bounds.east && bounds.south < bounds.north)) throw new Problem('invalid', w.noBounds());
  const degrees = ({ lat, lng }: Point): string => `${lat.toFixed(2)}, ${lng.toFixed(2)}`;
  if (!inBounds(middle, bounds))
    throw new Problem(
      'invalid',
      w.elsewhere({
        from: degrees({ lat: bounds.south, lng: bounds.west }),
        to: degrees({ lat: bounds.north, lng: bounds.east }),
        site: degrees(middle),
      }),
    );
  const tile = await tileNear(archive, middle);
  if (!tile) throw new Problem('invalid', w.empty());
  const ids = layers.length ? layers.map(({ id }) => id) : layersOf(tile);
  const lacks = STREET_LAYERS.filter((layer) => !ids.includes(layer));
  if (lacks.length) throw new Problem('invalid', w.otherLayers({ has: ids.slice(0, 12).join(', ') || '-', lacks: lacks.join(', ') }));
  return { bounds, minZoom: header.minZoom, maxZoom: header.maxZoom, attribution };
}

/** The nearest tile around a point that there is, from the closest zoom on; it has to be one. */
async function tileNear(archive: ArchiveFile, middle: Point): Promise<Uint8Array | undefined> {
  const { minZoom, maxZoom } = archive.header;
  for (let zoom = maxZoom; zoom >= minZoom; zoom--) {
    const place = tileAt(middle, zoom);
    const tile = await archive.unpacked(place).catch(() => {
      throw new Problem('invalid', w.broken());
    });
    if (!tile) continue;
    try {
      readStreetTile(tile, place);
    } catch {
      throw new Problem('invalid', w.broken());
    }
    return tile;
  }
  return undefined;
}
